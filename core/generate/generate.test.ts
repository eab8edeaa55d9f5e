import { apply } from "@unitext/core/edit";
import { DEFAULT_RULE, type Deck, metadataOf, nameOf, plainText, ruleOf, textOf, titleOf } from "@unitext/core/model";
import { deckText, readText } from "@unitext/core/text";
import { deckArbitrary, idSource } from "@unitext/core/testing";
import fc from "fast-check";
import { generate, generateDeck, metadataFrom, reconcile } from "./index";

const made = (text: string, rule = DEFAULT_RULE) => [...generate(readText(text), rule, { newId: idSource() })];
const seen = (text: string, rule = DEFAULT_RULE) =>
  made(text, rule).map(({ slide }) => `${slide.arrangement}: ${nameOf(slide)}`);

describe("cutting a text into slides", () => {
  it("cuts at headings down to the level of the rule, and at breaks", () => {
    const text = "# Tides\n\nWhy\n\n## Springs\n\n- a\n\n### Deeper\n\nmore\n\n---\n\n## Neaps\n\n- b\n";
    expect(seen(text)).toEqual(["opening: Tides", "points: Springs", "points: Neaps"]);
    expect(seen(text, ruleOf({ kind: "heading", section: 1, slide: 3 }))).toEqual([
      "opening: Tides",
      "points: Springs",
      "points: Deeper",
      "points: Neaps",
    ]);
    expect(seen(text, ruleOf({ kind: "mark" }))).toEqual(["points: Tides", "points: Neaps"]);
    expect(made(text).map(({ lines }) => [lines.from, lines.to])).toEqual([
      [1, 3],
      [5, 11],
      [15, 17],
    ]);
  });

  it("makes a title slide from the front matter, or takes the first heading for it", () => {
    expect(seen("---\ntitle: Tides\nauthor: Team\n---\n\n## One\n")).toEqual(["opening: Tides", "title: One"]);
    const below = made("---\ntitle: Tides\nauthor: Team\nevent: Week 3\n---\n")[0]?.slide.elements[1];
    expect(below?.kind === "text" ? textOf(below.text) : "").toBe("Team\nWeek 3");
    expect(seen("---\ntitle: Tides\n---\n\n# Tides\n")).toEqual(["opening: Tides"]);
    expect(seen("---\ntitle: Tides\ntitleSlide: false\n---\n\n## One\n")).toEqual(["title: One"]);
  });

  it("recognises what a slide is", () => {
    expect(
      seen(
        "# Open\n\n---\n\n# Section\n\n---\n\nOne sentence alone.\n\n---\n\n## P\n\n![x](a.png)\n\n---\n\n:::slot{name=number}\n4.6 m\n:::\n\nwide\n\n---\n\n## C\n\n:::slot{name=right}\nr\n:::\n",
      ),
    ).toEqual([
      "opening: Open",
      "section: Section",
      "statement: One sentence alone.",
      "picture: P",
      "number: 4.6 m",
      "comparison: C",
    ]);
  });

  it("nests by level and never deeper than there is a slide above", () => {
    const slides = made(
      "## A\n\n---\n\n::slide{level=1}\n\n## B\n\n---\n\n::slide{level=5}\n\n## C\n\n---\n\n## D\n",
    ).map(({ slide }) => slide);
    expect(slides.map(({ id, parent }) => [id, parent])).toEqual(
      [
        ["n1", null],
        ["n3", "n1"],
        ["n5", "n3"],
        ["n7", null],
      ].map(([, parent], nth) => [slides[nth]?.id, parent === null ? null : slides[nth - 1]?.id]),
    );
  });

  it("says at its line what it could not take", () => {
    const manuscript = readText(
      "---\ncolour: red\nrate: 9\n---\n\n::slide{arrangement=grid wide=1}\n\n## A\n\n[x](ftp://a)\n",
    );
    const { deck } = generateDeck(manuscript, DEFAULT_RULE, { newId: idSource() });
    expect(manuscript.problems.map(({ line }) => line).sort((a, b) => a - b)).toEqual([1, 2, 6, 6, 10]);
    expect(deck.slides[0]?.arrangement).toBe("points");
  });
});

