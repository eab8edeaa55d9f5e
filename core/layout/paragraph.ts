import { type CodeTone, type FormulaShape, formulaShape } from "@unitext/core/figures";
import type { Paragraph, Run, RunProperties } from "@unitext/core/model";
import bidiFactory from "bidi-js";
import LineBreaker from "linebreak";
import { type Family, type FontSet, faceFor, type ShapedWord } from "./fonts";
import { symbolsAsText } from "./symbols";

const bidi = bidiFactory();
/** Characters that can bring right-to-left order: Hebrew, Arabic, Syriac, Thaana and their presentation forms, and the explicit bidi controls. */
const RTL = /[\u0590-\u08FF\u200F\u202A-\u202E\u2066-\u2069\uFB1D-\uFDFF\uFE70-\uFEFF]|[\uD802-\uD803\uD83A-\uD83B]/;
const MARK = /\p{M}|[\u200C\u200D\uFE00-\uFE0F]/u;

/** How the characters of a run look. `scale` multiplies the paragraph's size (code stands a little smaller). */
export interface Style {
  family: Family;
  bold: boolean;
  italic: boolean;
  strike: boolean;
  link: string | undefined;
  code: boolean;
  scale: number;
  /** How far above the baseline it stands, in em of the paragraph's size. */
  rise?: number;
  /** The colour, where it is not that of the text around it. */
  tone?: CodeTone;
  /** The colour of the words and of what lies behind them, where a look says so. */
  fill?: string;
  highlight?: string;
  underline?: NonNullable<RunProperties["underline"]>;
  /** Drawn as capitals; where small, those that were typed as small letters are smaller. */
  caps?: "all" | "small";
  /** Room after each glyph, in em of its own size. */
  spacing?: number;
  /** Set as a formula: one piece that is never broken. */
  formula?: FormulaShape;
}

/** A word or a stretch of spaces of a paragraph, shaped; `start` and `end` are UTF-16 indices into its text. */
export interface Piece {
  start: number;
  end: number;
  face: string;
  style: Style;
  level: number;
  space: boolean;
  /** How high a line of its face stands by itself, in em of its own size. */
  line: number;
  /** Room up to a tab stop: nothing is drawn in it. */
  tab?: boolean;
  word: ShapedWord;
}

/** Where tabs lead, in em from the left edge of the text's box: stops in order, then one after every step; `first` and `rest` are where lines begin. */
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
  /** Where a line may end, in order: the index after it, the index where its visible text ends, and whether it must. */
  breaks: { at: number; visible: number; required: boolean }[];
  base: 0 | 1;
}

const SPACE = /[ \t\n\u00A0\u2000-\u200B\u3000]/;

/** Stands in the text for what is drawn in one piece: U+FFFC, which UAX #14 lets lines break before and after. */
const OBJECT = "\uFFFC";
export type StyleOf = (marks: readonly string[], link: string | undefined, look?: RunProperties) => Style;

/** Capital letters, where they are as many as the small ones. */
function capitals(text: string): string {
  return Array.from(text, (letter) =>
    letter.toUpperCase().length === letter.length ? letter.toUpperCase() : letter,
  ).join("");
}

/** How large small capitals are against the others (common practice, no source). */
const SMALL_CAPS = 0.8;
const smaller = new WeakMap<Style, Style>();
/** A text in small capitals as stretches: what was typed in small letters is smaller. */
function smallCapitals(text: string, style: Style): { text: string; style: Style }[] {
  const small = smaller.get(style) ?? { ...style, scale: style.scale * SMALL_CAPS };
  smaller.set(style, small);
  return (text.match(/\p{Ll}+|[^\p{Ll}]+/gu) ?? []).map((part) => ({
    text: capitals(part),
    style: /^\p{Ll}/u.test(part) ? small : style,
  }));
}

/** A word with room after each of its glyphs. */
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

/** A word without glyphs: room in which something else is drawn, or nothing. */
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

/** The embedding levels of UAX #9, or null for a text that is left to right throughout. */
export function bidiLevels(text: string, direction?: "ltr" | "rtl"): { levels: Uint8Array | null; base: 0 | 1 } {
  if (!RTL.test(text) && direction !== "rtl") return { levels: null, base: 0 };
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text, direction);
  return { levels, base: ((paragraphs[0]?.level ?? 0) % 2) as 0 | 1 };
}

/** A hair of room on both sides of a formula together, in em. */
const FORMULA_GAP = 0.1;

