import { Deck, newSlide, orderProblems, must } from "@unitext/core/model";
import { actOn, deckArbitrary, idSource } from "@unitext/core/testing";
import fc from "fast-check";
import { apply, conflicts, longestRise, moveTo, makeDetail, describeChange, step, writeSet, moveOut } from "./index";

const acts = fc.array(fc.tuple(fc.nat(200), fc.array(fc.nat(50), { minLength: 4, maxLength: 4 })), { maxLength: 12 });

describe("changes", () => {
  it("lead back: applying a change and its inverse gives the same deck", () => {
    fc.assert(
      fc.property(deckArbitrary(), acts, (deck, list) => {
        const newId = idSource("new");
        let current = deck;
        for (const [kind, pick] of list) {
          const change = tried(() => actOn(current, kind, pick, newId));
          const applied = change && tried(() => apply(current, change));
          if (!applied) continue;
          expect(apply(applied.deck, applied.inverse).deck).toEqual(current);
          current = applied.deck;
        }
      }),
      { numRuns: 300 },
    );
  });

  it("keep the model valid in any order", () => {
    fc.assert(
      fc.property(deckArbitrary({ minLength: 1 }), acts, (deck, list) => {
        const newId = idSource("new");
        let current = deck;
        for (const [kind, pick] of list) {
          const change = tried(() => actOn(current, kind, pick, newId));
          current = (change && tried(() => apply(current, change)))?.deck ?? current;
        }
        expect(orderProblems(current.slides)).toEqual([]);
        expect(Deck.safeParse(current).success).toBe(true);
      }),
      { numRuns: 150 },
    );
  });

  it("say what they touch: two that do not collide give the same deck in either order", () => {
    fc.assert(
      fc.property(
        deckArbitrary({ minLength: 2 }),
        fc.nat(200),
        fc.nat(200),
        fc.array(fc.nat(50), { minLength: 8, maxLength: 8 }),
        (deck, a, b, pick) => {
          const content = (kind: number) => must([5, 7, 8, 9, 11, 12, 13][kind % 7]);
          const one = actOn(deck, content(a), pick.slice(0, 4), idSource("a"));
          const two = actOn(deck, content(b), pick.slice(4), idSource("b"));
          if (!one || !two || conflicts(writeSet(one), writeSet(two))) return;
          expect(apply(apply(deck, one).deck, two).deck).toEqual(apply(apply(deck, two).deck, one).deck);
        },
      ),
    );
  });
});

/** Acts that cannot be done as they stand (a slide under itself) are refused with a Failure; nothing else may be thrown. */
function tried<T>(act: () => T): T | undefined {
  try {
    return act();
  } catch (error) {
    expect((error as Error).name).toBe("Failure");
    return undefined;
  }
}

describe("order", () => {
  const line = (...ids: string[]) => ({ slides: ids.map((id) => newSlide(id, "points")) });
  const deck = (slides: ReturnType<typeof line>["slides"]) => ({ ...baseDeck, slides });
  const order = (given: { slides: { id: string; parent: string | null }[] }) =>
    given.slides.map(({ id, parent }) => (parent ? `${parent}>${id}` : id)).join(" ");

  it("moves slide 3 to place 2", () => {
    const before = deck(line("a", "b", "c", "d").slides);
    const change = step(before, ["c"], -1);
    expect(order(apply(before, change as never).deck)).toBe("a c b d");
    expect(describeChange(change as never)).toBe("Moved a slide");
  });

  it("moves several that are not neighbours to one place, in their order", () => {
    const before = deck(line("a", "b", "c", "d", "e").slides);
    expect(order(apply(before, moveTo(before, ["d", "a"], { parent: null, after: "b" })).deck)).toBe("b a d c e");
  });

  it("nests under the slide before, carries details along and lifts them when their slide goes", () => {
    const before = deck(line("a", "b", "c").slides);
    const nested = apply(before, makeDetail(before, ["b", "c"]) as never).deck;
    expect(order(nested)).toBe("a a>b a>c");
    expect(order(apply(nested, { kind: "deleteSlide", slide: "a" }).deck)).toBe("b c");
    expect(order(apply(nested, moveOut(nested, ["b"]) as never).deck)).toBe("a a>c b");
  });

  it("refuses to put a slide under itself", () => {
    const before = deck(line("a", "b").slides);
    const nested = apply(before, makeDetail(before, ["b"]) as never).deck;
    expect(() => apply(nested, { kind: "moveSlide", slide: "a", place: { parent: "b", after: null } })).toThrow(
      "under itself",
    );
  });
});

const baseDeck = must(fc.sample(deckArbitrary({ maxLength: 0 }), 1)[0]);

describe("the longest rise", () => {
  it("rises, and no other choice of ids that rises is longer", () => {
    fc.assert(
      fc.property(fc.array(fc.option(fc.nat(9), { nil: undefined }), { maxLength: 10 }), (values) => {
        const order = values.map((_, at) => `s${at}`);
        const keys = new Map<string, number>(
          values.flatMap((value, at) => (value === undefined ? [] : [[`s${at}`, value] as const])),
        );
        const rises = (ids: readonly string[]) =>
          ids.every((id, at) => keys.has(id) && (at === 0 || must(keys.get(must(ids[at - 1]))) < must(keys.get(id))));
        const found = longestRise(order, keys);
        expect(rises(order.filter((id) => found.has(id)))).toBe(true);
        let most = 0;
        for (let choice = 0; choice < 2 ** order.length; choice++) {
          const ids = order.filter((_, at) => choice & (1 << at));
          if (ids.length > most && rises(ids)) most = ids.length;
        }
        expect(found.size).toBe(most);
      }),
      { numRuns: 100 },
    );
  });
});
