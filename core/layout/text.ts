import type { CodeTone } from "@unitext/core/figures";
import { type Frame, type Paragraph, type RichText, run, type SlotRole, type Theme, type ThemeColours } from "@unitext/core/model";
import { FAMILIES, familyNamed, type FontSet } from "./fonts";
import { breakLines, type LineRange, type Piece, type ShapedParagraph, shapeParagraph, type Style, visualOrder } from "./paragraph";
import type { PlacedWord, SceneLine, SceneRun } from "./scene";
import { LINE_HEIGHT, PARAGRAPH_GAP, type SlotPlace } from "./slots";

/** What text needs to be set: fonts, theme and the deck's language. */
export interface Setting {
  fonts: FontSet;
  theme: Theme;
  language: string;
  /** The colour of the words, where it is not that of their role. */
  fill?: string;
}

/** The mark of a footnote's number, which the layout puts in the place of the footnote. */
export const NOTE_MARK = "note";
const TONE = "tone:";
export const toneMark = (tone: CodeTone) => `${TONE}${tone}`;

const HEADING: ReadonlySet<SlotRole> = new Set(["opening", "title", "number", "statement", "name"]);
const BULLETS = ["•", "–", "•", "–", "•", "–", "•", "–", "•"];
const INDENT = 1.15;

/** A paragraph of a text that is being set. */
export interface Block {
  shaped: ShapedParagraph;
  marker: ShapedParagraph | null;
  /** Left edge of the text in em. */
  indent: number;
  kind: Paragraph["kind"];
  align: "start" | "centre" | "end";
}

const styles = new WeakMap<Theme, Map<string, Style>>();

function styleFor(theme: Theme, role: SlotRole, marks: readonly string[], link: string | undefined): Style {
  const held = styles.get(theme) ?? styles.set(theme, new Map()).get(theme) ?? new Map<string, Style>();
  const key = `${role}/${marks.join()}/${link ?? ""}`;
  const known = held.get(key);
  if (known) return known;
  const code = marks.includes("code");
  const heading = HEADING.has(role);
  const family = familyNamed(code ? theme.fonts.code : heading ? theme.fonts.heading : theme.fonts.body);
  const bold = marks.includes("strong") || (role === "number" && !code);
  const noted = marks.includes(NOTE_MARK);
  const tone = marks.find((mark) => mark.startsWith(TONE))?.slice(TONE.length) as CodeTone | undefined;
  const shown = code || marks.includes("formula");
  const style: Style = { family: shown && !code ? familyNamed(theme.fonts.code) : family, bold, italic: marks.includes("emphasis"), strike: marks.includes("strike"), link, code: shown, scale: noted ? 0.62 : shown ? 0.88 : 1, ...(noted ? { rise: 0.36 } : {}), ...(tone ? { tone } : {}) };
  held.set(key, style);
  return style;
}

/** List numbers of a text: for each paragraph its number among its neighbours on the same level, or 0. */
export function listNumbers(text: RichText): number[] {
  const counts: number[] = [];
  return text.map((paragraph) => {
    if (paragraph.kind === "plain") {
      counts.length = Math.min(counts.length, paragraph.level);
      return 0;
    }
    counts.length = paragraph.level + 1;
    const next = paragraph.kind === "number" ? (paragraph.start ?? (counts[paragraph.level] ?? 0) + 1) : 0;
    counts[paragraph.level] = next;
    return next;
  });
}

/** Paragraphs shaped once for a role, theme and language: trying another size, or another cut, shapes nothing again. */
const shapedOnce = new WeakMap<Paragraph, { theme: Theme; key: string; shaped: ShapedParagraph }>();

function shapedFor(paragraph: Paragraph, role: SlotRole, { fonts, theme, language }: Setting, styleOf: (marks: readonly string[], link: string | undefined) => Style): ShapedParagraph {
  const formulas = paragraph.runs.some(({ marks }) => marks?.includes("formula"));
  const key = `${role}/${language}`;
  const known = formulas ? undefined : shapedOnce.get(paragraph);
  if (known && known.theme === theme && known.key === key) return known.shaped;
  const shaped = shapeParagraph(paragraph, fonts, language, styleOf);
  shapedOnce.set(paragraph, { theme, key, shaped });
  return shaped;
}

