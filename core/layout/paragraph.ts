import { formulaShape } from "@unitext/core/figures";
import {
  type Direction,
  directionOf,
  languageDirection,
  must,
  type Paragraph,
  type ParagraphProperties,
  paragraphText,
  type Run,
  type RunProperties,
} from "@unitext/core/model";
import bidiFactory from "bidi-js";
import { type Family, type FontSet, faceFor, familyForWord, type ShapedWord } from "./fonts";
import { hyphenations } from "./hyphenation";
import { symbolsAsText } from "./symbols";
import { lineBreaks } from "./linebreaking";
import { type Style, type Piece, type Tabs, type ShapedParagraph, SPACE } from "./shapedparagraph";

const bidi = bidiFactory();

/**
 * Characters that can cause right-to-left order: Hebrew, Arabic, Syriac, Thaana and their presentation forms, and the
 * explicit bidi controls.
 */
const RTL = /[\u0590-\u08FF\u200F\u202A-\u202E\u2066-\u2069\uFB1D-\uFDFF\uFE70-\uFEFF]|[\uD802-\uD803\uD83A-\uD83B]/;

const HYPHEN = 0x2d;
/** Hebrew and Arabic letters with their marks, spaces and punctuation, but no numbers. */
const ONLY_RTL =
  /^[\u05B0-\u05EA\u0620-\u065F\u0670-\u06D3\u0750-\u077F .,:;!?…\u060C\u061B\u061F«»"'()\u2018-\u201D\u2013\u2014-]+$/;
const MARK = /\p{M}|[\u200C\u200D\uFE00-\uFE0F]/u;

/** Stands in the text for an inline object: U+FFFC, before and after which UAX #14 allows breaks. */
const OBJECT = "\uFFFC";

export type StyleOf = (marks: readonly string[], link: string | undefined, look?: RunProperties) => Style;

/** Returns a text in capitals where that keeps its length. */
export function capitals(text: string): string {
  return Array.from(text, (letter) =>
    letter.toUpperCase().length === letter.length ? letter.toUpperCase() : letter,
  ).join("");
}

/** The size of small capitals relative to capitals (common practice, no source). */
const SMALL_CAPS = 0.8;

export const smaller = new WeakMap<Style, Style>();

/** Returns a text in small capitals as pieces: what was typed in lower case is smaller. */
function smallCapitals(text: string, style: Style): { text: string; style: Style }[] {
  const small = smaller.get(style) ?? { ...style, scale: style.scale * SMALL_CAPS };
  smaller.set(style, small);
  return (text.match(/\p{Ll}+|[^\p{Ll}]+/gu) ?? []).map((part) => ({
    text: capitals(part),
    style: /^\p{Ll}/u.test(part) ? small : style,
  }));
}

/** Returns a word with space after each of its glyphs. */
function spaced(word: ShapedWord, spacing: number): ShapedWord {
  const advances = word.advances.map((advance) => advance + spacing);
  const count = (index: number) => word.clusters.reduce((sum, cluster) => sum + (cluster < index ? 1 : 0), 0);
  const upTo = word.upTo.map((value, index) => value + count(index) * spacing);
  return { ...word, advances, upTo, width: word.width + word.glyphs.length * spacing };
}

function styled(paragraph: Paragraph, styleOf: StyleOf): { text: string; spans: { end: number; style: Style }[] } {
  let text = "";
  const spans = paragraph.runs.flatMap((run: Run) => {
    const shape = run.marks?.includes("formula") ? formulaShape(run.text, false) : undefined;
    if (shape && !("problem" in shape)) {
      text += OBJECT;
      return [{ end: text.length, style: { ...styleOf([], run.link), formula: shape } }];
    }
    const style = styleOf(run.marks ?? [], run.link, run.properties);
    const words = symbolsAsText(run.text, run.properties?.font);
    const parts =
      style.caps === "small" ? smallCapitals(words, style) : [{ text: style.caps ? capitals(words) : words, style }];
    return parts.map((part) => {
      text += part.text;
      return { end: text.length, style: part.style };
    });
  });
  return { text, spans };
}

/** Returns a word without glyphs, as space for an inline object. */
function placeholderWord(wide: number): ShapedWord {
  return {
    glyphs: new Uint16Array(),
    advances: new Float32Array(),
    offsets: null,
    clusters: new Uint16Array(),
    upTo: Float32Array.of(0, wide),
    width: wide,
  };
}

/** Returns the embedding levels of UAX #9; null for a text that is left to right throughout. */
export function bidiLevels(text: string, direction?: "ltr" | "rtl"): { levels: Uint8Array | null; base: 0 | 1 } {
  if (!RTL.test(text) && direction !== "rtl") return { levels: null, base: 0 };
  // Between letters of one direction, spaces and marks take it too (UAX #9, N1 and N2): there is nothing to order.
  if (direction !== "ltr" && ONLY_RTL.test(text)) return { levels: new Uint8Array(text.length).fill(1), base: 1 };
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text, direction);
  return { levels, base: ((paragraphs[0]?.level ?? 0) % 2) as 0 | 1 };
}

