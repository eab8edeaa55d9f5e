import { type Comment, type Deck, emptyDeck, newSlide, plainText, type Reply } from "@unitext/core/model";
import { nanoid } from "nanoid";
import type { SharedRight } from "./access";
import { createDeck, loadDeck, share } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
type Client = Awaited<ReturnType<TestServer["as"]>>;
let olive: Client;
let perry: Client;
beforeAll(async () => {
  server = await testServer("unitext_comments", { demo: false });
  olive = await server.as("olive");
  perry = await server.as("perry");
});
afterAll(() => server.close());

const theirs: Comment = {
  id: "theirs",
  author: "olive",
  user: "olive",
  text: "Why here?",
  replies: [{ id: "first", author: "olive", user: "olive", text: "I mean the order." }],
};
async function sharedDeck(right: SharedRight, notes = true): Promise<Deck> {
  const slide = { ...newSlide("a", "points"), notes: plainText("Nobody reads this"), comments: [theirs] };
  const deck = { ...emptyDeck(nanoid(12), "Levels"), slides: [slide] };
  await createDeck(server.db, "olive", deck, new Map(), null);
  await share(server.db, { deck: deck.id, user: "perry", right, notes, by: "olive" });
  return deck;
}
const send = (who: Client, { id }: Deck, base: number, ...changes: object[]) =>
  who(
    `/api/decks/${id}/changes`,
    json({ base, changes: changes.map((change) => ({ id: nanoid(12), change: { slide: "a", ...change } })) }),
  );
const mine = (more: Partial<Comment> = {}) => ({
  kind: "putComment",
  comment: { id: "mine", author: "perry", user: "perry", text: "A picture?", ...more },
});
const reply = (more: Partial<Reply> = {}) => ({
  kind: "putReply",
  comment: "theirs",
  reply: { id: "answer", author: "perry", user: "perry", text: "Because of the tide.", ...more },
});
const commentsOf = async ({ id }: Deck) => (await loadDeck(server.db, id)).deck.slides[0]?.comments;

describe("whoever may comment", () => {
  it("comments, replies, marks as done, and takes back what is their own", async () => {
    const deck = await sharedDeck("comment");
    expect((await send(perry, deck, 0, mine(), reply())).status).toBe(200);
    expect((await send(perry, deck, 2, { kind: "setDone", comment: "theirs", done: true })).status).toBe(200);
    expect((await commentsOf(deck))?.map(({ id, done, replies }) => [id, done, replies?.length])).toEqual([
      ["theirs", true, 2],
      ["mine", undefined, undefined],
    ]);
    expect((await send(perry, deck, 3, mine({ text: "A drawing?" }))).status).toBe(200);
    expect((await send(perry, deck, 4, { kind: "removeComment", comment: "mine" })).status).toBe(200);
    expect((await send(perry, deck, 5, { kind: "removeReply", comment: "theirs", reply: "answer" })).status).toBe(200);
    expect((await commentsOf(deck))?.length).toBe(1);
  });

  it.each<[string, object]>([
    ["in somebody else's name", mine({ author: "olive" })],
    ["as somebody else", mine({ user: "olive" })],
    ["as nobody", mine({ user: undefined })],
    ["with words put into somebody's mouth", mine({ replies: [{ id: "r", author: "olive", text: "Yes" }] })],
    ["over another's comment", { kind: "putComment", comment: { ...theirs, author: "perry", user: "perry" } }],
    ["a reply over another's", reply({ id: "first" })],
    ["another's comment away", { kind: "removeComment", comment: "theirs" }],
    ["another's reply away", { kind: "removeReply", comment: "theirs", reply: "first" }],
    ["a slide", { kind: "setHidden", hidden: true }],
  ])("does not write %s", async (_, change) => {
    const deck = await sharedDeck("comment");
    const refused = await send(perry, deck, 0, change);
    expect([400, 403]).toContain(refused.status);
    expect(((await refused.json()) as { error: { message: string } }).error.message).toMatch(/^[A-Z].{15,}\.$/);
    expect(await commentsOf(deck)).toEqual([theirs]);
  });

  it("changes nothing by putting a change of the deck among comments", async () => {
    const deck = await sharedDeck("comment");
    const batch = {
      kind: "batch",
      changes: [
        { slide: "a", ...mine() },
        { kind: "setHidden", slide: "a", hidden: true },
      ],
    };
    expect((await send(perry, deck, 0, batch)).status).toBe(403);
    expect((await send(perry, deck, 0, mine(), { kind: "setNotes", notes: [] })).status).toBe(403);
    expect((await loadDeck(server.db, deck.id)).version).toBe(0);
  });

  it("learns no notes from the answer, where these are not shared", async () => {
    const deck = await sharedDeck("comment", false);
    await send(olive, deck, 0, { kind: "setNotes", notes: plainText("A secret of the speaker") });
    const answer = await (await send(perry, deck, 0, mine())).text();
    expect(JSON.parse(answer)).toMatchObject({ version: 2 });
    expect(answer).not.toContain("secret");
    const conflict = await (await send(perry, deck, 99, mine({ id: "next" }))).text();
    expect(conflict).not.toContain("secret");
    expect(conflict).toContain("conflict");
  });
});

it("whoever may look does not comment", async () => {
  const deck = await sharedDeck("view");
  expect((await send(perry, deck, 0, mine())).status).toBe(403);
});

it("whoever may edit removes the comments of others, and puts them back", async () => {
  const deck = await sharedDeck("edit");
  expect((await send(perry, deck, 0, { kind: "removeComment", comment: "theirs" })).status).toBe(200);
  expect(await commentsOf(deck)).toBeUndefined();
  expect((await send(perry, deck, 1, { kind: "putComment", comment: theirs, index: 0 })).status).toBe(200);
  expect(await commentsOf(deck)).toEqual([theirs]);
});

it("a comment on a slide that was deleted meanwhile is refused with a sentence, and nothing else is lost", async () => {
  const deck = await sharedDeck("comment");
  await send(olive, deck, 0, { kind: "deleteSlide" });
  const refused = await send(perry, deck, 0, mine());
  expect(refused.status).toBe(409);
});