/** Shapes a text for a role once; it can then be fitted at any size. */
export function shapeText(text: RichText, role: SlotRole, align: SlotPlace["align"], setting: Setting): Block[] {
  const { fonts, theme, language } = setting;
  const numbers = listNumbers(text);
  return text.map((paragraph, index) => {
    const styleOf = (marks: readonly string[], link: string | undefined) => styleFor(theme, role, marks, link);
    const sign = paragraph.kind === "plain" ? null : paragraph.kind === "number" ? `${numbers[index]}.` : (BULLETS[paragraph.level] ?? "•");
    const marker = sign === null ? null : shapeParagraph({ kind: "plain", level: 0, runs: [run(sign)] }, fonts, language, styleOf);
    return {
      shaped: shapedFor(paragraph, role, setting, styleOf),
      marker,
      indent: (paragraph.level + (marker ? 1 : 0)) * INDENT,
      kind: paragraph.kind,
      align: paragraph.align ?? (marker ? "start" : align),
    };
  });
}

export interface Broken {
  lines: { block: number; range: LineRange }[];
  height: number;
}

export function breakText(blocks: readonly Block[], role: SlotRole, size: number, width: number): Broken {
  const lines: Broken["lines"] = [];
  let height = 0;
  blocks.forEach((block, index) => {
    const ranges = breakLines(block.shaped, Math.max(1, width / size - block.indent));
    for (const range of ranges) lines.push({ block: index, range });
    height += ranges.length * LINE_HEIGHT[role] * size + (index ? PARAGRAPH_GAP[role] * size : 0);
  });
  return { lines, height };
}

/** A text set into a frame: its lines, the size taken, the height used and what stands out below. */
export interface SetText {
  lines: SceneLine[];
  size: number;
  used: number;
  overflow: number;
}

/**
 * Sets a text into a frame: tries the sizes given, largest first, and takes the first at which all lines fit; if none
 * does, the smallest, and says by how much the text stands out. Width never overflows.
 */
export function setText(text: RichText, place: SlotPlace, sizes: readonly number[], setting: Setting): SetText {
  const { frame, role } = place;
  const blocks = shapeText(text, role, place.align, setting);
  let size = sizes[0] as number;
  let broken = breakText(blocks, role, size, frame.width);
  for (const next of sizes.slice(1)) {
    if (broken.height <= frame.height + 0.01) break;
    size = next;
    broken = breakText(blocks, role, size, frame.width);
  }
  if (role === "title" || role === "opening" || role === "name") broken = balanced(blocks, role, size, frame, broken);
  const overflow = Math.max(0, broken.height - frame.height);
  const spare = frame.height - broken.height;
  const top = frame.y + (spare <= 0 || place.anchor === "top" ? 0 : place.anchor === "middle" ? spare / 2 : spare);
  return { lines: placeLines(blocks, broken, size, top, place, setting), size, used: broken.height, overflow: overflow < 0.01 ? 0 : overflow };
}

/** A heading over two or three lines with lines of like length: the narrowest measure that needs no line more. */
function balanced(blocks: readonly Block[], role: SlotRole, size: number, frame: Frame, broken: Broken): Broken {
  if (broken.lines.length < 2 || broken.lines.length > 3 || blocks.length !== 1) return broken;
  let [low, high] = [frame.width / broken.lines.length, frame.width];
  let best = broken;
  for (let turn = 0; turn < 7; turn++) {
    const middle = (low + high) / 2;
    const tried = breakText(blocks, role, size, middle);
    const whole = tried.lines.every(({ range }) => ((blocks[0] as Block).shaped.upTo[range.visible] as number) - ((blocks[0] as Block).shaped.upTo[range.start] as number) <= middle / size + 1e-3);
    if (tried.lines.length <= broken.lines.length && whole && !splitsWord(tried, blocks[0] as Block)) [best, high] = [tried, middle];
    else low = middle;
  }
  return best;
}

/** Whether a line ends inside a word, as happens where a word is wider than the measure. */
function splitsWord({ lines }: Broken, { shaped }: Block): boolean {
  const ends = new Set(shaped.breaks.map(({ at }) => at));
  return lines.some(({ range }) => !ends.has(range.end));
}

