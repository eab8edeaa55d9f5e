/** What can be wrong with a translation. Code branches on these and never on the sentences. */
export const TRANSLATION_FAULTS = [
  "empty",
  "same",
  "placeholder-missing",
  "placeholder-wrong",
  "number",
  "term",
  "forbidden",
  "repeated",
  "spaces",
  "ending",
  "brackets",
  "unit",
  "quotation",
  "spacing",
  "capitals",
  "length",
] as const;
export type TranslationFault = (typeof TRANSLATION_FAULTS)[number];

/** A fault in a translation, with a sentence that tells the translator about it. */
export interface TranslationFinding {
  fault: TranslationFault;
  sentence: string;
}
