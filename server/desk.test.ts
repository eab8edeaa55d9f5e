import { type Deck, emptyDeck, must, newSlide, plainText, type Slide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { DeckList, DeckState, Found } from "./api";
import { createDeck, emptyOldBin } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
beforeAll(async () => {
  server = await testServer("desk");
});
afterAll(() => server.close());

const slide = (id: string, title: string, notes = "", more: Partial<Slide> = {}): Slide => ({
  ...newSlide(id, "points"),
  elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(title) }],
  notes: plainText(notes),
  ...more,
});

async function stored(owner: string, title: string, slides: Slide[], language = "en"): Promise<string> {
  const deck: Deck = { ...emptyDeck(nanoid(12), title), language, slides };
  return createDeck(server.db, owner, deck, new Map(), null);
}

const put = (body: unknown): RequestInit => ({ ...json(body), method: "PUT" });

describe("the Desk", () => {
  it("keeps a deck in its bin, takes it out again, and deletes it for good only after 30 days", async () => {
    const ask = await server.as("binny");
    const id = await stored("binny", "Tides", [slide("a", "Springs")]);
    const list = async () => DeckList.parse(await (await ask("/api/decks")).json());
    expect((await ask(`/api/decks/${id}/bin`, { method: "PUT" })).status).toBe(204);
    expect([(await list()).decks.length, (await list()).binned.map((row) => row.id)]).toEqual([0, [id]]);
    // Whoever has it open goes on: nothing of it is gone.
    expect((await ask(`/api/decks/${id}`)).status).toBe(200);
    await emptyOldBin(server.db);
    expect((await list()).binned).toHaveLength(1);
    expect((await ask(`/api/decks/${id}/bin`, { method: "DELETE" })).status).toBe(204);
    expect((await list()).decks.map((row) => row.title)).toEqual(["Tides"]);
    const stranger = await server.as("stranger");
    expect((await stranger(`/api/decks/${id}/bin`, { method: "PUT" })).status).toBe(404);
  });

  it("tells the pages that show a deck when it is put into the bin and taken out", async () => {
    const ask = await server.as("speaker");
    const id = await stored("speaker", "Storms", [slide("a", "Surge")]);
    const stop = new AbortController();
    const stream = await ask(`/api/decks/${id}/events`, { signal: stop.signal });
    const reader = must(stream.body ?? undefined).getReader();
    const heard = async (news: string) => {
      for (let text = ""; !text.includes(`data: ${news}\n`); )
        text += new TextDecoder().decode((await reader.read()).value);
    };
    await ask(`/api/decks/${id}/bin`, { method: "PUT" });
    await heard("binned");
    expect(DeckState.parse(await (await ask(`/api/decks/${id}`)).json()).binned).toBe(true);
    await ask(`/api/decks/${id}/bin`, { method: "DELETE" });
    await heard("restored");
    expect(DeckState.parse(await (await ask(`/api/decks/${id}`)).json()).binned).toBe(false);
    stop.abort();
  });

  it("has folders: a deck is in one, names are given once, and decks outlive their folder", async () => {
    const ask = await server.as("fay");
    const id = await stored("fay", "Dunes", [slide("a", "Sand")]);
    const made = await ask("/api/folders", json({ name: "Week 3" }));
    const { id: folder } = (await made.json()) as { id: string };
    expect((await ask("/api/folders", json({ name: "Week 3" }))).status).toBe(409);
    expect((await ask(`/api/decks/${id}/folder`, put({ folder }))).status).toBe(204);
    const list = async () => DeckList.parse(await (await ask("/api/decks")).json());
    expect([(await list()).folders, (await list()).decks[0]?.folder]).toEqual([
      [{ id: folder, name: "Week 3" }],
      folder,
    ]);
    const other = await server.as("frank");
    expect((await other(`/api/folders/${folder}`, put({ name: "Mine" }))).status).toBe(404);
    expect((await ask(`/api/folders/${folder}`, { method: "DELETE" })).status).toBe(204);
    expect((await list()).decks.map((row) => row.folder)).toEqual([null]);
  });

  it("renames a deck in place, as a change of the deck, and copies it under the next free name", async () => {
    const ask = await server.as("rene");
    const id = await stored("rene", "Tides", [slide("a", "Springs")]);
    expect((await ask(`/api/decks/${id}/title`, put({ title: "Tides and storms" }))).status).toBe(204);
    const { rows } = { rows: DeckList.parse(await (await ask("/api/decks")).json()).decks };
    expect(rows.map(({ title, version }) => [title, version])).toEqual([["Tides and storms", 1]]);
    await ask(`/api/decks/${id}/copies`, json({}));
    await ask(`/api/decks/${id}/copies`, json({}));
    const titles = DeckList.parse(await (await ask("/api/decks")).json()).decks.map(({ title }) => title);
    expect(titles.sort()).toEqual(["Tides and storms", "Tides and storms 2", "Tides and storms 3"]);
  });

  // Stems by the configurations of PostgreSQL 15 (manual, 12.1): "gauges" and "gauge" are one word in English.
  it("finds slides by the stems of their words and notes, in the language of each deck, and not those of others", async () => {
    const ask = await server.as("sofia");
    const found = async (words: string) =>
      Found.parse(await (await ask(`/api/search?words=${encodeURIComponent(words)}`)).json()).slides;
    const id = await stored("sofia", "Readings", [
      slide("a", "Reading the gauges"),
      slide("b", "Tides", "The quay gauge was late."),
    ]);
    await stored("sofia", "Pegel", [slide("c", "Die Pegel stiegen")], "de");
    await server.as("someone");
    await stored("someone", "Theirs", [slide("d", "Reading the gauges")]);
    expect((await found("gauge")).map(({ slide: one, number }) => [one, number])).toEqual([
      ["a", 1],
      ["b", 2],
    ]);
    expect((await found("steigen Pegel"))[0]).toBeUndefined();
    expect((await found("stieg")).map(({ slide: one }) => one)).toEqual(["c"]);
    expect((await found("late"))[0]?.words).toContain("\u0002late\u0003");
    // What is typed half is found too; what is changed is found at once.
    expect((await found("gaug")).length).toBe(2);
    await ask(
      `/api/decks/${id}/changes`,
      json({ base: 0, changes: [{ id: "x", change: { kind: "deleteSlide", slide: "a" } }] }),
    );
    expect((await found("gauge")).map(({ slide: one }) => one)).toEqual(["b"]);
    await ask(`/api/decks/${id}/bin`, { method: "PUT" });
    expect(await found("gauge")).toEqual([]);
    expect(await found("100%_'\\")).toEqual([]);
  });
});
