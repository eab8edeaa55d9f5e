import { type Piece, wordsOf } from "./coded";
import type { Segment } from "./segments";

/** The words of the segments before and after a segment in its deck; empty where there is none. */
export interface Context {
  before: string;
  after: string;
}

/** How many characters of a neighbouring segment are compared. */
const COMPARED = 200;

/** Returns the words by which texts are looked up: without placeholders, in lower case, with single spaces. */
export const lookupWords = (pieces: readonly Piece[]): string =>
  wordsOf(pieces).toLowerCase().replace(/\s+/g, " ").trim();

/** Returns the context of every segment, by its id. */
export function contextsOf(segments: readonly Pick<Segment, "id" | "source">[]): Map<string, Context> {
  const words = segments.map(({ source }) => lookupWords(source).slice(0, COMPARED));
  return new Map(
    segments.map(({ id }, nth) => [id, { before: words[nth - 1] ?? "", after: words[nth + 1] ?? "" }] as const),
  );
}

/** Whether two contexts are known and the same. */
export const isSameContext = (a: Context | undefined, b: Context | undefined): boolean =>
  a !== undefined && b !== undefined && a.before === b.before && a.after === b.after;
