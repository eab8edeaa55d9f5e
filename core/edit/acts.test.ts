import {
  type ArrangementName,
  ARRANGEMENTS,
  linksOf,
  newSlide,
  plainText,
  run,
  type Slide,
  textOf,
  THEMES,
  must,
} from "@unitext/core/model";
import { deckArbitrary, idSource, slideArbitrary } from "@unitext/core/testing";
import fc from "fast-check";
import {
  apply,
  copies,
  duplicate,
  insertAt,
  makeSection,
  moveTo,
  notesToText,
  rearrange,
  roots,
  slidesNeeded,
  textToNotes,
  batch,
} from "./index";

const names = Object.keys(ARRANGEMENTS) as ArrangementName[];

describe("acts", () => {
  it("give a slide any arrangement without losing an element or a word, and back", () => {
    fc.assert(
      fc.property(slideArbitrary(idSource("s")), fc.constantFrom(...names), (slide, arrangement) => {
        const deck = {
          ...fc.sample(deckArbitrary({ maxLength: 0 }), { numRuns: 1, seed: 1 })[0],
          slides: [slide],
        } as never as Parameters<typeof apply>[0];
        const { deck: after, inverse } = apply(deck, rearrange(slide, arrangement));
        const words = (one: Slide | undefined) =>
          one?.elements.map((element) => [element.id, { ...element, slot: null }]);
        expect(words(after.slides[0])).toEqual(words(slide));
        expect(after.slides[0]?.arrangement).toBe(arrangement);
        expect(apply(after, inverse).deck).toEqual(deck);
      }),
    );
  });

  it("keep a title a title through every arrangement that has one", () => {
    const slide: Slide = {
      ...newSlide("a", "opening"),
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText("T") },
        { kind: "text", id: "u", slot: "subtitle", text: plainText("U") },
      ],
    };
    for (const [to, slots] of [
      ["points", ["title", "body"]],
      ["section", ["title", "subtitle"]],
      ["comparison", ["title", "left"]],
      ["picture", ["title", "caption"]],
    ] as const) {
      const change = rearrange(slide, to);
      expect(change.kind === "setArrangement" ? Object.values(change.slots) : []).toEqual(slots);
    }
  });

  it("copy slides with links that lead to the copies, new ids everywhere, and where they came from", () => {
    const linked: Slide[] = [
      {
        ...newSlide("a", "points"),
        elements: [
          {
            kind: "text",
            id: "t",
            slot: "body",
            text: [{ kind: "plain", level: 0, runs: [run("to b", [], "slide:b"), run(" out", [], "slide:z")] }],
          },
        ],
      },
      { ...newSlide("b", "points"), parent: "a" },
    ];
    const [one, two] = copies(linked, idSource("k"), { deck: "d", version: 3 });
    expect([one?.id, two?.id, two?.parent]).toEqual(["k1", "k2", "k1"]);
    const text = one?.elements[0];
    expect(text?.kind === "text" ? linksOf(text.text).map(({ to }) => to) : []).toEqual(["slide:k2", "slide:z"]);
    expect(one?.origin).toEqual({ deck: "d", slide: "a", version: 3 });
    expect(text?.id).not.toBe("t");
  });

  it("duplicate whole families, directly after the last of them", () => {
    fc.assert(
      fc.property(deckArbitrary({ minLength: 1 }), fc.nat(20), (deck, pick) => {
        const slide = must(deck.slides[pick % deck.slides.length]);
        const { deck: after } = apply(deck, duplicate(deck, [slide.id], idSource("k"), 0));
        const family = after.slides.filter(({ origin }) => origin);
        expect(after.slides.filter(({ origin }) => !origin)).toEqual(deck.slides);
        expect(family[0]?.origin?.slide).toBe(slide.id);
        expect(family[0]?.parent).toBe(slide.parent);
      }),
    );
  });

  it("move what is chosen once: a detail goes with its main slide", () => {
    const slides = [newSlide("a", "points"), { ...newSlide("b", "points"), parent: "a" }, newSlide("c", "points")];
    const deck = {
      ...must(fc.sample(deckArbitrary({ maxLength: 0 }), { numRuns: 1, seed: 1 })[0]),
      slides,
    };
    expect(roots(deck, ["b", "a"])).toEqual(["a"]);
    expect(
      apply(deck, moveTo(deck, ["a", "b"], { parent: null, after: "c" })).deck.slides.map(({ id, parent }) => [
        id,
        parent,
      ]),
    ).toEqual([
      ["c", null],
      ["a", null],
      ["b", "a"],
    ]);
  });

  it("insert several with their details at one place", () => {
    const deck = {
      ...must(fc.sample(deckArbitrary({ maxLength: 0 }), { numRuns: 1, seed: 1 })[0]),
      slides: [newSlide("x", "points"), newSlide("y", "points")],
    };
    const change = insertAt(
      [newSlide("a", "points"), { ...newSlide("b", "points"), parent: "a" }, newSlide("c", "points")],
      { parent: null, after: "x" },
    );
    expect(apply(deck, change).deck.slides.map(({ id }) => id)).toEqual(["x", "a", "b", "c", "y"]);
  });

  it("say which slides they need, so that a server reads no more", () => {
    expect(slidesNeeded({ kind: "setHidden", slide: "a", hidden: true })).toEqual(["a"]);
    expect(
      slidesNeeded(
        batch([
          { kind: "setHidden", slide: "a", hidden: true },
          { kind: "setPage", page: { width: 720, height: 540 } },
        ]),
      ),
    ).toEqual(["a"]);
    expect(slidesNeeded({ kind: "deleteSlide", slide: "a" })).toBe("all");
  });

  it("move text between a slide and its notes, and nothing is lost either way", () => {
    const slide: Slide = {
      ...newSlide("a", "points"),
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText("T") },
        { kind: "text", id: "b", slot: "body", text: plainText("one\ntwo") },
      ],
      notes: plainText("said"),
    };
    const deck = {
      ...must(fc.sample(deckArbitrary({ maxLength: 0 }), { numRuns: 1, seed: 1 })[0]),
      slides: [slide],
    };
    const down = apply(deck, textToNotes(slide) as never).deck;
    expect([down.slides[0]?.elements.map(({ id }) => id), textOf(down.slides[0]?.notes ?? [])]).toEqual([
      ["t"],
      "said\none\ntwo",
    ]);
    expect(textToNotes(must(down.slides[0]))).toBeUndefined();
    const up = apply(down, notesToText(must(down.slides[0]), idSource("n")) as never).deck;
    expect(up.slides[0]?.notes).toEqual([]);
    expect(up.slides[0]?.elements[1]).toMatchObject({ slot: "body", text: plainText("said\none\ntwo") });
    const joined = apply(deck, notesToText(slide, idSource("n")) as never).deck;
    expect(joined.slides[0]?.elements[1]).toMatchObject({ text: plainText("one\ntwo\nsaid") });
    expect(notesToText(must(joined.slides[0]), idSource("n"))).toBeUndefined();
  });

  it("begin a section before the main slide of what is chosen", () => {
    const slides = [newSlide("a", "points"), newSlide("b", "points"), { ...newSlide("b1", "points"), parent: "b" }];
    const deck = {
      ...must(fc.sample(deckArbitrary({ maxLength: 0 }), { numRuns: 1, seed: 1 })[0]),
      slides,
    };
    const change = makeSection(deck, ["b1"], "s", { kind: "text", id: "t", slot: "title", text: plainText("Sand") });
    expect(apply(deck, change as never).deck.slides.map(({ id, arrangement }) => [id, arrangement])).toEqual([
      ["a", "points"],
      ["s", "section"],
      ["b", "points"],
      ["b1", "points"],
    ]);
    expect(makeSection(deck, ["gone"], "s", { kind: "text", id: "t", slot: "title", text: [] })).toBeUndefined();
  });

  it("put another state of a slide, a brought look and an original in place, and take them back", () => {
    const deck = {
      ...must(fc.sample(deckArbitrary({ maxLength: 0 }), { numRuns: 1, seed: 1 })[0]),
      slides: [newSlide("a", "points"), { ...newSlide("b", "points"), parent: "a" }],
    };
    const change = batch([
      { kind: "setSlide", slide: "b", as: { ...newSlide("other", "statement"), hidden: true } },
      { kind: "setImportedTheme", name: "Chalk", theme: THEMES.chalk },
      { kind: "setSlideTheme", slide: "a", theme: "Chalk" },
      { kind: "setOriginal", original: { deck: "o", version: 3 } },
    ]);
    const { deck: after, inverse } = apply(deck, change);
    expect(after.slides.map(({ id, parent, arrangement, theme }) => [id, parent, arrangement, theme])).toEqual([
      ["a", null, "points", "Chalk"],
      ["b", "a", "statement", undefined],
    ]);
    expect([Object.keys(after.themes ?? {}), after.original]).toEqual([["Chalk"], { deck: "o", version: 3 }]);
    expect(apply(after, inverse).deck).toEqual(deck);
  });
});