/**
 * Returns the direction of a paragraph as far as it does not follow from its text: what it or its level sets, else that
 * of the language. Text in the style of a file has only the former.
 */
export function paragraphDirection(
  { properties }: Paragraph,
  { level, language, styled }: { level?: ParagraphProperties | undefined; language: string; styled: boolean },
): Direction | undefined {
  const set = directionOf(properties, level);
  if (set || styled) return set;
  return languageDirection(language) === "rtl" ? "rtl" : undefined;
}

/** Whether a paragraph is read from right to left. */
export function isRightToLeft(paragraph: Paragraph, context: Parameters<typeof paragraphDirection>[1]): boolean {
  return bidiLevels(paragraphText(paragraph), paragraphDirection(paragraph, context)).base === 1;
}

/** The space on both sides of a formula together, in em. */
const FORMULA_GAP = 0.1;

/** Returns the stop that a tab at a position of its line leads to. */
function nextStop(at: number, { stops, step }: Tabs): Tabs["stops"][number] {
  return stops.find((stop) => stop.at > at + 1e-3) ?? { at: (Math.floor(at / step + 1e-3) + 1) * step, align: "start" };
}

/**
 * A decimal sign: the text before it ends at the stop; a number without one ends there as a whole (common practice, no
 * source).
 */
const DECIMAL = /[.,](?=\d)/;

/** Whether the character at an index is a space. Letters are ruled out before the list of spaces is searched. */
function isSpaceAt(text: string, at: number): boolean {
  const unit = text.charCodeAt(at);
  return (unit <= 0x20 || unit === 0xa0 || (unit >= 0x2000 && unit <= 0x3000)) && SPACE.test(must(text[at]));
}

/** Shapes one paragraph piece by piece, and keeps the width of the text up to each character. */
class ParagraphShaper {
  readonly pieces: Piece[] = [];
  /** The width of the text before each index, in em. */
  readonly upTo: Float32Array;
  private width = 0;
  /** The language of the span being shaped. */
  private language: string;
  /** Where the line being filled starts: the width before it, and its position in the box. */
  private line: { from: number; at: number };
  /** The tab whose width depends on the text after it. */
  private open: { piece: Piece; room: number; align: Tabs["stops"][number]["align"] } | undefined;

  constructor(
    private readonly text: string,
    private readonly levels: Uint8Array | null,
    private readonly fonts: FontSet,
    private readonly usual: string,
    private readonly tabs: Tabs | undefined,
  ) {
    this.upTo = new Float32Array(text.length + 1);
    this.line = { from: 0, at: tabs?.first ?? 0 };
    this.language = usual;
  }

