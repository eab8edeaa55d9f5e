import { parseRanges, type SuggestedPart, rangesOf, resolvePlan, type SplitPlan } from "@unitext/core/divide";
import { countWords, type Deck, secondsOf, type Slide, slideTexts, textOf, must } from "@unitext/core/model";

/** A column of the split table: a name, and slide numbers in the order of the part. */
export interface Column {
  key: string;
  name: string;
  numbers: number[];
}

/** Adds a slide to a part in running order, or removes it. A part in an order of its own gets it at its end. */
export function marked(numbers: readonly number[], number: number, on: boolean): number[] {
  if (!on) return numbers.filter((other) => other !== number);
  if (numbers.includes(number)) return [...numbers];
  const rising = numbers.every((other, at) => at === 0 || other > must(numbers[at - 1]));
  if (!rising) return [...numbers, number];
  const at = numbers.findIndex((other) => other > number);
  return at < 0 ? [...numbers, number] : numbers.toSpliced(at, 0, number);
}

/** Reads a typed list as numbers, or returns why it cannot be read. */
export function typedNumbers(list: string, count: number): { numbers: number[] } | { problem: string } {
  try {
    return { numbers: parseRanges(list, count, "") };
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

/** Returns the columns of the split table for suggested parts. */
export function columnsOf(deck: Pick<Deck, "slides">, proposed: readonly SuggestedPart[], key: () => string): Column[] {
  const numbers = new Map(deck.slides.map(({ id }, nth) => [id, nth + 1]));
  return proposed.map(({ name, slides }) => ({
    key: key(),
    name,
    numbers: slides.map((id) => must(numbers.get(id))),
  }));
}

/** Returns the split plan that the table describes; empty columns are left out. */
export function planFrom(columns: readonly Column[], opening: string, closing: string, names: string): SplitPlan {
  return {
    ...(opening.trim() ? { opening } : {}),
    ...(closing.trim() ? { closing } : {}),
    ...(names.trim() ? { names } : {}),
    parts: columns.map(({ name, numbers }) => ({ name, slides: rangesOf(numbers) })),
  };
}

const wordsOf = (slide: Slide) => slideTexts(slide).reduce((sum, text) => sum + countWords(textOf(text)), 0);

/** Measures a part with opening and closing: slides, seconds, words. */
export function measured(
  deck: Pick<Deck, "slides" | "rate">,
  numbers: readonly number[],
  every: readonly number[],
): { slides: number; seconds: number; words: number } {
  const own = numbers.filter((number) => !every.includes(number));
  const slides = [...new Set(every), ...own].flatMap((number) => deck.slides[number - 1] ?? []);
  return {
    slides: slides.length,
    seconds: slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0),
    words: slides.reduce((sum, slide) => sum + wordsOf(slide), 0),
  };
}

/** Returns what will be repaired when the parts are made, or why they cannot be made. */
export function foreseen(
  deck: Pick<Deck, "slides" | "rate" | "language" | "properties">,
  plan: SplitPlan,
): { remarks: string[]; problem: string | undefined } {
  try {
    return { remarks: resolvePlan(deck, plan, "").remarks, problem: undefined };
  } catch (error) {
    return { remarks: [], problem: (error as Error).message };
  }
}
