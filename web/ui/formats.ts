import type { Sheets } from "@unitext/core/layout";

/** What the pages of a PDF show. */
export const PAGES_SHOW: Record<Sheets, string> = {
  slides: "slides",
  notes: "a slide above its notes",
  "handout-2": "two slides to a page",
  "handout-3": "three slides, lines beside them",
  "handout-6": "six slides to a page",
  "handout-9": "nine slides to a page",
};
