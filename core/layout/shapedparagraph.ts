import type { CodeTone, FormulaShape } from "@unitext/core/figures";
import type { RunProperties } from "@unitext/core/model";
import type { Family, ShapedWord } from "./fonts";

/** How the characters of a run look. `scale` multiplies the paragraph's size (code is a little smaller). */
export interface Style {
  family: Family;
  bold: boolean;
  italic: boolean;
  strike: boolean;
  link: string | undefined;
  code: boolean;
  scale: number;
  /** How far it is raised above the baseline, in em of the paragraph's size. */
  rise?: number;
  /** Its colour, where it differs from the text around it. */
  tone?: CodeTone;
  /** The colour of the characters and of their highlight, where the text sets one. */
  fill?: string;
  highlight?: string;
  underline?: NonNullable<RunProperties["underline"]>;
  /** Drawn as capitals; with `small`, those typed in lower case are smaller. */
  caps?: "all" | "small";
  /** The language, where it is another one than that of the deck. */
  language?: string;
  /** Space after each glyph, in em of its own size. */
  spacing?: number;
  /** Set as a formula: a piece that is never broken. */
  formula?: FormulaShape;
}

/** A shaped word or run of spaces of a paragraph; `start` and `end` are UTF-16 indices into its text. */
export interface Piece {
  start: number;
  end: number;
  face: string;
  style: Style;
  level: number;
  space: boolean;
  /** The natural line height of its face, in em of its own size. */
  line: number;
  /** Space up to a tab stop, in which nothing is drawn. */
  tab?: boolean;
  word: ShapedWord;
}

/**
 * Where tabs lead, in em from the left edge of the text box: stops in order, then one after every step; `first` and
 * `rest` are where lines start.
 */
export interface Tabs {
  stops: readonly { at: number; align: "start" | "end" | "centre" | "decimal" }[];
  step: number;
  first: number;
  rest: number;
}

/** A paragraph ready to be broken at any size: widths are in em of the paragraph's size. */
export interface ShapedParagraph {
  text: string;
  pieces: Piece[];
  /** The width up to each UTF-16 index; its length is that of the text plus one. */
  upTo: Float32Array;
  /**
   * Line breaks in order: the index after the break, the index where the visible text ends, and whether the break is
   * required.
   */
  breaks: { at: number; visible: number; required: boolean }[];
  base: 0 | 1;
  /** Where words may be divided by a hyphen of this width, in em, and the word that draws it; undefined for text that is not divided. */
  hyphens?: { at: readonly number[]; width: number; word: ShapedWord; face: string };
}

export const SPACE = /[ \t\n\u00A0\u2000-\u200B\u3000]/;
