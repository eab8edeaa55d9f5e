// Backup while edits go on, imports while the database is killed, many imports, and many event streams.
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { root, isRoot } from "../prepare.mjs";
import {
  PROMISED,
  SCALE,
  short,
  told,
  data,
  serverProcess,
  databaseProcess,
  memoryOf,
  wait,
  sql,
  person,
  percentile,
  bystander,
  newDeck,
  ended,
} from "./service.mjs";

/** A backup made during edits, restored into an empty folder: the same decks, as they were at one moment. */
export async function backup() {
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
  const { startPostgres } = await import("../postgres.mjs");
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
export async function interrupted() {
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

export async function imports() {
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

export async function streams() {
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
