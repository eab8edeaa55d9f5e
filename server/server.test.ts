import { eq, sql } from "drizzle-orm";
import fc from "fast-check";
import { nanoid } from "nanoid";
import { PNG } from "pngjs";
import { apply } from "@unitext/core/edit";
import { pictureInfo } from "@unitext/core/formats";
import { type Deck, newSlide, type Slide, must, emptyDeck, plainText } from "@unitext/core/model";
import { dotsFile } from "@unitext/core/testing/raster";
import { wmf } from "@unitext/core/testing/metafiles";
import { ACTS, permit, RIGHTS } from "./access";
import { Announcements, newsFrom } from "./routes";
import { changesSince, createDeck, loadDeck, newKeys, schema } from "./store";
import { json, importFile, type TestServer, testServer } from "./testing";

let server: TestServer;
let owner: Awaited<ReturnType<TestServer["as"]>>;
let other: Awaited<ReturnType<TestServer["as"]>>;
beforeAll(async () => {
  server = await testServer("unitext_routes");
  owner = await server.as("olive");
  other = await server.as("perry");
});
afterAll(() => server.close());

const change = (base: number, ...changes: unknown[]) =>
  json({ base, changes: changes.map((item) => ({ id: nanoid(12), change: item })) });

function slide(id: string): Slide {
  return {
    ...newSlide(id, "points"),
    elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(`Title ${id}`) }],
  };
}

async function stored(...ids: string[]): Promise<Deck> {
  const deck = { ...emptyDeck(nanoid(12), "Levels"), slides: ids.map(slide) };
  await createDeck(server.db, "olive", deck, new Map(), null);
  return deck;
}

const order = async (id: string) => (await loadDeck(server.db, id)).deck.slides.map((item) => item.id).join(" ");

describe("access", () => {
  const routes = (id: string): [string, string, RequestInit, number][] => [
    ["see", `/api/decks/${id}`, {}, 200],
    ["see", `/api/decks/${id}/changes?since=0`, {}, 200],
    ["export", `/api/decks/${id}/report?format=pdf`, {}, 200],
    ["export", `/api/decks/${id}/export?format=md`, {}, 200],
    ["copy", `/api/decks/${id}/copies`, json({}), 201],
    ["change", `/api/decks/${id}/changes`, change(0, { kind: "setHidden", slide: "a", hidden: true }), 200],
    ["addPicture", `/api/decks/${id}/pictures?name=x.png`, { method: "POST", body: new Uint8Array([1]) }, 422],
    ["see", `/api/decks/${id}/pictures/${"0".repeat(64)}`, {}, 404],
    ["delete", `/api/decks/${id}`, { method: "DELETE" }, 204],
  ];

  it("lets the owner do everything, a stranger nothing, a viewer look, and an editor change", async () => {
    for (const right of [undefined, "view", "comment", "edit"] as const) {
      const deck = await stored("a", "b");
      if (right) await server.db.insert(schema.shares).values({ deck: deck.id, user: "perry", right });
      for (const [act, path, init, fine] of routes(deck.id)) {
        const allowed = right !== undefined && RIGHTS.indexOf(right) >= RIGHTS.indexOf(ACTS[act as keyof typeof ACTS]);
        const { status } = await other(path, init);
        expect([right, act, path.slice(-12), status]).toEqual([
          right,
          act,
          path.slice(-12),
          allowed ? fine : right ? 403 : 404,
        ]);
      }
      for (const [, path, init, fine] of routes(deck.id))
        expect(
          (
            await owner(
              path,
              init.body && path.endsWith("/changes")
                ? change((await loadDeck(server.db, deck.id)).version, { kind: "setHidden", slide: "a", hidden: false })
                : init,
            )
          ).status,
        ).toBe(fine);
    }
  });

  it("shows on the Desk only what is one's own or shared", async () => {
    const deck = await stored("a");
    const titles = async (who: typeof owner) =>
      ((await (await who("/api/decks")).json()) as { decks: { id: string }[] }).decks.map(({ id }) => id);
    expect(await titles(owner)).toContain(deck.id);
    expect(await titles(other)).not.toContain(deck.id);
  });

  it("is decided in one place", () => {
    expect(() => permit(undefined, "see", "d")).toThrow("no deck");
    expect(() => permit("view", "change", "d")).toThrow("right to change");
    expect(() => permit("own", "delete", "d")).not.toThrow();
  });

  it("signs a visitor without a session in as the demo user, with a cookie that scripts and other sites cannot use", async () => {
    const response = await fetch(`${server.address}/api/me`);
    expect(await response.json()).toMatchObject({ id: "demo" });
    expect(response.headers.get("set-cookie")).toMatch(/HttpOnly; SameSite=Strict/);
  });

  it("refuses a change that another site's page asks for", async () => {
    const deck = await stored("a");
    const response = await owner(`/api/decks/${deck.id}`, {
      method: "DELETE",
      headers: { origin: "https://elsewhere.example" },
    });
    expect(response.status).toBe(403);
    expect(await order(deck.id)).toBe("a");
  });

  it("sends a strict content security policy", async () => {
    const policy = (await fetch(`${server.address}/api/me`)).headers.get("content-security-policy") ?? "";
    expect(policy).toContain("default-src 'none'");
    expect(policy).not.toContain("unsafe-inline");
    expect(policy).not.toContain("'unsafe-eval'");
  });
});

