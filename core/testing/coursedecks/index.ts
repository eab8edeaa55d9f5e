import {
  type Deck,
  emptyDeck,
  newSlide,
  plainText,
  run,
  type Slide,
  slideLinks,
  titleOf,
  must,
} from "@unitext/core/model";
import { deckArbitrary, idSource } from "@unitext/core/testing";
import fc from "fast-check";

export const ids = () => ({ newId: idSource("n"), deckId: idSource("deck") });
export const linkTo = (id: string, words = "see there") => [
  { kind: "bullet" as const, level: 0, runs: [run(words, [], `slide:${id}`)] },
];
export function slide(id: string, title: string, options: Partial<Slide> = {}): Slide {
  return {
    ...newSlide(id, "points"),
    elements: [{ kind: "text", id: "t", slot: "title", text: plainText(title) }],
    ...options,
  };
}
export const deckOf = (id: string, slides: Slide[]): Deck => ({ ...emptyDeck(id, `Deck ${id}`), slides });
export const linksIn = (deck: Deck) => deck.slides.flatMap((one) => slideLinks(one)).map(({ to }) => to);
export const titles = (deck: Deck) => deck.slides.map(titleOf);
export const sources = (deck: Deck) => deck.slides.map(({ origin }) => origin?.slide);

/** Random decks whose slides lead to each other, some with bindings. */
export const linkedDeck = (id: string): fc.Arbitrary<Deck> =>
  fc
    .tuple(
      deckArbitrary({ minLength: 1, maxLength: 9 }),
      fc.array(fc.tuple(fc.nat(), fc.nat(), fc.boolean()), { maxLength: 6 }),
    )
    .map(([deck, links]) => {
      const slides = deck.slides.map((one) => ({
        ...one,
        id: `${id}${one.id}`,
        parent: one.parent === null ? null : `${id}${one.parent}`,
      }));
      for (const [from, to, lost] of links) {
        const at = from % slides.length;
        const home = must(slides[at]);
        const target = lost ? "nowhere" : must(slides[to % slides.length]).id;
        const drawn = {
          kind: "shape" as const,
          id: `drawn${home.elements.length}`,
          slot: null,
          geometry: { preset: "rect" },
          text: [],
          link: `slide:${target}`,
        };
        slides[at] = {
          ...home,
          elements: [
            ...home.elements,
            ...(to % 3 ? [] : [drawn]),
            {
              kind: "text",
              id: `l${home.elements.length}`,
              slot: null,
              text: linkTo(target),
              ...(lost ? { binding: { source: "gauges.xlsx", range: `A${to % 9}`, mode: "latest" as const } } : {}),
            },
          ],
        };
      }
      return { ...deck, id, slides };
    });