  /** Shapes the text between two indices in one style. */
  span(start: number, end: number, style: Style): void {
    this.language = style.language ?? this.usual;
    if (style.formula) {
      this.formula(start, end, style, style.formula.width);
      return;
    }
    const { text } = this;
    let face = "";
    const spaces = familyForWord(style.family, "", this.language);
    let family = spaces;
    let wordEnd = start;
    for (let at = start; at < end; ) {
      const code = must(text.codePointAt(at));
      const isSpace = isSpaceAt(text, at);
      if (at >= wordEnd && !isSpace) {
        wordEnd = at + 1;
        while (wordEnd < end && !isSpaceAt(text, wordEnd)) wordEnd++;
        family = familyForWord(style.family, text.slice(at, wordEnd), this.language);
      }
      if (!(MARK.test(String.fromCodePoint(code)) && face))
        face = faceFor(isSpace ? spaces : family, isSpace ? 0x20 : code, style.bold, style.italic, this.language).id;
      const next = at + (code > 0xffff ? 2 : 1);
      if (this.tabs && text[at] === "\t") {
        this.tab(at, face, style, this.tabs);
        at = next;
      } else at = this.word(at, next, end, face, style, family, isSpace);
    }
  }

  /** Returns where words may be divided, and the hyphen in the face of the text; undefined where no word may. */
  hyphens(): ShapedParagraph["hyphens"] {
    const piece = this.pieces.find(({ space }) => !space);
    const at = hyphenations(this.text, this.usual);
    if (!piece || !at.length) return undefined;
    const { style } = piece;
    const face = faceFor(style.family, HYPHEN, style.bold, style.italic, this.usual).id;
    const word = this.fonts.face(face).word("-", false, this.usual);
    return { at, width: word.width * style.scale, word, face };
  }

  /** Sets the width of the last tab. */
  finish(): void {
    this.settle(this.text.length);
  }

  private levelAt(index: number): number {
    return this.levels?.[index] ?? 0;
  }

  private formula(start: number, end: number, style: Style, width: number): void {
    const word = placeholderWord(width + FORMULA_GAP);
    this.width += word.width;
    this.upTo[end] = this.width;
    const face = faceFor(style.family, 0x20, false, false, this.language).id;
    const line = this.fonts.face(face).metrics.line;
    this.pieces.push({ start, end, face, line, style, level: this.levelAt(start), space: false, word });
  }

  private tab(start: number, face: string, style: Style, tabs: Tabs): void {
    this.settle(start);
    const here = this.line.at + this.width - this.line.from;
    const stop = nextStop(here, tabs);
    const wide = stop.align === "start" ? stop.at - here : 0;
    this.width += wide;
    this.upTo[start + 1] = this.width;
    const piece: Piece = {
      start,
      end: start + 1,
      face,
      line: this.fonts.face(face).metrics.line,
      style,
      level: this.levelAt(start),
      space: true,
      tab: true,
      word: placeholderWord(wide / style.scale),
    };
    this.pieces.push(piece);
    if (stop.align !== "start") this.open = { piece, room: stop.at - here, align: stop.align };
  }

  /** Shapes the word or the spaces that begin at `start`. Returns the index after them. */
  private word(
    start: number,
    from: number,
    last: number,
    face: string,
    style: Style,
    family: Family,
    space: boolean,
  ): number {
    const { text, levels, tabs, upTo } = this;
    const level = this.levelAt(start);
    const end = space
      ? endOfSpace(text, from, last, levels, level, tabs !== undefined)
      : endOfWord(text, from, last, levels, level, style, family, face, this.language);
    const part = text.slice(start, end);
    const shaping = this.fonts.face(face);
    const plain = shaping.word(space ? part.replace(/[\n\t]/g, " ") : part, level % 2 === 1, this.language);
    const word = style.spacing ? spaced(plain, style.spacing) : plain;
    for (let index = 1; index <= end - start; index++)
      upTo[start + index] = this.width + (word.upTo[index] ?? 0) * style.scale;
    this.width += word.width * style.scale;
    this.pieces.push({ start, end, face, line: shaping.metrics.line, style, level, space, word });
    if (tabs && space && part.includes("\n")) {
      this.settle(end);
      this.line = { from: this.width, at: tabs.rest };
    }
    return end;
  }