describe("changes", () => {
  it("are committed with their inverse before they are acknowledged", async () => {
    const deck = await stored("a", "b", "c");
    const reply = await owner(
      `/api/decks/${deck.id}/changes`,
      change(0, { kind: "moveSlide", slide: "c", place: { parent: null, after: "a" } }),
    );
    expect(await reply.json()).toEqual({ version: 1, changes: [{ version: 1, id: expect.any(String) }] });
    expect(await order(deck.id)).toBe("a c b");
    const [row] = await server.db.select().from(schema.changes).where(eq(schema.changes.deck, deck.id));
    expect(row?.inverse).toEqual({ kind: "moveSlide", slide: "c", place: { parent: null, after: "b" } });
  });

  it("write only the rows that they change", async () => {
    const deck = await stored("a", "b", "c", "d");
    const rows = async () =>
      new Map(
        (
          await server.db
            .select({ id: schema.slides.id, key: schema.slides.key })
            .from(schema.slides)
            .where(eq(schema.slides.deck, deck.id))
        ).map(({ id, key }) => [id, key]),
      );
    const before = await rows();
    await owner(
      `/api/decks/${deck.id}/changes`,
      change(0, { kind: "moveSlide", slide: "a", place: { parent: null, after: "c" } }),
    );
    const after = await rows();
    expect([...after].filter(([id, key]) => before.get(id) !== key).map(([id]) => id)).toEqual(["a"]);
  });

  it("on other slides merge: both stay, and each learns of the other's", async () => {
    const deck = await stored("a", "b");
    await owner(`/api/decks/${deck.id}/changes`, change(0, { kind: "setHidden", slide: "a", hidden: true }));
    const reply = await owner(
      `/api/decks/${deck.id}/changes`,
      change(0, { kind: "setNotes", slide: "b", notes: plainText("Slow down") }),
    );
    const { version, changes } = (await reply.json()) as { version: number; changes: { change?: unknown }[] };
    expect([version, changes.map((item) => item.change)]).toEqual([
      2,
      [{ kind: "setHidden", slide: "a", hidden: true }, undefined],
    ]);
    expect((await loadDeck(server.db, deck.id)).deck.slides.map(({ hidden, notes }) => [hidden, notes.length])).toEqual(
      [
        [true, 0],
        [false, 1],
      ],
    );
  });

  it("of the same thing are refused whole, with the state to go on from", async () => {
    const deck = await stored("a");
    const text = (words: string) => ({ kind: "setText", slide: "a", element: "at", text: plainText(words) });
    await owner(`/api/decks/${deck.id}/changes`, change(0, text("one")));
    const reply = await owner(
      `/api/decks/${deck.id}/changes`,
      change(0, { kind: "setHidden", slide: "a", hidden: true }, text("two")),
    );
    expect(reply.status).toBe(409);
    const { state } = (await reply.json()) as { state: { version: number; deck: Deck } };
    expect([state.version, state.deck.slides[0]?.hidden]).toEqual([1, false]);
  });

  it("sent twice are taken once", async () => {
    const deck = await stored("a", "b");
    const sent = change(0, { kind: "deleteSlide", slide: "b" });
    await owner(`/api/decks/${deck.id}/changes`, sent);
    expect(await (await owner(`/api/decks/${deck.id}/changes`, sent)).json()).toMatchObject({ version: 1 });
    expect(await order(deck.id)).toBe("a");
  });

  it("of many hands at once all arrive", async () => {
    const deck = await stored(...Array.from({ length: 12 }, (_, nth) => `s${nth}`));
    const replies = await Promise.all(
      deck.slides.map(({ id }) =>
        owner(`/api/decks/${deck.id}/changes`, change(0, { kind: "setNotes", slide: id, notes: plainText(id) })),
      ),
    );
    expect(replies.map(({ status }) => status)).toEqual(deck.slides.map(() => 200));
    const { deck: now, version } = await loadDeck(server.db, deck.id);
    expect(version).toBe(12);
    expect(now.slides.every(({ notes }) => notes.length === 1)).toBe(true);
  });

  it("can be replayed from the log to the deck as it stands", async () => {
    const deck = await stored("a", "b", "c");
    for (const [base, item] of [
      { kind: "setHidden", slide: "b", hidden: true },
      { kind: "moveSlide", slide: "a", place: { parent: "b", after: null } },
      { kind: "deleteSlide", slide: "b" },
    ].entries())
      await owner(`/api/decks/${deck.id}/changes`, change(base, item));
    const log = await changesSince(server.db, deck.id, 0);
    const replayed = log.reduce((current, item) => apply(current, item.change).deck, deck);
    expect((await loadDeck(server.db, deck.id)).deck).toEqual(JSON.parse(JSON.stringify(replayed)));
  });

  it("keep keys in the order of the deck and touch the fewest", () => {
    const keys = new Map([
      ["a", "a0"],
      ["b", "a1"],
      ["c", "a2"],
      ["d", "a3"],
    ]);
    const placed = newKeys(["d", "a", "b", "x", "c"], keys);
    const sorted = [...placed].sort(([, one], [, two]) => (one < two ? -1 : 1)).map(([id]) => id);
    expect(sorted).toEqual(["d", "a", "b", "x", "c"]);
    expect(["a", "b", "c"].map((id) => placed.get(id))).toEqual(["a0", "a1", "a2"]);
  });
});

