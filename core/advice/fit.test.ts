import { overflowOf, type SlideContext } from "@unitext/core/layout";
import { type Element, emptyDeck, metadataOf, must, newSlide, run, type Slide, textOf } from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { fitOf } from "./index";

const context: SlideContext = { metadata: metadataOf(emptyDeck("d", "Deck")), number: 1, fonts: shippedFonts() };
const paragraph = (text: string) => ({ kind: "bullet" as const, level: 0, runs: [run(text)] });
const WORDS = "The highest water of the quarter came in the night after the storm had turned to the north";
const slideWith = (...elements: Element[]): Slide => ({ ...newSlide("s", "points"), elements });
const title: Element = { kind: "text", id: "t", slot: "title", text: [{ ...paragraph("Levels"), kind: "plain" }] };
const body = (count: number): Element => ({
  kind: "text",
  id: "b",
  slot: "body",
  text: Array.from({ length: count }, (_, nth) => paragraph(`${nth + 1}. ${WORDS}`)),
});
const wordsOf = ({ elements }: Slide) =>
  elements.flatMap((one) => (one.kind === "text" && one.slot === "body" ? one.text.map((each) => textOf([each])) : []));
const kinds = (slide: Slide) => fitOf(slide, context, idSource()).remedies.map(({ kind }) => kind);

describe("how a translated slide fits", () => {
  it("says nothing about a slide that fits", () => {
    expect(fitOf(slideWith(title, body(3)), context, idSource())).toEqual({ overflow: 0, misfits: [], remedies: [] });
  });

  it("names the text that does not fit, and how much shorter it has to be", () => {
    const slide = slideWith(title, body(14));
    const { overflow, misfits } = fitOf(slide, context, idSource());
    expect(overflow).toBeGreaterThan(0);
    const [misfit] = misfits;
    expect(misfits).toHaveLength(1);
    expect(must(misfit)).toMatchObject({ element: "b", overflow });
    const all = 14 * (WORDS.length + 3);
    expect(must(misfit).characters).toBeGreaterThan(0);
    expect(must(misfit).characters).toBeLessThan(all / 2);
  });

  it("proposes only what makes the slide fit, and loses no word by it", () => {
    const slide = slideWith(title, body(14));
    const { remedies } = fitOf(slide, context, idSource());
    expect(remedies.map(({ kind }) => kind)).toEqual(["smaller", "continue"]);
    for (const { slides } of remedies) {
      for (const one of slides) expect(overflowOf(one, context)).toBe(0);
      expect(slides.flatMap(wordsOf)).toEqual(wordsOf(slide));
    }
  });

  it("continues a long table below its header, and leaves a linked one whole", () => {
    const cell = (text: string) => ({ text: [{ kind: "plain" as const, level: 0, runs: [run(text)] }] });
    const rows = [["Month", "Level"], ...Array.from({ length: 28 }, (_, nth) => [`Month ${nth}`, `${nth}`])];
    const table: Element = {
      kind: "table",
      id: "b",
      slot: "body",
      rows: rows.map((row) => row.map(cell)),
      header: 1,
      align: ["start", "end"],
    };
    const divided = fitOf(slideWith(title, table), context, idSource()).remedies.find(
      ({ kind }) => kind === "continue",
    );
    const tables = must(divided).slides.map(({ elements }) => elements.find(({ kind }) => kind === "table"));
    expect(tables.map((one) => one?.kind === "table" && textOf(must(must(one.rows[0])[0]).text))).toEqual([
      "Month",
      "Month",
    ]);
    expect(tables.reduce((sum, one) => sum + (one?.kind === "table" ? one.rows.length : 0), 0)).toBe(rows.length + 1);
    const binding = { source: "levels.xlsx", range: "Levels!A1:B29", use: "table", mode: "latest" } as never;
    expect(kinds(slideWith(title, { ...table, binding }))).not.toContain("continue");
  });
});