  /**
   * Sets the width of the open tab: the text from there to `end` ends at its stop, is centred there, or has its decimal
   * sign there.
   */
  private settle(end: number): void {
    if (!this.open) return;
    const { piece, room, align } = this.open;
    const { upTo } = this;
    this.open = undefined;
    const start = upTo[piece.end] ?? 0;
    const since = this.width - start;
    const sign = align === "decimal" ? DECIMAL.exec(this.text.slice(piece.end, end))?.index : undefined;
    const before = align === "centre" ? since / 2 : sign === undefined ? since : (upTo[piece.end + sign] ?? 0) - start;
    const wide = Math.max(0, room - before);
    piece.word = placeholderWord(wide / piece.style.scale);
    for (let index = piece.end; index <= end; index++) upTo[index] = (upTo[index] ?? 0) + wide;
    this.width += wide;
  }
}

/**
 * Itemises a paragraph by style, direction and face, shapes it word by word and finds its line breaks (UAX #14). Tabs
 * lead to the given stops, as far as their line has not been broken before; without stops each tab is a space. Without
 * a direction (`paragraphDirection`) the text decides. Words are divided by hyphens where `divides` is true. `ordersAsFile` is false for texts of our own themes.
 */
export function shapeParagraph(
  paragraph: Paragraph,
  fonts: FontSet,
  language: string,
  styleOf: StyleOf,
  tabs?: Tabs,
  direction?: Direction,
  ordersAsFile = true,
  divides = false,
): ShapedParagraph {
  const { text, spans } = styled(paragraph, styleOf);
  const bidiText = bidiLevels(text, direction);
  const { base } = bidiText;
  // Numbers and words of another script alone keep their order, such as “4.6 m”; only their side is that of the
  // paragraph (UAX #9, section 4.3). Text from files keeps the order that the full algorithm gives.
  const levels = !ordersAsFile && !RTL.test(text) ? null : bidiText.levels;
  const shaper = new ParagraphShaper(text, levels, fonts, language, tabs);
  let start = 0;
  for (const { end, style } of spans) {
    shaper.span(start, end, style);
    start = end;
  }
  shaper.finish();
  const hyphens = divides ? shaper.hyphens() : undefined;
  return {
    text,
    pieces: shaper.pieces,
    upTo: shaper.upTo,
    breaks: lineBreaks(text, spans[0]?.style.language ?? language),
    base,
    ...(hyphens ? { hyphens } : {}),
  };
}

function endOfSpace(
  text: string,
  from: number,
  end: number,
  levels: Uint8Array | null,
  level: number,
  tabbed: boolean,
): number {
  let at = from;
  while (at < end && SPACE.test(must(text[at])) && !(tabbed && text[at] === "\t") && (!levels || levels[at] === level))
    at++;
  return at;
}

function endOfWord(
  text: string,
  from: number,
  end: number,
  levels: Uint8Array | null,
  level: number,
  style: Style,
  family: Family,
  face: string,
  language: string,
): number {
  let at = from;
  while (at < end && (!levels || levels[at] === level)) {
    const unit = text.charCodeAt(at);
    if (isSpaceAt(text, at)) break;
    if (unit > 0x7f || !ascii(style, face)) {
      const code = must(text.codePointAt(at));
      const own = faceFor(family, code, style.bold, style.italic, language).id;
      if (own !== face && !MARK.test(String.fromCodePoint(code))) break;
      at += code > 0xffff ? 2 : 1;
    } else at++;
  }
  return at;
}

/** Whether the face is the style's face for all of ASCII, so that such characters need no look-up. */
const asciiFaces = new WeakMap<Style, string>();

function ascii(style: Style, face: string): boolean {
  let own = asciiFaces.get(style);
  if (own === undefined) asciiFaces.set(style, (own = faceFor(style.family, 0x61, style.bold, style.italic, "").id));
  return own === face;
}
