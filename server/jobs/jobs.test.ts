import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { readDeck } from "@unitext/core/formats";
import { dotsFile } from "@unitext/core/testing/raster";
import { eq } from "drizzle-orm";
import { unzipSync, zipSync } from "fflate";
import { nanoid } from "nanoid";
import { canonical, type Deck, emptyDeck, hasNotes, nameOf, textHash, must } from "@unitext/core/model";
import { ImportResult, DeckList, DeckState, DocumentText, JobList } from "../api";
import { applyChanges, createDeck, createJob, loadDeck, loadJob, schema, updateJob } from "../store";
import { ended, type TestServer, testServer } from "../testing";
import { Jobs } from "./queue";
import { readFile } from "../work/read";
import { sampleDocument } from "../work/sample";
import { inlineWork, type Work } from "../work";

const handbook = readFileSync(join(import.meta.dirname, "../../demo/content/field-handbook.docx"));
let server: TestServer;
let owner: Awaited<ReturnType<TestServer["as"]>>;
let other: Awaited<ReturnType<TestServer["as"]>>;
beforeAll(async () => {
  server = await testServer("unitext_jobs");
  owner = await server.as("olive");
  other = await server.as("perry");
});
afterAll(() => server.close());

const upload = async (name: string, bytes: Uint8Array | string) =>
  owner(`/api/files?name=${name}`, {
    method: "POST",
    headers: { "content-type": "application/octet-stream" },
    body: bytes as BodyInit,
  });
const state = async (id: string) => DeckState.parse(await (await owner(`/api/decks/${id}`)).json());

