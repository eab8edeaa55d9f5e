import {
  checkTranslation,
  editDistance,
  encode,
  hasTerm,
  likenessOf,
  Memory,
  type Piece,
  readTermsCsv,
  writeTermsCsv,
  wordsOf,
} from "./index";

const text = (words: string): Piece[] => [words];
const units = (from: readonly string[]) => from.join(" ").split(" ");

describe("edit distance", () => {
  // By hand: each step puts in, takes out or replaces one unit.
  it.each([
    ["the tide rises", "the tide rises", 0],
    ["the tide rises", "the tide falls", 1],
    ["the tide rises", "the high tide rises twice", 2],
    ["a b c", "", 3],
    ["kitten".split("").join(" "), "sitting".split("").join(" "), 3],
  ])("from “%s” to “%s” is %i", (a, b, distance) => {
    expect(editDistance(a ? a.split(" ") : [], b ? b.split(" ") : [])).toBe(distance);
  });

  it("makes a likeness: one of four words replaced is three quarters", () => {
    expect(likenessOf(units(["the tide rises fast"]), units(["the tide rises slowly"]))).toBe(0.75);
  });
});

describe("a memory", () => {
  const memory = new Memory("en", "de");
  memory.add({
    from: "en",
    to: "de",
    source: text("The tide rises twice a day."),
    target: text("Die Flut kommt zweimal am Tag."),
  });
  memory.add({
    from: "en",
    to: "de",
    source: text("At 4.6 m the quay is under water."),
    target: text("Bei 4,6 m steht der Kai unter Wasser."),
  });

  it("gives what was translated before", () => {
    expect(memory.proposals(text("The tide rises twice a day."))).toEqual([
      {
        source: ["The tide rises twice a day."],
        pieces: ["Die Flut kommt zweimal am Tag."],
        likeness: 1,
        sameContext: false,
        numbersAdapted: false,
      },
    ]);
  });

  it("tells what was translated in the same context from the same text elsewhere", () => {
    const contextual = new Memory("en", "de");
    const unit = (target: string, before: string) =>
      contextual.add({ from: "en", to: "de", source: ["Bank"], target: [target], context: { before, after: "" } });
    unit("Sandbank", "at low tide");
    unit("Ufer", "where they land");
    unit("Böschung", "where they land");
    const words = (before: string) =>
      contextual
        .proposals(["Bank"], { before, after: "" })
        .map(({ pieces, sameContext }) => [wordsOf(pieces), sameContext]);
    expect(words("at low tide")).toEqual([
      ["Sandbank", true],
      ["Böschung", false],
    ]);
    expect(words("elsewhere")).toEqual([
      ["Böschung", false],
      ["Sandbank", false],
    ]);
  });

  it("adapts numbers, in the form of the language", () => {
    expect(memory.proposals(text("At 5.25 m the quay is under water."))).toEqual([
      {
        source: ["At 4.6 m the quay is under water."],
        pieces: ["Bei 5,25 m steht der Kai unter Wasser."],
        likeness: 1,
        sameContext: false,
        numbersAdapted: true,
      },
    ]);
  });

  it("proposes what is alike from 70 % on, and nothing else", () => {
    const [best] = memory.proposals(text("The tide falls twice a day."));
    expect(best?.likeness).toBeCloseTo(6 / 7);
    expect(memory.proposals(text("Nothing like it at all."))).toEqual([]);
  });
});

describe("terms", () => {
  const bytes = new TextEncoder().encode(
    "term;translation;note;forbidden\nforedune;Vordüne;not the white dune;Weißdüne|Dünenfuß\nMarram Bay;do not translate;;\n;x\nforedune;Düne\nquay;\n",
  );
  const { terms, problems } = readTermsCsv(bytes, "terms.csv");

  it("are read with their notes and forbidden words; empty and doubled entries are told", () => {
    expect(terms).toEqual([
      { source: "foredune", target: "Vordüne", note: "not the white dune", forbidden: ["Weißdüne", "Dünenfuß"] },
      { source: "Marram Bay", target: "Marram Bay" },
    ]);
    expect(problems).toHaveLength(3);
  });

  it("are written as they are read", () => {
    expect(readTermsCsv(new TextEncoder().encode(writeTermsCsv(terms)), "terms.csv")).toEqual({ terms, problems: [] });
  });

  it("are found in their forms", () => {
    expect(hasTerm("Two foredunes were lost", "foredune", "en")).toBe(true);
    expect(hasTerm("vor den Vordünen", "Vordüne", "de")).toBe(true);
    expect(hasTerm("The dune was lost", "foredune", "en")).toBe(false);
  });

  it("and everything else are checked in a translation", () => {
    const faults = (source: string, target: string) =>
      checkTranslation({ source: text(source), target: text(target), from: "en", to: "de", terms }).map(
        ({ fault }) => fault,
      );
    expect(faults("The foredune lost 4.6 m.", "Die Vordüne verlor 4,6 m.")).toEqual([]);
    expect(faults("The foredune lost 4.6 m.", "Die Weißdüne verlor 4,8 m")).toEqual([
      "number",
      "term",
      "forbidden",
      "ending",
    ]);
    expect(faults("The quay is wet.", "The quay is wet.")).toEqual(["same"]);
    expect(faults("The quay (old) is wet.", "Der Kai  ist ist nass.")).toEqual(["repeated", "spaces", "brackets"]);
    expect(faults("The quay is wet.", " ")).toEqual(["empty"]);
  });

  it("finds a lost placeholder", () => {
    const { pieces } = encode([{ text: "See " }, { text: "", footnote: [{ text: "x" }] }]);
    expect(
      checkTranslation({ source: pieces, target: ["Siehe"], from: "en", to: "de" }).map(({ fault }) => fault),
    ).toEqual(["placeholder-missing"]);
    expect(wordsOf(pieces)).toBe("See  ");
  });
});
