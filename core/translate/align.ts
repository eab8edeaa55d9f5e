import { type Deck, must } from "@unitext/core/model";
import { wordsOf } from "./coded";
import type { MemoryUnit } from "./tmx";
import { type Segment, segmentsOf } from "./segments";
import type { UnitKind } from "./units";

/** Texts of two languages that say the same: positions in both lists, of which one list may be empty. */
export interface Bead {
  source: number[];
  target: number[];
}

/**
 * The kinds of beads with their cost beside that of one text to one, in hundredths of natural logarithms of probability
 * (Gale and Church 1993, “A Program for Aligning Sentences in Bilingual Corpora”, Computational Linguistics 19, table 5
 * and appendix).
 */
const BEADS: readonly { source: number; target: number; cost: number }[] = [
  { source: 1, target: 1, cost: 0 },
  { source: 1, target: 0, cost: 450 },
  { source: 0, target: 1, cost: 450 },
  { source: 2, target: 1, cost: 230 },
  { source: 1, target: 2, cost: 230 },
  { source: 2, target: 2, cost: 440 },
];

/** The variance of the length of a translation, per character of its source (the same, section 3.2). */
const VARIANCE = 6.8;
/** The cost of lengths that are too unlike for the function to be computed. */
const UNLIKE = 2500;

/** The area under the normal curve up to `z`, which is positive (Abramowitz and Stegun, 26.2.17). */
function normalUpTo(z: number): number {
  const t = 1 / (1 + 0.2316419 * z);
  const series = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return 1 - 0.3989423 * Math.exp((-z * z) / 2) * series;
}

/** The cost of taking texts of these lengths for translations of each other; `ratio` is characters to characters. */
function lengthCost(source: number, target: number, ratio: number): number {
  if (source === 0 && target === 0) return 0;
  const mean = (source + target / ratio) / 2;
  const z = Math.abs((ratio * source - target) / Math.sqrt(VARIANCE * mean));
  const probability = 2 * (1 - normalUpTo(z));
  return probability > 0 ? Math.min(UNLIKE, -100 * Math.log(probability)) : UNLIKE;
}

/**
 * Aligns the texts of two languages by their lengths in characters, in order (Gale and Church 1993). `ratio` is how many
 * characters the target has for one of the source.
 */
export function alignLengths(source: readonly number[], target: readonly number[], ratio = 1): Bead[] {
  const width = target.length + 1;
  const costs = new Float64Array((source.length + 1) * width).fill(Number.POSITIVE_INFINITY);
  const chosen = new Uint8Array(costs.length);
  costs[0] = 0;
  const sum = (list: readonly number[], end: number, count: number) => {
    let total = 0;
    for (let at = end - count; at < end; at++) total += must(list[at]);
    return total;
  };
  for (let i = 0; i <= source.length; i++)
    for (let j = 0; j <= target.length; j++)
      for (const [nth, bead] of BEADS.entries()) {
        if (bead.source > i || bead.target > j) continue;
        const before = must(costs[(i - bead.source) * width + j - bead.target]);
        const cost = before + bead.cost + lengthCost(sum(source, i, bead.source), sum(target, j, bead.target), ratio);
        if (cost >= must(costs[i * width + j])) continue;
        costs[i * width + j] = cost;
        chosen[i * width + j] = nth;
      }
  const beads: Bead[] = [];
  for (let [i, j] = [source.length, target.length]; i > 0 || j > 0; ) {
    const bead = must(BEADS[must(chosen[i * width + j])]);
    const positions = (end: number, count: number) => Array.from({ length: count }, (_, at) => end - count + at);
    beads.unshift({ source: positions(i, bead.source), target: positions(j, bead.target) });
    i -= bead.source;
    j -= bead.target;
  }
  return beads;
}

const lengthOf = (segments: readonly Segment[]) =>
  segments.reduce((sum, { source }) => sum + wordsOf(source).length, 0);

/** Returns the segments of a deck by slide, those of the deck itself first. */
function bySlide(segments: readonly Segment[], slides: number): Segment[][] {
  const groups = Array.from({ length: slides + 1 }, (): Segment[] => []);
  for (const segment of segments) groups[segment.unit.slide ?? 0]?.push(segment);
  return groups;
}

/** Two texts that say the same, with the number of their slide in the first deck; null for texts of the deck. */
export interface AlignedPair {
  unit: MemoryUnit;
  slide: number | null;
}

/**
 * Pairs the texts of a deck with those of the same deck in another language: slide by slide, then title with title, notes
 * with notes and so on, then sentence by sentence. What has no counterpart is left out.
 */
export function alignDecks(source: Deck, target: Deck): AlignedPair[] {
  const [left, right] = [source, target].map((deck) => bySlide(segmentsOf(deck), deck.slides.length));
  const [from, to] = [must(left), must(right)];
  const total = (groups: readonly Segment[][]) => lengthOf(groups.flat());
  const ratio = Math.min(4, Math.max(0.25, total(to) / Math.max(1, total(from))));
  const lengths = (groups: readonly Segment[][]) => groups.slice(1).map(lengthOf);
  const slides =
    from.length === to.length
      ? from.slice(1).map((_, nth): Bead => ({ source: [nth], target: [nth] }))
      : alignLengths(lengths(from), lengths(to), ratio);
  const pairs = pairsOfGroups([must(from[0])], [must(to[0])], ratio, null);
  for (const bead of slides) {
    const groups = (list: readonly Segment[][], positions: readonly number[]) =>
      positions.map((nth) => must(list[nth + 1]));
    pairs.push(...pairsOfGroups(groups(from, bead.source), groups(to, bead.target), ratio, (bead.source[0] ?? 0) + 1));
  }
  return pairs.map(({ source: words, target: said, slide }) => ({
    unit: { from: source.language, to: target.language, source: [words], target: [said] },
    slide,
  }));
}

function byKind(groups: readonly Segment[][]): Map<UnitKind, Segment[]> {
  const kinds = new Map<UnitKind, Segment[]>();
  for (const segment of groups.flat()) kinds.set(segment.unit.kind, [...(kinds.get(segment.unit.kind) ?? []), segment]);
  return kinds;
}

function pairsOfGroups(
  source: readonly Segment[][],
  target: readonly Segment[][],
  ratio: number,
  slide: number | null,
): { source: string; target: string; slide: number | null }[] {
  const theirs = byKind(target);
  return [...byKind(source)].flatMap(([kind, segments]) => {
    const others = theirs.get(kind) ?? [];
    const words = (list: readonly Segment[]) => list.map((one) => wordsOf(one.source).trim());
    const [left, right] = [words(segments), words(others)];
    const beads = alignLengths(
      left.map(({ length }) => length),
      right.map(({ length }) => length),
      ratio,
    );
    return beads.flatMap((bead) => {
      const text = (list: readonly string[], positions: readonly number[]) =>
        positions.map((nth) => list[nth]).join(" ");
      const [said, translated] = [text(left, bead.source), text(right, bead.target)];
      // A sentence that is the same in both decks has not been translated.
      const isOpen = said === translated && /\s/.test(said);
      return said && translated && !isOpen ? [{ source: said, target: translated, slide }] : [];
    });
  });
}