/** The stop that a tab at a place in its line leads to. */
function nextStop(at: number, { stops, step }: Tabs): Tabs["stops"][number] {
  return stops.find((stop) => stop.at > at + 1e-3) ?? { at: (Math.floor(at / step + 1e-3) + 1) * step, align: "start" };
}
/** A decimal sign: what stands before it ends at its stop, a number without one as a whole (common practice, no source). */
const DECIMAL = /[.,](?=\d)/;

/**
 * Itemises a paragraph by style, direction and face, shapes it word by word and finds its line breaks (UAX #14). Tabs
 * lead to the stops given, as far as their line has not been broken before; without them each is a space. Without a
 * direction its words decide.
 */
export function shapeParagraph(
  paragraph: Paragraph,
  fonts: FontSet,
  language: string,
  styleOf: StyleOf,
  tabs?: Tabs,
  direction = paragraph.properties?.direction,
): ShapedParagraph {
  const { text, spans } = styled(paragraph, styleOf);
  const { levels, base } = bidiLevels(text, direction);
  const pieces: Piece[] = [];
  const upTo = new Float32Array(text.length + 1);
  let start = 0;
  let width = 0;
  /** Where the line begins that is being filled: the width before it, and its place in the box. */
  let line = { from: 0, at: tabs?.first ?? 0 };
  /** The tab whose reach hangs on what comes after it. */
  let open: { piece: Piece; room: number; align: Tabs["stops"][number]["align"] } | undefined;
  /** Gives the open tab its reach: what has come since it ends at its stop, or has its middle or its decimal sign there. */
  const settle = (end: number): void => {
    if (!open) return;
    const { piece, room, align } = open;
    open = undefined;
    const since = width - (upTo[piece.end] as number);
    const sign = align === "decimal" ? DECIMAL.exec(text.slice(piece.end, end))?.index : undefined;
    const before =
      align === "centre"
        ? since / 2
        : sign === undefined
          ? since
          : (upTo[piece.end + sign] as number) - (upTo[piece.end] as number);
    const wide = Math.max(0, room - before);
    piece.word = placeholderWord(wide / piece.style.scale);
    for (let index = piece.end; index <= end; index++) upTo[index] = (upTo[index] as number) + wide;
    width += wide;
  };
  for (const { end, style } of spans) {
    let at = start;
    let face = "";
    if (style.formula) {
      const word = placeholderWord(style.formula.width + FORMULA_GAP);
      width += word.width;
      upTo[end] = width;
      const around = faceFor(style.family, 0x20, false, false).id;
      pieces.push({
        start,
        end,
        face: around,
        line: fonts.face(around).metrics.line,
        style,
        level: levels ? (levels[start] as number) : 0,
        space: false,
        word,
      });
      at = end;
    }
    while (at < end) {
      const from = at;
      const level = levels ? (levels[at] as number) : 0;
      const code = text.codePointAt(at) as number;
      const space = SPACE.test(text[at] as string);
      if (!(MARK.test(String.fromCodePoint(code)) && face))
        face = faceFor(style.family, space ? 0x20 : code, style.bold, style.italic).id;
      at += code > 0xffff ? 2 : 1;
      if (tabs && text[from] === "\t") {
        settle(from);
        const here = line.at + width - line.from;
        const stop = nextStop(here, tabs);
        const wide = stop.align === "start" ? stop.at - here : 0;
        width += wide;
        upTo[at] = width;
        const piece: Piece = {
          start: from,
          end: at,
          face,
          line: fonts.face(face).metrics.line,
          style,
          level,
          space,
          tab: true,
          word: placeholderWord(wide / style.scale),
        };
        pieces.push(piece);
        if (stop.align !== "start") open = { piece, room: stop.at - here, align: stop.align };
        continue;
      }
      at = space
        ? endOfSpace(text, at, end, levels, level, tabs !== undefined)
        : endOfWord(text, at, end, levels, level, style, face);
      const shown = space ? text.slice(from, at).replace(/[\n\t]/g, " ") : text.slice(from, at);
      const shaping = fonts.face(face);
      const plain = shaping.word(shown, level % 2 === 1, language);
      const word = style.spacing ? spaced(plain, style.spacing) : plain;
      for (let index = 1; index <= at - from; index++)
        upTo[from + index] = width + (word.upTo[index] as number) * style.scale;
      width += word.width * style.scale;
      pieces.push({ start: from, end: at, face, line: shaping.metrics.line, style, level, space, word });
      if (tabs && space && text.slice(from, at).includes("\n")) {
        settle(at);
        line = { from: width, at: tabs.rest };
      }
    }
    start = end;
  }
  settle(text.length);
  return { text, pieces, upTo, breaks: lineBreaks(text), base };
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
  while (
    at < end &&
    SPACE.test(text[at] as string) &&
    !(tabbed && text[at] === "\t") &&
    (!levels || levels[at] === level)
  )
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
  face: string,
): number {
  let at = from;
  while (at < end && (!levels || levels[at] === level)) {
    const unit = text.charCodeAt(at);
    if (unit === 0x20 || SPACE.test(text[at] as string)) break;
    if (unit > 0x7f || !ascii(style, face)) {
      const code = text.codePointAt(at) as number;
      if (!MARK.test(String.fromCodePoint(code)) && faceFor(style.family, code, style.bold, style.italic).id !== face)
        break;
      at += code > 0xffff ? 2 : 1;
    } else at++;
  }
  return at;
}

