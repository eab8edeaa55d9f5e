import {
  bindingsOn,
  kindOf,
  type Binding,
  countWords,
  type Deck,
  footnotesOf,
  hasNotes,
  revealsOf,
  type RichText,
  sectionStarting,
  slideLinks,
  slideTexts,
  textOf,
  wordsOn,
} from "@unitext/core/model";
import { z } from "zod";

const count = z.number().int().nonnegative();

/** Counts of what a deck carries. */
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
  /** Recorded voices, which tallies stored by earlier versions do not have. */
  voices: count.default(0),
  steps: count,
  transitions: count,
  foreign: count,
});
export type Tally = z.infer<typeof Tally>;

/** Returns a tally of nothing. */
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
    voices: 0,
    steps: 0,
    transitions: 0,
    foreign: 0,
  };
}

function countLink(tally: Tally, to: string, ids: ReadonlySet<string>): void {
  if (!to.startsWith("slide:")) tally.links.external += 1;
  else if (ids.has(to.slice(6))) tally.links.internal += 1;
  else tally.links.broken += 1;
}

function countText(tally: Tally, text: RichText): void {
  tally.footnotes += footnotesOf(text).length;
  for (const { runs } of text) tally.formulas += runs.filter(({ marks }) => marks?.includes("formula")).length;
}

/** Counts what a deck carries by walking the model. */
export function tally(deck: Pick<Deck, "slides">): Tally {
  const total = noTally();
  const ids = new Set(deck.slides.map((slide) => slide.id));
  for (const slide of deck.slides) {
    total.slides += 1;
    if (slide.hidden) total.hidden += 1;
    if (sectionStarting(slide) !== undefined) total.sections += 1;
    if (hasNotes(slide)) {
      total.notes.slides += 1;
      total.notes.words += countWords(textOf(slide.notes));
    }
    if (slide.transition) total.transitions += 1;
    total.steps += revealsOf(slide).length;
    total.comments += slide.comments?.length ?? 0;
    if (slide.voice) total.voices += 1;
    total.words += wordsOn(slide);
    for (const { to } of slideLinks(slide)) countLink(total, to, ids);
    for (const text of slideTexts(slide)) countText(total, text);
    total.bindings += bindingsOn(slide).length;
    for (const element of slide.elements) {
      const { count } = kindOf(element);
      if (count) total[count] += 1;
    }
  }
  return total;
}

export type { Binding };
