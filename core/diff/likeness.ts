/** Something that is recognised by its words. */
export interface WordSet {
  id: string;
  words: ReadonlySet<string>;
}

/** Words that stand in more than this many of the texts tell nothing. */
const COMMON = 24;

/**
 * Pairs texts by their likeness: twice the shared words over all words (Dice, “Measures of the Amount of Ecologic
 * Association Between Species”, 1945), the most alike first, nothing below `least`.
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
      const other = before[at] as WordSet;
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
