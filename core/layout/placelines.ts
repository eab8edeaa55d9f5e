import type { CodeTone } from "@unitext/core/figures";
import { type SlotRole, type Theme, type ThemeColours, must } from "@unitext/core/model";
import { FAMILIES, familyNamed } from "./fonts";
import type { ShapedParagraph, Piece, Style } from "./shapedparagraph";
import { type LineRange, visualOrder } from "./linebreaking";
import { roleColour } from "./roleproperties";
import type { PlacedWord, SceneLine, SceneRun } from "./scene";
import { LINE_HEIGHT, PARAGRAPH_GAP, type SlotPlace } from "./slots";
import { type TextContext, HEADING, type ParagraphLayout } from "./textstyle";

/** A broken text: the range of each line, and the height of all lines in points. */
export interface Broken {
  lines: { block: number; range: LineRange }[];
  height: number;
}

/** Returns the height of a line of text with own properties, and the size of its largest letters, in em. */
export function lineOf(
  { shaped, metrics }: ParagraphLayout,
  { start, visible }: LineRange,
): { height: number; letters: number } {
  if (!metrics) return { height: 0, letters: 1 };
  let [most, letters] = [0, 0];
  for (const piece of shaped.pieces) {
    if (piece.start >= visible || piece.end <= start) continue;
    const size = piece.style.scale / (piece.style.rise ? 0.66 : 1);
    if (size * piece.line > most) [most, letters] = [size * piece.line, size];
  }
  // A line without words is as high as words would be.
  if (!most) [most, letters] = [metrics.blank * metrics.least, metrics.least];
  return { height: metrics.exact || most * metrics.times, letters };
}

/**
 * Returns the edges of a paragraph in points at a size: left and right of its lines, the indent of the first line, and
 * the position of its bullet.
 */
export function edgesOf(
  { indent, hang, marker, metrics }: ParagraphLayout,
  size: number,
): { left: number; right: number; first: number; sign: number } {
  const em = metrics?.em ?? size;
  const first = (metrics?.first ?? 0) * em;
  const edges = {
    left: indent * em,
    right: (metrics?.right ?? 0) * em,
    first: marker ? 0 : first,
    sign: hang * em - Math.max(0, first),
  };
  // A bullet that is wider than its space is followed by the text at once (common practice, no source).
  return marker && metrics ? { ...edges, first: Math.max(0, (marker.upTo.at(-1) ?? 0) * size - edges.sign) } : edges;
}

/** Returns lines with their runs positioned on the page, and the bullets before items. */
export function placeLines(
  blocks: readonly ParagraphLayout[],
  broken: Broken,
  size: number,
  top: number,
  { frame, role }: SlotPlace,
  { fonts, theme, fill, style }: TextContext,
): SceneLine[] {
  const family = familyNamed(HEADING.has(role) ? theme.fonts.heading : theme.fonts.body);
  const usual = fonts.face(must((family.faces[0] ?? FAMILIES[0]?.faces[0])?.id)).metrics;
  const lines: SceneLine[] = [];
  let y = top;
  let before = -1;
  for (const { block: index, range } of broken.lines) {
    const block = must(blocks[index]);
    const { metrics } = block;
    const first = index !== before;
    if (first && before >= 0)
      y += (metrics ? (must(blocks[before]).metrics?.after ?? 0) + metrics.before : PARAGRAPH_GAP[role]) * size;
    const line = metrics ? lineOf(block, range) : { height: LINE_HEIGHT[role], letters: 1 };
    const lineHeight = line.height * size;
    const { ascent, descent } = metrics
      ? block.shaped.pieces[0]
        ? fonts.face(block.shaped.pieces[0].face).metrics
        : usual
      : usual;
    const letters = line.letters * size;
    const rise = metrics
      ? Math.min(
          lineHeight,
          (lineHeight - (ascent + descent) * letters) * (metrics.times < 1 ? 1 : 0.5) + ascent * letters,
        )
      : (lineHeight - (ascent + descent) * size) / 2 + ascent * size;
    const baseline = y + rise;
    const { runs, width } = runsOf(block.shaped, range, size, theme, role, style !== undefined, fill);
    const rtl = block.shaped.base === 1;
    const edges = edgesOf(block, size);
    const shift = first ? edges.first : 0;
    const room = frame.width - edges.left - edges.right - shift;
    const lead = block.align === "centre" ? (room - width) / 2 : (block.align === "end") !== rtl ? room - width : 0;
    const left = frame.x + (rtl ? edges.right : edges.left + shift) + lead;
    for (const item of runs) item.x += left;
    if (first && block.marker) {
      const sign = runsOf(
        block.marker,
        { start: 0, end: block.marker.text.length, visible: block.marker.text.length },
        size,
        theme,
        role,
        style !== undefined,
        metrics ? (runs[0]?.fill ?? fill) : undefined,
      );
      const at = rtl
        ? frame.x + frame.width - edges.left + edges.sign - sign.width
        : (block.align === "start" ? frame.x + edges.left : left - shift) - edges.sign;
      for (const item of sign.runs)
        runs.unshift({ ...item, x: item.x + at, marker: true, ...(metrics ? {} : { fill: theme.colours.accent }) });
    }
    const { sign: own } = block;
    const gutter = edges.sign;
    const sign =
      own && first
        ? {
            source: own.source,
            x: (rtl ? left + width : left - gutter) + (rtl ? Math.max(0, gutter - own.width * size) : 0),
            y: baseline - own.height * size,
            width: own.width * size,
            height: own.height * size,
          }
        : undefined;
    const hyphen = block.shaped.text.slice(range.start, range.visible).replace(/[\n\u00AD]/g, "");
    lines.push({
      x: left,
      y: baseline,
      width,
      height: lineHeight,
      text: hyphen,
      paragraph: index,
      runs,
      ...(sign ? { sign } : {}),
    });
    y += lineHeight;
    before = index;
  }
  return lines;
}

