import { nanoid } from "nanoid";
import { apply } from "@unitext/core/edit";
import {
  type Deck,
  emptyDeck,
  linksOf,
  newSlide,
  plainText,
  run,
  type Slide,
  slideTexts,
  THEMES,
  titleOf,
} from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { type SentChange, DeckAt, DeckState, Differs, History, Job, OriginalStates, Steps } from "./api";
import { addBlobs, createDeck, createJob, deckAt, loadDeck, loadJob, schema, stepsOf, updateJob } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
let owner: Awaited<ReturnType<TestServer["as"]>>;
let other: Awaited<ReturnType<TestServer["as"]>>;
beforeAll(async () => {
  server = await testServer("unitext_divide");
  owner = await server.as("olive");
  other = await server.as("perry");
});
afterAll(() => server.close());

const slide = (id: string, title: string, options: Partial<Slide> = {}): Slide => ({
  ...newSlide(id, "points"),
  elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(title) }],
  ...options,
});
const SUM = "c".repeat(64);
async function stored(title: string, slides: Slide[], user = "olive"): Promise<Deck> {
  const deck: Deck = {
    ...emptyDeck(nanoid(12), title),
    assets: { "pictures/a.png": { sha256: SUM, mediaType: "image/png", width: 2, height: 2 } },
    slides,
  };
  await createDeck(server.db, user, deck, new Map(), null);
  await addBlobs(server.db, deck.id, new Map([[SUM, new Uint8Array([1, 2, 3])]]));
  return deck;
}
const course = () => [
  slide("a", "Opening"),
  slide("b", "Tides", { notes: [{ kind: "plain", level: 0, runs: [run("see dunes", [], "slide:c")] }] }),
  slide("c", "Dunes", { elements: [{ kind: "picture", id: "p", slot: null, source: "pictures/a.png", alt: "" }] }),
  slide("d", "Storms", { parent: "c" }),
  slide("e", "Thanks"),
];
const load = async (id: string) => (await loadDeck(server.db, id)).deck;
async function ended(begun: Response): Promise<Job> {
  const { job } = (await begun.json()) as { job: string };
  for (let wait = 0; wait < 400; wait++) {
    const found = Job.parse(await (await owner(`/api/jobs/${job}`)).json());
    if (found.state !== "waiting" && found.state !== "running") return found;
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  throw new Error("The job did not end.");
}
const split = async (deck: string, plan: unknown) =>
  ended(await owner(`/api/decks/${deck}/parts`, json({ plan, date: "2026-11-25" })));
const asked = (decks: { id: string; version?: number; slides?: string[] }[], rest = {}) =>
  json({
    decks: decks.map((one) => ({ version: 0, ...one })),
    title: "Together",
    appearance: "match",
    sections: false,
    contents: false,
    openingsOnce: false,
    drop: [],
    ...rest,
  });
const decksOf = async () => (await server.db.select({ id: schema.decks.id }).from(schema.decks)).length;

describe("splitting as a job", () => {
  it("makes a deck a part with its pictures, leaves the original, and accounts for all of it", async () => {
    const deck = await stored("Course", course());
    const done = await split(deck.id, {
      opening: "1",
      closing: "5",
      parts: [
        { name: "Day one", slides: "2" },
        { name: "Day two", slides: "3-4" },
      ],
    });
    expect(done).toMatchObject({ kind: "split", state: "done", page: 2, pages: 2, slides: 7, deck: deck.id });
    expect(done.result?.decks.map(({ title, slides }) => [title, slides])).toEqual([
      ["Day one", 3],
      ["Day two", 4],
    ]);
    expect(done.result?.sentence).toBe("5 slides, notes on 1 and 1 link: all are there (2 slides more than once).");
    const [one, two] = await Promise.all((done.result?.decks ?? []).map(({ id }) => load(id)));
    expect(two?.slides.map(titleOf)).toEqual(["Opening", "", "Storms", "Thanks"]);
    expect(one?.slides.flatMap((each) => slideTexts(each).flatMap(linksOf)).map(({ to }) => to)).toEqual([
      `deck:${two?.id}/${two?.slides[1]?.id}`,
    ]);
    expect((await owner(`/api/decks/${two?.id}/pictures/${SUM}`)).status).toBe(200);
    expect((await owner(`/api/decks/${one?.id}/pictures/${SUM}`)).status).toBe(404);
    expect(await load(deck.id)).toEqual(deck);
  });

  it("refuses a plan with its line, and makes nothing", async () => {
    const deck = await stored("Course", course());
    const before = await decksOf();
    const done = await split(deck.id, {
      parts: [
        { name: "A", slides: "1" },
        { name: "B", slides: "4-9" },
      ],
    });
    expect([done.state, done.message]).toEqual(["failed", "parts[1] (B): “4-9” names slide 9, but the last is 5."]);
    expect(await decksOf()).toBe(before);
    expect(
      (await owner(`/api/decks/${deck.id}/parts`, json({ plan: { parts: [], by: { minutes: 3 } }, date: "" }))).status,
    ).toBe(400);
    expect((await other(`/api/decks/${deck.id}/parts`, json({ plan: { by: { count: 2 } }, date: "" }))).status).toBe(
      404,
    );
  });

  it("leaves nothing half-made when it is cancelled on its way", async () => {
    const deck = await stored(
      "Long",
      Array.from({ length: 400 }, (_, nth) => slide(`s${nth}`, `Slide ${nth}`)),
    );
    const before = await decksOf();
    const { runSplit, Cancelled } = await import("./jobs/divide");
    await expect(
      runSplit({ db: server.db, owner: "olive", progress: async (done) => done < 60 }, deck.id, {
        plan: { by: { count: 4 } },
        date: "",
      }),
    ).rejects.toThrow(Cancelled);
    expect(await decksOf()).toBe(before);
    // A job that is cancelled before its turn does nothing either.
    await createJob(
      server.db,
      { id: "stopped", owner: "olive", deck: deck.id, kind: "split", name: "Long" },
      new TextEncoder().encode(JSON.stringify({ plan: { by: { count: 4 } }, date: "" })),
    );
    await updateJob(server.db, "stopped", { state: "cancelled" });
    expect((await loadJob(server.db, "stopped")).state).toBe("cancelled");
    expect(await decksOf()).toBe(before);
  });
});

describe("merging as a job", () => {
  it("makes one deck of several in the order given, pictures included, and touches none", async () => {
    const [one, two] = [await stored("One", course()), await stored("Two", [slide("a", "Opening"), slide("x", "Own")])];
    const done = await ended(
      await owner(
        "/api/merges",
        asked([{ id: two.id }, { id: one.id, slides: ["b", "c"] }], { sections: true, contents: true }),
      ),
    );
    expect(done).toMatchObject({ kind: "merge", state: "done", deck: done.result?.decks[0]?.id });
    const deck = await load(done.deck as string);
    expect(deck.slides.map(titleOf)).toEqual(["Contents", "Two", "Opening", "Own", "One", "Tides", ""]);
    expect(deck.slides[5]?.origin).toEqual({ deck: one.id, slide: "b", version: 0 });
    // What comes unchanged is copied inside the database, and is the same to the last element.
    expect(deck.slides[6]).toEqual({
      ...one.slides[2],
      id: deck.slides[6]?.id,
      origin: { deck: one.id, slide: "c", version: 0 },
    });
    expect(done.report?.left.map(({ slide: number, why }) => [number, why])).toEqual([
      [1, "it was not chosen"],
      [4, "it was not chosen"],
      [5, "it was not chosen"],
    ]);
    expect((await owner(`/api/decks/${deck.id}/pictures/${SUM}`)).status).toBe(200);
    expect([await load(one.id), await load(two.id)]).toEqual([one, two]);
  });

  it("lets slides keep their look, those that are copied inside the database too", async () => {
    const plain = await stored("Plain", course());
    const other: Deck = {
      ...emptyDeck(nanoid(12), "Other"),
      theme: THEMES.chalk,
      slides: [
        slide("x", "Own"),
        slide("y", "Linked", { notes: [{ kind: "plain", level: 0, runs: [run("back", [], "slide:x")] }] }),
      ],
    };
    await createDeck(server.db, "olive", other, new Map(), null);
    const done = await ended(
      await owner("/api/merges", asked([{ id: plain.id }, { id: other.id }], { appearance: "keep" })),
    );
    const deck = await load(done.deck as string);
    expect(deck.themes).toEqual({ Chalk: THEMES.chalk });
    expect(deck.slides.map(({ theme }) => theme ?? "")).toEqual(["", "", "", "", "", "Chalk", "Chalk"]);
    // Merged again, they come with the same look, and with one origin: the deck that they were taken from last.
    const again = await load(
      (
        await ended(
          await owner(
            "/api/merges",
            asked([{ id: deck.id, slides: deck.slides.slice(5).map(({ id }) => id) }], { appearance: "match" }),
          ),
        )
      ).deck as string,
    );
    expect(again.slides.map(({ theme, origin }) => [theme, origin?.deck])).toEqual([
      [undefined, deck.id],
      [undefined, deck.id],
    ]);
  });

  it("says when a deck was changed or deleted meanwhile, and makes nothing of a list that is no longer whole", async () => {
    const [one, two, three] = [
      await stored("One", course()),
      await stored("Two", course()),
      await stored("Theirs", course(), "perry"),
    ];
    await owner(
      `/api/decks/${two.id}/changes`,
      json({ base: 0, changes: [{ id: nanoid(), change: { kind: "deleteSlide", slide: "e" } }] }),
    );
    const changed = await ended(await owner("/api/merges", asked([{ id: one.id }, { id: two.id }])));
    expect([changed.state, changed.result?.remarks]).toEqual([
      "done",
      ["“Two” was changed meanwhile; it was taken as it stands now."],
    ]);
    const gone = await ended(await owner("/api/merges", asked([{ id: two.id, slides: ["a", "e"] }])));
    expect([gone.state, gone.message]).toEqual([
      "failed",
      "A slide that was chosen is no longer in “Two”. Choose its slides again.",
    ]);
    expect((await owner("/api/merges", asked([{ id: one.id }, { id: three.id }]))).status).toBe(404);
    const before = await decksOf();
    const { runMerge } = await import("./jobs/divide");
    await expect(
      runMerge(
        { db: server.db, owner: "olive", progress: async () => true },
        {
          decks: [
            { id: one.id, version: 0 },
            { id: "nowhere", version: 0 },
          ],
          title: "",
          appearance: "match",
          sections: false,
          contents: false,
          openingsOnce: false,
          drop: [],
        },
      ),
    ).rejects.toThrow("Deck 2 of the list was deleted meanwhile");
    expect(await decksOf()).toBe(before);
  });

  it("lets another's deck be merged that was shared to look at, without touching it", async () => {
    const theirs = await stored("Theirs", course(), "perry");
    await server.db.insert(schema.shares).values({ deck: theirs.id, user: "olive", right: "view" });
    const done = await ended(await owner("/api/merges", asked([{ id: theirs.id }])));
    expect(done.state).toBe("done");
    expect(await load(theirs.id)).toEqual(theirs);
  });

  it("brings slides of another deck into one by a change, their picture files too", async () => {
    const [from, to] = [await stored("From", course()), await stored("To", [slide("m", "Main")])];
    await server.db.delete(schema.deckBlobs).where((await import("drizzle-orm")).eq(schema.deckBlobs.deck, to.id));
    const change = {
      kind: "batch",
      changes: [{ kind: "setAsset", name: "pictures/b.png", asset: from.assets["pictures/a.png"] }],
    };
    expect(
      (await owner(`/api/decks/${to.id}/changes`, json({ base: 0, changes: [{ id: nanoid(), change }] }))).status,
    ).toBe(200);
    expect((await owner(`/api/decks/${to.id}/pictures/${SUM}`)).status).toBe(200);
    // Not what one may not see.
    const secret = await stored("Secret", course(), "perry");
    await addBlobs(server.db, secret.id, new Map([["d".repeat(64), new Uint8Array([9])]]));
    await owner(
      `/api/decks/${to.id}/changes`,
      json({
        base: 1,
        changes: [
          {
            id: nanoid(),
            change: {
              kind: "setAsset",
              name: "x.png",
              asset: { sha256: "d".repeat(64), mediaType: "image/png", width: 1, height: 1 },
            },
          },
        ],
      }),
    );
    expect((await owner(`/api/decks/${to.id}/pictures/${"d".repeat(64)}`)).status).toBe(404);
  });
});

describe("history", () => {
  const send = async (deck: string, base: number, ...list: Omit<SentChange, "id">[]) =>
    owner(`/api/decks/${deck}/changes`, json({ base, changes: list.map((item) => ({ id: nanoid(10), ...item })) }));

  it("lists what was done, by whom and when, names states, and gives the deck as it was at any of them", async () => {
    const deck = await stored("Course", course());
    await send(
      deck.id,
      0,
      { change: { kind: "setHidden", slide: "b", hidden: true }, description: "Hid slide 2" },
      { change: { kind: "deleteSlide", slide: "e" } },
    );
    expect(
      (await owner(`/api/decks/${deck.id}/versions`, json({ version: 1, name: "For the board" }, "PUT"))).status,
    ).toBe(204);
    const history = History.parse(await (await owner(`/api/decks/${deck.id}/history`)).json());
    expect(
      history.entries.map(({ version, user, description: describeChange, name }) => [
        version,
        user,
        describeChange,
        name,
      ]),
    ).toEqual([
      [2, "olive", "Deleted a slide", null],
      [1, "olive", "Hid slide 2", "For the board"],
    ]);
    expect([history.version, history.first]).toEqual([2, true]);
    const at = DeckAt.parse(await (await owner(`/api/decks/${deck.id}/at/1`)).json());
    expect(at.deck).toEqual(apply(deck, { kind: "setHidden", slide: "b", hidden: true }).deck);
    expect(await deckAt(server.db, deck.id, 0)).toEqual(deck);
    expect((await owner(`/api/decks/${deck.id}/at/9`)).status).toBe(404);
    expect((await owner(`/api/decks/${deck.id}/versions`, json({ version: 9, name: "x" }, "PUT"))).status).toBe(400);
    expect((await owner(`/api/decks/${deck.id}/versions/1`, { method: "DELETE" })).status).toBe(204);
    expect((await (await owner(`/api/decks/${deck.id}/versions`)).json()).versions).toEqual([]);
  });

  it("tells the steps that can be taken back in another session, and done again", async () => {
    const deck = await stored("Course", course());
    await send(deck.id, 0, { change: { kind: "setHidden", slide: "b", hidden: true }, description: "Hid slide 2" });
    await owner(
      `/api/decks/${deck.id}/changes`,
      json({
        base: 1,
        changes: [{ id: "act", change: { kind: "deleteSlide", slide: "e" }, description: "Deleted slide 5" }],
      }),
    );
    const steps = async () => Steps.parse(await (await owner(`/api/decks/${deck.id}/steps`)).json());
    const first = await steps();
    expect(first.undo.map(({ description: describeChange }) => describeChange)).toEqual([
      "Deleted slide 5",
      "Hid slide 2",
    ]);
    await send(deck.id, 2, {
      change: first.undo[0]?.change as never,
      description: "Undone: deleted slide 5",
      undoes: "act",
    });
    expect(await load(deck.id)).toEqual(apply(deck, { kind: "setHidden", slide: "b", hidden: true }).deck);
    const second = await steps();
    expect([
      second.undo.map(({ description: describeChange }) => describeChange),
      second.redo.map(({ id, description: describeChange }) => [id, describeChange]),
    ]).toEqual([["Hid slide 2"], [["act", "deleted slide 5"]]]);
    expect(
      History.parse(await (await owner(`/api/decks/${deck.id}/history`)).json()).entries.map(({ undone }) => undone),
    ).toEqual([false, true, false]);
    await send(deck.id, 3, { change: second.redo[0]?.change as never, description: "Done again", redoes: "act" });
    expect((await load(deck.id)).slides.length).toBe(4);
    expect((await steps()).undo).toHaveLength(2);
  });

  it("a new act ends what could be done again", () => {
    const ids = idSource("e");
    const entry = (undoes: string | null = null, redoes: string | null = null) => ({
      id: ids(),
      version: 0,
      description: null,
      undoes,
      redoes,
    });
    const log = [entry(), entry(), entry("e2"), entry()];
    expect(stepsOf(log).undo.map(({ id }) => id)).toEqual(["e1", "e4"]);
    expect(stepsOf(log).redo).toEqual([]);
    expect(stepsOf(log.slice(0, 3)).redo.map(({ id }) => id)).toEqual(["e2"]);
  });
});

describe("a version for another audience", () => {
  it("follows its original and tells both what differs", async () => {
    const deck = await stored("Report", course());
    const made = await owner(`/api/decks/${deck.id}/followers`, json({ title: "For the board" }));
    const { id } = (await made.json()) as { id: string };
    const version = DeckState.parse(await (await owner(`/api/decks/${id}`)).json()).deck;
    expect(version.original).toEqual({ deck: deck.id, version: 0 });
    expect((await owner(`/api/decks/${id}/pictures/${SUM}`)).status).toBe(200);
    await owner(
      `/api/decks/${deck.id}/changes`,
      json({ base: 0, changes: [{ id: nanoid(), change: { kind: "setNotes", slide: "a", notes: plainText("new") } }] }),
    );
    const states = OriginalStates.parse(await (await owner(`/api/decks/${id}/original`)).json());
    expect([states.base.slides[0]?.notes, states.now.slides[0]?.notes, states.version]).toEqual([
      [],
      plainText("new"),
      1,
    ]);
    const differs = Differs.parse(await (await owner(`/api/decks/${deck.id}/differs`)).json());
    expect([differs.decks, differs.rows.map(({ states: list }) => list[0])]).toEqual([
      [{ id, title: "For the board" }],
      ["changed", "followed", "followed", "followed", "followed"],
    ]);
    expect((await other(`/api/decks/${deck.id}/followers`)).status).toBe(404);
    await owner(`/api/decks/${deck.id}`, { method: "DELETE" });
    expect((await owner(`/api/decks/${id}/original`)).status).toBe(404);
    expect((await owner(`/api/decks/${id}`)).status).toBe(200);
  });
});