describe("bad input", () => {
  it.each<[string, string, RequestInit, number]>([
    ["a file that is not what it says", "/api/files?name=a.pptx", { method: "POST", body: "hello" }, 422],
    ["an empty file", "/api/files?name=a.md", { method: "POST", body: "" }, 422],
    ["a name without an ending", "/api/files?name=a", { method: "POST", body: "x" }, 400],
    ["a kind that is not read", "/api/files?name=a.exe", { method: "POST", body: "x" }, 415],
    ["an id that does not exist", "/api/decks/none", {}, 404],
    ["a path that does not exist", "/api/nothing", {}, 404],
    [
      "a body that is not JSON",
      "/api/decks",
      { method: "POST", headers: { "content-type": "application/json" }, body: "{" },
      400,
    ],
    ["a body of the wrong shape", "/api/decks", json({ title: 3 }), 400],
    ["an id that no id can be", "/api/decks/%00%27/changes", json({ base: 0, changes: [] }), 404],
  ])("answers %s with a sentence", async (_, path, init, status) => {
    const response = await owner(path, init);
    expect(response.status).toBe(status);
    const { error } = (await response.json()) as { error: { message: string } };
    expect(error.message).toMatch(/^[A-Z“].{10,}/);
    expect(error.message).not.toMatch(/\bat .*\.ts|Error:/);
  });

  it("refuses an upload of 200 MB without reading it into the database, and goes on", async () => {
    const response = await owner("/api/files?name=big.md", {
      method: "POST",
      body: new Uint8Array(200 * 1024 * 1024),
    }).catch(() => undefined);
    if (response) expect(response.status).toBe(413);
    expect((await owner("/api/decks")).status).toBe(200);
  });

  it("leaves nothing half-written when a file is refused", async () => {
    const count = async () => (await server.db.select({ id: schema.decks.id }).from(schema.decks)).length;
    const before = await count();
    await owner("/api/files?name=a.json", {
      method: "POST",
      body: JSON.stringify({
        format: "unitext-deck",
        version: 1,
        blobs: {},
        deck: { ...emptyDeck("x", "x"), slides: [slide("a"), slide("a")] },
      }),
    });
    expect(await count()).toBe(before);
  });

  it("refuses a change that names what is not there or would break the deck, and keeps the deck", async () => {
    const deck = await stored("a", "b");
    expect(
      (await owner(`/api/decks/${deck.id}/changes`, change(0, { kind: "setHidden", slide: "gone", hidden: true })))
        .status,
    ).toBe(409);
    expect(
      (
        await owner(
          `/api/decks/${deck.id}/changes`,
          change(0, { kind: "moveSlide", slide: "a", place: { parent: "a", after: null } }),
        )
      ).status,
    ).toBe(400);
    expect(
      (await owner(`/api/decks/${deck.id}/changes`, change(5, { kind: "setHidden", slide: "a", hidden: true }))).status,
    ).toBe(409);
    expect(await order(deck.id)).toBe("a b");
  });
});

