import { paragraphText, type Paragraph, run } from "@unitext/core/model";
import fc from "fast-check";
import { pointsOf, sentenceRanges, sentencesOf, trimToPoint } from "./points";

const paragraph = (text: string): Paragraph => ({ kind: "plain", level: 0, runs: [run(text)] });
const trimmed = (text: string, language = "en") =>
  trimToPoint([run(text)], language)
    .map(({ text: words }) => words)
    .join("");

describe("points from prose", () => {
  it.each([
    [
      "However, the dune moved inland by twelve metres in one winter.",
      "The dune moved inland by twelve metres in one winter",
    ],
    [
      "The gauge failed in January, because salt water had reached the battery box and nobody had looked at it since the autumn.",
      "The gauge failed in January",
    ],
    [
      "When the tide turns early in the morning of a spring day, the current reverses within minutes and carries sand back to the bar.",
      "The current reverses within minutes and carries sand back to the bar",
    ],
    [
      "The slack (a wet hollow between two dune ridges that were formed one after the other) holds fresh water all year.",
      "The slack holds fresh water all year",
    ],
    ["Short as it is.", "Short as it is"],
  ])("%s", (sentence, point) => {
    expect(trimmed(sentence)).toBe(point);
  });

  it("are never longer than the budget, and hold no word that the sentence does not hold, in its order", () => {
    const word = fc.constantFrom(
      "tide",
      "the",
      "of",
      "surge",
      "(low)",
      "gauge,",
      "which",
      "because",
      "rises;",
      "and",
      "levels",
      "however,",
      "in",
      "metres",
    );
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 45 }), (words) => {
        const sentence = `${words.join(" ")}.`;
        const point = trimmed(sentence).replace(/…$/, "");
        const left: string[] = sentence.toLowerCase().match(/\p{L}+/gu) ?? [];
        const taken: string[] = point.toLowerCase().match(/\p{L}+/gu) ?? [];
        expect(taken.length).toBeLessThanOrEqual(14);
        let at = 0;
        for (const next of taken) {
          at = left.indexOf(next, at) + 1;
          expect(at).toBeGreaterThan(0);
        }
      }),
    );
  });

  it("keep marks, links and footnotes of the words that stay", () => {
    const runs = trimToPoint(
      [
        run("However, "),
        run("the surge", ["strong"]),
        run(" came first"),
        { text: "", footnote: [run("Log book.")] },
        run("."),
      ],
      "en",
    );
    expect(runs).toEqual([
      run("the surge", ["strong"]),
      run(" came first"),
      { text: "", footnote: [run("Log book.")] },
    ]);
  });

  it("know the sentence that they came from; what the user chose comes before the method", () => {
    const prose = [paragraph("The tide rises twice a day. It rises higher at new moon. Nobody counted the gulls.")];
    const plain = pointsOf(prose, "en", new Map());
    expect(plain.map(({ sentence }) => sentence)).toEqual([
      "The tide rises twice a day.",
      "It rises higher at new moon.",
      "Nobody counted the gulls.",
    ]);
    expect(plain.some(({ chosen }) => chosen)).toBe(true);
    const choices = new Map([
      ["Nobody counted the gulls.", { sentence: "Nobody counted the gulls.", point: "Gulls: not counted" }],
      ["The tide rises twice a day.", { sentence: "The tide rises twice a day.", point: null }],
    ]);
    const chosen = pointsOf(prose, "en", choices);
    expect(chosen.find(({ sentence }) => sentence.startsWith("Nobody"))).toMatchObject({
      chosen: true,
      point: "Gulls: not counted",
      edited: true,
    });
    expect(chosen.find(({ sentence }) => sentence.startsWith("The tide"))).toMatchObject({
      chosen: false,
      edited: true,
    });
  });

  it("give every paragraph of a long text its own", () => {
    const prose = Array.from({ length: 9 }, (_, nth) =>
      paragraph(`The gauge number ${nth} stands at the quay. Its battery lasts a winter. Somebody looks after it.`),
    );
    expect(
      new Set(
        pointsOf(prose, "en", new Map())
          .filter(({ chosen }) => chosen)
          .map((point) => point.paragraph),
      ).size,
    ).toBe(9);
  });
});

describe("sentences", () => {
  it.each([
    ["Dr. Alder measured it. She was right.", "en", ["Dr. Alder measured it.", "She was right."]],
    ["It rose, e.g. in March, by 2.4 m. Then it fell.", "en", ["It rose, e.g. in March, by 2.4 m.", "Then it fell."]],
    [
      "Die Düne wanderte, z. B. im Winter. Danach ruhte sie.",
      "de",
      ["Die Düne wanderte, z. B. im Winter.", "Danach ruhte sie."],
    ],
    ["潮が満ちる。砂が動く。", "ja", ["潮が満ちる。", "砂が動く。"]],
  ])("%s", (text, language, expected) => {
    expect(sentenceRanges(text, language).map(({ from, to }) => text.slice(from, to))).toEqual(expected);
  });

  it("carry every run of their paragraph", () => {
    const whole: Paragraph = {
      kind: "plain",
      level: 0,
      runs: [
        run("One is "),
        run("here", ["strong"]),
        run(". Two is"),
        { text: "", footnote: [run("note")] },
        run(" there."),
      ],
    };
    const sentences = sentencesOf(whole, "en");
    expect(sentences.map(({ sentence }) => sentence)).toEqual(["One is here.", "Two is there."]);
    expect(sentences.flatMap(({ runs }) => runs).filter(({ footnote }) => footnote)).toHaveLength(1);
    expect(sentences.map(({ runs }) => runs.map(({ text }) => text).join("")).join(" ")).toBe(paragraphText(whole));
  });
});
