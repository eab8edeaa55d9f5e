import { type Deck, type Element, elementTexts, type Slide, textOf } from "@unitext/core/model";

const wordsOn = ({ elements }: Slide): number =>
  elements.reduce(
    (sum, element) => sum + elementTexts(element).reduce((count, text) => count + textOf(text).length, 0),
    0,
  );
const FIGURES: ReadonlySet<Element["kind"]> = new Set(["table", "chart", "diagram", "picture", "code"]);

/**
 * Returns slides that show a design at work, with their numbers: the opening, the densest text, one with a figure and a
 * section opener, as far as the deck has them.
 */
export function sampleSlides({ slides }: Deck): { slide: Slide; number: number }[] {
  const shown = slides.filter(({ hidden }) => !hidden);
  const from = shown.length ? shown : slides;
  const dense = from.reduce<Slide | undefined>(
    (most, slide) => (slide.arrangement === "points" && (!most || wordsOn(slide) > wordsOn(most)) ? slide : most),
    undefined,
  );
  const figure = from.find(({ elements }) => elements.some(({ kind }) => FIGURES.has(kind)));
  const section = from.find(({ arrangement }) => arrangement === "section");
  const chosen = [from[0], dense, figure, section, ...from.slice(1)].filter((slide) => slide !== undefined);
  return [...new Set(chosen)].slice(0, 4).map((slide) => ({ slide, number: slides.indexOf(slide) + 1 }));
}