/**
 * Returns the runs of one line in visual order, from x = 0, with neighbours of one face and style joined. Text in a
 * style of a file has no theme colours.
 */
function runsOf(
  paragraph: ShapedParagraph,
  range: LineRange,
  size: number,
  theme: Theme,
  role: SlotRole,
  styled: boolean,
  own?: string,
): { runs: SceneRun[]; width: number } {
  const { pieces, text } = paragraph;
  const inLine: Piece[] = [];
  let low = 0;
  let high = pieces.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (must(pieces[middle]).end <= range.start) low = middle + 1;
    else high = middle;
  }
  for (let at = low; at < pieces.length && must(pieces[at]).start < range.visible; at++) inLine.push(must(pieces[at]));
  const ordered = paragraph.base === 0 && inLine.every((piece) => piece.level === 0) ? inLine : visualOrder(inLine);
  const runs: SceneRun[] = [];
  let last: { run: SceneRun; style: Style; level: number } | undefined;
  let x = 0;
  for (const piece of ordered) {
    const from = Math.max(piece.start, range.start);
    const to = Math.min(piece.end, range.visible);
    const part = cut(piece, from - piece.start, to - piece.start);
    const em = size * piece.style.scale;
    const width = part.width * em;
    if (piece.tab) {
      x += width;
      last = undefined;
      continue;
    }
    const words = text.slice(from, to).replace(/[\n\t]/g, " ");
    if (
      last &&
      !piece.style.formula &&
      last.run.face === piece.face &&
      last.style === piece.style &&
      last.level === piece.level
    ) {
      const placed: PlacedWord = { x: last.run.width, text: words, word: part };
      last.run.words?.push(placed);
      last.run.text = piece.level % 2 ? words + last.run.text : last.run.text + words;
      last.run.width += width;
    } else {
      const { colours } = theme;
      const { tone, formula, rise } = piece.style;
      const fill =
        piece.style.fill ??
        own ??
        (piece.style.link
          ? colours.link
          : tone
            ? toneColour(tone, colours)
            : styled
              ? colours.ink
              : piece.style.code
                ? colours.second
                : colours[roleColour(role)]);
      const next: SceneRun = {
        x,
        width,
        text: words,
        face: piece.face,
        size: em,
        fill,
        rtl: piece.level % 2 === 1,
        ...(piece.style.link
          ? { link: piece.style.link, underline: piece.style.underline ?? "single" }
          : piece.style.underline
            ? { underline: piece.style.underline }
            : {}),
        ...(piece.style.highlight ? { highlight: piece.style.highlight } : {}),
        ...(piece.style.strike ? { strike: true } : {}),
        ...(rise ? { rise: rise * size } : {}),
        ...(formula ? { formula: { paths: formula.paths, em } } : {}),
        words: [{ x: 0, text: words, word: part }],
      };
      runs.push(next);
      last = { run: next, style: piece.style, level: piece.level };
    }
    x += width;
  }
  return { runs, width: x };
}

function toneColour(tone: CodeTone, { ink, accent, second, muted }: ThemeColours): string {
  const tones: Record<CodeTone, string> = {
    plain: ink,
    keyword: accent,
    string: second,
    number: second,
    comment: muted,
    name: accent,
  };
  return tones[tone];
}

/**
 * Returns the part of a shaped word between two indices. Whole words are shared; parts keep the glyphs of their
 * clusters.
 */
function cut(piece: Piece, from: number, to: number): Piece["word"] {
  const { word } = piece;
  if (from === 0 && to === piece.end - piece.start) return word;
  const keep = [...word.clusters.keys()].filter(
    (at) => (word.clusters[at] ?? 0) >= from && (word.clusters[at] ?? 0) < to,
  );
  const base = word.upTo[from] ?? 0;
  return {
    glyphs: Uint16Array.from(keep, (at) => word.glyphs[at] ?? 0),
    advances: Float32Array.from(keep, (at) => word.advances[at] ?? 0),
    offsets: word.offsets
      ? Float32Array.from(keep.flatMap((at) => [word.offsets?.[at * 2] ?? 0, word.offsets?.[at * 2 + 1] ?? 0]))
      : null,
    clusters: Uint16Array.from(keep, (at) => (word.clusters[at] ?? 0) - from),
    upTo: word.upTo.slice(from, to + 1).map((value) => value - base),
    width: (word.upTo[to] ?? 0) - base,
  };
}
