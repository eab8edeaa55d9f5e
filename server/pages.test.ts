import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Deck, emptyDeck, newSlide, plainText, type Slide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { originOf, PageDeck, PublishedPages, ViewedSlide } from "./api";
import { applyChanges, createDeck } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
type Client = Awaited<ReturnType<TestServer["as"]>>;
let olive: Client;
beforeAll(async () => {
  const client = mkdtempSync(join(tmpdir(), "unitext-client-"));
  writeFileSync(join(client, "index.html"), "<html><head><title>Unitext</title></head><body></body></html>");
  server = await testServer("unitext_pages", { demo: false, client });
  olive = await server.as("olive");
});
afterAll(() => server.close());

const visit = (path: string, init: RequestInit = {}) => fetch(`${server.address}${path}`, init);
const titled = (id: string, title: string): Slide => ({
  ...newSlide(id, "points"),
  elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(title) }],
  notes: plainText("Only for the speaker"),
});
const ASKED = { version: null as number | null, notes: false, turning: null as object | null, origins: [] as string[] };
async function published(more: object = {}): Promise<{ deck: Deck; page: string }> {
  const deck = {
    ...emptyDeck(nanoid(12), "Tides & “dunes”"),
    slides: [titled("a", "Low water"), { ...titled("b", "B"), delay: 9 }],
  };
  await createDeck(server.db, "olive", deck, new Map(), null);
  const reply = await olive(`/api/decks/${deck.id}/pages`, json({ ...ASKED, ...more }));
  const { pages } = PublishedPages.parse(await reply.json());
  return { deck, page: pages[0]?.id ?? "" };
}
const rename = ({ id }: Deck, title: string) =>
  applyChanges(server.db, id, "olive", {
    base: 0,
    changes: [{ id: nanoid(12), change: { kind: "setText", slide: "a", element: "at", text: plainText(title) } }],
  });
const look = async (page: string) => PageDeck.parse(await (await visit(`/api/pages/${page}/look`)).json());

describe("a published page", () => {
  it("shows the slides to everybody, without a cookie and without the notes", async () => {
    const { page } = await published();
    const reply = await visit(`/api/pages/${page}/look`);
    expect(reply.headers.get("set-cookie")).toBeNull();
    const { deck } = PageDeck.parse(await reply.json());
    expect([deck.right, deck.notes, deck.slides.map(({ name }) => name)]).toEqual(["view", false, ["Low water", "B"]]);
    const slide = ViewedSlide.parse(await (await visit(`/api/pages/${page}/look/a`)).json());
    expect([slide.notes, slide.comments, slide.texts]).toEqual([null, null, []]);
    expect((await visit(`/api/pages/${page}/drawings/a`)).headers.get("content-type")).toContain("svg");
    expect((await visit(`/api/decks/${deck.id}/look`)).status).toBe(401);
  });

  it("shows the latest, or one state for good", async () => {
    const latest = await published();
    const fixed = await published({ version: 0 });
    for (const { deck } of [latest, fixed]) await rename(deck, "High water");
    const names = async ({ page }: { page: string }) => (await look(page)).deck.slides[0]?.name;
    expect([await names(latest), await names(fixed)]).toEqual(["High water", "Low water"]);
    const drawn = await Promise.all(
      [latest, fixed].map(async ({ page }) => (await visit(`/api/pages/${page}/look/a`)).text()),
    );
    expect([drawn[0]?.includes("High"), drawn[1]?.includes("High")]).toEqual([true, false]);
  });

  it("turns by itself, with the delays that slides have of their own", async () => {
    const { page } = await published({ turning: { seconds: 12, loop: true }, notes: true });
    expect(await look(page)).toMatchObject({ turning: { seconds: 12, loop: true }, delays: { b: 9 } });
    const slide = ViewedSlide.parse(await (await visit(`/api/pages/${page}/look/a`)).json());
    expect(slide.notes).toContain("Only for the speaker");
  });

  it("is counted when it is opened, and not when it is read again", async () => {
    const { deck, page } = await published();
    for (const query of ["?view=new", "?view=new", ""]) await visit(`/api/pages/${page}/look${query}`);
    const { pages } = PublishedPages.parse(await (await olive(`/api/decks/${deck.id}/pages`)).json());
    expect(pages[0]?.views).toBe(2);
  });

  it("is gone at once when it is taken back, also where it is open", async () => {
    const { deck, page } = await published();
    const stream = await visit(`/api/pages/${page}/events`);
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    const news = reader.read();
    await olive(`/api/decks/${deck.id}/pages/${page}`, { method: "DELETE" });
    expect(new TextDecoder().decode((await news).value)).toContain("changed");
    await reader.cancel();
    for (const path of ["look", "look/a", "drawings/a", "events"])
      expect((await visit(`/api/pages/${page}/${path}`)).status).toBe(404);
  });

  it("gives out no file but those of its slides", async () => {
    const { page } = await published();
    expect((await visit(`/api/pages/${page}/pictures/${"0".repeat(64)}`)).status).toBe(404);
  });
});