describe("files", () => {
  it("come back as the same deck: order, notes and ids", async () => {
    const made = (await (
      await owner(
        "/api/decks",
        json({ title: "", text: "# Tides\n\n## One\n\n- a\n\n:::notes\nSay it.\n:::\n\n## Two\n" }),
      )
    ).json()) as { id: string };
    const file = await (await owner(`/api/decks/${made.id}/export?format=pptx`)).arrayBuffer();
    const again = await importFile(owner, "course.pptx", file);
    const [one, two] = await Promise.all([made.id, again.id].map(async (id) => (await loadDeck(server.db, id)).deck));
    expect(two?.slides).toEqual(one?.slides);
    expect(again.id).not.toBe(made.id);
  });

  it("stream a new version to the pages that show the deck", async () => {
    const deck = await stored("a");
    const stop = new AbortController();
    const response = await owner(`/api/decks/${deck.id}/events`, { signal: stop.signal });
    const reader = (response.body as ReadableStream<Uint8Array>).getReader();
    const next = async () => new TextDecoder().decode((await reader.read()).value);
    expect(await next()).toBe("data: 0\n\n");
    await owner(`/api/decks/${deck.id}/changes`, change(0, { kind: "setHidden", slide: "a", hidden: true }));
    expect(await next()).toBe("data: 1\n\n");
    stop.abort();
  });

  it("tell a page of the version that is committed while it begins to listen, and of what was missed while the database was away", async () => {
    const deck = await stored("a");
    const told: string[] = [];
    const page = {
      writeHead: () => page,
      flushHeaders: () => undefined,
      write: (line: string) => told.push(line),
      on: () => page,
      end: () => undefined,
      writableLength: 0,
    };
    const hide = (base: number, hidden: boolean) =>
      owner(`/api/decks/${deck.id}/changes`, change(base, { kind: "setHidden", slide: "a", hidden }));
    let meanwhile = async () => void (await hide(0, true));
    const source = newsFrom(server.db);
    const announcements = new Announcements(`${server.url}?application_name=pages`, {
      ...source,
      versions: async (ids) => {
        const versions = await source.versions(ids);
        await meanwhile();
        return versions;
      },
    });
    await announcements.start();
    announcements.stream(deck.id, "olive", page as never);
    const until = async (line: string) => {
      for (let wait = 0; wait < 200 && !told.includes(line); wait++)
        await new Promise((resolve) => setTimeout(resolve, 20));
      expect(told).toContain(line);
    };
    await until("data: 1\n\n");
    meanwhile = async () => undefined;
    await server.db.execute(
      sql`select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'pages'`,
    );
    await hide(1, false);
    await until("data: 2\n\n");
    await announcements.stop();
  });
});

