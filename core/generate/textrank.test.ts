import { rankable, rankSentences, sentenceSimilarity, textRank } from "./index";

describe("TextRank", () => {
  it("ranks a graph as the formula of Mihalcea and Tarau (2004, section 2.2) does when it is solved by hand", () => {
    // Three vertices, a star: A–B with weight 2, A–C with weight 1, d = 0.85. With a = WS(A), b = WS(B), c = WS(C):
    // b = 0.15 + 0.85·(2/3)·a, c = 0.15 + 0.85·(1/3)·a, a = 0.15 + 0.85·(b + c) because B and C have one edge each.
    // So a = 0.15 + 0.85·(0.30 + 0.85·a), a = 0.405 / 0.2775.
    const a = 0.405 / 0.2775;
    const [A, B, C] = textRank(
      [
        [0, 2, 1],
        [2, 0, 0],
        [1, 0, 0],
      ],
      { threshold: 1e-10, rounds: 1000 },
    );
    expect(A).toBeCloseTo(a, 6);
    expect(B).toBeCloseTo(0.15 + 0.85 * (2 / 3) * a, 6);
    expect(C).toBeCloseTo(0.15 + 0.85 * (1 / 3) * a, 6);
  });

  it("gives every vertex of a regular graph the same rank, 1", () => {
    for (const score of textRank([
      [0, 1, 1],
      [1, 0, 1],
      [1, 1, 0],
    ]))
      expect(score).toBeCloseTo(1, 4);
  });

  it("leaves a vertex without edges at 1 − d", () => {
    expect(textRank([[0]])).toEqual([expect.closeTo(0.15)]);
  });

  it("measures likeness as section 4.1 does: shared words over the logarithms of both lengths", () => {
    expect(sentenceSimilarity(["tide", "rises", "fast"], ["tide", "falls", "fast", "again"])).toBeCloseTo(
      2 / (Math.log(3) + Math.log(4)),
      12,
    );
    expect(sentenceSimilarity(["tide"], ["tide"])).toBe(0);
  });

  it("puts the sentence that the others speak of first", () => {
    const ranks = rankSentences(
      [
        "The storm surge raised the water level at the gauge.",
        "The gauge recorded the water level every minute.",
        "A storm surge is a rise of the water level.",
        "Lunch was served at noon.",
      ].map(rankable),
    );
    expect(ranks.indexOf(Math.max(...ranks))).not.toBe(3);
    expect(ranks[3]).toBe(Math.min(...ranks));
  });
});
