import { type Deck, emptyDeck, newSlide, plainText, type Slide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { type DeckList, Opened, Sharing, ViewedDeck, ViewedSlide } from "./api";
import { createDeck, ensureUser, loadDeck, schema } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
type Client = Awaited<ReturnType<TestServer["as"]>>;
let olive: Client;
let perry: Client;
beforeAll(async () => {
  server = await testServer("unitext_sharing", { demo: false });
  olive = await server.as("olive");
  perry = await server.as("perry");
});
afterAll(() => server.close());

const SECRET = "Slow down, they have not seen this before";
const slide = (id: string, more: Partial<Slide> = {}): Slide => ({
  ...newSlide(id, "points"),
  elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(`Title ${id}`) }],
  notes: plainText(SECRET),
  comments: [{ id: "c1", author: "Somebody", text: "Between us" }],
  ...more,
});
async function stored(more: Partial<Deck> = {}): Promise<Deck> {
  const deck = { ...emptyDeck(nanoid(12), "Levels"), slides: [slide("a"), slide("b")], ...more };
  await createDeck(server.db, "olive", deck, new Map(), null);
  return deck;
}

const ASKED = { scope: "deck", right: "view", notes: false, expiresAt: null } as const;
const sharing = async (response: Response) => Sharing.parse(await response.json());
/** Makes a link and returns its token. */
async function linkTo(path: string, asked: object = ASKED): Promise<string> {
  const { links } = await sharing(await olive(`${path}/sharing/links`, json(asked)));
  return links[0]?.path?.split("/").at(-1) ?? "";
}

/** Opens a link as somebody without an account. Returns the reply, and a client with the session that it gave. */
async function opened(token: string, body: object = {}): Promise<{ reply: Response; guest: Client }> {
  const { address } = server;
  const reply = await fetch(`${address}/api/links/${token}/opening`, {
    ...json(body),
    headers: { "content-type": "application/json", origin: address },
  });
  const cookie = reply.headers.getSetCookie()[0]?.split(";")[0] ?? "";
  const guest: Client = (path, init = {}) =>
    fetch(`${address}${path}`, { ...init, headers: { origin: address, ...init.headers, cookie } });
  return { reply, guest };
}