describe("reading a document as a job", () => {
  it("gives the deck at once, its slides as they are made, and what was adapted at the end", async () => {
    const { id, job, report } = ImportResult.parse(await (await upload("field-handbook.docx", handbook)).json());
    expect([report, typeof job]).toEqual([null, "string"]);
    expect((await owner(`/api/decks/${id}`)).status).toBe(200);
    const done = await ended(owner, job as string);
    expect(done).toMatchObject({
      state: "done",
      deck: id,
      name: "field-handbook.docx",
      report: { adapted: [], left: [] },
    });
    const { deck, text, version } = await state(id);
    expect([deck.slides.length, deck.properties.title, deck.language]).toEqual([
      done.slides,
      "Field handbook of the station",
      "en-GB",
    ]);
    expect(deck.slides.filter(hasNotes).length).toBeGreaterThan(20);
    expect(text).toContain("## The bar at low water");
    expect(deck.manuscript?.rule.placement).toBe("both");
    expect(deck.slides.every(({ source }) => source?.document === deck.manuscript?.document)).toBe(true);
    // The log leads from the empty deck to this one: pages that watch it arrive end with the same slides.
    const { changes } = await (await owner(`/api/decks/${id}/changes?since=0`)).json();
    expect(changes.length).toBe(version);
    // What the file brought is nothing that was done here: no press of Undo takes it away.
    expect(await (await owner(`/api/decks/${id}/steps?skip=0`)).json()).toEqual({ undo: [], redo: [], more: false });
    const blobs = Object.values(deck.assets);
    expect((await owner(`/api/decks/${id}/pictures/${blobs[0]?.sha256}`)).status).toBe(200);
  });

  it("shows pictures that pages do not show as they come, and says so", async () => {
    const parts = unzipSync(handbook);
    const path = must(Object.keys(parts).find((name) => /media\/.*\.png$/.test(name)));
    const { id, job } = ImportResult.parse(
      await (await upload("halves.docx", zipSync({ ...parts, [path]: dotsFile("halves.tiff") }))).json(),
    );
    const done = await ended(owner, job as string);
    expect(done.report).toEqual({
      adapted: [expect.objectContaining({ how: expect.stringMatching(/the pixels \(tiff\) are stored as PNG/) })],
      left: [],
    });
    const { deck } = await state(id);
    const [asset] = Object.values(deck.assets);
    expect(asset).toMatchObject({ mediaType: "image/png", width: 100, height: 50 });
    expect((await owner(`/api/decks/${id}/pictures/${asset?.sha256}`)).headers.get("content-type")).toBe("image/png");
    expect(await (await owner(`/api/decks/${id}/steps?skip=0`)).json()).toEqual({ undo: [], redo: [], more: false });
    const again = DocumentText.parse(
      await (
        await owner(`/api/decks/${id}/documents?name=halves.docx`, {
          method: "POST",
          headers: { "content-type": "application/octet-stream" },
          body: zipSync({ ...parts, [path]: dotsFile("halves.tiff") }) as BodyInit,
        })
      ).json(),
    );
    expect(Object.values(again.assets)).toEqual([asset]);
  });

  it("takes what was typed as a deck without a job", async () => {
    const brought = ImportResult.parse(
      await (await upload("shore.md", "# Shore\n\n## Tides\n\n- twice a day\n")).json(),
    );
    expect(brought.job).toBeNull();
    expect((await state(brought.id)).deck.slides.map(nameOf)).toEqual(["Shore", "Tides"]);
  });

  it("is warmed with a sample that is read whole", async () => {
    const seen = { slides: 0, left: -1 };
    for await (const progress of readFile({
      fonts: join(import.meta.dirname, "../../dist/fonts"),
      name: "sample.docx",
      bytes: sampleDocument(6),
      deck: "d",
      document: "x",
    })) {
      if (progress.kind === "slides") seen.slides += progress.slides.length;
      if (progress.kind === "end") seen.left = progress.left.length;
    }
    expect(seen.slides).toBeGreaterThan(5);
    expect(seen.left).toBe(0);
  });

  it("says why a document was refused, and leaves no empty deck behind", async () => {
    const { job, id } = ImportResult.parse(
      await (await upload("broken.docx", new Uint8Array([0x50, 0x4b, 1, 2, 3]))).json(),
    );
    expect(await ended(owner, job as string)).toMatchObject({
      state: "failed",
      slides: 0,
      message: expect.stringContaining("damaged"),
    });
    for (let wait = 0; wait < 50 && (await owner(`/api/decks/${id}`)).status !== 404; wait++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    expect((await owner(`/api/decks/${id}`)).status).toBe(404);
    expect((await upload("empty.docx", new Uint8Array())).status).toBe(422);
  });

  it("is nobody else's to see or to cancel", async () => {
    const { job } = ImportResult.parse(await (await upload("names.txt", "Alder\nBirch\nCedar\n")).json());
    expect((await other(`/api/jobs/${job}`)).status).toBe(404);
    expect((await other(`/api/jobs/${job}/cancel`, { method: "POST" })).status).toBe(404);
    await ended(owner, job as string);
    expect(JobList.parse(await (await owner("/api/jobs")).json()).jobs.some(({ id }) => id === job)).toBe(true);
    expect((await owner(`/api/jobs/${job}`, { method: "DELETE" })).status).toBe(204);
    expect(JobList.parse(await (await owner("/api/jobs")).json()).jobs.some(({ id }) => id === job)).toBe(false);
  });
});

describe("reading a presentation as a job", () => {
  const quay = readFileSync(join(import.meta.dirname, "../../demo/content/quay-in-autumn.pptx"));

  it.each(["quay-in-autumn.pptx", "open-day.odp"])(
    "gives of %s the deck that reading it at once gives, lot by lot, with all that its file keeps",
    async (name) => {
      const bytes = readFileSync(join(import.meta.dirname, "../../demo/content", name));
      const { id, job } = ImportResult.parse(await (await upload(name, bytes)).json());
      const done = await ended(owner, job as string);
      expect(done).toMatchObject({ state: "done", slides: 8, pages: 8 });
      const { deck } = await state(id);
      const whole = readDeck(new Uint8Array(bytes), name, {
        newId: () => nanoid(10),
        sha256: (part) => createHash("sha256").update(part).digest("hex"),
      });
      const sums = ({ slides }: Deck) =>
        slides.map((slide) => textHash(canonical(slide).replace(/"id":"[\w-]+"|slide:[\w-]+/g, "")));
      expect(sums(deck)).toEqual(sums(whole.deck));
      for (const part of ["theme", "page", "properties", "assets", "masters", "styles", "language"] as const)
        expect(deck[part]).toEqual(whole.deck[part]);
      expect(done.report?.adapted).toEqual(whole.adapted);
      expect(await (await owner(`/api/decks/${id}/steps?skip=0`)).json()).toEqual({ undo: [], redo: [], more: false });
      // Untouched it is written as it came.
      const again = new Uint8Array(
        await (await owner(`/api/decks/${id}/export?format=${name.split(".").pop()}`)).arrayBuffer(),
      );
      const [before, after] = [unzipSync(new Uint8Array(bytes)), unzipSync(again)];
      const same = Object.keys(before).filter((path) => /slides\/slide\d|content\.xml|media\//.test(path));
      expect(same.length).toBeGreaterThan(0);
      for (const path of same)
        expect(Buffer.from(after[path] ?? []).equals(Buffer.from(must(before[path])))).toBe(true);
    },
  );

  it("is found on the Desk by the name of its file too, where another title stands in it", async () => {
    const { job } = ImportResult.parse(await (await upload("TB2-07-Curlew.pptx", quay)).json());
    const done = await ended(owner, job as string);
    const rows = DeckList.parse(await (await owner("/api/decks")).json()).decks;
    const row = rows.find(({ id }) => id === done.deck);
    expect(row).toMatchObject({ file: "TB2-07-Curlew" });
    expect(row?.title).not.toBe("TB2-07-Curlew");
    const named = ImportResult.parse(await (await upload("Shore.md", "# Shore\n\n## Tides\n")).json());
    expect(
      DeckList.parse(await (await owner("/api/decks")).json()).decks.find(({ id }) => id === named.id),
    ).toMatchObject({ title: "Shore", file: null });
  });

  it("is refused whole where a slide is damaged, however many came before it", async () => {
    const parts = unzipSync(new Uint8Array(quay));
    const { id, job } = ImportResult.parse(
      await (
        await upload(
          "damaged.pptx",
          zipSync({ ...parts, "ppt/slides/slide7.xml": new TextEncoder().encode("<p:sld>") }),
        )
      ).json(),
    );
    expect(await ended(owner, job as string)).toMatchObject({
      state: "failed",
      message: expect.stringContaining("slide7.xml"),
    });
    for (let wait = 0; wait < 50 && (await owner(`/api/decks/${id}`)).status !== 404; wait++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    expect((await owner(`/api/decks/${id}`)).status).toBe(404);
    // What is no package at all is refused before anything is made.
    expect((await upload("words.pptx", "hello")).status).toBe(422);
  });
});

/** A reader that gives two slides and then waits until it is stopped or let on; `ended` resolves when it has ended. */
function slowReader(): Work & { go: () => void; ended: Promise<void> } {
  let end: () => void = () => undefined;
  const ended = new Promise<void>((resolve) => {
    end = resolve;
  });
  let go: () => void = () => undefined;
  const gate = new Promise<void>((resolve) => {
    go = resolve;
  });
  return {
    ...inlineWork,
    go: () => go(),
    ended,
    async *read({ deck }, { signal: stop = new AbortController().signal }) {
      const { slides: _, ...metadata } = emptyDeck(deck, "Slow");
      yield { kind: "head", metadata, blobs: new Map(), typed: false };
      yield {
        kind: "slides",
        slides: [1, 2].map((nth) => ({
          id: `s${nth}`,
          parent: null,
          arrangement: "blank",
          elements: [],
          notes: [],
          hidden: false,
        })),
        page: 1,
      };
      try {
        await Promise.race([gate, new Promise<void>((resolve) => stop.addEventListener("abort", () => resolve()))]);
        if (stop.aborted) return;
        yield {
          kind: "slides",
          slides: [{ id: "s3", parent: null, arrangement: "blank", elements: [], notes: [], hidden: false }],
          page: 2,
        };
        yield { kind: "end", adapted: [], left: [] };
      } finally {
        end();
      }
    },
    close: async () => undefined,
  };
}

describe("a job that does not run to its end", () => {
  const url = () => {
    const address = new URL(process.env.UNITEXT_TEST_DATABASE ?? "");
    address.pathname = "/unitext_jobs_slow";
    return address.href;
  };
  let slow: TestServer;
  let jobs: Jobs;
  beforeAll(async () => {
    slow = await testServer("unitext_jobs_slow", { withoutJobs: true });
    await slow.as("olive");
  });
  afterEach(() => jobs.close());
  afterAll(() => slow.close());
  const until = async (test: () => Promise<boolean>) => {
    for (let wait = 0; wait < 200 && !(await test()); wait++) await new Promise((resolve) => setTimeout(resolve, 30));
    expect(await test()).toBe(true);
  };

  it("keeps what was made when it is cancelled, and makes no more", async () => {
    const reader = slowReader();
    jobs = new Jobs({ db: slow.db, url: url(), work: reader, fonts: "" });
    await jobs.start();
    const { deck, job } = await jobs.read("olive", "slow.docx", new Uint8Array([1]));
    await until(async () => (await loadJob(slow.db, job)).slides === 2);
    expect(await updateJob(slow.db, job, { state: "cancelled" })).toBe(true);
    reader.go();
    await reader.ended;
    expect((await loadDeck(slow.db, deck)).deck.slides.map(({ id }) => id)).toEqual(["s1", "s2"]);
    expect((await loadJob(slow.db, job)).bytes).toBeNull();
    // What has ended stays as it ended.
    expect(await updateJob(slow.db, job, { state: "done" })).toBe(false);
  });

  it.each([
    ["and begins again", 1],
    ["also when its last slides were stored and not yet counted", 0],
  ])("is taken up by the next server within seconds when its server has ended, %s", async (_, slides) => {
    const deck = emptyDeck(nanoid(12), "Left behind");
    await createDeck(
      slow.db,
      "olive",
      { ...deck, slides: [{ id: "half", parent: null, arrangement: "blank", elements: [], notes: [], hidden: false }] },
      new Map(),
      null,
    );
    const begun = nanoid(12);
    await createJob(
      slow.db,
      { id: begun, owner: "olive", deck: deck.id, kind: "read", name: "left.docx" },
      new Uint8Array([1]),
    );
    // Its server was at work until a moment ago, and says nothing any more.
    await slow.db
      .update(schema.jobs)
      .set({ state: "running", server: "gone", beatAt: new Date(Date.now() - 8500), slides, tries: 1 })
      .where(eq(schema.jobs.id, begun));
    const reader = slowReader();
    reader.go();
    jobs = new Jobs({ db: slow.db, url: url(), work: reader, fonts: "" });
    await jobs.start();
    expect((await loadJob(slow.db, begun)).server).toBe("gone");
    await until(async () => (await loadJob(slow.db, begun)).state === "done");
    expect((await loadDeck(slow.db, deck.id)).deck.slides.map(({ id }) => id)).toEqual(["s1", "s2", "s3"]);
  });

  it("says that it was interrupted, and keeps what was made, where that was changed by hand since", async () => {
    const deck = emptyDeck(nanoid(12), "Left behind");
    await createDeck(
      slow.db,
      "olive",
      { ...deck, slides: [{ id: "half", parent: null, arrangement: "blank", elements: [], notes: [], hidden: false }] },
      new Map(),
      null,
    );
    await applyChanges(slow.db, deck.id, "olive", {
      base: 0,
      changes: [{ id: nanoid(12), change: { kind: "setHidden", slide: "half", hidden: true } }],
    });
    const begun = nanoid(12);
    await createJob(
      slow.db,
      { id: begun, owner: "olive", deck: deck.id, kind: "read", name: "left.docx" },
      new Uint8Array([1]),
    );
    await slow.db.update(schema.jobs).set({ slides: 1, tries: 1 }).where(eq(schema.jobs.id, begun));
    const reader = slowReader();
    reader.go();
    jobs = new Jobs({ db: slow.db, url: url(), work: reader, fonts: "" });
    await jobs.start();
    await until(async () => (await loadJob(slow.db, begun)).state === "failed");
    expect((await loadJob(slow.db, begun)).message).toContain("interrupted");
    expect((await loadDeck(slow.db, deck.id)).deck.slides.map(({ id, hidden }) => [id, hidden])).toEqual([
      ["half", true],
    ]);
  });

  it("is not begun without end when it ends its server each time", async () => {
    const deck = emptyDeck(nanoid(12), "Fatal");
    await createDeck(slow.db, "olive", deck, new Map(), null);
    const fatal = nanoid(12);
    await createJob(
      slow.db,
      { id: fatal, owner: "olive", deck: deck.id, kind: "read", name: "fatal.docx" },
      new Uint8Array([1]),
    );
    await slow.db.update(schema.jobs).set({ tries: 3 }).where(eq(schema.jobs.id, fatal));
    jobs = new Jobs({ db: slow.db, url: url(), work: slowReader(), fonts: "" });
    await jobs.start();
    await until(async () => (await loadJob(slow.db, fatal)).state === "failed");
    expect((await loadJob(slow.db, fatal)).message).toContain("not tried again");
  });

  it("goes on where it begins in the moment in which the server says what it is at work on", async () => {
    jobs = new Jobs({ db: slow.db, url: url(), work: slowReader(), fonts: "" });
    await jobs.start();
    const inside = jobs as unknown as { tick(): Promise<void>; running: Map<string, AbortController> };
    const said = inside.tick();
    const stop = new AbortController();
    inside.running.set("begun-meanwhile", stop);
    await said;
    expect(stop.signal.aborted).toBe(false);
    inside.running.delete("begun-meanwhile");
  });

  it("takes turns between people: who brings many files does not hold up one who brings a single one", async () => {
    const reader = slowReader();
    jobs = new Jobs({ db: slow.db, url: url(), work: reader, fonts: "" });
    await jobs.start();
    await slow.as("perry");
    const many = await Promise.all(
      Array.from({ length: 8 }, (_, nth) => jobs.read("olive", `many-${nth}.docx`, new Uint8Array([1]))),
    );
    const one = await jobs.read("perry", "one.docx", new Uint8Array([1]));
    await until(async () => (await loadJob(slow.db, one.job)).slides === 2);
    const states = await Promise.all(many.map(async ({ job }) => (await loadJob(slow.db, job)).state));
    expect([
      states.filter((state) => state === "running").length,
      states.filter((state) => state === "waiting").length,
    ]).toEqual([2, 6]);
    reader.go();
    await until(async () =>
      (await Promise.all(many.map(async ({ job }) => (await loadJob(slow.db, job)).state))).every(
        (state) => state === "done",
      ),
    );
  });
});

describe("a newer version of a document", () => {
  it("is read for its deck, with its pictures, and changes nothing until the deck is changed", async () => {
    const { id, job } = ImportResult.parse(await (await upload("field-handbook.docx", handbook)).json());
    await ended(owner, job as string);
    const before = await state(id);
    const answer = await owner(`/api/decks/${id}/documents?name=field-handbook.docx`, {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: handbook as unknown as BodyInit,
    });
    const found = DocumentText.parse(await answer.json());
    expect(found.text).toBe(before.text);
    expect((await state(id)).version).toBe(before.version);
    expect((await other(`/api/decks/${id}/documents?name=a.docx`, { method: "POST", body: "x" })).status).toBe(404);
    expect(
      (
        await owner(`/api/decks/${id}/documents?name=a.exe`, {
          method: "POST",
          headers: { "content-type": "application/octet-stream" },
          body: "x",
        })
      ).status,
    ).toBe(415);
  });

  it("keeps the text of the document with a change, through a copy, and leaves it where slides are changed by hand", async () => {
    const { id, job } = ImportResult.parse(
      await (
        await upload(
          "gauge.html",
          "<html lang='en'><body><h1>Gauges</h1><h2>Quay</h2><p>The gauge at the quay is read every ten minutes by the keeper, whatever the weather is.</p></body></html>",
        )
      ).json(),
    );
    await ended(owner, job as string);
    const { deck, version, text } = await state(id);
    const send = (base: number, change: unknown, typed?: string) =>
      owner(`/api/decks/${id}/changes`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({
          base,
          changes: [{ id: nanoid(12), change, ...(typed === undefined ? {} : { text: typed }) }],
        }),
      });
    await send(version, { kind: "setHidden", slide: deck.slides[0]?.id, hidden: true });
    expect((await state(id)).text).toBe(text);
    await send(version + 1, { kind: "batch", changes: [] }, `${text}\n## Bar\n`);
    expect((await state(id)).text).toBe(`${text}\n## Bar\n`);
    const copy = await (
      await owner(`/api/decks/${id}/copies`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: "{}",
      })
    ).json();
    expect((await state(copy.id)).text).toBe(`${text}\n## Bar\n`);
  });
});
