import { countWords, type Deck, hasNotes, secondsOf, type Slide, textOf } from "@unitext/core/model";

/** Slides that were spoken for less than this tell nothing about the pace, in seconds. */
const SHORT = 4;
/** How many slides a pace is proposed from at least. */
const ENOUGH = 3;

/** Returns the words a minute at which notes were spoken; undefined where too few slides were. */
export function spokenRate(slides: readonly Slide[], spent: ReadonlyMap<string, number>): number | undefined {
  const told = slides.filter((slide) => hasNotes(slide) && (spent.get(slide.id) ?? 0) >= SHORT);
  if (told.length < ENOUGH) return undefined;
  const words = told.reduce((sum, { notes }) => sum + countWords(textOf(notes)), 0);
  const minutes = told.reduce((sum, { id }) => sum + (spent.get(id) ?? 0), 0) / 60;
  return Math.min(400, Math.max(40, Math.round(words / minutes)));
}

/** The length of a talk against its target, in seconds, and the slides to shorten. */
export interface Length {
  seconds: number;
  /** How much too long it is; 0 or less when it fits. */
  over: number;
  /** The slides of the main line that take longest, with their seconds. */
  longest: { slide: Slide; seconds: number }[];
}

/**
 * Returns how long the main line takes: as it was rehearsed where it was, as planned elsewhere. The slides to shorten are
 * the longest ones that together are as much too long as the talk.
 */
export function lengthOf({ slides, rate }: Deck, spent: ReadonlyMap<string, number>, target: number): Length {
  const main = slides
    .filter(({ parent, hidden }) => parent === null && !hidden)
    .map((slide) => ({ slide, seconds: spent.get(slide.id) ?? secondsOf(slide, rate) }));
  const seconds = main.reduce((sum, one) => sum + one.seconds, 0);
  const over = seconds - target;
  const mean = main.length ? seconds / main.length : 0;
  const longest: Length["longest"] = [];
  let saved = 0;
  for (const one of [...main].sort((a, b) => b.seconds - a.seconds)) {
    if (saved >= over || longest.length >= 5 || one.seconds <= mean) break;
    longest.push(one);
    saved += one.seconds - mean;
  }
  return { seconds, over, longest: over > 0 ? longest : [] };
}
