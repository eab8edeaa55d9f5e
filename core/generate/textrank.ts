/**
 * Ranks the vertices of a weighted undirected graph by TextRank (Mihalcea and Tarau, “TextRank: Bringing Order into
 * Texts”, 2004, section 2.2): WS(Vi) = (1 − d) + d · Σj wji / Σk wjk · WS(Vj), iterated until no value changes by more
 * than `threshold`. `weights[i][j]` are the weights, 0 where there is no edge.
 */
export function textRank(weights: readonly (readonly number[])[], { damping = 0.85, threshold = 0.0001, rounds = 100 } = {}): number[] {
  const sums = weights.map((row) => row.reduce((sum, weight) => sum + weight, 0));
  let scores = weights.map(() => 1);
  for (let round = 0; round < rounds; round++) {
    const next = weights.map((row, _i) => 1 - damping + damping * row.reduce((sum, weight, j) => (weight && sums[j] ? sum + (weight / (sums[j] as number)) * (scores[j] as number) : sum), 0));
    const moved = Math.max(0, ...next.map((score, at) => Math.abs(score - (scores[at] as number))));
    scores = next;
    if (moved <= threshold) break;
  }
  return scores;
}

/** How alike two sentences are: the words that they share, over the logarithms of their lengths (section 4.1 of the same paper). */
export function sentenceSimilarity(a: readonly string[], b: readonly string[]): number {
  return similarity(new Set(a), a.length, new Set(b), b.length);
}

function similarity(a: ReadonlySet<string>, lengthA: number, b: ReadonlySet<string>, lengthB: number): number {
  if (lengthA < 2 || lengthB < 2) return 0;
  let shared = 0;
  for (const word of b) if (a.has(word)) shared += 1;
  return shared === 0 ? 0 : shared / (Math.log(lengthA) + Math.log(lengthB));
}

const WORD = /[\p{L}\p{N}]+/gu;
/** The words of a sentence that carry its content: in lower case, words of one to three letters left out. */
export function contentWords(sentence: string): string[] {
  return (sentence.toLowerCase().match(WORD) ?? []).filter((word) => word.length > 3 || /\p{N}|[^\p{Script=Latin}]/u.test(word));
}

/** The rank of each sentence of a text. */
export function rankSentences(sentences: readonly string[]): number[] {
  const words = sentences.map((sentence) => {
    const list = contentWords(sentence);
    return { set: new Set(list), length: list.length };
  });
  const weights = words.map(() => new Array<number>(words.length).fill(0));
  for (let i = 0; i < words.length; i++) {
    for (let j = i + 1; j < words.length; j++) {
      const [a, b] = [words[i] as (typeof words)[number], words[j] as (typeof words)[number]];
      const weight = similarity(a.set, a.length, b.set, b.length);
      (weights[i] as number[])[j] = weight;
      (weights[j] as number[])[i] = weight;
    }
  }
  return textRank(weights);
}
