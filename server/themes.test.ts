import { chosenTheme, designTheme, emptyDeck } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { PNG } from "pngjs";
import { Picture, SavedThemes, ThemesUpdated } from "./api";
import { createDeck, loadDeck } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
let owner: Awaited<ReturnType<TestServer["as"]>>;
let other: Awaited<ReturnType<TestServer["as"]>>;
beforeAll(async () => {
  server = await testServer("unitext_themes");
  owner = await server.as("olive");
  other = await server.as("perry");
});
afterAll(() => server.close());

const house = { ...chosenTheme({ design: "harbour", mood: "light", seeds: ["#0b6e4f"] }), name: "House of the bay" };
const list = async (as: typeof owner) => SavedThemes.parse(await (await as("/api/themes")).json()).themes;
async function stored(user: string, theme = house): Promise<string> {
  const deck = { ...emptyDeck(nanoid(12), "Levels"), theme };
  await createDeck(server.db, user, deck, new Map(), null);
  return deck.id;
}

describe("saved themes", () => {
  it("are a person's own, saved under a name, and saved again in its place", async () => {
    expect((await owner("/api/themes", json({ theme: house }, "PUT"))).status).toBe(204);
    const changed = { ...house, scale: { ...house.scale, title: 40 } };
    await owner("/api/themes", json({ theme: changed }, "PUT"));
    expect((await list(owner)).map(({ theme }) => [theme.name, theme.scale.title])).toEqual([["House of the bay", 40]]);
    expect(await list(other)).toEqual([]);
    await owner("/api/themes", json({ theme: house }, "PUT"));
  });

  it("say how many decks have them, and are put on those that have an older state", async () => {
    const older = await stored("olive", { ...house, colours: designTheme("harbour").colours });
    const current = await stored("olive");
    const ofOther = await stored("perry", { ...house, colours: designTheme("harbour").colours });
    expect((await list(owner)).map(({ decks }) => decks)).toEqual([2]);
    const response = await owner(`/api/themes/${encodeURIComponent(house.name)}/decks`, json({}));
    expect(ThemesUpdated.parse(await response.json())).toEqual({ decks: 1 });
    expect((await loadDeck(server.db, older)).deck.theme).toEqual(house);
    expect((await loadDeck(server.db, older)).version).toBe(1);
    expect((await loadDeck(server.db, current)).version).toBe(0);
    expect((await loadDeck(server.db, ofOther)).deck.theme).not.toEqual(house);
  });

  it("are refused where they are none, and deleted without touching decks", async () => {
    expect((await owner("/api/themes", json({ theme: { name: "x" } }, "PUT"))).status).toBe(400);
    const deck = await stored("olive");
    expect((await owner(`/api/themes/${encodeURIComponent(house.name)}`, { method: "DELETE" })).status).toBe(204);
    expect(await list(owner)).toEqual([]);
    expect((await loadDeck(server.db, deck)).deck.theme).toEqual(house);
  });
});

describe("a saved theme with a logo", () => {
  it("brings the picture to every deck that takes it, also when no other deck has it any more", async () => {
    const picture = new Uint8Array(PNG.sync.write(new PNG({ width: 8, height: 4 })));
    const first = await stored("olive");
    const sent = await owner(`/api/decks/${first}/pictures?name=theme/logo.png`, { method: "POST", body: picture });
    const asset = Picture.parse(await sent.json());
    const { sha256, mediaType, width, height } = asset;
    const logo = {
      source: "theme/logo.png",
      asset: { sha256, mediaType, width, height },
      at: "top-left",
      height: 30,
      alt: "",
    };
    const theme = { ...house, name: "With a logo", logo };
    expect((await owner("/api/themes", json({ theme }, "PUT"))).status).toBe(204);
    const second = await stored("olive", { ...house, name: "With a logo" });
    await owner(`/api/themes/${encodeURIComponent(theme.name)}/decks`, json({}));
    const { deck } = await loadDeck(server.db, second);
    expect(deck.assets[logo.source]?.sha256).toBe(sha256);
    expect((await owner(`/api/decks/${second}/pictures/${sha256}`)).status).toBe(200);
  });
});
