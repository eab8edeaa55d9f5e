import { formulaShape } from "@unitext/core/figures";
import { type Paragraph, type Run, type RunProperties, must } from "@unitext/core/model";
import bidiFactory from "bidi-js";
import { type FontSet, faceFor, type ShapedWord } from "./fonts";
import { symbolsAsText } from "./symbols";
import { lineBreaks } from "./linebreaking";
import { type Style, type Piece, type Tabs, type ShapedParagraph, SPACE } from "./shapedparagraph";

const bidi = bidiFactory();

/**
 * Characters that can cause right-to-left order: Hebrew, Arabic, Syriac, Thaana and their presentation forms, and the
 * explicit bidi controls.
 */
const RTL = /[\u0590-\u08FF\u200F\u202A-\u202E\u2066-\u2069\uFB1D-\uFDFF\uFE70-\uFEFF]|[\uD802-\uD803\uD83A-\uD83B]/;

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
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text, direction);
  return { levels, base: ((paragraphs[0]?.level ?? 0) % 2) as 0 | 1 };
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

/**
 * Itemises a paragraph by style, direction and face, shapes it word by word and finds its line breaks (UAX #14). Tabs
 * lead to the given stops, as far as their line has not been broken before; without stops each tab is a space. Without
 * a direction the text decides.
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
  /** Where the line being filled starts: the width before it, and its position in the box. */
  let line = { from: 0, at: tabs?.first ?? 0 };
  /** The tab whose width depends on the text after it. */
  let open: { piece: Piece; room: number; align: Tabs["stops"][number]["align"] } | undefined;
  /**
   * Sets the width of the open tab: the text since then ends at its stop, is centred there, or has its decimal sign
   * there.
   */
  const settle = (end: number): void => {
    if (!open) return;
    const { piece, room, align } = open;
    open = undefined;
    const since = width - (upTo[piece.end] ?? 0);
    const sign = align === "decimal" ? DECIMAL.exec(text.slice(piece.end, end))?.index : undefined;
    const before =
      align === "centre"
        ? since / 2
        : sign === undefined
          ? since
          : (upTo[piece.end + sign] ?? 0) - (upTo[piece.end] ?? 0);
    const wide = Math.max(0, room - before);
    piece.word = placeholderWord(wide / piece.style.scale);
    for (let index = piece.end; index <= end; index++) upTo[index] = (upTo[index] ?? 0) + wide;
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
        level: levels ? (levels[start] ?? 0) : 0,
        space: false,
        word,
      });
      at = end;
    }
    while (at < end) {
      const from = at;
      const level = levels ? (levels[at] ?? 0) : 0;
      const code = must(text.codePointAt(at));
      const space = SPACE.test(must(text[at]));
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
        upTo[from + index] = width + (word.upTo[index] ?? 0) * style.scale;
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
  face: string,
): number {
  let at = from;
  while (at < end && (!levels || levels[at] === level)) {
    const unit = text.charCodeAt(at);
    if (unit === 0x20 || SPACE.test(must(text[at]))) break;
    if (unit > 0x7f || !ascii(style, face)) {
      const code = must(text.codePointAt(at));
      if (!MARK.test(String.fromCodePoint(code)) && faceFor(style.family, code, style.bold, style.italic).id !== face)
        break;
      at += code > 0xffff ? 2 : 1;
    } else at++;
  }
  return at;
}

/** Whether the face is the style's face for all of ASCII, so that such characters need no look-up. */
const asciiFaces = new WeakMap<Style, string>();

function ascii(style: Style, face: string): boolean {
  let own = asciiFaces.get(style);
  if (own === undefined) asciiFaces.set(style, (own = faceFor(style.family, 0x61, style.bold, style.italic).id));
  return own === face;
}
