import { Failure } from "./failure";

/**
 * Limits on what one file or text may become. Larger input is refused while it is read, before it exhausts the
 * machine's memory.
 */
export const MOST = {
  /** Nesting levels of quotations, lists and containers. */
  nesting: 50,
  /** Cells of one table, including those that short rows leave empty. */
  cells: 100_000,
  /** Columns of one table. */
  columns: 2_000,
  /** Blocks of a document: headings, paragraphs, items, tables, pictures. */
  blocks: 200_000,
  /** Slides of one file. */
  slides: 20_000,
  /** Elements on all slides of one file. */
  elements: 500_000,
  /** Elements of one part of a file in XML. */
  nodes: 2_000_000,
  /** Characters of one part of a file in XML. */
  partCharacters: 200_000_000,
  /** Cells of one sheet of a workbook. */
  sheetCells: 10_000_000,
  /** Characters of the cells of a workbook in XML: more than of other parts, as each number comes with its frame. */
  sheetCharacters: 400_000_000,
  /** Pixels of one picture. */
  pixels: 64_000_000,
} as const;

const WORDS: Record<keyof typeof MOST, string> = {
  nesting: "levels inside each other",
  cells: "cells in one table",
  columns: "columns in one table",
  blocks: "paragraphs",
  slides: "slides",
  elements: "elements on its slides",
  nodes: "elements in one part",
  partCharacters: "characters in one part",
  sheetCells: "cells in one sheet",
  sheetCharacters: "characters in one sheet",
  pixels: "pixels in one picture",
};

/** Refuses a count above its limit. Throws a Failure `too-large` that names the limit. */
export function within(kind: keyof typeof MOST, count: number, where: string): void {
  if (count > MOST[kind])
    throw new Failure(
      "too-large",
      where,
      `This has more than ${MOST[kind].toLocaleString("en")} ${WORDS[kind]}, the most that is taken. Divide it, and bring in the parts.`,
    );
}
