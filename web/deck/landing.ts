import type { Slide } from "@unitext/core/model";

/** Where dropped slides will land, beside or under a slide. */
export interface Landing {
  target: string;
  side: "before" | "after" | "under";
}

/** Describes the landing in words: "after 12", "before 1, at the start", "under 4, as a detail". */
export function landingWords({ target, side }: Landing, slides: readonly Slide[]): string {
  const number = slides.findIndex(({ id }) => id === target) + 1;
  if (side === "under") return `under ${number}, as a detail`;
  if (side === "before") return number === 1 ? "before 1, at the start" : `before ${number}`;
  return number === slides.length ? `after ${number}, at the end` : `after ${number}`;
}
