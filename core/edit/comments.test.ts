import { type Comment, type Deck, emptyDeck, newSlide } from "@unitext/core/model";
import { apply, type Change, conflicts, integrate, isCommentChange, openReplica, applyOwn, singles, writeSet } from ".";

const comment = (id: string, more: Partial<Comment> = {}): Comment => ({ id, author: "Reader", text: id, ...more });
const deck: Deck = { ...emptyDeck("d", "Deck"), slides: [newSlide("a", "points"), newSlide("b", "points")] };
const after = (start: Deck, ...changes: Change[]) => changes.reduce((now, change) => apply(now, change).deck, start);
const put = (id: string, more: Partial<Comment> = {}): Change => ({
  kind: "putComment",
  slide: "a",
  comment: comment(id, more),
});
const reply = (id: string, to: string): Change => ({
  kind: "putReply",
  slide: "a",
  comment: to,
  reply: { id, author: "Owner", text: id },
});
const commentsOf = (now: Deck) => now.slides[0]?.comments;

describe("comments", () => {
  it("come in their order, with replies, and are marked as done and opened again", () => {
    const now = after(deck, put("x"), put("y"), reply("r", "x"), {
      kind: "setDone",
      slide: "a",
      comment: "x",
      done: true,
    });
    expect(commentsOf(now)).toEqual([
      comment("x", { done: true, replies: [{ id: "r", author: "Owner", text: "r" }] }),
      comment("y"),
    ]);
    const open = after(now, { kind: "setDone", slide: "a", comment: "x", done: false });
    expect(commentsOf(open)?.[0]).not.toHaveProperty("done");
  });

  it.each<[string, Change]>([
    ["a new one", put("z")],
    ["another text", put("x", { text: "better" })],
    ["one that is removed from between others", { kind: "removeComment", slide: "a", comment: "x" }],
    ["a reply", reply("s", "x")],
    ["a reply that is removed", { kind: "removeReply", slide: "a", comment: "x", reply: "r" }],
    ["one that is done", { kind: "setDone", slide: "a", comment: "y", done: true }],
  ])("undo: %s", (_, change) => {
    const start = after(deck, put("x"), put("y"), reply("r", "x"), reply("q", "x"));
    const { deck: changed, inverse } = apply(start, change);
    expect(changed).not.toEqual(start);
    expect(apply(changed, inverse).deck).toEqual(start);
  });

  it("a slide without comments has no field for them", () => {
    const now = after(deck, put("x"), { kind: "removeComment", slide: "a", comment: "x" });
    expect(now).toEqual(deck);
  });

  it("of two people at once are all taken, and so are their replies", () => {
    const start = after(deck, put("x"));
    const mine = applyOwn(openReplica(start, 1), { id: "m", change: reply("mine", "x") }).replica;
    const { replica, refused } = integrate(mine, [
      { version: 2, id: "t", change: reply("theirs", "x") },
      { version: 3, id: "u", change: put("y") },
    ]);
    expect(refused).toEqual([]);
    expect(replica.deck.slides[0]?.comments?.map(({ id }) => id)).toEqual(["x", "y"]);
    expect(replica.deck.slides[0]?.comments?.[0]?.replies?.map(({ id }) => id)).toEqual(["theirs", "mine"]);
    expect(conflicts(writeSet(put("p")), writeSet(put("q")))).toBe(false);
    expect(conflicts(writeSet(reply("p", "x")), writeSet(reply("q", "x")))).toBe(false);
  });

  it("a reply to one that was removed meanwhile is refused with a sentence", () => {
    expect(() => apply(deck, reply("r", "x"))).toThrow("removed meanwhile");
  });

  it("are told from other changes", () => {
    expect(singles(put("x")).every(isCommentChange)).toBe(true);
    expect(isCommentChange({ kind: "setHidden", slide: "a", hidden: true })).toBe(false);
  });
});
