import { readText } from "@unitext/core/text";
import { generateDeck } from "@unitext/core/generate";
import { DEFAULT_RULE, type Deck } from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { alignDecks, alignLengths } from "./index";

/**
 * The worked example of Gale and Church 1993, tables 1 and 2: a paragraph of a bank's report in English and in French, and
 * what their program makes of it (texts from memory).
 */
const ENGLISH = [
  "According to our survey, 1988 sales of mineral water and soft drinks were much higher than in 1987, reflecting the growing popularity of these products.",
  "Cola drink manufacturers in particular achieved above-average growth rates.",
  "The higher turnover was largely due to an increase in the sales volume.",
  "Employment and investment levels also climbed.",
  "Following a two-year transitional period, the new Foodstuffs Ordinance for Mineral Water came into effect on April 1, 1988.",
  "Specifically, it contains more stringent requirements regarding quality consistency and purity guarantees.",
];
const FRENCH = [
  "Quant aux eaux minérales et aux limonades, elles rencontrent toujours plus d'adeptes.",
  "En effet, notre sondage fait ressortir des ventes nettement supérieures à celles de 1987, pour les boissons à base de cola notamment.",
  "La progression des chiffres d'affaires résulte en grande partie de l'accroissement du volume des ventes.",
  "L'emploi et les investissements ont également augmenté.",
  "La nouvelle ordonnance fédérale sur les denrées alimentaires concernant entre autres les eaux minérales, entrée en vigueur le 1er avril 1988 après une période transitoire de deux ans, exige surtout une plus grande constance dans la qualité et une garantie de la pureté.",
];

const lengths = (texts: readonly string[]) => texts.map(({ length }) => length);
const deckOf = (text: string, language: string): Deck => ({
  ...generateDeck(readText(text), DEFAULT_RULE, { newId: idSource() }, "Deck").deck,
  language,
});

describe("aligning texts by their lengths", () => {
  it("finds what the program of the paper finds in its example", () => {
    const beads = alignLengths(lengths(ENGLISH), lengths(FRENCH));
    expect(beads.map(({ source, target }) => `${source.length}-${target.length}`)).toEqual([
      "2-2",
      "1-1",
      "1-1",
      "2-1",
    ]);
  });

  it("pairs each text with itself, and keeps the order", () => {
    const one = lengths(ENGLISH);
    expect(alignLengths(one, one).every(({ source, target }) => source.join() === target.join())).toBe(true);
    const beads = alignLengths(lengths(FRENCH), one);
    expect(beads.flatMap(({ source }) => source)).toEqual([...FRENCH.keys()]);
    expect(beads.flatMap(({ target }) => target)).toEqual([...one.keys()]);
    expect(alignLengths([], [])).toEqual([]);
  });
});

describe("a deck that exists in two languages", () => {
  const english = deckOf(
    "# Tides\n\n## The quay\n\n- Water rises twice a day.\n- The moon draws it.\n\n:::notes\nAsk the class. Then go on.\n:::\n\n## Sand\n\n- Grass holds the sand.\n",
    "en",
  );
  const german = deckOf(
    "# Gezeiten\n\n## Der Kai\n\n- Zweimal am Tag steigt das Wasser.\n- Der Mond zieht es.\n\n:::notes\nFragen Sie die Klasse. Dann weiter.\n:::\n\n## Sand\n\n- Gras hält den Sand.\n",
    "de",
  );
  const words = (source: Deck, target: Deck) =>
    alignDecks(source, target).map(({ unit }) => [unit.source.join(""), unit.target.join("")]);

  it("gives pairs of sentences, titles with titles and notes with notes", () => {
    const pairs = words(english, german);
    expect(pairs).toContainEqual(["The quay", "Der Kai"]);
    expect(pairs).toContainEqual(["The moon draws it.", "Der Mond zieht es."]);
    expect(pairs).toContainEqual(["Then go on.", "Dann weiter."]);
    expect(alignDecks(english, german)[0]?.unit).toMatchObject({ from: "en", to: "de" });
  });

  it("finds its slides where one of the decks has one more", () => {
    const longer = { ...german, slides: [...german.slides.slice(0, 2), ...german.slides.slice(1)] };
    expect(words(english, longer)).toContainEqual(["Grass holds the sand.", "Gras hält den Sand."]);
  });
});