function placeLines(blocks: readonly Block[], broken: Broken, size: number, top: number, { frame, role }: SlotPlace, { fonts, theme, fill }: Setting): SceneLine[] {
  const lineHeight = LINE_HEIGHT[role] * size;
  const family = familyNamed(HEADING.has(role) ? theme.fonts.heading : theme.fonts.body);
  const { ascent, descent } = fonts.face((family.faces[0] ?? FAMILIES[0]?.faces[0])?.id as string).metrics;
  const rise = (lineHeight - (ascent + descent) * size) / 2 + ascent * size;
  const lines: SceneLine[] = [];
  let y = top;
  let before = -1;
  for (const { block: index, range } of broken.lines) {
    const block = blocks[index] as Block;
    if (index !== before && before >= 0) y += PARAGRAPH_GAP[role] * size;
    const baseline = y + rise;
    const { runs, width } = runsOf(block.shaped, range, size, theme, role, fill);
    const rtl = block.shaped.base === 1;
    const room = frame.width - block.indent * size;
    const lead = block.align === "centre" ? (room - width) / 2 : (block.align === "end") !== rtl ? room - width : 0;
    const left = frame.x + (rtl ? 0 : block.indent * size) + lead;
    for (const item of runs) item.x += left;
    if (index !== before && block.marker) {
      const sign = runsOf(block.marker, { start: 0, end: block.marker.text.length, visible: block.marker.text.length }, size, theme, role);
      const gutter = INDENT * size;
      const at = rtl ? frame.x + frame.width - block.indent * size + Math.max(0, gutter - sign.width) : frame.x + block.indent * size - gutter;
      for (const item of sign.runs) runs.unshift({ ...item, x: item.x + at, marker: true, fill: theme.colours.accent });
    }
    const hyphen = block.shaped.text.slice(range.start, range.visible).replace(/[\n\u00AD]/g, "");
    lines.push({ x: left, y: baseline, width, height: lineHeight, text: hyphen, paragraph: index, runs });
    y += lineHeight;
    before = index;
  }
  return lines;
}

/** The runs of one line in visual order, from x = 0, neighbours of one face and style joined. */
function runsOf(paragraph: ShapedParagraph, range: LineRange, size: number, theme: Theme, role: SlotRole, own?: string): { runs: SceneRun[]; width: number } {
  const { pieces, text } = paragraph;
  const inLine: Piece[] = [];
  let low = 0;
  let high = pieces.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((pieces[middle] as Piece).end <= range.start) low = middle + 1;
    else high = middle;
  }
  for (let at = low; at < pieces.length && (pieces[at] as Piece).start < range.visible; at++) inLine.push(pieces[at] as Piece);
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
    const words = text.slice(from, to).replace(/[\n\t]/g, " ");
    if (last && !piece.style.formula && last.run.face === piece.face && last.style === piece.style && last.level === piece.level) {
      const placed: PlacedWord = { x: last.run.width, text: words, word: part };
      last.run.words?.push(placed);
      last.run.text = piece.level % 2 ? words + last.run.text : last.run.text + words;
      last.run.width += width;
    } else {
      const { colours } = theme;
      const { tone, formula, rise } = piece.style;
      const fill = own ?? (piece.style.link ? colours.link : tone ? toneColour(tone, colours) : piece.style.code ? colours.second : role === "number" ? colours.accent : role === "subtitle" || role === "caption" ? colours.muted : colours.ink);
      const next: SceneRun = {
        x,
        width,
        text: words,
        face: piece.face,
        size: em,
        fill,
        rtl: piece.level % 2 === 1,
        ...(piece.style.link ? { link: piece.style.link, underline: true } : {}),
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
  const tones: Record<CodeTone, string> = { plain: ink, keyword: accent, string: second, number: second, comment: muted, name: accent };
  return tones[tone];
}

/** The part of a shaped word between two indices; whole words are shared, parts keep the glyphs of their clusters. */
function cut(piece: Piece, from: number, to: number): Piece["word"] {
  const { word } = piece;
  if (from === 0 && to === piece.end - piece.start) return word;
  const keep = [...word.clusters.keys()].filter((at) => (word.clusters[at] as number) >= from && (word.clusters[at] as number) < to);
  const base = word.upTo[from] as number;
  return {
    glyphs: Uint16Array.from(keep, (at) => word.glyphs[at] as number),
    advances: Float32Array.from(keep, (at) => word.advances[at] as number),
    offsets: word.offsets ? Float32Array.from(keep.flatMap((at) => [word.offsets?.[at * 2] ?? 0, word.offsets?.[at * 2 + 1] ?? 0])) : null,
    clusters: Uint16Array.from(keep, (at) => (word.clusters[at] as number) - from),
    upTo: word.upTo.slice(from, to + 1).map((value) => value - base),
    width: (word.upTo[to] as number) - base,
  };
}

