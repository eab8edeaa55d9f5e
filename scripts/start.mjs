// npm start: installs what is missing, builds, starts the database and the server, prints the address. Ctrl-C ends
// everything.
import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { dataFolder, freePort, startPostgres } from "./postgres.mjs";
import { BackOff, hold, holderOf } from "./supervise.mjs";
import { built, fail, npmPackages, optionalPackages, root, systemPackages } from "./prepare.mjs";

const reset = process.argv.includes("--reset");
const dev = process.argv.includes("--dev");

if (Number(process.versions.node.split(".")[0]) < 20)
  fail(`Node.js 20 or newer is needed; this is ${process.version}.`);
systemPackages(["postgresql"]);
optionalPackages(["apertium", "apertium-eng-spa"], "proposals of translations between English and Spanish");
optionalPackages(["espeak-ng", "ffmpeg"], "films of decks");
npmPackages();
built();

const data = dataFolder();
mkdirSync(data, { recursive: true });
const lock = hold(data);
if (!lock) {
  const holder = holderOf(data);
  if (reset) fail("Unitext is running; stop it before the demo is made again.");
  process.stdout.write(
    `Unitext runs already${holder?.port ? ` at http://127.0.0.1:${holder.port}/` : ""} (process ${holder?.pid}). Ctrl-C in its window stops it.\n`,
  );
  process.exit(0);
}
if (reset) {
  const before = await startPostgres(data);
  if (!before.ours)
    fail("The database of this data folder is used by another program; stop it before the demo is made again.");
  before.stop();
  for (const name of readdirSync(data))
    if (name !== "unitext.lock") rmSync(join(data, name), { recursive: true, force: true });
}

const say = (text) => process.stderr.write(`unitext: ${text}\n`);
const seconds = (count) => new Promise((resolve) => setTimeout(resolve, count * 1000));
let database = await startPostgres(data);
const port = await freePort(Number(process.env.UNITEXT_PORT ?? 4280));
lock.at(port);
/** The key of the house, beside the database and not in it. */
const keyFile = join(data, "house.key");
const helpers = [];
const services = [];
/** Where the stand-in for a data service gives a workbook; empty without one. */
let dataAddress = "";
let server;
let ending = false;
let greeted = false;
const serverBackOff = new BackOff();
const databaseBackOff = new BackOff();

/** The program of the demo and how it runs. */
const demoProgram = () => ({
  program: join(root, "dist/server/demo.js"),
  options: {
    cwd: root,
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, UNITEXT_ROOT: root, UNITEXT_DATABASE: database.url, UNITEXT_KEY_FILE: keyFile },
  },
});

/** Puts the demo decks into a database that has no deck; UNITEXT_DEMO=0 leaves it empty. */
function loadDemo() {
  if (process.env.UNITEXT_DEMO === "0") return;
  const { program, options } = demoProgram();
  const { status } = spawnSync(process.execPath, [program], options);
  if (status !== 0) say("the demo decks could not be loaded; Unitext starts without them.");
}

/** Makes the film of the demo while Unitext runs, once. */
function makeDemoFilm() {
  if (process.env.UNITEXT_DEMO === "0") return;
  const { program, options } = demoProgram();
  // In a session of its own, which yields to the server's.
  services.push(spawn(process.execPath, [program, "--film"], { ...options, stdio: "ignore", detached: true }));
}

/**
 * Starts the stand-in for a data service with the demo: it gives gauge readings, and the next quarter on request. Its
 * host is allowed as one that workbooks are fetched from. UNITEXT_DEMO=0 starts none.
 */
async function serveData() {
  if (process.env.UNITEXT_DEMO === "0") return;
  const at = await freePort(port + 11);
  services.push(spawn(process.execPath, [join(root, "demo/service.mjs"), String(at)], { stdio: "ignore" }));
  process.env.UNITEXT_SOURCE_HOSTS = [process.env.UNITEXT_SOURCE_HOSTS, `127.0.0.1:${at}`].filter(Boolean).join(",");
  dataAddress = `http://127.0.0.1:${at}/station-gauges.xlsx`;
}
/** Starts the server. One that ends by itself is started again, after a growing delay. */
function serve() {
  serverBackOff.started();
  server = spawn(process.execPath, [...(dev ? ["--watch"] : []), join(root, "dist/server/main.js")], {
    cwd: root,
    detached: true,
    // The server's messages go to its log; a fault at its start is shown here.
    stdio: ["ignore", "ignore", "inherit", "ipc"],
    env: {
      ...process.env,
      NODE_ENV: "production",
      UNITEXT_ROOT: root,
      UNITEXT_DATABASE: database.url,
      UNITEXT_PORT: String(port),
      UNITEXT_WORKER: join(root, "dist/server/worker.js"),
      UNITEXT_LOG_FILE: join(data, "server.log"),
      UNITEXT_KEY_FILE: keyFile,
      UNITEXT_MAIL: process.env.UNITEXT_MAIL ?? join(data, "mail"),
    },
  });
  server.on("message", (message) => {
    if (message !== "listening") return;
    if (greeted) say("the server runs again.");
    else
      process.stdout.write(
        `Unitext is at http://127.0.0.1:${port}/\nData and logs: ${data}\n${dataAddress ? `Gauge readings of a stand-in service: ${dataAddress}\n` : ""}Ctrl-C stops it.\n`,
      );
    if (!greeted) makeDemoFilm();
    greeted = true;
    if (!dev || helpers.length) return;
    helpers.push(
      spawn(process.execPath, [join(root, "scripts/build.mjs"), "--watch"], { cwd: root, stdio: "inherit" }),
    );
    helpers.push(
      spawn("npx", ["vite", "--config", "web/vite.config.ts"], {
        cwd: root,
        stdio: "inherit",
        env: { ...process.env, UNITEXT_PORT: String(port) },
      }),
    );
  });
  server.once("exit", async (code, signal) => {
    if (ending) return;
    if (!greeted) {
      say(`the server has ended before it could begin (${signal ?? code}).`);
      end(code || 1);
      return;
    }
    const wait = serverBackOff.next();
    say(`the server has ended (${signal ?? code}); it starts again in ${wait} s.`);
    await seconds(wait);
    if (!ending) serve();
  });
}

/** Watches the database: one that has ended is started again, with its data. */
async function watchDatabase() {
  while (!ending) {
    await seconds(1);
    if (ending || (await database.running())) continue;
    const wait = databaseBackOff.next();
    say(`the database has ended; it starts again in ${wait} s.`);
    await seconds(wait);
    if (ending) return;
    databaseBackOff.started();
    try {
      const before = database.url;
      database = await startPostgres(data, { patient: true, port: database.port });
      say("the database runs again.");
      // Another port means another address: the server is restarted to learn it.
      if (database.url !== before) server.kill("SIGTERM");
    } catch (error) {
      say(`the database could not be started: ${error.message}`);
    }
  }
}

function end(code) {
  if (ending) return;
  ending = true;
  for (const helper of [...helpers, ...services]) helper.kill("SIGTERM");
  const finish = () => {
    // Nobody else holds this data folder: a database that was running already was left by a start that was killed.
    database.stop(true);
    lock.release();
    process.exit(code);
  };
  if (!server || server.exitCode !== null || server.signalCode !== null) finish();
  else {
    server.once("exit", finish);
    server.kill("SIGTERM");
  }
}
process.on("SIGINT", () => end(0));
process.on("SIGTERM", () => end(0));
process.on("SIGHUP", () => end(0));
loadDemo();
await serveData();
serve();
void watchDatabase();
