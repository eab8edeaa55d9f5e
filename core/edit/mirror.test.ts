import { type Element, must } from "@unitext/core/model";
import { everything } from "@unitext/core/testing";
import { mirrorDeck } from "./index";

const deck = everything({});
const elementsOf = ({ slides }: typeof deck): Element[] => slides.flatMap(({ elements }) => elements);

describe("a deck that is mirrored for the other direction of reading", () => {
  const mirrored = mirrorDeck(deck, "rtl");

  it("has every element with a frame as far from the right as it was from the left", () => {
    const before = elementsOf(deck);
    expect(before.filter(({ frame }) => frame).length).toBeGreaterThan(5);
    for (const [at, element] of elementsOf(mirrored).entries()) {
      const { frame } = must(before[at]);
      if (frame) expect(must(element.frame).x + frame.width).toBeCloseTo(deck.page.width - frame.x, 6);
      else expect(element.frame).toBeUndefined();
    }
  });

  it("is itself again after a second time, but for the direction that it has by now", () => {
    const twice = elementsOf(mirrorDeck(mirrored, "ltr"));
    const geometry = ({ frame, rotation, flip, box }: Element) => ({ frame, rotation: rotation || 0, flip, box });
    expect(twice.map(geometry)).toEqual(elementsOf(deck).map(geometry));
  });

  it("keeps words, links, notes, files and ids", () => {
    const bare = ({ frame: _, flip: __, rotation: ___, box: ____, ...rest }: Element) => JSON.stringify(rest);
    const words = (element: Element) =>
      bare(element)
        .replace(/"direction":"(rtl|ltr)",?/g, "")
        .replace(/,?"properties":\{\}|,(?=\})/g, "");
    expect(elementsOf(mirrored).map(({ id }) => id)).toEqual(elementsOf(deck).map(({ id }) => id));
    expect(elementsOf(mirrored).map(words).join().length).toBe(elementsOf(deck).map(words).join().length);
    expect(mirrored.slides.map(({ notes }) => notes)).toEqual(deck.slides.map(({ notes }) => notes));
  });
});
