import { z } from "zod";
import { Id } from "./units";

/**
 * Words of an element, found again after the text around them has changed: the words themselves with some characters
 * before and after (the TextQuoteSelector of the W3C Web Annotation Data Model, 4.2.4).
 */
export const Quote = z.object({
  exact: z.string().min(1).max(2000),
  before: z.string().max(60),
  after: z.string().max(60),
});
export type Quote = z.infer<typeof Quote>;

const said = {
  id: Id,
  author: z.string().max(300),
  /** The id of the person of this house who wrote it; without it, it comes from a file. */
  user: Id.optional(),
  text: z.string().max(20000),
  /** When it was written, as a date and time of ISO 8601. */
  date: z.string().max(40).optional(),
  /** The people of the house who are mentioned in it. */
  mentions: z.array(Id).max(50).optional(),
};

export const Reply = z.object(said);
export type Reply = z.infer<typeof Reply>;

/** A comment on a slide, on an element of it, or on some words of the element. */
export const Comment = z.object({
  ...said,
  element: Id.optional(),
  quote: Quote.optional(),
  /** The words that its author proposes in the place of the quoted ones. */
  proposal: z.string().max(2000).optional(),
  /** Where a file shows it, in points from the top left of the slide. */
  at: z.object({ x: z.number().min(-20000).max(20000), y: z.number().min(-20000).max(20000) }).optional(),
  done: z.boolean().optional(),
  replies: z.array(Reply).max(500).optional(),
});
export type Comment = z.infer<typeof Comment>;

/** How many characters of the text before and after are kept with a quote. */
const CONTEXT = 40;

/** Returns the quote of a range of a text. */
export function quoteOf(text: string, start: number, end: number): Quote {
  return {
    exact: text.slice(start, end),
    before: text.slice(Math.max(0, start - CONTEXT), start),
    after: text.slice(end, end + CONTEXT),
  };
}

/** Returns how many characters two texts have in common at their ends, or at their starts. */
function shared(one: string, other: string, atEnd: boolean): number {
  const most = Math.min(one.length, other.length);
  let count = 0;
  const at = (text: string) => (atEnd ? text[text.length - 1 - count] : text[count]);
  while (count < most && at(one) === at(other)) count++;
  return count;
}

const occurrences = (text: string, words: string): number[] => {
  const found: number[] = [];
  for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + 1)) found.push(at);
  return found;
};

/** A range of characters of a text. */
export interface TextRange {
  start: number;
  end: number;
}

/** The least context on either side by which reworded words are found, in characters. */
const LEAST_CONTEXT = 6;

/** Returns the range between the context of a quote, where its words were reworded; undefined where that is not clear. */
function betweenContext(text: string, { exact, before, after }: Quote): TextRange | undefined {
  // The words next to the quote are what its context is known by.
  const [left, right] = [before.slice(-20), after.slice(0, 20)];
  const enough = (side: string, whole: string) => side.length >= LEAST_CONTEXT || (side === whole && side.length > 0);
  const starts = left === "" ? [0] : enough(left, before) ? occurrences(text, left).map((at) => at + left.length) : [];
  for (const start of starts) {
    const end = right === "" ? text.length : enough(right, after) ? text.indexOf(right, start) : -1;
    if (end > start && end - start <= 3 * exact.length + 40) return { start, end };
  }
  return undefined;
}

/** Returns the range of the longest row of whole words of a quote that a text still has, of at least half of its words. */
function longestRow(text: string, { exact }: Quote): TextRange | undefined {
  const words = exact.split(/\s+/).filter(Boolean);
  for (let length = words.length - 1; length >= Math.max(2, Math.ceil(words.length / 2)); length--)
    for (let from = 0; from + length <= words.length; from++) {
      const row = words.slice(from, from + length).join(" ");
      const start = text.indexOf(row);
      if (start >= 0) return { start, end: start + row.length };
    }
  return undefined;
}

/**
 * Returns where a quote is in a text now: the same words, at the place whose surroundings are most alike; else the words
 * that have taken their place; else most of its words. Undefined when its words are gone.
 */
export function rangeOfQuote(text: string, quote: Quote): TextRange | undefined {
  const { exact, before, after } = quote;
  const [best] = occurrences(text, exact)
    .map((start) => ({
      start,
      likeness: shared(text.slice(0, start), before, true) + shared(text.slice(start + exact.length), after, false),
    }))
    .sort((one, other) => other.likeness - one.likeness);
  if (best) return { start: best.start, end: best.start + exact.length };
  return betweenContext(text, quote) ?? longestRow(text, quote);
}
