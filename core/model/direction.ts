import { z } from "zod";

/** The direction in which something is read: from left to right, or from right to left. */
export const Direction = z.enum(["ltr", "rtl"]);
export type Direction = z.infer<typeof Direction>;

/** Scripts that are written from right to left (Unicode Standard, chapters 9, 19 and 20). */
const RIGHT_TO_LEFT = new Set(["Arab", "Hebr", "Syrc", "Thaa", "Nkoo", "Samr", "Mand", "Adlm", "Rohg"]);

const known = new Map<string, Direction>();

/** Returns the direction in which a language, given as a BCP 47 tag, is written. */
export function languageDirection(language: string): Direction {
  const found = known.get(language) ?? directionOfScript(language);
  known.set(language, found);
  return found;
}

function directionOfScript(language: string): Direction {
  try {
    const { script } = new Intl.Locale(language).maximize();
    return RIGHT_TO_LEFT.has(script ?? "") ? "rtl" : "ltr";
  } catch {
    // A tag that is none says nothing about the direction.
    return "ltr";
  }
}
