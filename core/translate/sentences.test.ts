import { encode, numbersIn, relocalised, sentencesOf, wordsOf } from "./index";

const cut = (text: string, language: string) =>
  sentencesOf(encode([{ text }]).pieces, language).map(({ pieces }) => wordsOf(pieces));

describe("sentences", () => {
  // Rules as in SRX 2.0 (GALA, 2008), section 5: exceptions before breaks. The examples are common practice, no source.
  it.each([
    ["en", "Mr. Tern saw it. Did J. Tern? Yes.", ["Mr. Tern saw it.", "Did J. Tern?", "Yes."]],
    ["en", "See Fig. 3 and approx. 4.6 m. Then go on.", ["See Fig. 3 and approx. 4.6 m.", "Then go on."]],
    ["de", "Am 3. März z. B. war Flut. Danach Ebbe.", ["Am 3. März z. B. war Flut.", "Danach Ebbe."]],
    ["de", "Das Wasser (vgl. Abb. 2) stieg. Nr. 4 nicht.", ["Das Wasser (vgl. Abb. 2) stieg.", "Nr. 4 nicht."]],
    ["fr", "M. Sterne l’a vu. Et après ?", ["M. Sterne l’a vu.", "Et après ?"]],
    ["ja", "潮が満ちる。その後引く。", ["潮が満ちる。", "その後引く。"]],
    ["ar", "يرتفع الماء. ثم ينخفض.", ["يرتفع الماء.", "ثم ينخفض."]],
  ])("of %s end where they end", (language, text, sentences) => {
    expect(cut(text, language)).toEqual(sentences);
  });

  it("are never cut inside a pair of placeholders, and joined again with the spaces between them", () => {
    const { pieces } = encode([
      { text: "One day it rose and " },
      { text: "fell. Then", marks: ["strong"] },
      { text: " it rose. End." },
    ]);
    const sentences = sentencesOf(pieces, "en");
    expect(sentences.map(({ pieces: own }) => wordsOf(own))).toEqual([
      "One day it rose and fell. Then it rose.",
      "End.",
    ]);
    expect(sentences[0]?.after).toBe(" ");
  });
});

describe("numbers", () => {
  // Forms of CLDR as Intl has them.
  it.each([
    ["en", "de", "1,234.5 m in 4.6 hours", "1.234,5 m in 4,6 hours"],
    ["de", "en", "Um 12:30 waren es 4,6 m", "Um 12:30 waren es 4.6 m"],
    ["en", "fr", "12,000 people", "12\u202f000 people"],
    ["en", "de", "in 2026, version 1.2.3, on 3/4/2026", "in 2026, version 1.2.3, on 3/4/2026"],
    ["en", "es", "file_1.5 and a1.5", "file_1.5 and a1.5"],
  ])("of %s are written in %s as it writes them", (from, to, text, written) => {
    expect(relocalised(text, from, to)).toBe(written);
  });

  it("are found with their values", () => {
    expect(numbersIn("Von 1.234,50 auf 7", "de").map(({ value }) => value)).toEqual([1234.5, 7]);
  });
});
