import { isMirrored } from "@unitext/core/layout";
import { type ChartElement, type Deck, type Element, emptyDeck, must } from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { strFromU8, unzipSync } from "fflate";
import { WRITERS } from "./index";

// ECMA-376-1, 21.2.3.30 (ST_Orientation): maxMin draws an axis from its end. OpenDocument 1.3 part 3, 20.25
// (chart:reverse-direction) and 20.404 (style:writing-mode); numbers of the sections from memory.
const bench = filesBench();
const FORMATS = ["pptx", "odp"] as const;
const frame = { x: 100, y: 100, width: 600, height: 300 };
const chart = (given: Partial<ChartElement>): ChartElement => ({
  kind: "chart",
  id: "c",
  slot: null,
  frame,
  type: "column",
  categories: ["A", "B", "C"],
  series: [
    { name: "One", values: [1, 2, 3] },
    { name: "Two", values: [2, 3, 4] },
  ],
  legend: "right",
  ...given,
});
const deckWith = (element: Element, language: string): Deck => ({
  ...emptyDeck("d", "D"),
  language,
  slides: [{ id: "s", parent: null, arrangement: "blank", notes: [], hidden: false, elements: [element] }],
});

/** Returns the element as it is in the file of another program, and the XML of its part. */
function through(deck: Deck, format: (typeof FORMATS)[number]): { element: Element; xml: string } {
  const bytes = withoutTags(WRITERS[format].write(deck, bench.context) as Uint8Array);
  const parts = unzipSync(bytes);
  const name = Object.keys(parts).find((part) => /charts\/chart\d|Object[^/]*\/content\.xml/.test(part));
  const read = bench.read(bytes, `other.${format}`).deck;
  return { element: must(read.slides[0]?.elements[0]), xml: name ? strFromU8(must(parts[name])) : "" };
}

describe.each(FORMATS)("charts and tables in .%s", (format) => {
  it.each(["column", "bar", "line", "scatter"] as const)(
    "runs a %s chart of an Arabic deck from right to left, and reads it as one",
    (type) => {
      const deck = deckWith(chart({ type }), "ar");
      const { element, xml } = through(deck, format);
      const reversed = format === "pptx" ? /orientation val="maxMin"/ : /reverse-direction="true"/;
      expect(xml).toMatch(reversed);
      expect(xml).toMatch(format === "pptx" ? /legendPos val="l"/ : /legend-position="start"/);
      expect(element).toMatchObject({ kind: "chart", type, legend: "right" });
      expect(isMirrored(element as ChartElement, "ar")).toBe(true);
      expect((element as ChartElement).xAxis?.reversed).toBeUndefined();
    },
  );

  it("keeps a chart that runs from left to right in an Arabic deck, and one whose own order is reversed", () => {
    const fromLeft = through(deckWith(chart({ direction: "ltr" }), "ar"), format).element as ChartElement;
    expect(fromLeft).toMatchObject({ direction: "ltr", legend: "right" });
    const reversed = through(deckWith(chart({ xAxis: { reversed: true } }), "en"), format).element as ChartElement;
    expect(reversed.xAxis?.reversed).toBe(true);
    expect(reversed.direction).toBeUndefined();
  });

  it("writes the columns of a table of an Arabic deck from right to left", () => {
    const text = (words: string) => ({ text: [{ kind: "plain" as const, level: 0, runs: [{ text: words }] }] });
    const table: Element = {
      kind: "table",
      id: "t",
      slot: null,
      frame,
      rows: [
        [text("أ"), text("ب")],
        [text("1"), text("2")],
      ],
      header: 1,
      align: ["start", "start"],
    };
    expect(through(deckWith(table, "ar"), format).element).toMatchObject({ kind: "table", direction: "rtl" });
    expect(through(deckWith(table, "en"), format).element).not.toHaveProperty("direction");
  });
});