describe("in other sites (Content Security Policy 3, 6.4.2; oEmbed 1.0; Open Graph)", () => {
  const policyOf = (reply: Response) =>
    /frame-ancestors [^;]*/.exec(reply.headers.get("content-security-policy") ?? "")?.[0];

  it("is shown in frames of the sites that are named, and nothing else is in any", async () => {
    const { page } = await published({ origins: ["https://course.example", "https://hall.example:8443"] });
    const framed = await visit(`/page/${page}`);
    expect(policyOf(framed)).toBe("frame-ancestors https://course.example https://hall.example:8443");
    expect(framed.headers.get("x-frame-options")).toBeNull();
    const closed = await visit(`/page/${(await published()).page}`);
    for (const reply of [closed, await visit("/"), await visit("/page/none"), await visit("/sign-in")])
      expect([policyOf(reply), reply.headers.get("x-frame-options")]).toEqual(["frame-ancestors 'none'", "SAMEORIGIN"]);
  });

  it("refuses what is no origin", async () => {
    expect(
      ["https://a.example", "http://b.example:81/", "javascript:1", "* ", "https://a.example; script-src *"].map(
        originOf,
      ),
    ).toEqual(["https://a.example", "http://b.example:81", undefined, undefined, undefined]);
    const { deck } = await published();
    for (const origin of ["*", "https://a.example/path", "https://a.example; script-src *", "'self'"]) {
      const reply = await olive(`/api/decks/${deck.id}/pages`, json({ ...ASKED, origins: [origin] }));
      expect(reply.status).toBe(400);
    }
  });

  it("says its title and picture, with every sign of them escaped", async () => {
    const { page } = await published();
    const html = await (await visit(`/page/${page}`)).text();
    expect(html).toContain('<meta property="og:title" content="Tides &amp; “dunes”">');
    expect(html).toContain(`<meta property="og:image" content="${server.address}/api/pages/${page}/drawings/a">`);
    expect(html).toContain('type="application/json+oembed"');
    expect(await (await visit("/")).text()).not.toContain("og:title");
  });

  it("says how it is embedded, at most as large as asked", async () => {
    const { page } = await published();
    const address = encodeURIComponent(`${server.address}/page/${page}`);
    const reply = (await (await visit(`/oembed?url=${address}&maxwidth=480`)).json()) as Record<string, unknown>;
    expect(reply).toMatchObject({ version: "1.0", type: "rich", title: "Tides & “dunes”", width: 480, height: 300 });
    expect(reply.html).toContain(`<iframe src="${server.address}/page/${page}" width="480" height="300"`);
    expect((await visit(`/oembed?url=${encodeURIComponent("https://elsewhere.example/page/x")}`)).status).toBe(404);
    expect((await visit(`/oembed?url=${address}&format=xml`)).status).toBe(415);
  });
});

it("only the owner of a deck publishes it", async () => {
  const { deck } = await published();
  const other = await server.as("other");
  expect((await other(`/api/decks/${deck.id}/pages`)).status).toBe(404);
});
