import type { CodeTone } from "@unitext/core/figures";
import { type SlotRole, type Theme, type ThemeColours, must } from "@unitext/core/model";
import { FAMILIES, familyNamed } from "./fonts";
import type { ShapedParagraph, Piece, Style } from "./shapedparagraph";
import { type LineRange, visualOrder } from "./linebreaking";
import { roleAppearance } from "./roleproperties";
import type { SceneLine, SceneRun } from "./scene";
import { LINE_HEIGHT, paragraphGap, type SlotPlace } from "./slots";
import type { TextContext, ParagraphLayout } from "./textstyle";

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

/** The middle of small letters, and of a bullet at full size, above the line in em (common practice, no source). */
const [LETTER_MIDDLE, BULLET_MIDDLE] = [0.26, 0.37];

/** The lines of a text, being placed from top to bottom. */
class LinePlacer {
  private readonly usual: { ascent: number; descent: number };

  constructor(
    private readonly size: number,
    private readonly place: SlotPlace,
    private readonly context: TextContext,
  ) {
    const { fonts, theme } = context;
    const family = familyNamed(roleAppearance(place.role, theme).family);
    this.usual = fonts.face(must((family.faces[0] ?? FAMILIES[0]?.faces[0])?.id)).metrics;
  }

  /** Returns the height of a line and the distance of its baseline from its top, in points. */
  metricsOf(block: ParagraphLayout, range: LineRange): { height: number; rise: number } {
    const { size } = this;
    const { metrics } = block;
    if (!metrics) {
      const { ascent, descent } = this.usual;
      const height = LINE_HEIGHT[this.place.role] * size;
      return { height, rise: (height - (ascent + descent) * size) / 2 + ascent * size };
    }
    const [piece] = block.shaped.pieces;
    const { ascent, descent } = piece ? this.context.fonts.face(piece.face).metrics : this.usual;
    const line = lineOf(block, range);
    const height = line.height * size;
    const letters = line.letters * size;
    // Space that a line has too little is taken from above it.
    const above = (height - (ascent + descent) * letters) * (metrics.times < 1 ? 1 : 0.5);
    return { height, rise: Math.min(height, above + ascent * letters) };
  }

  /** Places a line with its top at `y`; the first line of a paragraph has the indent and the bullet. */
  line(block: ParagraphLayout, paragraph: number, range: LineRange, y: number, isFirst: boolean): SceneLine {
    const { size, context, place } = this;
    const { frame } = place;
    const { height, rise } = this.metricsOf(block, range);
    const { runs, width } = this.runs(block.shaped, range, context.fill);
    const rtl = block.shaped.base === 1;
    const edges = edgesOf(block, size);
    const shift = isFirst ? edges.first : 0;
    const room = frame.width - edges.left - edges.right - shift;
    const lead = block.align === "centre" ? (room - width) / 2 : (block.align === "end") !== rtl ? room - width : 0;
    const x = frame.x + (rtl ? edges.right : edges.left + shift) + lead;
    for (const item of runs) item.x += x;
    if (isFirst && block.marker) {
      const textLeft = block.align === "start" ? frame.x + edges.left : x - shift;
      const right = frame.x + frame.width - edges.left + edges.sign;
      runs.unshift(
        ...this.marker(block, block.marker, runs[0]?.fill, rtl ? { right } : { left: textLeft - edges.sign }),
      );
    }
    const baseline = y + rise;
    const { sign: picture } = block;
    const sign = picture &&
      isFirst && {
        source: picture.source,
        x: rtl ? x + width + Math.max(0, edges.sign - picture.width * size) : x - edges.sign,
        y: baseline - picture.height * size,
        width: picture.width * size,
        height: picture.height * size,
      };
    const text = block.shaped.text.slice(range.start, range.visible).replace(/[\n\u00AD]/g, "");
    return { x, y: baseline, width, height, text, paragraph, runs, ...(sign ? { sign } : {}) };
  }

  private runs(paragraph: ShapedParagraph, range: LineRange, fill: string | undefined) {
    const { theme, style } = this.context;
    return runsOf(paragraph, range, this.size, theme, this.place.role, style !== undefined, fill);
  }

  /** Returns the runs of a bullet that starts or ends at a place, in the order in which they go before the text's. */
  private marker(
    { metrics, kind }: ParagraphLayout,
    marker: ShapedParagraph,
    textFill: string | undefined,
    at: { left: number } | { right: number },
  ): SceneRun[] {
    const { theme, fill } = this.context;
    const { length } = marker.text;
    const range = { start: 0, end: length, visible: length };
    const { runs, width } = this.runs(marker, range, metrics ? (textFill ?? fill) : undefined);
    const x = "left" in at ? at.left : at.right - width;
    const own = metrics ? {} : { fill: theme.colours.accent };
    // A small bullet on the line would be below the middle of small letters.
    const letters = (runs[0]?.size ?? this.size) / this.size;
    const rise = kind === "bullet" ? Math.max(0, (LETTER_MIDDLE - BULLET_MIDDLE * letters) * this.size) : 0;
    return runs.map((item) => ({ ...item, x: item.x + x, marker: true, ...own, ...(rise ? { rise } : {}) })).reverse();
  }
}

