import { type Piece, wordsOf } from "./coded";
import { type Context, isSameContext } from "./context";
import { numbersIn } from "./numbers";
import type { MemoryUnit } from "./tmx";

/** A translation proposed by a memory. */
export interface Proposal {
  /** The source in the memory. */
  source: Piece[];
  pieces: Piece[];
  /** How similar its source is, from 0 to 1. */
  likeness: number;
  /** Whether it is the same text between the same texts. */
  sameContext: boolean;
  numbersAdapted: boolean;
}

/** The lowest similarity at which a translation is proposed. */
export const LEAST_LIKENESS = 0.7;

/** Splits a text into the units that are compared: words in lower case, and placeholders. */
export function tokensOf(pieces: readonly Piece[], language: string): string[] {
  const segmenter = new Intl.Segmenter(language, { granularity: "word" });
  return pieces.flatMap((piece) =>
    typeof piece === "string"
      ? [...segmenter.segment(piece)].flatMap(({ segment }) => (segment.trim() ? [segment.toLowerCase()] : []))
      : [piece.at === "single" ? "{}" : piece.at === "open" ? "{" : "}"],
  );
}

/** Returns the edit distance of two lists (Levenshtein 1966): the fewest insertions, deletions and replacements. */
export function editDistance(a: readonly string[], b: readonly string[]): number {
  let row = Array.from({ length: b.length + 1 }, (_, nth) => nth);
  for (let y = 1; y <= a.length; y++) {
    const next = [y];
    for (let x = 1; x <= b.length; x++)
      next.push(
        Math.min((row[x] ?? 0) + 1, (next[x - 1] ?? 0) + 1, (row[x - 1] ?? 0) + (a[y - 1] === b[x - 1] ? 0 : 1)),
      );
    row = next;
  }
  return row[b.length] ?? 0;
}

/** Returns the similarity of two texts, from 0 to 1, by the edit distance of their words. */
export function likenessOf(a: readonly string[], b: readonly string[]): number {
  const longest = Math.max(a.length, b.length);
  return longest === 0 ? 1 : 1 - editDistance(a, b) / longest;
}

interface Entry extends MemoryUnit {
  tokens: string[];
}

/** Whether a unit replaces one with the same source that was in a context. */
const hasContextOf = ({ context }: MemoryUnit, other: Context | undefined): boolean =>
  context === undefined || other === undefined ? context === other : isSameContext(context, other);

/** Returns different translations of the same text as proposals: those in the same context first, then the newest. */
function exactProposals(entries: readonly Entry[], context: Context | undefined): Proposal[] {
  const own = entries.filter((entry) => isSameContext(entry.context, context));
  const proposed = new Map<string, Proposal>();
  for (const entry of [...own, ...entries]) {
    const { source, target } = entry;
    const key = JSON.stringify(target);
    if (!proposed.has(key))
      proposed.set(key, {
        source,
        pieces: target,
        likeness: 1,
        sameContext: own.includes(entry),
        numbersAdapted: false,
      });
  }
  return [...proposed.values()];
}

/** Sentences and their translations in one pair of languages. */
export class Memory {
  private readonly entries: Entry[] = [];
  private readonly exact = new Map<string, Entry[]>();
  /** Entries by a text in which numbers are left out. */
  private readonly withoutNumbers = new Map<string, Entry>();
  /** Entries by their rarer words, to find candidates. */
  private readonly byWord = new Map<string, number[]>();

  constructor(
    private readonly from: string,
    private readonly to: string,
  ) {}

  get size(): number {
    return this.entries.length;
  }

  private exactKey(pieces: readonly Piece[]): string {
    return tokensOf(pieces, this.from).join(" ");
  }

  private numberKey(pieces: readonly Piece[]): string {
    const words = pieces
      .map((piece) => (typeof piece === "string" ? piece : piece.at === "single" ? "{}" : "{p}"))
      .join("");
    let key = "";
    let at = 0;
    for (const { from, text } of numbersIn(words, this.from)) {
      key += `${words.slice(at, from)}#`;
      at = from + text.length;
    }
    return (key + words.slice(at)).toLowerCase().replace(/\s+/g, " ").trim();
  }

