import type { Deck, Slide } from "@unitext/core/model";

/** Whether notes of another language are there instead of a deck's own, or below them. */
export const NOTES_IN = ["other", "both"] as const;
export type NotesIn = (typeof NOTES_IN)[number];

/**
 * Returns a deck with the notes of the same deck in another language, for a speaker or readers of that language. Slides
 * belong together when one was made from the other, or both from one. A slide without a counterpart, or whose counterpart
 * has no notes, keeps its own.
 */
export function withNotesOf(deck: Deck, other: Deck, notesIn: NotesIn): Deck {
  const sourceOf = ({ id, origin }: Slide) => origin?.slide ?? id;
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
