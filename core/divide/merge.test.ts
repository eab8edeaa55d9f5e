import { compareDecks } from "@unitext/core/diff";
import { apply } from "@unitext/core/edit";
import {
  type Element,
  type Deck,
  emptyDeck,
  newSlide,
  orderProblems,
  plainText,
  type Slide,
  THEMES,
  must,
} from "@unitext/core/model";
import { balance, tally } from "@unitext/core/tally";
import { idSource } from "@unitext/core/testing";
import fc from "fast-check";
import { duplicates, type MergeSource, merge, mergeInto, resolvePlan, split } from "./index";
import { ids, linkTo, slide, deckOf, linksIn, titles, linkedDeck } from "@unitext/core/testing/coursedecks";

describe("merge", () => {
  const picture = (sum: string) => ({ sha256: sum.repeat(64), mediaType: "image/png" as const, width: 4, height: 3 });
  const shown = (id: string, title: string): Slide =>
    slide(id, title, {
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText(title) },
        { kind: "picture", id: "p", slot: null, source: "pictures/a.png", alt: "" },
      ],
    });
  const one: MergeSource = {
    version: 2,
    deck: {
      ...deckOf("one", [slide("o", "Welcome"), shown("p", "Shore"), slide("q", "To p", { notes: linkTo("p") })]),
      assets: { "pictures/a.png": picture("a") },
    },
  };
  const two: MergeSource = {
    version: 5,
    deck: {
      ...deckOf("two", [slide("o", "Welcome"), shown("p", "Dunes")]),
      theme: THEMES.chalk,
      assets: { "pictures/a.png": picture("b") },
    },
  };

  it("brings decks together with their pictures under names that do not meet, links and notes following", () => {
    const { deck, accounts } = merge(
      [one, two],
      { appearance: "match", sections: true, contents: true, title: "All" },
      ids(),
    );
    expect(titles(deck)).toEqual(["Contents", "Deck one", "Welcome", "Shore", "To p", "Deck two", "Welcome", "Dunes"]);
    expect(deck.assets).toEqual({ "pictures/a.png": picture("a"), "pictures/a-2.png": picture("b") });
    expect(deck.slides[7]?.elements.find(({ kind }) => kind === "picture")).toMatchObject({
      source: "pictures/a-2.png",
    });
    expect(linksIn(deck)).toEqual([
      `slide:${deck.slides[1]?.id}`,
      `slide:${deck.slides[5]?.id}`,
      `slide:${deck.slides[3]?.id}`,
    ]);
    expect(deck.slides[7]?.origin).toEqual({ deck: "two", slide: "p", version: 5 });
    expect(deck.themes).toBeUndefined();
    const closing = balance([one.deck, two.deck], [deck], accounts);
    expect([closing.closed, closing.added]).toEqual([true, 3]);
  });

  it("keeps a deck's own look as a second theme", () => {
    const { deck } = merge([one, two], { appearance: "keep" }, ids());
    expect(deck.themes).toEqual({ Chalk: THEMES.chalk });
    expect(deck.slides.map(({ theme }) => theme)).toEqual([undefined, undefined, undefined, "Chalk", "Chalk"]);
  });

  it("takes chosen slides, equal openings once, and drops copies, with a reason for each", () => {
    const third: MergeSource = {
      version: 1,
      deck: deckOf("three", [slide("o", "Welcome"), slide("x", "To p", { notes: plainText("other notes") })]),
      slides: ["o", "x"],
    };
    expect(duplicates([one, third]).map((group) => group.map(({ deck, number }) => `${deck} ${number}`))).toEqual([
      ["one 1", "three 1"],
      ["one 3", "three 2"],
    ]);
    const { deck, accounts } = merge(
      [{ ...one, slides: ["o", "q"] }, third],
      { appearance: "match", openingsOnce: true, drop: new Set(["three/x"]) },
      ids(),
    );
    expect(titles(deck)).toEqual(["Welcome", "To p"]);
    expect(accounts.map(({ deck: of, slide: id, why }) => [of, id, why])).toEqual([
      ["one", "p", "it was not chosen"],
      ["three", "o", "another deck has the same opening"],
      ["three", "x", expect.stringContaining("says the same")],
    ]);
    // The link to the slide that was not chosen goes on leading to it.
    expect(linksIn(deck)).toEqual(["deck:one/p"]);
    expect(balance([one.deck, third.deck], [deck], accounts).closed).toBe(true);
  });

  it("refuses a deck that is listed twice and a slide that is gone, and says which", () => {
    expect(() => merge([one, one], { appearance: "match" }, ids())).toThrow(
      expect.objectContaining({ where: "Deck one", message: expect.stringContaining("twice") }),
    );
    expect(() => merge([{ ...one, slides: ["gone"] }], { appearance: "match" }, ids())).toThrow(
      expect.objectContaining({ code: "conflict", message: expect.stringContaining("no longer in “Deck one”") }),
    );
    expect(() => merge([], { appearance: "match" }, ids())).toThrow("no deck to merge");
  });

  it("goes into a deck at a place as one change that can be taken back", () => {
    const place = deckOf("place", [slide("m", "Main"), slide("n", "Next")]);
    const { change, accounts } = mergeInto(
      place,
      { parent: null, after: "m" },
      [two],
      { appearance: "keep" },
      idSource("i"),
    );
    const { deck, inverse } = apply(place, change);
    expect(titles(deck)).toEqual(["Main", "Welcome", "Dunes", "Next"]);
    expect(apply(deck, inverse).deck).toEqual(place);
    expect(balance([place, two.deck], [deck], accounts).closed).toBe(true);
  });

  it("accounts for everything of any decks, whatever is chosen and dropped", () => {
    const gathered = fc.tuple(linkedDeck("x"), linkedDeck("y"), linkedDeck("z"));
    fc.assert(
      fc.property(
        gathered,
        fc.array(fc.nat(), { maxLength: 6 }),
        fc.boolean(),
        fc.constantFrom<"match" | "keep">("match", "keep"),
        (decks, chosen, once, look) => {
          const list: MergeSource[] = decks.map((deck, nth) => ({
            deck,
            version: nth,
            ...(nth === 1 && chosen.length
              ? { slides: [...new Set(chosen.map((at) => must(deck.slides[at % deck.slides.length]?.id)))] }
              : {}),
          }));
          const drop = new Set(
            duplicates(list).flatMap((group) => group.slice(1).map(({ deck, slide: id }) => `${deck}/${id}`)),
          );
          const { deck, accounts } = merge(list, { appearance: look, openingsOnce: once, sections: once, drop }, ids());
          expect(orderProblems(deck.slides)).toEqual([]);
          expect(balance(decks, [deck], accounts).open).toEqual([]);
        },
      ),
      { numRuns: 100 },
    );
  });

  it("a split deck merged again has all its slides, notes and links", () => {
    fc.assert(
      fc.property(linkedDeck("x"), fc.integer({ min: 1, max: 4 }), (deck, count) => {
        const cut = split({ deck, version: 0 }, resolvePlan(deck, { by: { count } }, "").parts, ids());
        const { deck: whole } = merge(
          cut.parts.map((part) => ({ deck: part, version: 0 })),
          { appearance: "match" },
          ids(),
        );
        const [before, after] = [tally(deck), tally(whole)];
        expect(after).toEqual(before);
        expect(
          compareDecks(deck, {
            ...whole,
            slides: whole.slides.map((one, nth) => ({
              ...one,
              origin: { deck: "x", slide: must(deck.slides[nth]?.id), version: 0 },
            })),
          }).counts,
        ).toMatchObject({ here: 0, there: 0, moved: 0 });
      }),
      { numRuns: 80 },
    );
  });
});