describe("keys of the running order", () => {
  it("stand for any order after any moves, and leave alone what still rises", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(30), fc.nat(30), fc.boolean()), { maxLength: 30 }), (moves) => {
        let order = ["a", "b", "c", "d", "e"];
        let keys = newKeys(order, new Map());
        let next = 0;
        for (const [from, to, add] of moves) {
          const moved = add ? `n${next++}` : must(order[from % order.length]);
          const rest = order.filter((id) => id !== moved);
          order = rest.toSpliced(to % (rest.length + 1), 0, moved);
          const placed = newKeys(order, keys);
          expect([...placed].filter(([id, key]) => keys.get(id) !== key).length).toBeLessThanOrEqual(1);
          keys = placed;
          expect([...keys].sort(([, one], [, two]) => (one < two ? -1 : 1)).map(([id]) => id)).toEqual(order);
        }
      }),
    );
  });
});

describe("pictures", () => {
  const png = new Uint8Array(PNG.sync.write(new PNG({ width: 20, height: 10 })));

  it("are stored once, shown to those who may see the deck, and come back inside a file", async () => {
    const deck = await stored("a");
    const sent = await owner(`/api/decks/${deck.id}/pictures?name=pictures/dune.png`, { method: "POST", body: png });
    const picture = (await sent.json()) as { name: string; sha256: string; width: number; height: number };
    expect([sent.status, picture.name, picture.width, picture.height]).toEqual([201, "pictures/dune.png", 20, 10]);
    await owner(
      `/api/decks/${deck.id}/changes`,
      change(
        0,
        {
          kind: "setAsset",
          name: picture.name,
          asset: { sha256: picture.sha256, mediaType: "image/png", width: 20, height: 10 },
        },
        {
          kind: "insertElement",
          slide: "a",
          element: { kind: "picture", id: "p", slot: null, source: picture.name, alt: "A dune" },
          index: 1,
        },
      ),
    );
    const shown = await owner(`/api/decks/${deck.id}/pictures/${picture.sha256}`);
    expect([shown.headers.get("content-type"), new Uint8Array(await shown.arrayBuffer())]).toEqual(["image/png", png]);
    expect((await other(`/api/decks/${deck.id}/pictures/${picture.sha256}`)).status).toBe(404);
    const file = await (await owner(`/api/decks/${deck.id}/export?format=pptx`)).arrayBuffer();
    const { id } = await importFile(owner, "a.pptx", file);
    expect((await loadDeck(server.db, id)).deck.assets[picture.name]).toEqual({
      sha256: picture.sha256,
      mediaType: "image/png",
      width: 20,
      height: 10,
    });
    expect((await owner(`/api/decks/${id}/pictures/${picture.sha256}`)).status).toBe(200);
  });

  it.each([
    ["halves.tiff", dotsFile("halves.tiff"), { mediaType: "image/png", width: 100, height: 50 }],
    ["halves.bmp", dotsFile("halves.bmp"), { mediaType: "image/png", width: 100, height: 50 }],
    [
      "box.wmf",
      wmf(100, 50, [{ x: 10, y: 5, width: 40, height: 20, colour: [15, 92, 99] }], { inch: 100 }),
      { mediaType: "image/svg+xml" },
    ],
  ])("that pages do not show as they come are converted: %s", async (name, bytes, shown) => {
    const { id } = await stored("a");
    const sent = await owner(`/api/decks/${id}/pictures?name=${name}`, { method: "POST", body: bytes as BodyInit });
    const picture = (await sent.json()) as { name: string; sha256: string };
    expect([sent.status, picture]).toEqual([201, expect.objectContaining({ name, ...shown })]);
    const found = await owner(`/api/decks/${id}/pictures/${picture.sha256}`);
    expect(found.headers.get("content-type")).toBe(shown.mediaType);
    expect(pictureInfo(new Uint8Array(await found.arrayBuffer()))).toMatchObject(shown);
  });

  // Fetch of a drawing by its address: the policy forbids what stands in it (Content Security Policy Level 3, 6 and 7).
  it("takes drawings in SVG, which are served so that nothing in them is run or fetched, and refuses broken ones", async () => {
    const drawing = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="40"><script>alert(1)</script></svg>',
    );
    const { id } = await stored("a");
    const sent = await owner(`/api/decks/${id}/pictures?name=gauge.svg`, { method: "POST", body: drawing });
    const picture = (await sent.json()) as { sha256: string; mediaType: string; width: number; height: number };
    expect([sent.status, picture.mediaType, picture.width, picture.height]).toEqual([201, "image/svg+xml", 80, 40]);
    const shown = await owner(`/api/decks/${id}/pictures/${picture.sha256}`);
    expect(shown.headers.get("content-type")).toBe("image/svg+xml");
    const policy = shown.headers.get("content-security-policy") ?? "";
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("sandbox");
    expect(policy).not.toContain("script-src");
    expect(Buffer.from(await shown.arrayBuffer()).equals(drawing)).toBe(true);
    // RFC 9110, 14.2 to 15.3.7: a stretch of what is there, and one that is not.
    const part = await owner(`/api/decks/${id}/pictures/${picture.sha256}`, { headers: { range: "bytes=5-9" } });
    expect([part.status, part.headers.get("content-range"), await part.text()]).toEqual([
      206,
      `bytes 5-9/${drawing.length}`,
      drawing.subarray(5, 10).toString(),
    ]);
    const end = await owner(`/api/decks/${id}/pictures/${picture.sha256}`, { headers: { range: "bytes=-6" } });
    expect([end.status, await end.text()]).toEqual([206, "</svg>"]);
    const beyond = await owner(`/api/decks/${id}/pictures/${picture.sha256}`, { headers: { range: "bytes=9000-" } });
    expect([beyond.status, beyond.headers.get("content-range")]).toEqual([416, `bytes */${drawing.length}`]);
    const refused = await owner(`/api/decks/${id}/pictures?name=broken.svg`, {
      method: "POST",
      body: drawing.subarray(0, 60),
    });
    expect([refused.status, ((await refused.json()) as { error: { message: string } }).error.message]).toEqual([
      422,
      "The picture is no PNG, JPEG, GIF, SVG, WMF, EMF, TIFF or BMP file that can be read, it has more pixels than a slide can use, or it has no name.",
    ]);
  });
});