describe("a link", () => {
  it("lets a stranger look at the slides, and nothing tells the notes that are not shared", async () => {
    const deck = await stored();
    const { reply, guest } = await opened(await linkTo(`/api/decks/${deck.id}`));
    expect(Opened.parse(await reply.json()).decks).toEqual([
      { id: deck.id, title: "Levels", language: "en", slides: 2 },
    ]);
    const viewed = ViewedDeck.parse(await (await guest(`/api/decks/${deck.id}/look`)).json());
    expect([viewed.title, viewed.notes, viewed.slides.map(({ name }) => name)]).toEqual([
      "Levels",
      false,
      ["Title a", "Title b"],
    ]);
    const first = ViewedSlide.parse(await (await guest(`/api/decks/${deck.id}/look/a`)).json());
    expect([first.words, first.notes]).toEqual(["<h2>Title a</h2>", null]);
    const drawing = await guest(`/api/decks/${deck.id}/drawings/a?version=0`);
    expect(drawing.headers.get("content-type")).toContain("image/svg+xml");
    expect(await drawing.text()).toMatch(/^<svg /);
    const answers = ["first", "export?format=md", "export?format=json", "export?format=html", "report?format=md"].map(
      async (path) => (await guest(`/api/decks/${deck.id}/${path}`)).text(),
    );
    for (const text of await Promise.all(answers)) {
      expect(text).not.toContain(SECRET);
      expect(text).not.toContain("Between us");
    }
    for (const path of ["", "/changes?since=0", "/history", "/at/0", "/versions"])
      expect((await guest(`/api/decks/${deck.id}${path}`)).status).toBe(403);
  });

  it("shows the notes where they are shared", async () => {
    const deck = await stored();
    const { guest } = await opened(await linkTo(`/api/decks/${deck.id}`, { ...ASKED, notes: true }));
    const first = ViewedSlide.parse(await (await guest(`/api/decks/${deck.id}/look/a`)).json());
    expect(first.notes).toBe(`<p>${SECRET}</p>`);
    expect((await guest(`/api/decks/${deck.id}`)).status).toBe(200);
  });

  it("shows no slide that is hidden", async () => {
    const deck = await stored({ slides: [slide("a"), slide("b", { hidden: true }), slide("c", { parent: "b" })] });
    const { guest } = await opened(await linkTo(`/api/decks/${deck.id}`));
    const { slides } = ViewedDeck.parse(await (await guest(`/api/decks/${deck.id}/look`)).json());
    expect(slides.map(({ id, parent }) => [id, parent])).toEqual([
      ["a", null],
      ["c", null],
    ]);
    for (const path of ["look/b", "drawings/b"])
      expect((await guest(`/api/decks/${deck.id}/${path}`)).status).toBe(404);
  });

  it("with a pass phrase of emoji opens with it alone", async () => {
    const deck = await stored();
    const token = await linkTo(`/api/decks/${deck.id}`, { ...ASKED, phrase: "🌊🦀🐚" });
    const rows = JSON.stringify(await server.db.select().from(schema.links));
    expect(rows).not.toContain("🌊🦀🐚");
    expect(rows).not.toContain(token);
    expect((await opened(token)).reply.status).toBe(403);
    expect((await opened(token, { phrase: "🌊🦀" })).reply.status).toBe(403);
    const { reply, guest } = await opened(token, { phrase: " 🌊🦀🐚 " });
    expect(reply.status).toBe(200);
    expect((await guest(`/api/decks/${deck.id}/look`)).status).toBe(200);
  });

  it("to comment asks whoever has no account for a name", async () => {
    const deck = await stored();
    const token = await linkTo(`/api/decks/${deck.id}`, { ...ASKED, right: "comment" });
    expect((await opened(token)).reply.status).toBe(400);
    expect((await opened(token, { name: "The tide observer" })).reply.status).toBe(200);
  });

  it("that is guessed leads nowhere, and guessing is slowed down", async () => {
    const from = (nth: number) =>
      fetch(`${server.address}/api/links/${nanoid(43)}`, { headers: { "x-forwarded-for": `192.0.2.${nth}` } });
    expect((await from(1)).status).toBe(404);
    const statuses = [];
    for (let nth = 0; nth < 110; nth++) statuses.push((await from(2)).status);
    expect(statuses.filter((status) => status === 404).length).toBe(100);
    expect(statuses.at(-1)).toBe(429);
  });

  it("has an end, from which on nobody who came by it sees anything", async () => {
    const deck = await stored();
    const soon = new Date(Date.now() + 1500).toISOString();
    const token = await linkTo(`/api/decks/${deck.id}`, { ...ASKED, expiresAt: soon });
    const { guest } = await opened(token);
    expect((await guest(`/api/decks/${deck.id}/look`)).status).toBe(200);
    await new Promise((resolve) => setTimeout(resolve, 1600));
    expect((await guest(`/api/decks/${deck.id}/look`)).status).toBe(404);
    expect((await opened(token)).reply.status).toBe(404);
    const { links } = await sharing(await olive(`/api/decks/${deck.id}/sharing`));
    expect(links[0]?.expired).toBe(true);
  });

  it("that is renewed has another address; the earlier one and whoever came by it are out", async () => {
    const deck = await stored();
    const token = await linkTo(`/api/decks/${deck.id}`);
    const { guest } = await opened(token);
    const { links } = await sharing(await olive(`/api/decks/${deck.id}/sharing`));
    const renewed = await sharing(
      await olive(`/api/decks/${deck.id}/sharing/links/${links[0]?.id}/renewals`, { method: "POST" }),
    );
    const next = renewed.links[0]?.path?.split("/").at(-1) ?? "";
    expect(next).not.toBe(token);
    expect((await guest(`/api/decks/${deck.id}/look`)).status).toBe(404);
    expect((await opened(token)).reply.status).toBe(404);
    expect((await opened(next)).reply.status).toBe(200);
  });

  it("that is taken back closes the pages that are open by it at once", async () => {
    const deck = await stored();
    const { guest } = await opened(await linkTo(`/api/decks/${deck.id}`));
    const stream = await guest(`/api/decks/${deck.id}/events`);
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    await reader.read();
    const { links } = await sharing(await olive(`/api/decks/${deck.id}/sharing`));
    await olive(`/api/decks/${deck.id}/sharing/links/${links[0]?.id}`, { method: "DELETE" });
    let over = false;
    for (let part = 0; part < 5 && !over; part++) over = (await reader.read()).done;
    expect(over).toBe(true);
    expect((await guest(`/api/decks/${deck.id}/look`)).status).toBe(404);
  });

  it("that gives less than before tells the pages that are open by it", async () => {
    const deck = await stored();
    const { guest } = await opened(await linkTo(`/api/decks/${deck.id}`, { ...ASKED, notes: true }));
    const stream = await guest(`/api/decks/${deck.id}/events`);
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    await reader.read();
    const { links } = await sharing(await olive(`/api/decks/${deck.id}/sharing`));
    await olive(`/api/decks/${deck.id}/sharing/links/${links[0]?.id}`, json(ASKED, "PUT"));
    expect(new TextDecoder().decode((await reader.read()).value)).toContain("data: rights");
    await reader.cancel();
    expect((await guest(`/api/decks/${deck.id}`)).status).toBe(403);
  });

  it("shows who has used it, and how often", async () => {
    const deck = await stored();
    const token = await linkTo(`/api/decks/${deck.id}`, { ...ASKED, right: "edit" });
    await opened(token, { name: "Dune survey" });
    await perry(`/api/links/${token}/opening`, json({}));
    await perry(`/api/links/${token}/opening`, json({}));
    const { links } = await sharing(await olive(`/api/decks/${deck.id}/sharing`));
    expect(links[0]?.uses.map(({ name, guest, times }) => [name, guest, times])).toEqual([
      ["perry", false, 2],
      ["Dune survey", true, 1],
    ]);
  });

  it("to edit lets a guest edit, under the name that was said", async () => {
    const deck = await stored();
    const { guest } = await opened(await linkTo(`/api/decks/${deck.id}`, { ...ASKED, right: "edit" }), {
      name: "Wader",
    });
    const change = { id: nanoid(12), change: { kind: "setHidden", slide: "a", hidden: true }, description: "Hid a" };
    const reply = await guest(`/api/decks/${deck.id}/changes`, json({ base: 0, changes: [change] }));
    expect(reply.status).toBe(200);
    const history = (await (await olive(`/api/decks/${deck.id}/history`)).json()) as { entries: { user: string }[] };
    expect(history.entries[0]?.user).toBe("Wader");
    expect((await guest("/api/decks", json({ title: "Mine" }))).status).toBe(403);
  });

  it("to copy gives a copy and no look at the deck itself", async () => {
    const deck = await stored();
    const token = await linkTo(`/api/decks/${deck.id}`, { ...ASKED, right: "copy" });
    await perry(`/api/links/${token}/opening`, json({}));
    expect((await perry(`/api/decks/${deck.id}/look`)).status).toBe(403);
    const { id } = (await (await perry(`/api/decks/${deck.id}/copies`, json({}))).json()) as { id: string };
    const copy = (await loadDeck(server.db, id)).deck;
    expect(copy.slides.map(({ notes, comments }) => [notes, comments])).toEqual([
      [[], undefined],
      [[], undefined],
    ]);
    const { guest } = await opened(token);
    expect((await guest(`/api/decks/${deck.id}/export?format=md`)).status).toBe(200);
    expect((await guest(`/api/decks/${deck.id}/copies`, json({}))).status).toBe(403);
  });
});

