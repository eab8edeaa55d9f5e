import { FONT_PAIRINGS } from "@unitext/core/model";

/** The names of the fonts that are offered, in alphabetical order. */
export const FONT_NAMES: readonly string[] = [
  ...new Set(Object.values(FONT_PAIRINGS).flatMap(({ fonts }) => [fonts.heading, fonts.body])),
].sort((a, b) => a.localeCompare(b));
