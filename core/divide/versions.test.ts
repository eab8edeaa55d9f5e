import { compareDecks } from "@unitext/core/diff";
import { apply } from "@unitext/core/edit";
import {
  type Deck,
  emptyDeck,
  newSlide,
  orderProblems,
  plainText,
  run,
  type Slide,
  textOf,
  THEMES,
  titleOf,
  must,
} from "@unitext/core/model";
import { actOn, deckArbitrary, idSource } from "@unitext/core/testing";
import fc from "fast-check";
import { differsTable, restoreChange, reviewTailored, tailorDeck, takeSlideChange, takeTailored } from "./index";

function slide(id: string, title: string, body = "", notes = ""): Slide {
  return {
    ...newSlide(id, "points"),
    elements: [
      { kind: "text", id: "t", slot: "title", text: plainText(title) },
      ...(body ? [{ kind: "text" as const, id: "b", slot: "body", text: plainText(body) }] : []),
    ],
    notes: plainText(notes),
  };
}

const deckOf = (slides: Slide[]): Deck => ({ ...emptyDeck("report", "Report"), slides });
const edited = (deck: Deck, id: string, change: (slide: Slide) => Slide): Deck => ({
  ...deck,
  slides: deck.slides.map((one) => (one.id === id ? change(one) : one)),
});
const titled =
  (title: string) =>
  (one: Slide): Slide => ({
    ...one,
    elements: one.elements.map((element) =>
      element.slot === "title" && element.kind === "text" ? { ...element, text: plainText(title) } : element,
    ),
  });
const body =
  (words: string) =>
  (one: Slide): Slide => ({
    ...one,
    elements: one.elements.map((element) =>
      element.slot === "body" && element.kind === "text" ? { ...element, text: plainText(words) } : element,
    ),
  });
const bodyOf = (deck: Deck, at: number) => {
  const element = deck.slides[at]?.elements[1];
  return element?.kind === "text" ? textOf(element.text) : undefined;
};
const report = deckOf([
  slide("a", "Levels", "2.4 m", "say"),
  slide("b", "Dunes", "stable"),
  slide("c", "Storms", "two"),
]);

describe("comparing decks", () => {
  it("tells words, notes, look and data apart, and moves from changes", () => {
    const next = deckOf([
      { ...edited(report, "b", titled("Dunes in autumn")).slides[1], parent: null } as Slide,
      { ...must(report.slides[0]), notes: plainText("say more"), arrangement: "statement" },
      {
        ...newSlide("n", "table"),
        elements: [
          {
            kind: "table",
            id: "x",
            slot: "table",
            header: 1,
            align: ["start"],
            rows: [[{ text: plainText("Gauge") }], [{ text: plainText("North") }]],
          },
        ],
      },
    ]);
    const { rows, counts } = compareDecks(report, next);
    expect(
      rows.map(({ state, differs, moved, here, there }) => [
        state,
        differs.join(),
        moved,
        here?.id ?? "",
        there?.id ?? "",
      ]),
    ).toEqual([
      ["changed", "notes,appearance", expect.any(Boolean), "a", "a"],
      ["there", "", false, "", "n"],
      ["changed", "words", expect.any(Boolean), "b", "b"],
      ["here", "", false, "c", ""],
    ]);
    expect(rows.filter(({ moved }) => moved)).toHaveLength(1);
    expect(counts).toEqual({ same: 0, changed: 2, moved: 0, here: 1, there: 1 });
  });

  it("a deck is the same as its copy, and knows what was made from it by origin and by likeness", () => {
    fc.assert(
      fc.property(deckArbitrary({ minLength: 1, maxLength: 8 }), (deck) => {
        expect(compareDecks(deck, structuredClone(deck)).counts).toEqual({
          same: deck.slides.length,
          changed: 0,
          moved: 0,
          here: 0,
          there: 0,
        });
        const version = tailorDeck({ deck, version: 1 }, "v", "V", idSource("v"));
        expect(compareDecks(version, deck).counts.same).toBe(deck.slides.length);
      }),
      { numRuns: 60 },
    );
  });
});

