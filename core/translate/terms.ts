import { decoded } from "../formats/shared/document/text";
import Papa from "papaparse";
import type { TranslationFinding } from "./findings";

/** A term of the house: how it is translated, that it is not, or that a word is not used. */
export interface Term {
  source: string;
  /** The translation; the source itself for what is not translated; empty for a term that only forbids words. */
  target: string;
  note?: string;
  /** Words that must not be used for it. */
  forbidden?: string[];
}

/** Names of the columns of a list of terms, in the order in which they are looked for. */
const COLUMNS = {
  source: /^(source|term|word)$/i,
  target: /^(target|translation)$/i,
  note: /^(note|comment|remark)s?$/i,
  forbidden: /^(forbidden|avoid|not)$/i,
} as const;

/** What a list has instead of a translation for a term that is not translated. */
const KEEP = /^(do not translate|dnt|=)$/i;

/**
 * Reads terms from comma, semicolon or tab separated values: term, translation, note, forbidden words (several with "|"
 * between). A first row with these names may give another order. Empty and doubled entries are reported to `problems`.
 */
export function readTermsCsv(bytes: Uint8Array, file: string): { terms: Term[]; problems: string[] } {
  const { data } = Papa.parse<string[]>(decoded(bytes, file).text.trimEnd(), { skipEmptyLines: "greedy" });
  const [head = []] = data;
  const named =
    head.some((name) => COLUMNS.source.test(name.trim())) && head.some((name) => COLUMNS.target.test(name.trim()));
  const column = (name: keyof typeof COLUMNS, otherwise: number) =>
    named ? head.findIndex((one) => COLUMNS[name].test(one.trim())) : otherwise;
  const at = {
    source: column("source", 0),
    target: column("target", 1),
    note: column("note", 2),
    forbidden: column("forbidden", 3),
  };
  const terms: Term[] = [];
  const problems: string[] = [];
  const seen = new Set<string>();
  for (const [nth, row] of data.slice(named ? 1 : 0).entries()) {
    const cell = (index: number) => (row[index] ?? "").trim();
    const [source, given] = [cell(at.source), cell(at.target)];
    const forbidden = cell(at.forbidden)
      .split("|")
      .map((word) => word.trim())
      .filter(Boolean);
    const line = nth + (named ? 2 : 1);
    if (!source) problems.push(`Line ${line}: there is no term.`);
    else if (!given && !forbidden.length) problems.push(`Line ${line}: “${source}” has no translation.`);
    else if (seen.has(source.toLowerCase()))
      problems.push(`Line ${line}: “${source}” is in the list already; the first entry counts.`);
    else {
      seen.add(source.toLowerCase());
      const note = cell(at.note);
      terms.push({
        source,
        target: KEEP.test(given) ? source : given,
        ...(note ? { note } : {}),
        ...(forbidden.length ? { forbidden } : {}),
      });
    }
  }
  return { terms, problems };
}

/** Returns the stem of a word, by which its inflected forms are recognised: all but its last letters. */
function stemOf(word: string): string {
  const letters = [...word.toLowerCase()];
  return letters.slice(0, letters.length <= 4 ? letters.length : Math.max(4, letters.length - 2)).join("");
}

const SEGMENTERS = new Map<string, Intl.Segmenter>();

/** Returns the words of a text in lower case. */
function wordsIn(text: string, language: string): string[] {
  const segmenter = SEGMENTERS.get(language) ?? new Intl.Segmenter(language, { granularity: "word" });
  SEGMENTERS.set(language, segmenter);
  return [...segmenter.segment(text)]
    .filter(({ isWordLike }) => isWordLike)
    .map(({ segment }) => segment.toLowerCase());
}

const stemsOf = (term: string, language: string) => wordsIn(term, language).map(stemOf);

const hasStems = (words: readonly string[], stems: readonly string[]) =>
  stems.length > 0 && words.some((_, at) => stems.every((stem, nth) => words[at + nth]?.startsWith(stem)));

/** Whether a text has all words of a term side by side, in whatever form. */
export const hasTerm = (text: string, term: string, language: string): boolean =>
  hasStems(wordsIn(text, language), stemsOf(term, language));

/** The stems of terms in their own language. They are needed for every text. */
const STEMS = new WeakMap<Term, string[]>();

/** Returns the terms of a list that a text has. */
export function termsIn(terms: readonly Term[], text: string, language: string): Term[] {
  const words = wordsIn(text, language);
  return terms.filter((term) => {
    const stems = STEMS.get(term) ?? stemsOf(term.source, language);
    STEMS.set(term, stems);
    return hasStems(words, stems);
  });
}

/** Writes terms as comma separated values with a first row of names, as `readTermsCsv` reads them. */
export const writeTermsCsv = (terms: readonly Term[]): string =>
  `${Papa.unparse({
    fields: ["term", "translation", "note", "forbidden"],
    data: terms.map(({ source, target, note = "", forbidden = [] }) => [source, target, note, forbidden.join("|")]),
  })}\r\n`;

/** Finds terms of the source whose translation is missed, and words that must not be used. */
export function missedTerms(
  terms: readonly Term[],
  source: string,
  target: string,
  from: string,
  to: string,
): TranslationFinding[] {
  return termsIn(terms, source, from).flatMap((term): TranslationFinding[] => [
    ...(term.target && !hasTerm(target, term.target, to)
      ? [{ fault: "term" as const, sentence: `“${term.source}” is “${term.target}”.` }]
      : []),
    ...(term.forbidden ?? [])
      .filter((word) => hasTerm(target, word, to))
      .map((word) => ({ fault: "forbidden" as const, sentence: `“${word}” is not used for “${term.source}”.` })),
  ]);
}