  /** Adds a unit. It replaces an earlier one with the same source in the same context. */
  add(unit: MemoryUnit): void {
    const entry: Entry = { ...unit, tokens: tokensOf(unit.source, this.from) };
    const at = this.entries.push(entry) - 1;
    const key = entry.tokens.join(" ");
    const others = (this.exact.get(key) ?? []).filter(({ context }) => !hasContextOf(unit, context));
    this.exact.set(key, [entry, ...others]);
    this.withoutNumbers.set(this.numberKey(unit.source), entry);
    for (const word of new Set(entry.tokens)) {
      const list = this.byWord.get(word);
      if (list) list.push(at);
      else this.byWord.set(word, [at]);
    }
  }

  /**
   * Returns at most five proposals for a text: the same text in the same context, the same text elsewhere, or the most
   * similar ones.
   */
  proposals(source: readonly Piece[], context?: Context): Proposal[] {
    const exact = this.exact.get(this.exactKey(source));
    if (exact) return exactProposals(exact, context).slice(0, 5);
    const alike = this.withoutNumbers.get(this.numberKey(source));
    const adapted = alike && withNumbers(alike, source, this.from, this.to);
    if (adapted)
      return [{ source: alike.source, pieces: adapted, likeness: 1, sameContext: false, numbersAdapted: true }];
    const tokens = tokensOf(source, this.from);
    const found = this.candidates(tokens).flatMap((entry): Proposal[] => {
      const likeness = likenessOf(tokens, entry.tokens);
      if (likeness < LEAST_LIKENESS) return [];
      return [{ source: entry.source, pieces: entry.target, likeness, sameContext: false, numbersAdapted: false }];
    });
    return found.sort((a, b) => b.likeness - a.likeness).slice(0, 5);
  }

  /** Returns entries that contain at least half of the text's rarest words. */
  private candidates(tokens: readonly string[]): Entry[] {
    const lists = [...new Set(tokens)]
      .map((word) => this.byWord.get(word) ?? [])
      .sort((a, b) => a.length - b.length)
      .slice(0, Math.max(2, Math.ceil(tokens.length * 0.5)));
    const counts = new Map<number, number>();
    for (const list of lists) for (const at of list.slice(0, 20_000)) counts.set(at, (counts.get(at) ?? 0) + 1);
    return [...counts]
      .filter(([at]) => {
        const length = this.entries[at]?.tokens.length ?? 0;
        return length >= tokens.length * LEAST_LIKENESS && length <= tokens.length / LEAST_LIKENESS;
      })
      .sort((a, b) => b[1] - a[1])
      .slice(0, 100)
      .flatMap(([at]) => this.entries[at] ?? []);
  }
}

/** Returns the translation of a unit with the numbers of another source; undefined where they cannot be told apart. */
function withNumbers(unit: MemoryUnit, source: readonly Piece[], from: string, to: string): Piece[] | undefined {
  const valuesOf = (pieces: readonly Piece[]) => numbersIn(wordsOf(pieces), from);
  const [old, now] = [valuesOf(unit.source), valuesOf(source)];
  if (old.length !== now.length || new Set(old.map(({ value }) => value)).size !== old.length) return undefined;
  const next = new Map(old.map(({ value }, nth) => [value, now[nth]]));
  let missed = false;
  const pieces = unit.target.map((piece): Piece => {
    if (typeof piece !== "string") return piece;
    let text = "";
    let at = 0;
    for (const number of numbersIn(piece, to)) {
      const replacement = next.get(number.value);
      if (!replacement) missed = true;
      const { value, decimals, grouped } = replacement ?? number;
      const format = { minimumFractionDigits: decimals, maximumFractionDigits: decimals, useGrouping: grouped };
      const shown = decimals || grouped ? new Intl.NumberFormat(to, format).format(value) : String(value);
      text += piece.slice(at, number.from) + shown;
      at = number.from + number.text.length;
    }
    return text + piece.slice(at);
  });
  return missed ? undefined : pieces;
}
