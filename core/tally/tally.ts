import { type Binding, countWords, type Deck, type ElementKind, hasNotes, linksOf, type Slide, type TextElement, type PictureElement, textOf } from "@unitext/core/model";
import { z } from "zod";

const count = z.number().int().nonnegative();
/** What a deck carries, as counts. */
export const Tally = z.object({
  slides: count,
  hidden: count,
  sections: count,
  words: count,
  notes: z.object({ slides: count, words: count }),
  links: z.object({ external: count, internal: count, broken: count }),
  bindings: count,
  tables: count,
  charts: count,
  pictures: count,
  media: count,
  diagrams: count,
  formulas: count,
  code: count,
  footnotes: count,
  comments: count,
  steps: count,
  transitions: count,
  foreign: count,
});
export type Tally = z.infer<typeof Tally>;

export function noTally(): Tally {
  return {
    slides: 0,
    hidden: 0,
    sections: 0,
    words: 0,
    notes: { slides: 0, words: 0 },
    links: { external: 0, internal: 0, broken: 0 },
    bindings: 0,
    tables: 0,
    charts: 0,
    pictures: 0,
    media: 0,
    diagrams: 0,
    formulas: 0,
    code: 0,
    footnotes: 0,
    comments: 0,
    steps: 0,
    transitions: 0,
    foreign: 0,
  };
}

type Counter<E> = (tally: Tally, element: E) => void;
/** How each kind of element counts: a new kind adds its line. */
const COUNTERS: { text: Counter<TextElement>; picture: Counter<PictureElement> } & Record<ElementKind, unknown> = {
  text: (tally, element) => {
    tally.words += countWords(textOf(element.text));
  },
  picture: (tally) => {
    tally.pictures += 1;
  },
};

function countLinks(tally: Tally, slide: Slide, ids: ReadonlySet<string>): void {
  const texts = [slide.notes, ...slide.elements.flatMap((element) => (element.kind === "text" ? [element.text] : []))];
  for (const { to } of texts.flatMap(linksOf)) {
    if (!to.startsWith("slide:")) tally.links.external += 1;
    else if (ids.has(to.slice(6))) tally.links.internal += 1;
    else tally.links.broken += 1;
  }
}

/** Counts what a deck carries by walking the model. */
export function tally(deck: Pick<Deck, "slides">): Tally {
  const total = noTally();
  const ids = new Set(deck.slides.map((slide) => slide.id));
  for (const slide of deck.slides) {
    total.slides += 1;
    if (slide.hidden) total.hidden += 1;
    if (slide.arrangement === "section" && slide.parent === null) total.sections += 1;
    if (hasNotes(slide)) {
      total.notes.slides += 1;
      total.notes.words += countWords(textOf(slide.notes));
    }
    countLinks(total, slide, ids);
    for (const element of slide.elements) {
      if (element.binding) total.bindings += 1;
      (COUNTERS[element.kind] as Counter<typeof element>)(total, element);
    }
  }
  return total;
}

export type { Binding };
