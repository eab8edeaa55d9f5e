import type { Deck, Slide } from "@unitext/core/model";

/** Returns the slide that a slide was made from, which those of other languages were made from too. */
const sourceOf = ({ id, origin }: Slide) => origin?.slide ?? id;

/**
 * Pairs the slides of the same deck in two languages, in the order of the first. A slide that only the second one has
 * follows the slide that it follows there.
 */
export function pairSlides(left: Deck, right: Deck): { left?: Slide; right?: Slide }[] {
  const counterparts = new Map<string, Slide>();
  for (const slide of right.slides) for (const id of [sourceOf(slide), slide.id]) counterparts.set(id, slide);
  const listed = left.slides.map((slide): { left?: Slide; right?: Slide } => {
    const other = counterparts.get(slide.id) ?? counterparts.get(sourceOf(slide));
    return { left: slide, ...(other ? { right: other } : {}) };
  });
  const used = new Set(listed.map((pair) => pair.right?.id));
  right.slides.forEach((slide, nth) => {
    if (used.has(slide.id)) return;
    const before = right.slides[nth - 1]?.id;
    listed.splice(before === undefined ? 0 : listed.findIndex((row) => row.right?.id === before) + 1, 0, {
      right: slide,
    });
  });
  return listed;
}

/** Whether notes of another language are there instead of a deck's own, or below them. */
export const NOTES_IN = ["other", "both"] as const;
export type NotesIn = (typeof NOTES_IN)[number];

/**
 * Returns a deck with the notes of the same deck in another language, for a speaker or readers of that language. Slides
 * belong together when one was made from the other, or both from one. A slide without a counterpart, or whose counterpart
 * has no notes, keeps its own.
 */
export function withNotesOf(deck: Deck, other: Deck, notesIn: NotesIn): Deck {
  const counterparts = new Map<string, Slide>();
  for (const slide of other.slides) for (const id of [sourceOf(slide), slide.id]) counterparts.set(id, slide);
  const slides = deck.slides.map((slide): Slide => {
    const notes = (counterparts.get(slide.id) ?? counterparts.get(sourceOf(slide)))?.notes ?? [];
    const spoken = notes.map((paragraph) => ({
      ...paragraph,
      runs: paragraph.runs.map((run) => ({ ...run, properties: { ...run.properties, language: other.language } })),
    }));
    if (!spoken.length) return slide;
    return { ...slide, notes: notesIn === "both" ? [...slide.notes, ...spoken] : spoken };
  });
  return { ...deck, slides };
}
