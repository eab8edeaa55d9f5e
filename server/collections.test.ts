import { WRITERS } from "@unitext/core/formats";
import { type Deck, emptyDeck, newSlide, plainText } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { sql } from "drizzle-orm";
import { zipSync } from "fflate";
import { nanoid } from "nanoid";
import { Collection, CollectionFace, type DeckList, Receipt } from "./api";
import { createDeck, loadDeck, missingNames, nameOfParts, share } from "./store";
import { json, type TestServer, testServer } from "./testing";

// Made before anything is asked: packing blocks the process for seconds, in which open connections would end.
const BOMB = new Uint8Array(zipSync({ "ppt/presentation.xml": [Buffer.alloc(120_000_000, "<a>"), { level: 1 }] }));
let server: TestServer;
type Client = Awaited<ReturnType<TestServer["as"]>>;
let lecturer: Client;
beforeAll(async () => {
  server = await testServer("unitext_collections", { demo: false });
  lecturer = await server.as("lecturer");
});
afterAll(() => server.close());

const ASKED = {
  title: "Field week",
  parts: [
    { label: "Class", kind: "text" },
    { label: "Number", kind: "number" },
    { label: "Surname", kind: "text" },
  ],
  formats: ["pptx", "odp", "md"],
  dueAt: null as string | null,
  expected: ["TB2-01-Reed", "TB2-02-Marsh", "Dunlin"],
};
const stranger: Client = (path, init = {}) =>
  fetch(`${server.address}${path}`, { ...init, headers: { origin: server.address, ...init.headers } });

async function made(more: object = {}): Promise<{ id: string; token: string }> {
  const { id } = (await (await lecturer("/api/collections", json({ ...ASKED, ...more }))).json()) as { id: string };
  const { path } = await state(id);
  return { id, token: path?.split("/").at(-1) ?? "" };
}
const state = async (id: string): Promise<Collection> =>
  Collection.parse(await (await lecturer(`/api/collections/${id}`)).json());

const deck: Deck = {
  ...emptyDeck("d", "My week"),
  slides: [{ ...newSlide("a", "points"), notes: plainText("Said aloud") }, newSlide("b", "title")],
};
const pptx = async () =>
  new Uint8Array(await WRITERS.pptx.write(deck, { fonts: shippedFonts(), at: new Date(0), picture: () => undefined }));
const handIn = (token: string, parts: string[], file: string, bytes: BodyInit, who: Client = stranger) =>
  who(
    `/api/hand-in/${token}/files?name=${encodeURIComponent(file)}${parts.map((part) => `&part=${encodeURIComponent(part)}`).join("")}`,
    {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: bytes,
    },
  );