/** Returns lines with their runs positioned on the page, and the bullets before items. */
export function placeLines(
  blocks: readonly ParagraphLayout[],
  broken: Broken,
  size: number,
  top: number,
  place: SlotPlace,
  context: TextContext,
): SceneLine[] {
  const placer = new LinePlacer(size, place, context);
  const lines: SceneLine[] = [];
  let y = top;
  let before = -1;
  for (const { block: index, range } of broken.lines) {
    const block = must(blocks[index]);
    const isFirst = index !== before;
    if (isFirst && before >= 0)
      y +=
        (block.metrics
          ? (must(blocks[before]).metrics?.after ?? 0) + block.metrics.before
          : paragraphGap(place.role, context.theme)) * size;
    const line = placer.line(block, index, range, y, isFirst);
    lines.push(line);
    y += line.height;
    before = index;
  }
  return lines;
}

/** Returns the pieces of a line, found by halving: long paragraphs have thousands. */
function piecesIn({ pieces }: ShapedParagraph, range: LineRange): Piece[] {
  const found: Piece[] = [];
  let low = 0;
  let high = pieces.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (must(pieces[middle]).end <= range.start) low = middle + 1;
    else high = middle;
  }
  for (let at = low; at < pieces.length && must(pieces[at]).start < range.visible; at++) found.push(must(pieces[at]));
  return found;
}

/** What the colour of a run follows from. */
interface RunColours {
  theme: Theme;
  role: SlotRole;
  /** Whether the text is in a style of a file, which has no theme colours. */
  styled: boolean;
  own?: string | undefined;
}

function fillOf({ fill, link, tone, code }: Style, { theme, role, styled, own }: RunColours): string {
  const { colours } = theme;
  const given = fill ?? own;
  if (given) return given;
  if (link) return colours.link;
  if (tone) return toneColour(tone, colours);
  if (styled) return colours.ink;
  return code ? colours.second : roleAppearance(role, theme).fill;
}

/** Returns the run that a piece begins. `size` is that of the text in points. */
function newRun(piece: Piece, text: string, word: Piece["word"], x: number, size: number, fill: string): SceneRun {
  const { link, underline, highlight, strike, rise, formula, scale } = piece.style;
  const em = size * scale;
  return {
    x,
    width: word.width * em,
    text,
    face: piece.face,
    size: em,
    fill,
    rtl: piece.level % 2 === 1,
    ...(link ? { link, underline: underline ?? "single" } : underline ? { underline } : {}),
    ...(highlight ? { highlight } : {}),
    ...(strike ? { strike: true } : {}),
    ...(rise ? { rise: rise * size } : {}),
    ...(formula ? { formula: { paths: formula.paths, em } } : {}),
    words: [{ x: 0, text, word }],
  };
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
  const inLine = piecesIn(paragraph, range);
  const isPlain = paragraph.base === 0 && inLine.every((piece) => piece.level === 0);
  const runs: SceneRun[] = [];
  let last: { run: SceneRun; piece: Piece } | undefined;
  let x = 0;
  for (const piece of isPlain ? inLine : visualOrder(inLine)) {
    const from = Math.max(piece.start, range.start);
    const to = Math.min(piece.end, range.visible);
    const part = cut(piece, from - piece.start, to - piece.start);
    const width = part.width * size * piece.style.scale;
    if (piece.tab) {
      x += width;
      last = undefined;
      continue;
    }
    const words = paragraph.text.slice(from, to).replace(/[\n\t]/g, " ");
    if (last && isSameRun(last.piece, piece)) {
      const { run } = last;
      run.words?.push({ x: run.width, text: words, word: part });
      run.text = piece.level % 2 ? words + run.text : run.text + words;
      run.width += width;
    } else {
      const run = newRun(piece, words, part, x, size, fillOf(piece.style, { theme, role, styled, own }));
      runs.push(run);
      last = { run, piece };
    }
    x += width;
  }
  if (range.hyphen && paragraph.hyphens) x += addHyphen(runs, paragraph.hyphens, last, size, x);
  return { runs, width: x };
}

/** Adds a hyphen to the end of a line, and returns its width. */
function addHyphen(
  runs: SceneRun[],
  { word, face }: NonNullable<ShapedParagraph["hyphens"]>,
  last: { run: SceneRun; piece: Piece } | undefined,
  size: number,
  x: number,
): number {
  if (!last) return 0;
  const width = word.width * size * last.piece.style.scale;
  if (last.run.face === face) {
    last.run.words?.push({ x: last.run.width, text: "-", word });
    last.run.text += "-";
    last.run.width += width;
  } else runs.push({ ...newRun({ ...last.piece, face }, "-", word, x, size, last.run.fill) });
  return width;
}

const isSameRun = (last: Piece, piece: Piece): boolean =>
  !piece.style.formula && last.face === piece.face && last.style === piece.style && last.level === piece.level;

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
