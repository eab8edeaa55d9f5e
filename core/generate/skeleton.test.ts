import { apply } from "@unitext/core/edit";
import {
  type Deck,
  DEFAULT_RULE,
  emptyDeck,
  nameOf,
  newSlide,
  plainText,
  type RichText,
  type Slide,
  type TextElement,
  textOf,
  must,
} from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { idSource } from "@unitext/core/testing";
import { generate, generateDeck, OUTLINES, putSkeleton, removeSkeleton, SKELETONS } from "./index";

const PARTS = ["Definition", "Formula", "In our data"];
const titled = (id: string, title: string): Slide => ({
  ...newSlide(id, "title"),
  elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(title) }],
});
const deck: Deck = {
  ...emptyDeck("d", "Course"),
  slides: [titled("a", "Surge"), titled("b", "Set-up"), titled("c", "Run-up")],
};
const words = (slide: Slide | undefined) => (slide ? textOf((slide.elements[1] as TextElement).text) : "");
const put = (of: Deck, ids: string[], place: "slide" | "after") =>
  apply(of, must(putSkeleton(of, ids, PARTS, place, idSource("p")))).deck;

describe("skeletons", () => {
  it("put the same parts on any selection at once, on the slide or after it", () => {
    const on = put(deck, ["a", "c"], "slide");
    for (const slide of [on.slides[0], on.slides[2]])
      expect([slide?.arrangement, words(slide)]).toEqual(["points", PARTS.join("\n")]);
    expect(on.slides[1]).toBe(deck.slides[1]);
    expect(put(deck, ["a", "b"], "after").slides.map(nameOf)).toEqual([
      "Surge",
      ...PARTS,
      "Set-up",
      ...PARTS,
      "Run-up",
    ]);
  });

  it("add only what is missing", () => {
    const on = put(deck, ["a"], "slide");
    expect(putSkeleton(on, ["a"], PARTS, "slide", idSource())).toBeUndefined();
    const after = put(deck, ["a"], "after");
    expect(putSkeleton(after, ["a"], PARTS, "after", idSource())).toBeUndefined();
  });

  it("are taken off where nothing was filled in, and only there", () => {
    const after = put(deck, ["a", "b"], "after");
    const filled = apply(after, {
      kind: "insertElement",
      slide: must(after.slides[2]).id,
      element: { kind: "text", id: "f", slot: "body", text: plainText("h = h0 + a") },
      index: 1,
    }).deck;
    expect(apply(filled, must(removeSkeleton(filled, ["a", "b"], PARTS))).deck.slides.map(nameOf)).toEqual([
      "Surge",
      "Formula",
      "Set-up",
      "Run-up",
    ]);
    const on = put(deck, ["a"], "slide");
    const element = on.slides[0]?.elements[1] as TextElement;
    const written = apply(on, {
      kind: "setText",
      slide: "a",
      element: element.id,
      text: [element.text[0], ...plainText("a rise of the water"), ...element.text.slice(1)] as RichText,
    }).deck;
    const left = apply(written, must(removeSkeleton(written, ["a"], PARTS))).deck;
    expect(words(left.slides[0])).toBe("Definition\na rise of the water");
    expect(removeSkeleton(deck, ["a"], PARTS)).toBeUndefined();
  });

  it("come with the program, each with at least two parts", () => {
    for (const parts of Object.values(SKELETONS)) expect(parts.length).toBeGreaterThan(1);
  });
});

describe("outlines for occasions", () => {
  it.each(Object.entries(OUTLINES))("%s makes slides of several arrangements without a problem", (_, { text }) => {
    const manuscript = readText(text);
    const list = [...generate(manuscript, DEFAULT_RULE, { newId: idSource() })];
    expect(manuscript.problems).toEqual([]);
    expect(list[0]?.slide.arrangement).toBe("opening");
    expect(new Set(list.map(({ slide }) => slide.arrangement)).size).toBeGreaterThan(2);
    expect(
      generateDeck(readText(text), DEFAULT_RULE, { newId: idSource() }).deck.properties.title.length,
    ).toBeGreaterThan(3);
  });
});