const receipt = async (code: string): Promise<Receipt> => {
  for (let wait = 0; wait < 200; wait++) {
    const found = Receipt.parse(await (await stranger(`/api/receipts/${code}`)).json());
    if (found.state !== "waiting") return found;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("The hand-in was not read.");
};
const sentence = async (response: Response) =>
  ((await response.json()) as { error: { message: string } }).error.message;

describe("handing in", () => {
  it("a file by somebody without an account becomes a deck of whoever collects, with a receipt and its tally", async () => {
    const { id, token } = await made();
    const face = CollectionFace.parse(await (await stranger(`/api/hand-in/${token}`)).json());
    expect(face).toMatchObject({ title: "Field week", closed: false, by: "lecturer" });
    const accepted = await handIn(token, ["TB2", "01", "Reed"], "week.pptx", await pptx());
    expect(accepted.status).toBe(202);
    const { code } = Receipt.parse(await accepted.json());
    const read = await receipt(code);
    expect(read).toMatchObject({ name: "TB2-01-Reed", file: "week.pptx", late: false, nth: 1, state: "read" });
    expect(read.tally).toMatchObject({ slides: 2, notes: { slides: 1, words: 2 } });
    expect(read.sha256).toMatch(/^[0-9a-f]{64}$/);
    const found = await state(id);
    expect(found.missing).toEqual(["TB2-02-Marsh", "Dunlin"]);
    const desk = ((await (await lecturer("/api/decks")).json()) as DeckList).decks;
    expect(desk.find((row) => row.id === found.handIns[0]?.deck)).toMatchObject({
      file: "TB2-01-Reed",
      folder: found.folder,
    });
  });

  it("again is kept beside the first and marked, and the newest counts", async () => {
    const { id, token } = await made();
    for (const words of ["# First\n\n- one\n", "# Second\n\n- two\n"])
      await receipt(Receipt.parse(await (await handIn(token, ["TB2", "02", "Marsh"], "m.md", words)).json()).code);
    const { handIns } = await state(id);
    expect(handIns.map(({ name, nth, newest }) => [name, nth, newest])).toEqual([
      ["TB2-02-Marsh", 2, true],
      ["TB2-02-Marsh", 1, false],
    ]);
    expect(new Set(handIns.map((one) => one.deck)).size).toBe(2);
  });

  it("a minute late is taken, and marked as late", async () => {
    const { id, token } = await made({ dueAt: new Date(Date.now() - 60_000).toISOString() });
    const late = Receipt.parse(
      await (await handIn(token, ["TB2", "03", "Dunlin"], "d.md", "# Late\n\n- but here\n")).json(),
    );
    expect(late.late).toBe(true);
    expect((await state(id)).missing).toEqual(["TB2-01-Reed", "TB2-02-Marsh"]);
  });

  it("a deck of the house is copied, and the original stays as it is", async () => {
    const { token } = await made();
    const student = await server.as("student");
    const own = { ...deck, id: nanoid(12) };
    await createDeck(server.db, "student", own, new Map(), null);
    const accepted = await student(`/api/hand-in/${token}/decks`, json({ parts: ["TB2", "1", "Reed"], deck: own.id }));
    expect(accepted.status).toBe(202);
    expect(Receipt.parse(await accepted.json()).tally).toMatchObject({ slides: 2 });
    expect((await loadDeck(server.db, own.id)).version).toBe(0);
    const strange = await stranger(`/api/hand-in/${token}/decks`, json({ parts: ["TB2", "1", "Reed"], deck: own.id }));
    expect(strange.status).toBe(404);
    // Without a right on its notes somebody hands in what they see.
    await server.as("friend");
    await share(server.db, { deck: own.id, user: "friend", right: "copy", notes: false, by: "student" });
    const friend = await server.as("friend");
    const seen = Receipt.parse(
      await (await friend(`/api/hand-in/${token}/decks`, json({ parts: ["TB2", "2", "Reed"], deck: own.id }))).json(),
    );
    expect(seen.tally?.notes.words).toBe(0);
  });

  it("thirty at once are all accepted, and read as jobs", async () => {
    const { id, token } = await made();
    const bytes = await pptx();
    const replies = await Promise.all(
      Array.from({ length: 30 }, (_, nth) => handIn(token, ["TB2", String(nth), "Reed"], "week.pptx", bytes)),
    );
    expect(replies.map(({ status }) => status)).toEqual(replies.map(() => 202));
    for (let wait = 0; wait < 400 && (await state(id)).handIns.some((one) => one.state === "waiting"); wait++)
      await new Promise((resolve) => setTimeout(resolve, 50));
    expect((await state(id)).handIns.filter((one) => one.state === "read")).toHaveLength(30);
  }, 60_000);
});

describe("what is not taken", () => {
  it.each<[string, string[], string, () => BodyInit | Promise<BodyInit>, number, string]>([
    ["a file of the wrong kind", ["TB2", "1", "Reed"], "week.exe", () => "MZ", 415, "not collected here"],
    ["one that is not what it says", ["TB2", "1", "Reed"], "week.pptx", () => "hello", 422, ""],
    ["an empty one", ["TB2", "1", "Reed"], "week.pptx", () => "", 422, "empty"],
    ["a name without a part", ["TB2", "", "Reed"], "week.md", () => "# A", 400, "Say the number"],
    ["letters for a number", ["TB2", "one", "Reed"], "week.md", () => "# A", 400, "digits alone"],
    ["signs in a name", ["TB2", "1", "../Reed"], "week.md", () => "# A", 400, "letters, digits and spaces"],
  ])("%s: a sentence", async (_, parts, file, content, status, words) => {
    const { id, token } = await made();
    const refused = await handIn(token, parts, file, await content());
    expect([refused.status, await sentence(refused)]).toEqual([status, expect.stringContaining(words)]);
    expect((await state(id)).handIns).toEqual([]);
  });

  it("a bomb is named as what failed, on the receipt and in the list, and costs nobody else anything", async () => {
    const { id, token } = await made();
    const { code } = Receipt.parse(await (await handIn(token, ["TB2", "1", "Reed"], "bomb.pptx", BOMB)).json());
    const failed = await receipt(code);
    expect([failed.state, failed.tally]).toEqual(["failed", null]);
    expect(failed.message).toMatch(/^[A-Z“].{15,}/);
    expect((await state(id)).handIns[0]).toMatchObject({ state: "failed", deck: null });
  }, 60_000);

  it("more than 100 MB are refused before they are read", async () => {
    const { token } = await made();
    const large = await handIn(token, ["TB2", "1", "Reed"], "week.pptx", new Uint8Array(101 * 1024 * 1024));
    expect([large.status, await sentence(large)]).toEqual([413, expect.stringContaining("100 MB")]);
  });

  it("anything, once the collection is closed or its link was guessed", async () => {
    const { id, token } = await made();
    await lecturer(`/api/collections/${id}`, json({ closed: true }, "PUT"));
    expect((await handIn(token, ["TB2", "1", "Reed"], "w.md", "# A")).status).toBe(403);
    expect((await handIn(nanoid(43), ["TB2", "1", "Reed"], "w.md", "# A")).status).toBe(404);
    expect((await stranger(`/api/receipts/${nanoid(40)}`)).status).toBe(404);
  });

  it("a look at the collections of others", async () => {
    const { id } = await made();
    const other = await server.as("other");
    expect((await other(`/api/collections/${id}`)).status).toBe(404);
    expect((await other(`/api/collections/${id}`, { method: "DELETE" })).status).toBe(404);
  });
});

it("names are made of their parts, and missing ones are found whatever signs are between the parts", () => {
  const scheme = [
    { label: "Class", kind: "text" as const },
    { label: "Surname", kind: "text" as const },
  ];
  expect(nameOfParts(scheme, [" TB2 ", "van  der Dune"])).toBe("TB2-van der Dune");
  expect(missingNames(["reed", "TB2 Marsh", "Dunlin"], ["TB2-01-Reed", "TB2-02-Marsh"])).toEqual(["Dunlin"]);
});

it("the files of hand-ins are deleted with their jobs, and the decks stay", async () => {
  const { id, token } = await made();
  const { code } = Receipt.parse(await (await handIn(token, ["TB2", "1", "Reed"], "week.pptx", await pptx())).json());
  await receipt(code);
  await server.db.execute(sql`delete from jobs`);
  expect((await state(id)).handIns[0]).toMatchObject({ state: "read", slides: 2 });
});