describe("a merge that restyles", () => {
  const house = {
    name: "House",
    background: { colour: "#123456" },
    elements: [
      {
        kind: "shape" as const,
        id: "m",
        slot: null,
        frame: { x: 0, y: 0, width: 9, height: 9 },
        geometry: { preset: "rect" },
        text: [],
      },
    ],
  };
  const housed = (id: string): Deck => ({
    ...emptyDeck(id, id),
    masters: { h: house },
    slides: [
      {
        ...newSlide(`${id}s`, "points"),
        master: "h",
        elements: [
          {
            kind: "text",
            id: "t",
            slot: "title",
            frame: { x: 5, y: 5, width: 50, height: 20 },
            text: plainText("Quay"),
          },
        ],
      },
    ],
  });
  const merged = (look: "match" | "keep") =>
    merge(
      [
        { deck: housed("a"), version: 0 },
        { deck: housed("b"), version: 0 },
      ],
      { appearance: look },
      { newId: idSource("n"), deckId: () => "m" },
    );

  it("keeps the first deck's own look, and says for each other slide what it drops", () => {
    const { deck, accounts } = merged("match");
    expect(deck.slides.map(({ master: name }) => name)).toEqual(["h", undefined]);
    expect(accounts.map(({ deck: from, why }) => [from, why])).toEqual([
      [
        "b",
        "it takes the theme of the target, without the background of its layout, one drawing of its layout and the places and letters of one text of its own",
      ],
    ]);
  });

  it("leaves everything where it is on a slide with drawings, on plain paper, with text that shrinks to its room", () => {
    const drawn = housed("b");
    const picture: Element = {
      kind: "picture",
      id: "p",
      slot: null,
      source: "p.png",
      alt: "Quay",
      frame: { x: 10, y: 30, width: 60, height: 40 },
    };
    const [only] = drawn.slides;
    const slides = [{ ...must(only), elements: [...must(only).elements, picture] }];
    const { deck, accounts } = merge(
      [
        { deck: housed("a"), version: 0 },
        { deck: { ...drawn, slides }, version: 0 },
      ],
      { appearance: "match" },
      { newId: idSource("n"), deckId: () => "m" },
    );
    const [, restyled] = deck.slides;
    expect(restyled?.background).toEqual({ colour: deck.theme.colours.paper });
    expect(restyled?.elements.map(({ frame }) => frame)).toEqual([
      { x: 5, y: 5, width: 50, height: 20 },
      { x: 10, y: 30, width: 60, height: 40 },
    ]);
    expect(restyled?.elements[0]?.box?.fit).toBe("shrink");
    expect(accounts.map(({ why }) => why)).toEqual([
      "it takes the theme of the target, without the background of its layout, one drawing of its layout and the letters of one text of its own",
    ]);
  });

  it("drops nothing where each keeps its look", () => {
    const { deck, accounts } = merged("keep");
    expect([deck.slides.map(({ master: name }) => name), accounts]).toEqual([["h", "h"], []]);
  });
});
