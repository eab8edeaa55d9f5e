// npm start: installs what is missing, builds, starts the database and the server, prints the address. Ctrl-C ends all.
import { spawn } from "node:child_process";
import { openSync, rmSync } from "node:fs";
import { join } from "node:path";
import { dataFolder, freePort, startPostgres } from "./postgres.mjs";
import { built, fail, npmPackages, root, systemPackages } from "./prepare.mjs";

const reset = process.argv.includes("--reset");
const dev = process.argv.includes("--dev");

if (Number(process.versions.node.split(".")[0]) < 20) fail(`Node.js 20 or newer is needed; this is ${process.version}.`);
systemPackages(["postgresql"]);
npmPackages();
built();

const data = dataFolder();
if (reset) {
  const before = await startPostgres(data);
  if (!before.ours) fail("Unitext is running; stop it before the demo is made anew.");
  before.stop();
  rmSync(data, { recursive: true, force: true });
}
const database = await startPostgres(data);
const port = await freePort(Number(process.env.UNITEXT_PORT ?? 4280));
const server = spawn(process.execPath, [...(dev ? ["--watch"] : []), join(root, "dist/server/main.js")], {
  cwd: root,
  detached: true,
  stdio: ["ignore", openSync(join(data, "server.log"), "a"), "inherit", "ipc"],
  env: { ...process.env, NODE_ENV: "production", UNITEXT_ROOT: root, UNITEXT_DATABASE: database.url, UNITEXT_PORT: String(port), UNITEXT_WORKER: join(root, "dist/server/worker.js") },
});
const helpers = [];

let ending = false;
function end(code) {
  if (ending) return;
  ending = true;
  for (const helper of helpers) helper.kill("SIGTERM");
  const finish = () => {
    database.stop();
    process.exit(code);
  };
  if (server.exitCode !== null || server.signalCode !== null) finish();
  else {
    server.once("exit", finish);
    server.kill("SIGTERM");
  }
}
process.on("SIGINT", () => end(0));
process.on("SIGTERM", () => end(0));
process.on("SIGHUP", () => end(0));
server.once("exit", (code) => {
  if (!ending) {
    process.stderr.write("unitext: the server has ended.\n");
    end(code ?? 1);
  }
});
server.on("message", (message) => {
  if (message !== "listening") return;
  process.stdout.write(`Unitext is at http://127.0.0.1:${port}/\nData and logs: ${data}\nCtrl-C stops it.\n`);
  if (!dev || helpers.length) return;
  helpers.push(spawn(process.execPath, [join(root, "scripts/build.mjs"), "--watch"], { cwd: root, stdio: "inherit" }));
  helpers.push(spawn("npx", ["vite", "--config", "web/vite.config.ts"], { cwd: root, stdio: "inherit", env: { ...process.env, UNITEXT_PORT: String(port) } }));
});
