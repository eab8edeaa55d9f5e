import { must } from "@unitext/core/model";
/** The words of something that is to be paired by likeness. */
export interface WordSet {
  id: string;
  words: ReadonlySet<string>;
}

/** Words that occur in more texts than this are too common to tell texts apart. */
const COMMON = 24;

/**
 * Pairs texts by likeness, the most alike first: twice the number of shared words over all words (Dice, “Measures of
 * the Amount of Ecologic Association Between Species”, 1945). Pairs below `least` are left out.
 */
export function pairByLikeness(
  before: readonly WordSet[],
  after: readonly WordSet[],
  least = 0.5,
): Map<string, string> {
  const index = new Map<string, number[]>();
  before.forEach(({ words }, at) => {
    for (const word of words) index.set(word, [...(index.get(word) ?? []), at]);
  });
  const found: { a: string; b: string; score: number }[] = [];
  for (const { id, words } of after) {
    const candidates = new Set<number>();
    for (const word of words) {
      const places = index.get(word);
      if (places && places.length <= COMMON) for (const at of places) candidates.add(at);
    }
    for (const at of candidates) {
      const other = must(before[at]);
      let shared = 0;
      for (const word of words) if (other.words.has(word)) shared += 1;
      const score = (2 * shared) / (words.size + other.words.size);
      if (score >= least) found.push({ a: id, b: other.id, score });
    }
  }
  found.sort((one, two) => two.score - one.score);
  const pairs = new Map<string, string>();
  const taken = new Set<string>();
  for (const { a, b } of found) {
    if (pairs.has(a) || taken.has(b)) continue;
    pairs.set(a, b);
    taken.add(b);
  }
  return pairs;
}