describe("what is shared", () => {
  const desk = async (who: Client) => ((await (await who("/api/decks")).json()) as DeckList).decks;
  const put = (path: string, body: object) => olive(`${path}/sharing/people`, json(body, "PUT"));

  it("a deck, with a person of the house", async () => {
    const deck = await stored();
    const given = await sharing(
      await put(`/api/decks/${deck.id}`, { user: "perry", scope: "deck", right: "comment", notes: false }),
    );
    expect(given.shares).toEqual([{ user: "perry", name: "perry", scope: "deck", right: "comment", notes: false }]);
    expect((await desk(perry)).find(({ id }) => id === deck.id)).toMatchObject({
      right: "comment",
      notes: false,
      owner: "olive",
    });
    await put(`/api/decks/${deck.id}`, { user: "perry", scope: "deck", right: null, notes: false });
    expect((await desk(perry)).some(({ id }) => id === deck.id)).toBe(false);
  });

  it("a folder: what is in it now, what comes into it, and nothing that is taken out", async () => {
    const { id: folder } = (await (await olive("/api/folders", json({ name: `Course ${nanoid(4)}` }))).json()) as {
      id: string;
    };
    const [inside, outside] = [await stored(), await stored()];
    const move = (deck: Deck, to: string | null) => olive(`/api/decks/${deck.id}/folder`, json({ folder: to }, "PUT"));
    await move(inside, folder);
    await put(`/api/folders/${folder}`, { user: "perry", scope: "folder", right: "view", notes: true });
    const seen = async () =>
      (await desk(perry)).map(({ id }) => id).filter((id) => [inside.id, outside.id].includes(id));
    expect(await seen()).toEqual([inside.id]);
    await move(outside, folder);
    expect((await seen()).length).toBe(2);
    await move(inside, null);
    expect(await seen()).toEqual([outside.id]);
    expect((await sharing(await olive(`/api/decks/${outside.id}/sharing`))).shares[0]?.scope).toBe("folder");
    const token = await linkTo(`/api/folders/${folder}`, { ...ASKED, scope: "folder" });
    const { reply } = await opened(token);
    expect(Opened.parse(await reply.json()).decks.map(({ id }) => id)).toEqual([outside.id]);
  });

  it("a deck with its translations, also one that is made later", async () => {
    const deck = await stored();
    const token = await linkTo(`/api/decks/${deck.id}`, { ...ASKED, scope: "translations" });
    const { guest } = await opened(token);
    const original = { deck: deck.id, version: 0, language: "en" };
    const other = await stored({ language: "de", original });
    const { decks } = Opened.parse(await (await guest(`/api/links/${token}/opening`, json({}))).json());
    expect(decks.map(({ id, language }) => [id, language])).toEqual([
      [deck.id, "en"],
      [other.id, "de"],
    ]);
    expect((await guest(`/api/decks/${other.id}/look`)).status).toBe(200);
    const copy = await stored({ language: "de", original: { deck: deck.id, version: 0 } });
    expect((await guest(`/api/decks/${copy.id}/look`)).status).toBe(404);
  });

  it("somebody else's translation of a deck stays theirs", async () => {
    const deck = await stored();
    const theirs = { ...emptyDeck(nanoid(12), "Pegel"), slides: [slide("a")] };
    await ensureUser(server.db, { id: "quinn", name: "quinn" });
    await createDeck(
      server.db,
      "quinn",
      { ...theirs, original: { deck: deck.id, version: 0, language: "en" } },
      new Map(),
      null,
    );
    const { guest } = await opened(await linkTo(`/api/decks/${deck.id}`, { ...ASKED, scope: "translations" }));
    expect((await guest(`/api/decks/${theirs.id}/look`)).status).toBe(404);
  });

  it("the greater of two rights holds, and notes that one of them shares", async () => {
    const deck = await stored();
    await put(`/api/decks/${deck.id}`, { user: "perry", scope: "deck", right: "view", notes: true });
    const token = await linkTo(`/api/decks/${deck.id}`, { ...ASKED, right: "comment" });
    await perry(`/api/links/${token}/opening`, json({}));
    expect((await desk(perry)).find(({ id }) => id === deck.id)).toMatchObject({ right: "comment", notes: true });
  });

  it("only by its owner, and only with people of the house", async () => {
    const deck = await stored();
    await put(`/api/decks/${deck.id}`, { user: "perry", scope: "deck", right: "edit", notes: true });
    expect((await perry(`/api/decks/${deck.id}/sharing`)).status).toBe(403);
    expect((await perry(`/api/decks/${deck.id}/sharing/links`, json(ASKED))).status).toBe(403);
    const wrong = { scope: "deck", right: "view", notes: true };
    expect((await put(`/api/decks/${deck.id}`, { ...wrong, user: "nobody" })).status).toBe(404);
    expect((await put(`/api/decks/${deck.id}`, { ...wrong, user: "olive" })).status).toBe(400);
    expect((await put(`/api/decks/${deck.id}`, { ...wrong, user: "perry", scope: "folder" })).status).toBe(400);
  });
});
