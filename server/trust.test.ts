import { mkdtempSync, readdirSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

import { type Deck, DOCUMENT_RULE, emptyDeck, newSlide, plainText } from "@unitext/core/model";
import { count, eq, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { describeError, openLog, rotate } from "./log";
import { FileNames, fileNameOf } from "./jobs/names";
import { addBlobs, auditLog, createDeck, isConnectionError, loadDeck, schema, share, tidy } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
let owner: Awaited<ReturnType<TestServer["as"]>>;
let other: Awaited<ReturnType<TestServer["as"]>>;
beforeAll(async () => {
  server = await testServer("unitext_trust");
  owner = await server.as("olive");
  other = await server.as("perry");
});
afterAll(() => server.close());

const hide = (base: number, slide = "a") =>
  json({ base, changes: [{ id: nanoid(12), change: { kind: "setHidden", slide, hidden: true } }] });
async function stored(title = "Levels"): Promise<Deck> {
  const deck = { ...emptyDeck(nanoid(12), title), slides: [newSlide("a", "points")] };
  await createDeck(server.db, "olive", deck, new Map(), null);
  return deck;
}
const sessions = async () => (await server.db.select({ n: count() }).from(schema.sessions))[0]?.n ?? 0;
const until = async (test: () => boolean | Promise<boolean>) => {
  for (let wait = 0; wait < 200 && !(await test()); wait++) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(await test()).toBe(true);
};

describe("who may ask", () => {
  const cookieOf = (response: Response) =>
    /unitext_session=([^;]*)/.exec(response.headers.get("set-cookie") ?? "")?.[1] ?? "";
  const me = (cookie: string) =>
    fetch(`${server.address}/api/me`, { headers: { cookie: `unitext_session=${cookie}` } });

  it("a session is stored when its cookie comes back, as a hash; without a cookie nothing is stored", async () => {
    const before = await sessions();
    const first = await fetch(`${server.address}/api/me`);
    expect(await sessions()).toBe(before);
    const token = cookieOf(first);
    expect((await me(token)).headers.get("set-cookie")).toBeNull();
    expect(await sessions()).toBe(before + 1);
    const rows = await server.db.select({ hash: schema.sessions.hash }).from(schema.sessions);
    expect(rows.some(({ hash }) => hash === token)).toBe(false);
    expect(rows.every(({ hash }) => /^[0-9a-f]{64}$/.test(hash))).toBe(true);
  });

  it("a session is renewed as it is used, and ended at sign-out and with its time", async () => {
    const token = cookieOf(await fetch(`${server.address}/api/me`));
    await me(token);
    await server.db.execute(
      sql`update sessions set expires_at = now() + interval '10 days' where expires_at > now() + interval '29 days'`,
    );
    expect(cookieOf(await me(token))).toBe(token);
    const signOut = await fetch(`${server.address}/api/sign-out`, {
      method: "POST",
      headers: { cookie: `unitext_session=${token}`, origin: server.address },
    });
    expect([signOut.status, signOut.headers.get("set-cookie")]).toEqual([204, expect.stringContaining("Max-Age=0")]);
    const next = await me(token);
    expect(cookieOf(next)).not.toBe(token);
    expect(cookieOf(next)).not.toBe("");
  });

  it.each([
    ["a host that is none of ours", { host: "rebound.example" }, "GET", 403],
    ["a change without a word of where it comes from", {}, "DELETE", 403],
    ["a change of another site", { "sec-fetch-site": "cross-site" }, "DELETE", 403],
    ["a read of another site", { "sec-fetch-site": "same-site" }, "GET", 403],
    ["a read by hand", { "sec-fetch-site": "none" }, "GET", 200],
  ])("%s", async (_, headers, method, status) => {
    const deck = await stored();
    const { request } = await import("node:http");
    const token = cookieOf(await fetch(`${server.address}/api/me`));
    const answer = await new Promise<number>((resolve, reject) => {
      const sent = request(
        `${server.address}/api/${method === "GET" ? "me" : `decks/${deck.id}`}`,
        { method, headers: { ...headers, cookie: `unitext_session=${token}` } as Record<string, string> },
        (response) => resolve(response.statusCode ?? 0),
      );
      sent.on("error", reject).end();
    });
    expect(answer).toBe(status);
    expect((await loadDeck(server.db, deck.id)).deck.id).toBe(deck.id);
  });

  it("a stream ends when the right is taken back, and tells nothing after", async () => {
    const deck = await stored();
    await share(server.db, { deck: deck.id, user: "perry", right: "view", by: "olive" });
    const stream = await other(`/api/decks/${deck.id}/events`);
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    await reader.read();
    await share(server.db, { deck: deck.id, user: "perry", right: null, by: "olive" });
    let over = false;
    for (let part = 0; part < 5 && !over; part++) over = (await reader.read()).done;
    expect(over).toBe(true);
    expect((await other(`/api/decks/${deck.id}`)).status).toBe(404);
  });

  it("a split that was ordered with a right is not done without it", async () => {
    const deck = await stored();
    await share(server.db, { deck: deck.id, user: "perry", right: "view", by: "olive" });
    const { runSplit } = await import("./jobs/divide");
    await share(server.db, { deck: deck.id, user: "perry", right: null, by: "olive" });
    await expect(
      runSplit({ db: server.db, owner: "perry", progress: async () => true }, deck.id, {
        plan: { by: { count: 1 } } as never,
        date: "",
      }),
    ).rejects.toMatchObject({ code: "not-found" });
  });

  it("a file is given out as what its bytes are, whoever brought it first and whatever it was called", async () => {
    const deck = await stored();
    const sums = { page: "1".repeat(64), picture: "2".repeat(64) };
    await addBlobs(
      server.db,
      deck.id,
      new Map([
        [sums.page, new TextEncoder().encode("<html><script>alert(1)</script>")],
        [sums.picture, new TextEncoder().encode("GIF89a")],
      ]),
    );
    const types = await Promise.all(
      Object.values(sums).map(async (sum) =>
        (await owner(`/api/decks/${deck.id}/pictures/${sum}`)).headers.get("content-type"),
      ),
    );
    expect(types).toEqual(["application/octet-stream", "image/gif"]);
  });

  it.each([
    ["/api/jobs/%00", "GET", 404],
    ["/api/jobs/%00", "DELETE", 404],
    ["/api/jobs/nobodys", "DELETE", 404],
  ])("%s, %s: %s", async (path, method, status) => {
    expect((await owner(path, { method })).status).toBe(status);
  });

  it("who did what is noted", async () => {
    const deck = await stored();
    await owner(`/api/decks/${deck.id}/export?format=md`);
    await owner(`/api/decks/${deck.id}`, { method: "DELETE" });
    expect(
      (await auditLog(server.db, 100))
        .filter((entry) => entry.deck === deck.id)
        .map(({ user, act, detail }) => [user, act, detail]),
    ).toEqual([
      ["olive", "delete", null],
      ["olive", "export", "md"],
    ]);
  });
});

describe("faults", () => {
  it("a full disk refuses writing with a sentence, and reading goes on", async () => {
    const deck = await stored();
    await server.db.execute(
      sql`create or replace function full_disk() returns trigger language plpgsql as $$ begin raise exception 'could not extend file: No space left on device' using errcode = '53100'; end $$`,
    );
    await server.db.execute(
      sql`create trigger full_disk before insert on changes for each row execute function full_disk()`,
    );
    try {
      const refused = await owner(`/api/decks/${deck.id}/changes`, hide(0));
      expect([refused.status, ((await refused.json()) as { error: { code: string } }).error.code]).toEqual([
        507,
        "no-space",
      ]);
      expect((await owner(`/api/decks/${deck.id}`)).status).toBe(200);
    } finally {
      await server.db.execute(sql`drop trigger full_disk on changes`);
    }
    expect((await owner(`/api/decks/${deck.id}/changes`, hide(0))).status).toBe(200);
  });

  it("a database that is away is told with 503 and when to ask again, and all goes on when it is back", async () => {
    const deck = await stored();
    const url = new URL(server.url);
    const admin = new (await import("pg")).default.Client({
      connectionString: server.url.replace(url.pathname, "/postgres"),
    });
    await admin.connect();
    await admin.query(`alter database ${url.pathname.slice(1)} allow_connections false`);
    await admin.query(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${url.pathname.slice(1)}'`,
    );
    const away = await owner(`/api/decks/${deck.id}`);
    await admin.query(`alter database ${url.pathname.slice(1)} allow_connections true`);
    await admin.end();
    expect([away.status, away.headers.get("retry-after")]).toEqual([503, "2"]);
    await until(async () => (await owner(`/api/decks/${deck.id}`)).status === 200);
    expect((await owner(`/api/decks/${deck.id}/changes`, hide(0))).status).toBe(200);
    expect((await fetch(`${server.address}/health/ready`)).status).toBe(200);
    expect((await fetch(`${server.address}/health/live`)).status).toBe(200);
  });

  it("an error that is none of the database is not taken for one", () => {
    expect(isConnectionError(new Error("x"))).toBe(false);
    expect(isConnectionError(new Error("query", { cause: Object.assign(new Error("gone"), { code: "57P01" }) }))).toBe(
      true,
    );
  });

  it("what was stored by an earlier build opens, with what it may not hold any more put right", async () => {
    const deck = await stored();
    const shape = {
      kind: "shape",
      id: "s",
      slot: null,
      frame: { x: 0, y: 0, width: 9, height: 9 },
      geometry: {
        width: 9,
        height: 9,
        paths: [
          { d: 'M0 0"><script>', fill: true, stroke: true },
          { d: "M0 0L9 9Z", fill: true, stroke: true },
        ],
      },
      text: [],
    };
    await server.db.execute(
      sql`update slides set schema = 1, body = jsonb_set(body, '{elements}', ${JSON.stringify([shape])}::jsonb) where deck_id = ${deck.id}`,
    );
    const [element] = (await loadDeck(server.db, deck.id)).deck.slides[0]?.elements ?? [];
    expect(element).toMatchObject({ geometry: { paths: [{ d: "" }, { d: "M0 0L9 9Z" }] } });
    await server.db.execute(sql`update slides set schema = 99 where deck_id = ${deck.id}`);
    await expect(loadDeck(server.db, deck.id)).rejects.toMatchObject({
      code: "not-supported",
      message: expect.stringContaining("newer version"),
    });
    await server.db.execute(sql`update slides set schema = 2, body = '{"arrangement": 7}' where deck_id = ${deck.id}`);
    await expect(loadDeck(server.db, deck.id)).rejects.toMatchObject({
      code: "not-readable",
      message: expect.stringContaining("damaged at arrangement"),
    });
  });

  it("what no deck names any more is removed by its age, and nothing that one names", async () => {
    const deck = await stored();
    const [named, orphan, fresh] = ["a", "b", "c"].map((letter) => letter.repeat(64)) as [string, string, string];
    await addBlobs(server.db, deck.id, new Map([named, orphan, fresh].map((sum) => [sum, new Uint8Array([1])])));
    await server.db.execute(sql`delete from deck_blobs where sha256 in (${orphan}, ${fresh})`);
    await server.db.execute(
      sql`update blobs set taken_at = now() - interval '2 days' where sha256 in (${named}, ${orphan})`,
    );
    await tidy(server.db);
    const left = (await server.db.select({ sha256: schema.blobs.sha256 }).from(schema.blobs)).map(
      ({ sha256 }) => sha256,
    );
    expect([left.includes(named), left.includes(orphan), left.includes(fresh)]).toEqual([true, false, true]);
  });
});

describe("the log", () => {
  it("never holds what was worked on", () => {
    const error = Object.assign(
      new Error(`Failed query: insert into blobs values ($1)\nparams: ${"secret".repeat(1000)}`),
      { cause: Object.assign(new Error("could not extend file"), { code: "53100" }) },
    );
    const told = JSON.stringify(describeError(error));
    expect(told).toContain("53100");
    expect(told).not.toContain("secret");
    expect(told.length).toBeLessThan(2000);
  });

  it("does not block, nor end the process, on a disk that is full", async () => {
    const log = openLog({ level: "info", file: "/dev/full" });
    for (let nth = 0; nth < 5000; nth++) log.info({ nth }, "x".repeat(200));
    // The writes fail in the turns of the event loop that follow.
    for (let turn = 0; turn < 50; turn++) await new Promise((resolve) => setImmediate(resolve));
  });

  it("is put aside when it is large", () => {
    const folder = mkdtempSync(join(tmpdir(), "unitext-log-"));
    const file = join(folder, "server.log");
    for (let nth = 0; nth < 8; nth++) {
      writeFileSync(file, "x".repeat(100));
      expect(rotate(file, 50)).toBe(true);
    }
    writeFileSync(file, "x");
    expect(rotate(file, 50)).toBe(false);
    expect(readdirSync(folder).length).toBeLessThanOrEqual(6);
  });
});

describe("names of files", () => {
  it("differ in an archive, also for decks that are titled alike or like the report", () => {
    const names = new FileNames(["report.json"]);
    const made = ["report", "Report", "tides", "Tides", "tides", "", "a/b", "a:b"].map((title) =>
      names.next(title, "json"),
    );
    expect(new Set(made.map((name) => name.toLowerCase())).size).toBe(made.length);
    expect(made).not.toContain("report.json");
  });

  it("are whole characters, and no names of devices", () => {
    expect(fileNameOf(`${"x".repeat(119)}👩‍🔬`)).toBe("x".repeat(119));
    expect([fileNameOf("con"), fileNameOf("..."), fileNameOf("a\u0000\ud800b")]).toEqual([
      "con deck",
      "Untitled",
      "a-\ufffdb",
    ]);
  });

  it("of a deck with an emoji where its title is cut", async () => {
    const deck = await stored(`${"x".repeat(119)}👩‍🔬`);
    await server.db.update(schema.decks).set({ version: 0 }).where(eq(schema.decks.id, deck.id));
    expect((await owner(`/api/decks/${deck.id}/export?format=md`)).status).toBe(200);
    const pictures = await owner(`/api/decks/${deck.id}/export?format=svg`);
    expect(pictures.headers.get("content-disposition")).toContain(".zip");
  });
});

it("a text with NUL and halves of characters is taken with these replaced", async () => {
  const deck = await stored();
  const sent = await owner(
    `/api/decks/${deck.id}/changes`,
    json({
      base: 0,
      changes: [{ id: nanoid(12), change: { kind: "setNotes", slide: "a", notes: plainText("x\0\ud800y") } }],
    }),
  );
  expect(sent.status).toBe(200);
  expect((await loadDeck(server.db, deck.id)).deck.slides[0]?.notes).toEqual(plainText("x\ufffd\ufffdy"));
});

it("what a deck's head gains is stored, also where nothing else of it changes", async () => {
  const deck = await stored();
  const manuscript = { document: "doc", rule: DOCUMENT_RULE };
  const sent = await owner(
    `/api/decks/${deck.id}/changes`,
    json({ base: 0, changes: [{ id: nanoid(12), change: { kind: "setManuscript", manuscript } }] }),
  );
  expect(sent.status).toBe(200);
  expect((await loadDeck(server.db, deck.id)).deck.manuscript).toMatchObject({ document: "doc" });
});
