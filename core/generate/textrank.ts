import { must } from "@unitext/core/model";
/**
 * Ranks the vertices of a weighted undirected graph by TextRank (Mihalcea and Tarau, “TextRank: Bringing Order into
 * Texts”, 2004, section 2.2): WS(Vi) = (1 − d) + d · Σj wji / Σk wjk · WS(Vj), iterated until no value changes by more
 * than `threshold`. `weights[i][j]` are the weights, 0 where there is no edge.
 */
export function textRank(
  weights: readonly (readonly number[])[],
  { damping = 0.85, threshold = 0.0001, rounds = 100 } = {},
): number[] {
  // For each vertex, its neighbours with the share of their value that they give. Most sentences share no word with
  // most others.
  const sums = weights.map((row) => row.reduce((sum, weight) => sum + weight, 0));
  const givers = weights.map((row) => row.flatMap((weight, j) => (weight && sums[j] ? [j] : [])));
  const shares = givers.map((list, i) => list.map((j) => must(weights[i]?.[j]) / must(sums[j])));
  let scores = weights.map(() => 1);
  for (let round = 0; round < rounds; round++) {
    let moved = 0;
    const next: number[] = [];
    for (let i = 0; i < givers.length; i++) {
      const [from, part] = [must(givers[i]), must(shares[i])];
      let given = 0;
      for (let at = 0; at < from.length; at++) given += must(part[at]) * must(scores[must(from[at])]);
      next[i] = 1 - damping + damping * given;
      moved = Math.max(moved, Math.abs(must(next[i]) - must(scores[i])));
    }
    scores = next;
    if (moved <= threshold) break;
  }
  return scores;
}

/**
 * Returns the similarity of two sentences: their shared words over the logarithms of their lengths (section 4.1 of the
 * same paper).
 */
export function sentenceSimilarity(a: readonly string[], b: readonly string[]): number {
  const words = new Set(a);
  return similarity([...new Set(b)].filter((word) => words.has(word)).length, a.length, b.length);
}

function similarity(shared: number, lengthA: number, lengthB: number): number {
  return shared === 0 || lengthA < 2 || lengthB < 2 ? 0 : shared / (Math.log(lengthA) + Math.log(lengthB));
}

const WORD = /[\p{L}\p{N}]+/gu;
/** Returns the content words of a sentence in lower case: those of four letters or more. */
export function contentWords(sentence: string): string[] {
  return (sentence.toLowerCase().match(WORD) ?? []).filter(
    (word) => word.length > 3 || /\p{N}|[^\p{Script=Latin}]/u.test(word),
  );
}

/** A sentence with the words that it is ranked by. */
export interface Sentence {
  text: string;
  words: ReadonlySet<string>;
  /** The number of its content words, repetitions included. */
  length: number;
}

/** Returns a sentence with the content words by which it is compared with others. */
export function rankable(text: string): Sentence {
  const words = contentWords(text);
  return { text, words: new Set(words), length: words.length };
}

/** How many sentences are ranked together: more than a long chapter has, and few enough to compare every pair. */
const TOGETHER = 600;

/**
 * Returns the rank of each sentence of a text; a single one has rank 1. A text of more than 600 sentences is ranked in
 * runs of that length.
 */
export function rankSentences(sentences: readonly Sentence[]): number[] {
  if (sentences.length <= TOGETHER) return rankChunk(sentences);
  const ranks: number[] = [];
  for (let from = 0; from < sentences.length; from += TOGETHER)
    ranks.push(...rankChunk(sentences.slice(from, from + TOGETHER)));
  return ranks;
}

function rankChunk(sentences: readonly Sentence[]): number[] {
  if (sentences.length < 2) return sentences.map(() => 1);
  const weights = sentences.map(() => new Array<number>(sentences.length).fill(0));
  const holders = new Map<string, number[]>();
  sentences.forEach(({ words }, i) => {
    const row = must(weights[i]);
    for (const word of words) {
      const before = holders.get(word);
      if (!before) holders.set(word, [i]);
      else {
        for (const j of before) row[j] = must(row[j]) + 1;
        before.push(i);
      }
    }
    for (let j = 0; j < i; j++)
      if (row[j])
        must(weights[j])[i] = row[j] = similarity(must(row[j]), must(sentences[j]).length, must(sentences[i]).length);
  });
  return textRank(weights);
}
