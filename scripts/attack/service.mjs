// The service that is attacked, its users, and what the attacks share.
import { spawn, spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { built, isRoot, npmPackages, root, systemPackages } from "../prepare.mjs";

export const short = process.argv.includes("--short");
systemPackages(["postgresql"]);
npmPackages();
built();

export const SCALE = short
  ? { files: 30, clients: 6, seconds: 12, kills: 1, imports: 0 }
  : { files: Number.POSITIVE_INFINITY, clients: 20, seconds: 60, kills: 3, imports: 1000 };
/**
 * What the service promises to other users while it works on a hostile file: the 95th percentile of their requests, in
 * milliseconds.
 */
export const PROMISED = 500;

/** Names of what did not hold. */
export const failures = [];
/** Prints whether something held. */
export function told(name, good, what) {
  if (!good) failures.push(name);
  process.stdout.write(`${good ? "held  " : "FAILED"} ${name}: ${what}\n`);
}

export const data = mkdtempSync(join(tmpdir(), "unitext-attack-"));
if (isRoot) spawnSync("chmod", ["755", data]);
export const product = spawn(process.execPath, [join(root, "scripts/start.mjs")], {
  cwd: root,
  env: { ...process.env, UNITEXT_DATA: data, UNITEXT_PORT: "0" },
  stdio: ["ignore", "pipe", "inherit"],
});
export const address = await new Promise((resolve, reject) => {
  product.stdout.on("data", (text) => {
    const found = /http:\/\/[\d.:]+/.exec(text);
    if (found) resolve(found[0]);
  });
  product.once("exit", () => reject(new Error("The service did not start.")));
});

/** The process of the server, which changes when it is killed. */
export const serverProcess = () =>
  Number(
    spawnSync("pgrep", ["-P", String(product.pid), "-f", "dist/server/main.js"], { encoding: "utf8" })
      .stdout.trim()
      .split("\n")[0],
  );
export const databaseProcess = () => Number(readFileSync(join(data, "postgres/postmaster.pid"), "utf8").split("\n")[0]);
export const memoryOf = (pid) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
export const wait = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
export const id = () => randomBytes(9).toString("base64url");

const port = readFileSync(join(data, "postgres/postmaster.pid"), "utf8").split("\n")[3];
export async function sql(text, values = []) {
  for (let tries = 0; ; tries++) {
    const client = new pg.Client({
      host: "127.0.0.1",
      port: Number(port),
      user: "unitext",
      database: "unitext",
      password: readFileSync(join(data, "password"), "utf8").trim(),
    });
    client.on("error", () => undefined);
    try {
      await client.connect();
      return (await client.query(text, values)).rows;
    } catch (error) {
      if (tries > 40) throw error;
      await wait(250);
    } finally {
      await client.end().catch(() => undefined);
    }
  }
}

/** A user with a session. */
export async function person(name) {
  const token = randomBytes(30).toString("base64url");
  await sql("insert into users (id, name) values ($1, $1) on conflict do nothing", [name]);
  await sql("insert into sessions (hash, user_id, expires_at) values ($1, $2, now() + interval '1 day')", [
    createHash("sha256").update(token).digest("hex"),
    name,
  ]);
  return (path, { method = "GET", body, headers = {}, signal, timeout = 60_000 } = {}) =>
    fetch(address + path, {
      method,
      body,
      headers: { cookie: `unitext_session=${token}`, origin: address, ...headers },
      signal: signal ?? AbortSignal.timeout(timeout),
    });
}
export const json = (body) => ({
  method: "POST",
  body: JSON.stringify(body),
  headers: { "content-type": "application/json" },
});
export const percentile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.max(0, Math.ceil(values.length * share) - 1)] ?? 0;

/** Makes requests of another user again and again until told to stop. Resolves with how long each took. */
export function bystander(ask, deck) {
  const took = [];
  let going = true;
  const done = (async () => {
    let version = 0;
    for (let nth = 0; going; nth++) {
      const begun = performance.now();
      const response =
        nth % 2
          ? await ask("/api/decks")
          : await ask(
              `/api/decks/${deck}/changes`,
              json({
                base: version,
                changes: [
                  {
                    id: id(),
                    change: {
                      kind: "setProperties",
                      properties: { title: `Title ${nth}`, author: "", event: "", date: "" },
                    },
                  },
                ],
              }),
            );
      const body = await response.json();
      if (!(nth % 2)) version = body.version ?? body.state?.version ?? version;
      took.push(performance.now() - begun);
      await wait(20);
    }
  })();
  return {
    stop: async () => {
      going = false;
      await done;
      return took;
    },
  };
}

export async function newDeck(ask, text = "# Tides\n\n## Quay\n\n- twice a day\n\n## Bar\n\n- at low water\n") {
  const response = await ask("/api/decks", json({ title: "Tides", text }));
  return (await response.json()).id;
}

export const ended = async (ask, job, timeout = 330_000) => {
  for (const until = Date.now() + timeout; Date.now() < until; ) {
    const found = await (await ask(`/api/jobs/${job}`)).json();
    if (!["waiting", "running"].includes(found.state)) return found;
    await wait(50);
  }
  return { state: "still running" };
};

/** Ends the service and deletes its data. */
export async function endService() {
  product.kill("SIGTERM");
  await new Promise((resolve) => (product.exitCode === null ? product.once("exit", resolve) : resolve()));
  rmSync(data, { recursive: true, force: true });
}
