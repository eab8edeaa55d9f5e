import { type Deck, emptyDeck, newSlide, run, type Slide, textOf, dataStamp, sourceRows } from "@unitext/core/model";
import { apply, insertAt, keepingSourceList, sourcesSlide, withSourceList, withStamp } from "./index";

let serial = 0;
const newId = () => `n${++serial}`;
const bound = (id: string, source: string, takenAt: string, mode: "latest" | "fixed" = "latest"): Slide => ({
  ...newSlide(id, "points"),
  notes: [
    {
      kind: "plain",
      level: 0,
      runs: [run("4.6", [], undefined, undefined, { source, range: "Levels!D2", mode, takenAt })],
    },
  ],
});
const deck: Deck = {
  ...emptyDeck("d", "Levels"),
  slides: [
    bound("one", "gauges.xlsx", "2026-07-02T09:00:00Z"),
    bound("two", "dunes.ods", "2026-04-01T09:00:00Z", "fixed"),
    bound("three", "gauges.xlsx", "2026-07-09T09:00:00Z"),
  ],
};
const listOf = ({ slides }: Deck) => {
  const table = slides.flatMap(({ elements }) => elements).find((one) => one.kind === "table");
  return table?.kind === "table" ? table.rows.map((row) => row.map((cell) => (cell ? textOf(cell.text) : ""))) : [];
};
const withList = apply(deck, insertAt([sourcesSlide(deck, newId)], { parent: null, after: "three" })).deck;

describe("the list of sources", () => {
  it("has a row for each source, with the earliest day of what follows it, and its slides", () => {
    expect(sourceRows(deck)).toEqual([
      { source: "dunes.ods", takenAt: undefined, slides: [2] },
      { source: "gauges.xlsx", takenAt: "2026-07-02T09:00:00Z", slides: [1, 3] },
    ]);
    expect(listOf(withList)).toEqual([
      ["Source", "As of", "Slides"],
      ["dunes.ods", "–", "2"],
      ["gauges.xlsx", "Jul 2, 2026", "1, 3"],
    ]);
  });

  it("is in the language of the deck", () => {
    const german = { ...deck, language: "de" };
    expect(dataStamp(german)).toBe("Stand 02.07.2026");
    const [title] = sourcesSlide(german, newId).elements;
    expect(title?.kind === "text" ? textOf(title.text) : "").toBe("Quellen");
  });

  it("follows when a slide with a source is moved, deleted or put back", () => {
    const change = keepingSourceList(withList, { kind: "deleteSlide", slide: "two" });
    const { deck: after, inverse } = apply(withList, change);
    expect(listOf(after).slice(1)).toEqual([["gauges.xlsx", "Jul 2, 2026", "1, 2"]]);
    expect(listOf(apply(after, inverse).deck)).toEqual(listOf(withList));
    const part: Deck = { ...withList, slides: withList.slides.slice(2) };
    expect(listOf(withSourceList(part)).slice(1)).toEqual([["gauges.xlsx", "Jul 9, 2026", "1"]]);
  });

  it("leaves a change alone where the deck keeps no list", () => {
    const change = { kind: "deleteSlide", slide: "two" } as const;
    expect(keepingSourceList(deck, change)).toBe(change);
  });
});

describe("the stamp in the footer", () => {
  const stamped: Deck = {
    ...deck,
    regions: { footer: "Bay · as of Jul 2, 2026", number: true, stamp: "as of Jul 2, 2026" },
  };

  it("follows the values, wherever it is in the line", () => {
    const change = keepingSourceList(stamped, { kind: "deleteSlide", slide: "one" });
    expect(apply(stamped, change).deck.regions).toEqual({
      footer: "Bay · as of Jul 9, 2026",
      number: true,
      stamp: "as of Jul 9, 2026",
    });
  });

  it("is added, replaced and taken away", () => {
    expect(withStamp("Bay", "", "as of May 1")).toBe("Bay · as of May 1");
    expect(withStamp("as of May 1, Bay", "as of May 1", "as of Jun 1")).toBe("as of Jun 1, Bay");
    expect(withStamp("Bay · as of May 1", "as of May 1", "")).toBe("Bay");
  });
});