describe("a deck that follows its text", () => {
  const follow = (deck: Deck, text: string, prefix = "m") => {
    const manuscript = readText(text);
    const list = [...generate(manuscript, DEFAULT_RULE, { newId: idSource(prefix) })];
    return reconcile(deck, metadataFrom(manuscript.front, metadataOf(deck), manuscript.problems), list);
  };
  const start = () =>
    generateDeck(
      readText("# T\n\n## One\n\n- a\n\n:::notes\nsay\n:::\n\n## Two\n\n- b\n\n## Three\n\n- c\n"),
      DEFAULT_RULE,
      { newId: idSource("d") },
    ).deck;

  it("changes nothing when the text says what the deck says", () => {
    fc.assert(
      fc.property(deckArbitrary(), (deck) => {
        expect(follow(deck, deckText(deck, { ids: true })).change).toBeUndefined();
      }),
      { numRuns: 100 },
    );
  });

  it.each([["50 %"], ["50 %\nof all days"], ["4.6 m\nover datum\nin autumn"]])(
    "leaves a line below a number that is missing what it is, also where it looks like one: %j",
    (words) => {
      for (const steps of [false, true]) {
        const deck: Deck = {
          ...start(),
          slides: [
            {
              id: "s",
              parent: null,
              arrangement: "number",
              elements: [
                { kind: "text", id: "e", slot: "caption", text: plainText(words), ...(steps ? { steps } : {}) },
              ],
              notes: [],
              hidden: false,
            },
          ],
        };
        expect(follow(deck, deckText(deck, { ids: true })).change).toBeUndefined();
      }
    },
  );

  it("says what the text says after any edit, and keeps the ids of slides that stay", () => {
    fc.assert(
      fc.property(
        deckArbitrary({ minLength: 1 }),
        deckArbitrary({ minLength: 1 }),
        fc.array(fc.nat(20), { maxLength: 8 }),
        (deck, other, picks) => {
          const slides = [
            ...deck.slides.map((slide) => ({ ...slide, parent: null })),
            ...other.slides.map((slide) => ({ ...slide, id: `o${slide.id}`, parent: null })),
          ];
          const edited = {
            ...deck,
            slides: [...new Set(picks.map((at) => slides[at % slides.length]))].filter((slide) => slide !== undefined),
          };
          const text = deckText(edited, { ids: true });
          const { change, ids } = follow(deck, text);
          const after = change ? apply(deck, change).deck : deck;
          expect(deckText(after, { ids: true })).toBe(text);
          expect(after.slides.map(({ id }) => id)).toEqual(ids);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("keeps ids by content when slides are moved in the text, and by title when their words change", () => {
    const deck = start();
    const id = (title: string, of: Deck = deck) => of.slides.find((slide) => titleOf(slide) === title)?.id;
    const { change } = follow(
      deck,
      "# T\n\n## Three\n\n- c\n\n## One\n\n- a, and more\n\n:::notes\nsay\n:::\n\n## New\n\n- d\n\n## Two\n\n- b\n",
    );
    const after = apply(deck, change as never).deck;
    expect(after.slides.map(titleOf)).toEqual(["T", "Three", "One", "New", "Two"]);
    for (const title of ["T", "One", "Two", "Three"]) expect(id(title, after)).toBe(id(title));
  });

  it("keeps the id of a slide whose title is being typed", () => {
    let deck = start();
    const before = deck.slides.map(({ id }) => id);
    for (const title of ["", "T", "Tw", "Twenty"]) {
      const { change } = follow(
        deck,
        `# T\n\n## One\n\n- a\n\n:::notes\nsay\n:::\n\n## ${title}\n\n- b\n\n## Three\n\n- c\n`,
        `k${title}`,
      );
      if (change) deck = apply(deck, change).deck;
      expect(deck.slides.map(({ id }) => id)).toEqual(before);
    }
    expect(deck.slides[2]?.elements).toHaveLength(2);
  });
});