describe("copies", () => {
  it("are decks of their own whose slides remember where they came from", async () => {
    const deck = await stored("a", "b");
    await server.db.insert(schema.shares).values({ deck: deck.id, user: "perry", right: "view" });
    const { id } = (await (await other(`/api/decks/${deck.id}/copies`, json({}))).json()) as { id: string };
    const { deck: copy } = await loadDeck(server.db, id);
    expect(copy.properties.title).toMatch(/^Levels [2-9]$/);
    expect(copy.slides.map(({ origin }) => origin)).toEqual(
      ["a", "b"].map((from) => ({ deck: deck.id, slide: from, version: 0 })),
    );
    await other(`/api/decks/${id}/changes`, change(0, { kind: "deleteSlide", slide: "a" }));
    expect(await order(deck.id)).toBe("a b");
    expect(await order(id)).toBe("b");
  });
});

describe("text typed in Write", () => {
  it("is given back for the version that it made, and no longer once the deck was changed otherwise", async () => {
    const deck = await stored("a");
    const text = "## Title a\n\n\n\n";
    await owner(
      `/api/decks/${deck.id}/changes`,
      json({ base: 0, changes: [{ id: "typed-1", change: { kind: "batch", changes: [] }, text }] }),
    );
    expect((await loadDeck(server.db, deck.id)).text).toBe(text);
    await owner(`/api/decks/${deck.id}/changes`, change(1, { kind: "setHidden", slide: "a", hidden: true }));
    expect((await loadDeck(server.db, deck.id)).text).toBeNull();
  });
});
