import { languageOfTag } from "./languagetag";

/**
 * How many words a minute are read aloud, by language, and how fast readers of one language are beside those of another
 * (Trauzettel-Klosinski and Dietz 2012, “Standardized Assessment of Reading Performance: the new International Reading
 * Speed Texts”, Investigative Ophthalmology & Visual Science 53; the values from memory). Chinese and Japanese are measured
 * in characters, of which two are counted as one word.
 */
const READING: Readonly<Record<string, number>> = {
  ar: 138,
  de: 179,
  en: 228,
  es: 218,
  fi: 161,
  fr: 195,
  he: 187,
  it: 188,
  ja: 357 / 2,
  nl: 202,
  pl: 166,
  pt: 181,
  ru: 184,
  sl: 180,
  sv: 199,
  tr: 166,
  zh: 255 / 2,
};

/** Slowest and fastest rate that a deck can have, in words a minute. */
const [SLOWEST, FASTEST] = [40, 400];

/** Returns the speaking rate of a translation in words a minute, from that of the original. */
export function translatedRate(rate: number, from: string, to: string): number {
  const [source, target] = [READING[languageOfTag(from)], READING[languageOfTag(to)]];
  if (!source || !target || source === target) return rate;
  return Math.min(FASTEST, Math.max(SLOWEST, Math.round((rate * target) / source)));
}

/** Whether the speaking rate of a language is counted in characters; each two are a word of the deck's rate. */
export const isSpokenByCharacters = (language: string): boolean => ["zh", "ja"].includes(languageOfTag(language));