describe("restoring", () => {
  it("leads from any deck to any other state of it, and back by its inverse", () => {
    fc.assert(
      fc.property(
        deckArbitrary({ minLength: 1, maxLength: 6 }),
        fc.array(fc.tuple(fc.nat(30), fc.array(fc.nat(20), { minLength: 4, maxLength: 4 })), { maxLength: 8 }),
        (then, acts) => {
          const newId = idSource("z");
          let now = then;
          for (const [kind, pick] of acts) {
            const change = actOn(now, kind, pick, newId);
            try {
              if (change) now = apply(now, change).deck;
            } catch {
              // An act that the deck refuses changes nothing.
            }
          }
          const change = restoreChange(now, then);
          const back = change ? apply(now, change) : { deck: now, inverse: undefined };
          expect(back.deck).toEqual(then);
          if (back.inverse) expect(apply(back.deck, back.inverse).deck).toEqual(now);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("brings theme, pictures and page back as well", () => {
    const now: Deck = {
      ...report,
      theme: THEMES.chalk,
      page: { width: 720, height: 540 },
      themes: { Chalk: THEMES.chalk },
    };
    expect(apply(now, restoreChange(now, report) as never).deck).toEqual(report);
  });
});

describe("one slide of another state", () => {
  it("comes back over what it has become, or where it was when it is gone", () => {
    const there = must(report.slides[1]);
    const changed = apply(report, { kind: "setSlide", slide: there.id, as: { ...there, elements: [] } }).deck;
    const here = must(changed.slides[1]);
    expect(apply(changed, takeSlideChange(changed, { here, there }, report)).deck).toEqual(report);

    const without = apply(report, { kind: "deleteSlide", slide: there.id }).deck;
    const back = apply(without, takeSlideChange(without, { here: null, there }, report)).deck;
    expect(back.slides.map(({ id }) => id)).toEqual(report.slides.map(({ id }) => id));
    expect(back.slides[1]).toEqual(there);
  });

  it("brings the pictures that it needs", () => {
    const asset = { sha256: "a".repeat(64), mediaType: "image/png", width: 1, height: 1 } as const;
    const slide = must(report.slides[1]);
    const there: Slide = {
      ...slide,
      elements: [{ kind: "picture", id: "p", slot: null, source: "rain.png", alt: "Rain" }],
    };
    const then: Deck = { ...report, assets: { ...report.assets, "rain.png": asset, "unused.png": asset } };
    const { deck } = apply(report, takeSlideChange(report, { here: slide, there }, then));
    expect(deck.assets["rain.png"]).toEqual(asset);
    expect(deck.assets["unused.png"]).toBeUndefined();
  });
});

describe("a tailored version", () => {
  const base = { deck: report, version: 7 };
  const version = tailorDeck(base, "board", "Report for the board", idSource("v"));
  const mine = (title: string) => must(version.slides.find((one) => titleOf(one) === title));

  it("begins as its original, with slides of its own that remember it", () => {
    expect(version.original).toEqual({ deck: "report", version: 7 });
    expect(version.slides.map(({ origin }) => origin?.slide)).toEqual(["a", "b", "c"]);
    expect(reviewTailored(version, report, report)).toMatchObject({ counts: { same: 3 }, following: { followed: 3 } });
  });

  it("shows what is new in the original and takes it slide by slide, keeping what was changed here", () => {
    const own: Deck = {
      ...edited(edited(version, mine("Dunes").id, body("stable, and safe")), mine("Levels").id, (one) => ({
        ...one,
        notes: plainText("for the board"),
      })),
      slides: [],
    };
    own.slides = [
      ...edited(edited(version, mine("Dunes").id, body("stable, and safe")), mine("Levels").id, (one) => ({
        ...one,
        notes: plainText("for the board"),
      })).slides,
      slide("own", "Budget"),
    ];
    const now = deckOf([
      body("2.6 m")(must(report.slides[0])),
      body("losing sand")(must(report.slides[1])),
      slide("d", "Outlook", "calm"),
    ]);
    const review = reviewTailored(own, report, now);
    expect(
      review.items.map(({ state, following, mine: here, theirs }) => [
        state,
        following,
        titleOf((here ?? theirs) as Slide),
      ]),
    ).toEqual([
      ["changed", "changed", "Levels"],
      ["conflict", "changed", "Dunes"],
      ["gone", "followed", "Storms"],
      ["same", "own", "Budget"],
      ["new", "left", "Outlook"],
    ]);
    const change = takeTailored(
      own,
      report,
      { deck: now, version: 9 },
      new Map([[mine("Storms").id, { take: false }]]),
      idSource("w"),
    );
    const { deck } = apply(own, change as never);
    expect(orderProblems(deck.slides)).toEqual([]);
    expect(deck.slides.map(titleOf)).toEqual(["Levels", "Dunes", "Outlook", "Storms", "Budget"]);
    expect(deck.slides[0]).toMatchObject({ notes: plainText("for the board"), origin: { slide: "a", version: 9 } });
    expect(bodyOf(deck, 0)).toBe("2.6 m");
    expect(bodyOf(deck, 1)).toBe("stable, and safe");
    // What was not taken is offered again; when all is taken the version has followed.
    expect(deck.original?.version).toBe(7);
    const rest = reviewTailored(deck, report, now);
    expect(
      rest.items
        .filter(({ state }) => state !== "same")
        .map(({ state, mine: here }) => [state, titleOf(here as Slide)]),
    ).toEqual([
      ["conflict", "Dunes"],
      ["gone", "Storms"],
    ]);
    const settled = takeTailored(
      deck,
      report,
      { deck: now, version: 9 },
      new Map([[mine("Dunes").id, { conflicts: { body: "text" as const } }]]),
      idSource("u"),
    );
    const whole = apply(deck, settled as never).deck;
    expect(whole.slides.map(titleOf)).toEqual(["Levels", "Dunes", "Outlook", "Budget"]);
    expect(bodyOf(whole, 1)).toBe("losing sand");
    expect(whole.original).toEqual({ deck: "report", version: 9 });
    expect(reviewTailored(whole, now, now).counts.same).toBe(4);
  });

  it("taking all makes any version say what its original says, when nothing was changed in it", () => {
    fc.assert(
      fc.property(
        deckArbitrary({ minLength: 1, maxLength: 6 }),
        fc.array(fc.tuple(fc.nat(30), fc.array(fc.nat(20), { minLength: 4, maxLength: 4 })), { maxLength: 6 }),
        (then, acts) => {
          const follower = tailorDeck({ deck: then, version: 1 }, "v", "V", idSource("v"));
          const newId = idSource("z");
          let now = then;
          for (const [kind, pick] of acts) {
            const change = actOn(now, kind, pick, newId);
            try {
              if (change) now = apply(now, change).deck;
            } catch {
              // Refused.
            }
          }
          const change = takeTailored(follower, then, { deck: now, version: 2 }, new Map(), idSource("w"));
          const taken = change ? apply(follower, change).deck : follower;
          expect(orderProblems(taken.slides)).toEqual([]);
          const { rows } = compareDecks(taken, now);
          expect(
            rows.map(({ state, differs, here, there }) => [
              state === "moved" ? "same" : state,
              differs.join(),
              here?.origin?.slide,
              there?.id,
            ]),
          ).toEqual(taken.slides.map(({ origin }) => ["same", "", origin?.slide, origin?.slide]));
        },
      ),
      { numRuns: 120 },
    );
  });

  it("a table tells what differs between all versions at a glance", () => {
    const short: Deck = {
      ...version,
      id: "class",
      slides: [...version.slides.slice(0, 1).map(titled("Levels, simply")), slide("x", "Exercise")],
    };
    const table = differsTable(report, [version, short]);
    expect(table.rows.map(({ number, states }) => [number, ...states])).toEqual([
      [1, "followed", "changed"],
      [2, "followed", "left"],
      [3, "followed", "left"],
    ]);
    expect(table.own.map((list) => list.map(titleOf))).toEqual([[], ["Exercise"]]);
  });

  it("keeps links of what it takes inside the version", () => {
    const linked = edited(report, "a", (one) => ({
      ...one,
      notes: [{ kind: "plain", level: 0, runs: [run("see", [], "slide:c")] }],
    }));
    const change = takeTailored(version, report, { deck: linked, version: 8 }, new Map(), idSource("w"));
    expect(apply(version, change as never).deck.slides[0]?.notes[0]?.runs[0]?.link).toBe(`slide:${mine("Storms").id}`);
  });
});
