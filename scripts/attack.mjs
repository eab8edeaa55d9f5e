// npm run attack: starts a service on data of its own, on loopback alone, and attacks it: hostile files against every reader,
// every route with every right, clients that edit while server and database are killed and answers are dropped, and many imports.
// `--short` does a part of each within two minutes. Prints one line for each case; the exit code says whether all held.
import { spawn, spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { hostileFiles } from "./attack/files.mjs";
import { built, isRoot, npmPackages, root, systemPackages } from "./prepare.mjs";

const short = process.argv.includes("--short");
const wanted = process.argv.find((argument) => argument.startsWith("--only="))?.slice(7);
systemPackages(["postgresql"]);
npmPackages();
built();

const SCALE = short
  ? { files: 30, clients: 6, seconds: 12, kills: 1, imports: 0 }
  : { files: Number.POSITIVE_INFINITY, clients: 20, seconds: 60, kills: 3, imports: 1000 };
/**
 * What the service promises to other users while it works on a hostile file: the 95th percentile of their requests, in
 * milliseconds.
 */
const PROMISED = 500;

let failed = 0;
function told(name, good, what) {
  if (!good) failed += 1;
  process.stdout.write(`${good ? "held  " : "FAILED"} ${name}: ${what}\n`);
}

const data = mkdtempSync(join(tmpdir(), "unitext-attack-"));
if (isRoot) spawnSync("chmod", ["755", data]);
const product = spawn(process.execPath, [join(root, "scripts/start.mjs")], {
  cwd: root,
  env: { ...process.env, UNITEXT_DATA: data, UNITEXT_PORT: "0" },
  stdio: ["ignore", "pipe", "inherit"],
});
const address = await new Promise((resolve, reject) => {
  product.stdout.on("data", (text) => {
    const found = /http:\/\/[\d.:]+/.exec(text);
    if (found) resolve(found[0]);
  });
  product.once("exit", () => reject(new Error("The service did not start.")));
});

/** The process of the server, which changes when it is killed. */
const serverProcess = () =>
  Number(
    spawnSync("pgrep", ["-P", String(product.pid), "-f", "dist/server/main.js"], { encoding: "utf8" })
      .stdout.trim()
      .split("\n")[0],
  );
const databaseProcess = () => Number(readFileSync(join(data, "postgres/postmaster.pid"), "utf8").split("\n")[0]);
const memoryOf = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
const wait = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const id = () => randomBytes(9).toString("base64url");

const port = readFileSync(join(data, "postgres/postmaster.pid"), "utf8").split("\n")[3];
async function sql(text, values = []) {
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
async function person(name) {
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
const json = (body) => ({
  method: "POST",
  body: JSON.stringify(body),
  headers: { "content-type": "application/json" },
});
const percentile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.max(0, Math.ceil(values.length * share) - 1)] ?? 0;

/** Makes requests of another user again and again until told to stop. Resolves with how long each took. */
function bystander(ask, deck) {
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

async function newDeck(ask, text = "# Tides\n\n## Quay\n\n- twice a day\n\n## Bar\n\n- at low water\n") {
  const response = await ask("/api/decks", json({ title: "Tides", text }));
  return (await response.json()).id;
}

const ended = async (ask, job, timeout = 330_000) => {
  for (const until = Date.now() + timeout; Date.now() < until; ) {
    const found = await (await ask(`/api/jobs/${job}`)).json();
    if (!["waiting", "running"].includes(found.state)) return found;
    await wait(50);
  }
  return { state: "still running" };
};

async function hostile() {
  const attacker = await person("mallory");
  const other = await person("olive");
  const deck = await newDeck(other);
  const all = hostileFiles();
  const step = Math.max(1, Math.floor(all.length / SCALE.files));
  const files = all.filter((_, nth) => nth % step === 0);
  const by = bystander(other, deck);
  const pid = serverProcess();
  const outcome = { taken: 0, refused: 0 };
  const wrong = [];
  let slowest = ["", 0];
  const one = async ({ name, what, bytes }) => {
    const begun = performance.now();
    const response = await attacker(`/api/files?name=${name}`, {
      method: "POST",
      body: bytes,
      headers: { "content-type": "application/octet-stream" },
      timeout: 330_000,
    });
    const body = await response.json().catch(() => ({}));
    let end = response.status < 300 ? "taken" : "refused";
    if (response.status >= 500) wrong.push(`${name}, ${what}: ${response.status}`);
    if (body.job) {
      const { state, message } = await ended(attacker, body.job);
      end = state === "done" ? "taken" : "refused";
      if (state !== "done" && state !== "failed") wrong.push(`${name}, ${what}: ${state}`);
      if (/could not be read to its end|could not be read; nothing/.test(message ?? ""))
        wrong.push(`${name}, ${what}: refused without a reason (${message})`);
    }
    outcome[end] += 1;
    const took = performance.now() - begun;
    if (took > slowest[1]) slowest = [`${name}, ${what}`, took];
    if (process.env.UNITEXT_ATTACK_VERBOSE)
      process.stdout.write(
        `       ${end} in ${Math.round(took)} ms: ${name}, ${what}${response.status >= 400 ? ` (${response.status} ${body.error?.message})` : ""}\n`,
      );
  };
  const queue = [...files];
  await Promise.all(
    Array.from({ length: 3 }, async () => {
      for (let next = queue.shift(); next; next = queue.shift())
        await one(next).catch((error) => wrong.push(`${next.name}, ${next.what}: ${error.message}`));
    }),
  );
  const took = await by.stop();
  told(
    "hostile files",
    wrong.length === 0,
    `${files.length} files, ${outcome.taken} taken, ${outcome.refused} refused with a sentence; the slowest took ${(slowest[1] / 1000).toFixed(1)} s (${slowest[0]})${wrong.length ? `; ${wrong.slice(0, 8).join("; ")}` : ""}`,
  );
  told(
    "the server's process",
    pid === serverProcess(),
    pid === serverProcess() ? "is the one that began" : "was started anew",
  );
  const p95 = percentile(took, 0.95);
  told(
    "requests of others meanwhile",
    p95 < PROMISED,
    `${took.length} requests, 95th percentile ${Math.round(p95)} ms, longest ${Math.round(Math.max(...took))} ms`,
  );
  const left = await sql("select count(*)::int as n from jobs where state in ('waiting', 'running')");
  told("jobs", left[0].n === 0, `${left[0].n} have not ended`);
}

async function rights() {
  const people = {
    owner: await person("owner"),
    stranger: await person("stranger"),
    view: await person("viewer"),
    comment: await person("commenter"),
    edit: await person("editor"),
  };
  const RANK = ["stranger", "view", "comment", "edit", "owner"];
  const routes = (deck) => [
    ["view", `/api/decks/${deck}`, {}],
    ["view", `/api/decks/${deck}/first`, {}],
    ["view", `/api/decks/${deck}/changes?since=0`, {}],
    ["view", `/api/decks/${deck}/report?format=pdf`, {}],
    ["view", `/api/decks/${deck}/export?format=md`, {}],
    ["view", `/api/decks/${deck}/followers`, {}],
    ["view", `/api/decks/${deck}/differs`, {}],
    ["view", `/api/decks/${deck}/history`, {}],
    ["view", `/api/decks/${deck}/at/0`, {}],
    ["view", `/api/decks/${deck}/versions`, {}],
    ["view", `/api/decks/${deck}/copies`, json({})],
    ["view", `/api/decks/${deck}/parts`, json({ plan: { by: { count: 1 } }, date: "" })],
    ["view", `/api/decks/${deck}/followers`, json({ title: "x" })],
    [
      "view",
      "/api/merges",
      json({
        decks: [{ id: deck, version: 0 }],
        title: "x",
        appearance: "keep",
        sections: false,
        contents: false,
        openingsOnce: false,
        drop: [],
      }),
    ],
    ["view", "/api/writes", json({ decks: [deck], format: "md" })],
    ["edit", `/api/decks/${deck}/steps`, {}],
    [
      "edit",
      `/api/decks/${deck}/changes`,
      json({ base: 0, changes: [{ id: id(), change: { kind: "setRate", rate: 120 } }] }),
    ],
    [
      "edit",
      `/api/decks/${deck}/documents?name=a.md`,
      { method: "POST", body: "# x", headers: { "content-type": "application/octet-stream" } },
    ],
    [
      "edit",
      `/api/decks/${deck}/pictures?name=a.svg`,
      {
        method: "POST",
        body: "<svg xmlns='http://www.w3.org/2000/svg' width='1' height='1'/>",
        headers: { "content-type": "application/octet-stream" },
      },
    ],
    ["edit", `/api/decks/${deck}/versions`, { ...json({ version: 0, name: "x" }), method: "PUT" }],
    ["edit", `/api/decks/${deck}/versions/0`, { method: "DELETE" }],
    ["owner", `/api/decks/${deck}`, { method: "DELETE" }],
  ];
  const wrong = [];
  let calls = 0;
  for (const [nth, who] of RANK.entries()) {
    const deck = await newDeck(people.owner);
    if (nth > 0 && nth < 4)
      await sql('insert into shares (deck_id, user_id, "right") values ($1, $2, $3)', [
        deck,
        { view: "viewer", comment: "commenter", edit: "editor" }[who],
        who,
      ]);
    for (const [least, path, init] of routes(deck)) {
      calls += 1;
      const { status } = await people[who](path, init);
      const may = nth >= RANK.indexOf(least);
      if (may ? status >= 400 : status !== (nth === 0 ? 404 : 403))
        wrong.push(`${who} ${init.method ?? "GET"} ${path.replace(deck, "…")}: ${status}`);
    }
  }
  const deck = await newDeck(people.owner);
  const outside = [
    [
      "a change without an origin",
      { ...json({}), headers: { "content-type": "application/json", origin: "" } },
      `/api/decks/${deck}/copies`,
      403,
    ],
    [
      "a change of another site",
      { ...json({}), headers: { "content-type": "application/json", origin: "https://evil.example" } },
      `/api/decks/${deck}/copies`,
      403,
    ],
    ["a read of another site", { headers: { "sec-fetch-site": "cross-site" } }, "/api/decks", 403],
    ["NUL in an address", {}, "/api/jobs/%00", 404],
    ["NUL in another", { method: "DELETE" }, "/api/jobs/%00", 404],
    ["a stranger's job", { method: "DELETE" }, "/api/jobs/nobodys", 404],
    ["a version beyond", {}, `/api/decks/${deck}/changes?since=9999999999`, 400],
    [
      "the same id twice",
      json({ base: 0, changes: [1, 2].map((rate) => ({ id: "same", change: { kind: "setRate", rate: 100 + rate } })) }),
      `/api/decks/${deck}/changes`,
      400,
    ],
    [
      "NUL in a text",
      json({
        base: 0,
        changes: [
          {
            id: id(),
            change: { kind: "setProperties", properties: { title: "a\u0000\ud800b", author: "", event: "", date: "" } },
          },
        ],
      }),
      `/api/decks/${deck}/changes`,
      200,
    ],
    [
      "an outline that ends its attribute",
      json({
        base: 0,
        changes: [
          {
            id: id(),
            change: {
              kind: "insertElement",
              slide: "x",
              index: 0,
              element: {
                kind: "shape",
                id: "s",
                slot: null,
                geometry: { width: 1, height: 1, paths: [{ d: 'M0 0"><script>', fill: true, stroke: true }] },
                text: [],
              },
            },
          },
        ],
      }),
      `/api/decks/${deck}/changes`,
      400,
    ],
  ];
  for (const [what, init, path, expected] of outside) {
    calls += 1;
    const { status } = await people.owner(path, init);
    if (status !== expected) wrong.push(`${what}: ${status}, not ${expected}`);
  }
  const rebound = await new Promise((resolve) => {
    const text = `GET /api/decks HTTP/1.1\r\nHost: rebound.example\r\nConnection: close\r\n\r\n`;
    import("node:net").then(({ connect }) => {
      const socket = connect(Number(new URL(address).port), "127.0.0.1", () => socket.write(text));
      let answer = "";
      socket.on("data", (part) => (answer += part));
      socket.on("close", () => resolve(answer.split(" ")[1]));
    });
  });
  if (rebound !== "403") wrong.push(`another host: ${rebound}`);
  const before = (await sql("select count(*)::int as n from sessions"))[0].n;
  for (let nth = 0; nth < 20; nth++) await fetch(`${address}/api/me`);
  const after = (await sql("select count(*)::int as n from sessions"))[0].n;
  if (after !== before) wrong.push(`${after - before} sessions for requests that keep no cookie`);
  told(
    "rights and addresses",
    wrong.length === 0,
    `${calls} calls as stranger, viewer, commenter, editor and owner${wrong.length ? `: ${wrong.join("; ")}` : "; none got more or less than it may"}`,
  );
}

/** A client that edits one deck: it keeps its changes until they are acknowledged, and some answers are dropped. */
async function editor(ask, deck, until, made, acknowledged) {
  let version = 0;
  while (Date.now() < until.edits) {
    const change = {
      id: id(),
      change: {
        kind: "insertSlide",
        slide: { id: id(), parent: null, arrangement: "points", elements: [], notes: [], hidden: false },
        place: { parent: null, after: null },
      },
    };
    made.push(change.id);
    for (;;) {
      if (Date.now() > until.end) return;
      const cut = new AbortController();
      const drop = Math.random() < 0.1;
      if (drop) setTimeout(() => cut.abort(), Math.random() * 30);
      else setTimeout(() => cut.abort(), 15_000).unref();
      try {
        const response = await ask(`/api/decks/${deck}/changes`, {
          ...json({ base: version, changes: [change] }),
          signal: cut.signal,
        });
        const body = await response.json();
        if (response.status === 200) {
          version = body.version;
          acknowledged.push(change.id);
          break;
        }
        if (response.status === 409) version = body.state?.version ?? version;
        else await wait(100 + Math.random() * 200);
      } catch {
        await wait(50 + Math.random() * 200);
      }
    }
    await wait(10);
  }
}

async function faults() {
  const asks = await Promise.all(Array.from({ length: 4 }, (_, nth) => person(`writer${nth}`)));
  const decks = await Promise.all(asks.map((ask) => newDeck(ask)));
  const begun = Date.now();
  const until = { edits: begun + SCALE.seconds * 1000, end: begun + SCALE.seconds * 1000 + 60_000 };
  const [made, acknowledged] = [[], []];
  const clients = Array.from({ length: SCALE.clients }, (_, nth) =>
    editor(asks[nth % 4], decks[nth % 4], until, made, acknowledged),
  );
  const pause = (SCALE.seconds * 1000) / (SCALE.kills * 2 + 1);
  for (let nth = 0; nth < SCALE.kills; nth++) {
    await wait(pause);
    process.kill(serverProcess(), "SIGKILL");
    await wait(pause);
    process.kill(databaseProcess(), "SIGKILL");
  }
  await Promise.all(clients);
  const rows = await sql(
    "select change_id, count(*)::int as n from changes where change_id = any($1) group by change_id",
    [made],
  );
  const counted = new Map(rows.map(({ change_id, n }) => [change_id, n]));
  const lost = acknowledged.filter((one) => !counted.has(one)).length;
  const doubled = [...counted.values()].filter((n) => n > 1).length;
  const slides = await sql("select count(*)::int as n from slides where deck_id = any($1)", [decks]);
  const start = decks.length * 3;
  told(
    "edits under faults",
    lost === 0 && doubled === 0 && acknowledged.length > 0 && slides[0].n - start === counted.size,
    `${SCALE.clients} clients for ${SCALE.seconds} s, server and database killed ${SCALE.kills} times each, answers dropped: ${acknowledged.length} acknowledged, ${lost} lost, ${doubled} doubled, ${slides[0].n - start} slides for ${counted.size} changes`,
  );
}

/** A backup made during edits, restored into an empty folder: the same decks, as they were at one moment. */
async function backup() {
  const ask = await person("keeper");
  const deck = await newDeck(ask);
  const file = join(data, "backup.unitext");
  const folder = mkdtempSync(join(tmpdir(), "unitext-restore-"));
  if (isRoot) spawnSync("chmod", ["755", folder]);
  const by = bystander(ask, deck);
  await wait(300);
  const run = (args, where) =>
    new Promise((resolve) => {
      let said = "";
      const child = spawn(process.execPath, [join(root, "scripts/backup.mjs"), ...args], {
        cwd: root,
        env: { ...process.env, UNITEXT_DATA: where },
        stdio: ["ignore", "pipe", "pipe"],
      });
      for (const stream of [child.stdout, child.stderr]) stream.on("data", (text) => (said += text));
      child.once("exit", (code) => resolve({ code, said: said.trim() }));
    });
  const before = (await sql("select version from decks where id = $1", [deck]))[0].version;
  const made = await run([file], data);
  const edits = (await by.stop()).length;
  const after = (await sql("select version from decks where id = $1", [deck]))[0].version;
  const brought = await run(["--restore", file], folder);
  const again = await run(["--restore", file], folder);
  const { startPostgres } = await import("./postgres.mjs");
  const database = await startPostgres(folder);
  const asked = (text) => database.tool("psql", ["-d", "unitext", "-tAc", text]).stdout.trim();
  const version = Number(asked(`select version from decks where id = '${deck}'`));
  const logged = Number(asked(`select count(*) from changes where deck_id = '${deck}'`));
  const counts = asked(
    "select (select count(*) from decks) || ' ' || (select count(*) from slides) || ' ' || (select count(*) from blobs)",
  );
  const here = await sql(
    "select (select count(*) from decks) || ' ' || (select count(*) from slides) || ' ' || (select count(*) from blobs) as counts",
  );
  database.stop();
  rmSync(folder, { recursive: true, force: true });
  const good =
    made.code === 0 &&
    brought.code === 0 &&
    again.code !== 0 &&
    version >= before &&
    version <= after &&
    logged === version &&
    counts === here[0].counts;
  told(
    "backup and restore",
    good,
    `${edits} edits meanwhile; version ${version} of ${before} to ${after}, ${logged} changes; decks, slides and pictures ${counts}, here ${here[0].counts}${good ? "" : `; ${made.said}; ${brought.said}; ${again.said}`}`,
  );
}

/** A long document that is being read while the database is killed: in the end it is there completely. */
async function interrupted() {
  const ask = await person("reader");
  const file = readFileSync(join(root, "demo/content/field-handbook.docx"));
  const jobs = [];
  for (let nth = 0; nth < 4; nth++)
    jobs.push(
      await (
        await ask("/api/files?name=field-handbook.docx", {
          method: "POST",
          body: file,
          headers: { "content-type": "application/octet-stream" },
        })
      ).json(),
    );
  process.kill(databaseProcess(), "SIGKILL");
  const states = [];
  for (const { job } of jobs) {
    let state = {};
    for (
      const until = Date.now() + 60_000;
      Date.now() < until && !["done", "failed"].includes(state.state);
      await wait(200)
    )
      state = await ask(`/api/jobs/${job}`).then(
        (response) => (response.ok ? response.json() : {}),
        () => ({}),
      );
    const slides = (await sql("select count(*)::int as n from slides where deck_id = $1", [state.deck ?? ""]))[0].n;
    states.push(`${state.state} ${slides}`);
  }
  told(
    "imports while the database is killed",
    new Set(states).size === 1 && states[0].startsWith("done"),
    states.join(", "),
  );
}

async function imports() {
  if (!SCALE.imports) return;
  const ask = await person("importer");
  const file = readFileSync(join(root, "demo/content/field-handbook.docx"));
  let first = 0;
  for (let nth = 1; nth <= SCALE.imports; nth++) {
    const { id: deck, job } = await (
      await ask("/api/files?name=field-handbook.docx", {
        method: "POST",
        body: file,
        headers: { "content-type": "application/octet-stream" },
      })
    ).json();
    await ended(ask, job);
    await ask(`/api/decks/${deck}`, { method: "DELETE" });
    await ask(`/api/jobs/${job}`, { method: "DELETE" });
    if (nth === 100) first = memoryOf(serverProcess());
  }
  const last = memoryOf(serverProcess());
  told(
    "memory of the server",
    last < first * 1.2,
    `${Math.round(first)} MB after 100 imports, ${Math.round(last)} MB after ${SCALE.imports}`,
  );
}

async function streams() {
  const people = await Promise.all(Array.from({ length: short ? 2 : 10 }, (_, nth) => person(`listener${nth}`)));
  const other = await person("olive");
  const deck = await newDeck(other);
  const stop = new AbortController();
  const opened = await Promise.all(
    people.flatMap((ask) =>
      Array.from({ length: 100 }, () =>
        ask("/api/jobs/events", { signal: stop.signal }).then(
          ({ status }) => status,
          () => 0,
        ),
      ),
    ),
  );
  const by = bystander(other, deck);
  await wait(2000);
  const took = await by.stop();
  stop.abort();
  const p95 = percentile(took, 0.95);
  told(
    "event streams",
    p95 < PROMISED && opened.every((status) => status === 200),
    `${opened.length} open, requests of others: 95th percentile ${Math.round(p95)} ms`,
  );
}

try {
  for (const [name, act] of Object.entries({ rights, streams, backup, interrupted, hostile, faults, imports }))
    if (!wanted || wanted === name) await act();
} catch (error) {
  told("the attack", false, error.stack);
} finally {
  product.kill("SIGTERM");
  await new Promise((resolve) => (product.exitCode === null ? product.once("exit", resolve) : resolve()));
  rmSync(data, { recursive: true, force: true });
}
process.stdout.write(`${failed ? `${failed} did not hold` : "All held"}\n`);
process.exitCode = failed ? 1 : 0;
