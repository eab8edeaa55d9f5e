import { Failure } from "./failure";

/** How much one file or text may become. What goes beyond is refused while it is read, before it takes the memory of the machine. */
export const MOST = {
  /** Levels of quotations, lists and containers inside each other. */
  nesting: 50,
  /** Cells of one table, places that short rows leave empty included. */
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
  pixels: "pixels in one picture",
};

/** Refuses what has more of something than is taken. Throws a Failure `too-large` that says how much is taken. */
export function within(kind: keyof typeof MOST, count: number, where: string): void {
  if (count > MOST[kind])
    throw new Failure(
      "too-large",
      where,
      `This has more than ${MOST[kind].toLocaleString("en")} ${WORDS[kind]}, the most that is taken. Divide it, and bring in the parts.`,
    );
}
