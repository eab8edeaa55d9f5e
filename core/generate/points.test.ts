import { paragraphText, type Paragraph, run } from "@unitext/core/model";
import fc from "fast-check";
import { loadGrammar } from "./grammar";
import { pointsOf, sentenceRanges, sentencesOf, trimToPoint } from "./points";

const paragraph = (text: string): Paragraph => ({ kind: "plain", level: 0, runs: [run(text)] });
const trimmed = (text: string, language = "en") =>
  trimToPoint([run(text)], language)
    ?.map(({ text: words }) => words)
    .join("");

beforeAll(loadGrammar);

describe("points from prose", () => {
  it.each([
    "Updated Nov 14, 2024.",
    "(See chapter 3 for the marks of the gauge.)",
    "Attributes in the log.",
    "Why are the posts read every day?",
    "0008: 00 00 00 00 31 is a row of it.",
    "The posts are north, south, spit ...",
  ])("leave “%s” alone", (sentence) => {
    expect(trimmed(sentence)).toBeUndefined();
  });

  it.each([
    ["The tide rises.", "The tide rises"],
    ["Figure 2 shows the posts.", "Figure 2 shows the posts"],
    [
      "The method of the survey was taken from [10] and changed for the posts that stand in the sand of the outer spit.",
      undefined,
    ],
  ])("of “%s” are whole", (sentence, point) => {
    if (point) expect(trimmed(sentence)).toBe(point);
    else expect(trimmed(sentence)).toContain("from [10]");
  });

  // Rules of Hedge Trimmer (Dorr, Zajic and Schwartz 2003, section 3): what is taken out is a whole constituent.
  it.each([
    [
      "However, the dune moved inland by twelve metres in one winter.",
      "The dune moved inland by twelve metres in one winter",
    ],
    [
      "The gauge failed in January, because salt water had reached the battery box and the cable behind it since the autumn.",
      "The gauge failed in January",
    ],
    [
      "At the end of a long and stormy winter, the current carries sand back to the bar in front of the harbour.",
      "The current carries sand back to the bar in front of the harbour",
    ],
    [
      "The slack (a wet hollow between two ridges of the dune) holds fresh water all year.",
      "The slack (a wet hollow between two ridges of the dune) holds fresh water all year",
    ],
    [
      "The slack (a wet hollow between the ridges of the dune) holds fresh water for the animals of the whole bay.",
      "The slack holds fresh water for the animals of the whole bay",
    ],
    [
      "The keeper reads the staff beside the old quay every morning, and the students draw the curve of the day.",
      "The keeper reads the staff beside the old quay every morning",
    ],
    ["Short as it is.", undefined],
    ["The tide rises.", "The tide rises"],
    ["Read the staff before you open the lid.", "Read the staff before you open the lid"],
  ])("%s", (sentence, point) => {
    expect(trimmed(sentence)).toBe(point);
  });

  it.each([
    ["refers to what was said before", "It came in the night and took the fence."],
    ["refers to what was said before", "They were measured again in spring."],
    ["refers to what was said before", "This gives a convenient way to check the gauge."],
    ["has a partner elsewhere", "First, the tape is stretched between the posts."],
    ["leads to something else", "The following gauges were changed."],
    ["leads to something else", "See the table below."],
    ["refers to what was said before", "For the outer bar this is the mark on the last post."],
    ["is no clause", "Can be used on the right side of the quay."],
    ["is no clause", "Version 1.0 of the handbook of the station"],
    ["does not end", "The tide and the wind, which"],
    ["has an open bracket", "The gauge (of the quay stands at the end of the pier."],
  ])("a sentence that %s makes none: %s", (_, sentence) => {
    expect(trimmed(sentence)).toBeUndefined();
  });

  it.each([
    "The water rose for an hour in the afternoon, although it fell by 0.4 m at the bar of the river mouth.",
    "The keeper goes out to the bar every morning of the week, unless the forecast gives a storm.",
    "The paths behind the dune are closed to visitors of the bay in spring, because birds must not be disturbed there.",
    "When the gates are closed or the river has reached the mark, the keeper reads the staff of the quay every hour.",
    "In general, the sand of the outer bar comes back to the beach of the bay before the end of the summer.",
    "If the tape is wet or the wind is strong on the beach, the readings of the level are written down with a remark.",
  ])("numbers, negations, hedges and conditions stay: %s", (sentence) => {
    expect(trimmed(sentence)).toBe(sentence.slice(0, -1));
  });

  it("take the whole sentence in a language without a tagger, or none", () => {
    expect(trimmed("Außerdem, die Düne wanderte im Winter um zwölf Meter.", "de")).toBe(
      "Die Düne wanderte im Winter um zwölf Meter",
    );
    expect(trimmed("Sie wanderte im Winter um zwölf Meter.", "de")).toBeUndefined();
    expect(trimmed(`Die Düne ${"und die Welle ".repeat(12)} wanderte.`, "de")).toBeUndefined();
  });

  it("hold no word that the sentence does not hold, in its order, and never end in the middle", () => {
    const word = fc.constantFrom(
      ...[
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
      ],
    );
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 45 }), (words) => {
        const sentence = `${words.join(" ")}.`;
        const point = trimmed(sentence);
        if (point === undefined) return;
        const left: string[] = sentence.toLowerCase().match(/\p{L}+/gu) ?? [];
        const taken: string[] = point.toLowerCase().match(/\p{L}+/gu) ?? [];
        expect(taken.length).toBeLessThanOrEqual(24);
        expect(taken.at(-1)).not.toMatch(/^(?:the|of|which|because|and)$/);
        expect(point).not.toContain("…");
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