/** Whether the face is the one that the style takes for all of ASCII, so that no look-up is needed for such characters. */
const asciiFaces = new WeakMap<Style, string>();
function ascii(style: Style, face: string): boolean {
  let own = asciiFaces.get(style);
  if (own === undefined) asciiFaces.set(style, (own = faceFor(style.family, 0x61, style.bold, style.italic).id));
  return own === face;
}

/** Where lines may break by UAX #14, and how far a line that ends there is seen. */
export function lineBreaks(text: string): ShapedParagraph["breaks"] {
  const breaks: ShapedParagraph["breaks"] = [];
  if (text === "") return breaks;
  const breaker = new LineBreaker(text);
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    let visible = next.position;
    while (visible > 0 && SPACE.test(text[visible - 1] as string) && text[visible - 1] !== "\u00A0") visible--;
    breaks.push({ at: next.position, visible, required: next.required === true && text[next.position - 1] === "\n" });
  }
  if (breaks.at(-1)?.at !== text.length) breaks.push({ at: text.length, visible: text.length, required: false });
  if (text.endsWith("\n")) breaks.push({ at: text.length, visible: text.length, required: false });
  return breaks;
}

/** A line as a range of the paragraph's text; `visible` leaves out the spaces at its end. */
export interface LineRange {
  start: number;
  end: number;
  visible: number;
}

/**
 * Breaks a paragraph into lines no wider than `width` em, first fit: a line takes as many break opportunities as it
 * can. A stretch without an opportunity that is wider than the line is broken between characters, so nothing runs out
 * at the side. The first line begins `first` em further in.
 */
export function breakLines(paragraph: ShapedParagraph, width: number, first = 0): LineRange[] {
  const { breaks, upTo, text } = paragraph;
  const lines: LineRange[] = [];
  let start = 0;
  let last: LineRange | undefined;
  const room = width + 1e-4;
  for (const next of breaks) {
    const fits = () =>
      (upTo[next.visible] as number) - (upTo[start] as number) <= (first && start === 0 ? room - first : room);
    if (!fits() && last) {
      lines.push(last);
      start = last.end;
      last = undefined;
    }
    while (!fits()) {
      let end = start + 1;
      while (end < next.visible && (upTo[end + 1] as number) - (upTo[start] as number) <= room) end++;
      while (end < text.length && /[\uDC00-\uDFFF]/.test(text[end] as string)) end++;
      if (end >= next.visible) break;
      lines.push({ start, end, visible: end });
      start = end;
    }
    last = { start, end: next.at, visible: Math.max(start, next.visible) };
    if (next.required) {
      lines.push(last);
      start = next.at;
      last = undefined;
    }
  }
  if (last) lines.push(last);
  return lines.length ? lines : [{ start: 0, end: 0, visible: 0 }];
}

/** Rule L2 of UAX #9: the items of a line in visual order, from their levels. */
export function visualOrder<T extends { level: number }>(items: readonly T[]): T[] {
  const ordered = [...items];
  const highest = Math.max(0, ...ordered.map((item) => item.level));
  const odd = ordered.filter((item) => item.level % 2 === 1).map((item) => item.level);
  const lowest = odd.length ? Math.min(...odd) : highest + 1;
  for (let level = highest; level >= lowest; level--) {
    let at = 0;
    while (at < ordered.length) {
      if ((ordered[at] as T).level < level) {
        at++;
        continue;
      }
      let end = at;
      while (end < ordered.length && (ordered[end] as T).level >= level) end++;
      ordered.splice(at, end - at, ...ordered.slice(at, end).reverse());
      at = end;
    }
  }
  return ordered;
}
