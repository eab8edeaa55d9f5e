import type { CodeTone } from "@unitext/core/figures";
import { canonical, type DeckHead, type Frame, type LevelStyle, type Paragraph, type ParagraphLook, type RichText, run, type RunLook, type SlotRole, type TextStyle, type Theme, type ThemeColours } from "@unitext/core/model";
import { FAMILIES, familyNamed, type FontSet } from "./fonts";
import { breakLines, type LineRange, type Piece, type ShapedParagraph, shapeParagraph, type Style, type StyleOf, type Tabs, visualOrder } from "./paragraph";
import type { PlacedWord, SceneLine, SceneRun } from "./scene";
import { LINE_HEIGHT, PARAGRAPH_GAP, type SlotPlace } from "./slots";

/** What text needs to be set: fonts, theme and the deck's language. */
export interface Setting {
  fonts: FontSet;
  theme: Theme;
  language: string;
  /** The colour of the words, where it is not that of their role. */
  fill?: string;
  /** The text style that a file gives, and the size in points that stands for one em. */
  style?: { levels: TextStyle; size: number };
  /** The shape has been made higher for its text already. */
  grown?: boolean;
  /** The pictures that may stand before items. */
  assets?: DeckHead["assets"];
  /** Only how much stands out is asked for: no line is placed. */
  measure?: boolean;
  /** Only where elements stand is asked for: what is drawn from data is not drawn. */
  places?: boolean;
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
  /** The picture that is its sign, in em. */
  sign?: { source: string; width: number; height: number };
  /** Left edge of the text in em. */
  indent: number;
  kind: Paragraph["kind"];
  align: "start" | "centre" | "end";
  /** Where a file says how it stands: room before and after and the height of lines in em (or as a multiple of what the letters need), where the first line begins. */
  look?: { before: number; after: number; times: number; exact: number; first: number; right: number; least: number };
}

const styles = new WeakMap<Theme, Map<string, Style>>();

function styleFor(theme: Theme, role: SlotRole, marks: readonly string[], link: string | undefined, look?: RunLook, em = 0): Style {
  const held = styles.get(theme) ?? styles.set(theme, new Map()).get(theme) ?? new Map<string, Style>();
  const key = `${role}/${marks.join()}/${link ?? ""}${look ? `/${em}${canonical(look)}` : ""}`;
  const known = held.get(key);
  if (known) return known;
  const code = marks.includes("code");
  const heading = HEADING.has(role);
  const family = familyNamed(code ? theme.fonts.code : heading ? theme.fonts.heading : theme.fonts.body);
  const bold = marks.includes("strong") || (role === "number" && !code);
  const noted = marks.includes(NOTE_MARK);
  const tone = marks.find((mark) => mark.startsWith(TONE))?.slice(TONE.length) as CodeTone | undefined;
  const shown = code || marks.includes("formula");
  const style: Style = { family: shown && !code ? familyNamed(theme.fonts.code) : family, bold, italic: marks.includes("emphasis"), strike: marks.includes("strike"), link, code: shown, scale: noted ? 0.62 : shown ? 0.88 : 1, ...(noted ? { rise: 0.36 } : {}), ...(tone ? { tone } : {}), ...(look ? looked(look, em, { code: shown }) : {}) };
  held.set(key, style);
  return style;
}

/** What a look changes of a style; `em` is the size in points that stands for one em, 0 where sizes follow the place. */
function looked({ size, colour, font, underline, caps, highlight, spacing, rise }: RunLook, em: number, { code }: { code: boolean }): Partial<Style> {
  const scale = (size && em ? size / em : 1) * (rise ? 0.66 : 1);
  return {
    ...(scale === 1 ? {} : { scale: scale * (code && !size ? 0.88 : 1) }),
    ...(colour ? { fill: colour } : {}),
    ...(font ? { family: familyNamed(font) } : {}),
    ...(underline ? { underline } : {}),
    ...(caps ? { caps } : {}),
    ...(highlight ? { highlight } : {}),
    ...(spacing && em ? { spacing: spacing / (em * scale) } : {}),
    ...(rise ? { rise } : {}),
  };
}

const levelOf = (levels: TextStyle, level: number): LevelStyle => (levels[Math.min(level, levels.length - 1)] ?? {}) as LevelStyle;

/** How a paragraph stands by its own look and that of its level, in em. */
function standing(own: ParagraphLook | undefined, level: ParagraphLook | undefined, em: number): ParagraphLook & NonNullable<Block["look"]> {
  const look = { ...level, ...own };
  const gap = (value: ParagraphLook["before"]) => (!value ? 0 : "points" in value ? value.points / em : value.times * 1.2);
  return { ...look, before: gap(look.before), after: gap(look.after), times: look.line && "times" in look.line ? look.line.times : 1, exact: look.line && "points" in look.line ? look.line.points / em : 0, first: (look.first ?? 0) / em, right: (look.right ?? 0) / em, least: 1 } as never;
}

/** The sign before an item where a look says it: its own, or its number in the scheme. */
export function signOf(bullet: ParagraphLook["bullet"], number: number): string | undefined {
  if (!bullet?.scheme) return bullet?.sign;
  const [, open = "", kind = "1", close = ""] = /^(\(?)([1aAiI])(.*)$/.exec(bullet.scheme) ?? [];
  const letters = (value: number): string => (value <= 0 ? "" : letters(Math.floor((value - 1) / 26)) + String.fromCharCode(97 + ((value - 1) % 26)));
  const written = kind === "1" ? String(number) : kind.toLowerCase() === "a" ? letters(number) : roman(number);
  return `${open}${kind === kind.toUpperCase() ? written.toUpperCase() : written}${close}`;
}

function roman(value: number): string {
  const signs: [number, string][] = [[1000, "m"], [900, "cm"], [500, "d"], [400, "cd"], [100, "c"], [90, "xc"], [50, "l"], [40, "xl"], [10, "x"], [9, "ix"], [5, "v"], [4, "iv"], [1, "i"]];
  let left = Math.min(value, 3999);
  return signs.map(([worth, sign]) => {
    const count = Math.floor(left / worth);
    left -= count * worth;
    return sign.repeat(count);
  }).join("");
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

function shapedFor(paragraph: Paragraph, role: SlotRole, { fonts, theme, language }: Setting, styleOf: StyleOf, styled = "", tabs?: Tabs): ShapedParagraph {
  const formulas = paragraph.runs.some(({ marks }) => marks?.includes("formula"));
  const key = `${role}/${language}${styled}`;
  const known = formulas ? undefined : shapedOnce.get(paragraph);
  if (known && known.theme === theme && known.key === key) return known.shaped;
  const shaped = shapeParagraph(paragraph, fonts, language, styleOf, tabs);
  shapedOnce.set(paragraph, { theme, key, shaped });
  return shaped;
}

const markers = new WeakMap<Theme, Map<string, ShapedParagraph>>();

/** The sign before an item, shaped once for a role, theme and language. */
function markerFor(sign: string, role: SlotRole, { fonts, theme, language }: Setting, styleOf: StyleOf): ShapedParagraph {
  const held = markers.get(theme) ?? new Map<string, ShapedParagraph>();
  markers.set(theme, held);
  const key = `${role}/${language}/${sign}`;
  const shaped = held.get(key) ?? shapeParagraph({ kind: "plain", level: 0, runs: [run(sign)] }, fonts, language, styleOf);
  held.set(key, shaped);
  return shaped;
}

/** Shapes a text for a role once; it can then be fitted at any size. */
export function shapeText(text: RichText, role: SlotRole, align: SlotPlace["align"], setting: Setting): Block[] {
  if (setting.style) return shapeStyled(text, role, setting, setting.style);
  const { theme } = setting;
  const numbers = listNumbers(text);
  return text.map((paragraph, index) => {
    const styleOf: StyleOf = (marks, link, look) => styleFor(theme, role, marks, link, look);
    const sign = paragraph.kind === "plain" ? null : paragraph.kind === "number" ? `${numbers[index]}.` : (BULLETS[paragraph.level] ?? "•");
    const marker = sign === null ? null : markerFor(sign, role, setting, styleOf);
    return {
      shaped: shapedFor(paragraph, role, setting, styleOf),
      marker,
      indent: (paragraph.level + (marker ? 1 : 0)) * INDENT,
      kind: paragraph.kind,
      align: paragraph.align ?? (marker ? "start" : align),
    };
  });
}

/** How high a picture before an item is against the text, in em. */
const SIGN = 0.8;
/** How far apart tab stops are past those that a text sets, in points: an inch (ECMA-376-1, 21.1.2.2.7, defTabSz as it is usually set). */
const TAB_STEP = 72;

/** Shapes a text in the style that a file gives it. */
function shapeStyled(text: RichText, role: SlotRole, setting: Setting, { levels, size: em }: NonNullable<Setting["style"]>): Block[] {
  const { theme } = setting;
  const numbers = listNumbers(text);
  const sum = canonical(levels);
  return text.map((paragraph, index): Block => {
    const level = levelOf(levels, paragraph.level);
    const look = standing(paragraph.look, level.paragraph, em);
    const own = (more: RunLook | undefined): RunLook => ({ ...(level.run ?? {}), ...(more ?? {}) });
    const marked = (marks: readonly string[]) => [...(level.strong && !marks.includes("strong") ? ["strong"] : []), ...(level.emphasis && !marks.includes("emphasis") ? ["emphasis"] : []), ...marks];
    const styleOf: StyleOf = (marks, link, more) => styleFor(theme, role, marked(marks), link, own(more), em);
    const first = paragraph.runs.find((item) => item.text.trim() !== "");
    const bullet = { ...look.bullet };
    const shown = paragraph.kind === "bullet" && bullet.picture !== undefined ? setting.assets?.[bullet.picture] : undefined;
    const high = SIGN * (bullet.size ?? 1) * ((own(first?.look).size ?? em) / em);
    const sign = paragraph.kind === "plain" ? null : shown ? " " : paragraph.kind === "number" ? signOf({ ...bullet, scheme: bullet.scheme ?? "1." }, numbers[index] as number) : (bullet.sign ?? "•");
    const signLook: RunLook = { ...own(first?.look), ...(bullet.colour ? { colour: bullet.colour } : {}), ...(bullet.font && isPlainFont(bullet.font) ? { font: bullet.font } : {}) };
    if (bullet.size) signLook.size = (signLook.size ?? em) * bullet.size;
    const marker = sign ? shapeParagraph({ kind: "plain", level: 0, runs: [run(sign)] }, setting.fonts, setting.language, () => styleFor(theme, role, paragraph.kind === "number" ? marked(first?.marks ?? []).filter((mark) => mark === "strong") : [], undefined, signLook, em)) : null;
    const empty = paragraph.runs.every((item) => item.text === "");
    const indent = (look.left ?? (marker ? (paragraph.level + 1) * INDENT * em : 0)) / em;
    const tabs: Tabs | undefined = paragraph.runs.some(({ text: words }) => words.includes("\t")) ? { stops: (look.tabs ?? []).map((stop) => stop / em), step: TAB_STEP / em, first: indent + (marker ? 0 : look.first), rest: indent } : undefined;
    const least = (own(empty ? undefined : first?.look).size ?? em) / em;
    return {
      shaped: shapedFor(paragraph, role, setting, styleOf, `/${em}/${sum}`, tabs),
      marker,
      ...(shown ? { sign: { source: bullet.picture as string, width: (high * shown.width) / shown.height, height: high } } : {}),
      indent,
      kind: paragraph.kind,
      align: paragraph.align ?? level.align ?? "start",
      look: { before: index ? look.before : 0, after: look.after, times: look.times, exact: look.exact, first: look.left === undefined && marker ? -INDENT : look.first, right: look.right, least: Number.isFinite(least) ? least : 1 },
    };
  });
}

/** Fonts of signs give letters other forms; such a sign is shown as the character that it stands for. */
const isPlainFont = (name: string) => !/symbol|wingding|webding|dingbat/i.test(name);

/** The height of a line in em: the tallest of its pieces, by the look of its paragraph. */
function lineHeightOf({ shaped, look }: Block, { start, visible }: LineRange): number {
  if (!look) return 0;
  if (look.exact) return look.exact;
  let most = 0;
  for (const piece of shaped.pieces) if (piece.start < visible && piece.end > start) most = Math.max(most, piece.style.scale / (piece.style.rise ? 0.66 : 1));
  return (most || look.least) * NATURAL * look.times;
}
/** How high a line of text stands by itself, in em (common practice: most text faces ask for 1.15 to 1.25). */
const NATURAL = 1.2;

export interface Broken {
  lines: { block: number; range: LineRange }[];
  height: number;
}

export function breakText(blocks: readonly Block[], role: SlotRole, size: number, width: number): Broken {
  const lines: Broken["lines"] = [];
  let height = 0;
  blocks.forEach((block, index) => {
    const ranges = breakLines(block.shaped, Math.max(1, width / size - block.indent - (block.look?.right ?? 0)), block.look && !block.marker ? block.look.first : 0);
    for (const range of ranges) lines.push({ block: index, range });
    if (block.look) for (const range of ranges) height += lineHeightOf(block, range) * size;
    else height += ranges.length * LINE_HEIGHT[role] * size;
    height += (block.look ? block.look.before + block.look.after : index ? PARAGRAPH_GAP[role] : 0) * size;
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
export function setText(text: RichText, place: SlotPlace, sizes: readonly number[], setting: Setting, { columns = 1, gap = 0, wrap = true }: { columns?: number; gap?: number; wrap?: boolean } = {}): SetText {
  const { frame, role } = place;
  const blocks = shapeText(text, role, place.align, setting);
  const measure = wrap ? Math.max(1, (frame.width - gap * (columns - 1)) / columns) : 1e6;
  const room = frame.height * columns;
  let size = sizes[0] as number;
  let broken = breakText(blocks, role, size, measure);
  for (const next of sizes.slice(1)) {
    if (broken.height <= room + 0.01) break;
    size = next;
    broken = breakText(blocks, role, size, measure);
  }
  const overflow = Math.max(0, broken.height - room);
  if (setting.measure) return { lines: [], size, used: broken.height, overflow: overflow < 0.01 ? 0 : overflow };
  if (columns > 1) return { lines: inColumns(blocks, broken, size, place, setting, columns, measure, gap), size, used: Math.min(broken.height, frame.height), overflow: overflow < 0.01 ? 0 : overflow };
  if (!setting.style && (role === "title" || role === "opening" || role === "name")) broken = balanced(blocks, role, size, frame, broken);
  const spare = frame.height - broken.height;
  const top = frame.y + (spare <= 0 || place.anchor === "top" ? 0 : place.anchor === "middle" ? spare / 2 : spare);
  return { lines: placeLines(blocks, broken, size, top, place, setting), size, used: broken.height, overflow: overflow < 0.01 ? 0 : overflow };
}

/** The lines of a text in columns side by side, each as full as it gets. */
function inColumns(blocks: readonly Block[], broken: Broken, size: number, place: SlotPlace, setting: Setting, columns: number, width: number, gap: number): SceneLine[] {
  const { frame } = place;
  const lines = placeLines(blocks, broken, size, frame.y, { ...place, frame: { ...frame, width } }, setting);
  let column = 0;
  let drop = 0;
  return lines.map((line) => {
    const bottom = line.y + line.height * 0.25 - drop;
    if (bottom > frame.y + frame.height && column < columns - 1) {
      column += 1;
      drop = line.y - line.height * 0.8 - frame.y;
    }
    const right = column * (width + gap);
    const { sign } = line;
    return { ...line, ...(sign ? { sign: { ...sign, x: sign.x + right, y: sign.y - drop } } : {}), x: line.x + right, y: line.y - drop, runs: line.runs.map((item) => ({ ...item, x: item.x + right })) };
  });
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
  const family = familyNamed(HEADING.has(role) ? theme.fonts.heading : theme.fonts.body);
  const usual = fonts.face((family.faces[0] ?? FAMILIES[0]?.faces[0])?.id as string).metrics;
  const lines: SceneLine[] = [];
  let y = top;
  let before = -1;
  for (const { block: index, range } of broken.lines) {
    const block = blocks[index] as Block;
    const { look } = block;
    const first = index !== before;
    if (first && before >= 0) y += (look ? ((blocks[before] as Block).look?.after ?? 0) + look.before : PARAGRAPH_GAP[role]) * size;
    const lineHeight = (look ? lineHeightOf(block, range) : LINE_HEIGHT[role]) * size;
    const { ascent, descent } = look ? (block.shaped.pieces[0] ? fonts.face(block.shaped.pieces[0].face).metrics : usual) : usual;
    const letters = look ? (lineHeight / (look.exact ? 1 : look.times) / NATURAL) : size;
    const rise = look ? Math.min(lineHeight, (lineHeight - (ascent + descent) * letters) * (look.times < 1 ? 1 : 0.5) + ascent * letters) : (lineHeight - (ascent + descent) * size) / 2 + ascent * size;
    const baseline = y + rise;
    const { runs, width } = runsOf(block.shaped, range, size, theme, role, fill);
    const rtl = block.shaped.base === 1;
    const shift = look && first && !block.marker ? look.first * size : 0;
    const room = frame.width - (block.indent + (look?.right ?? 0)) * size - shift;
    const lead = block.align === "centre" ? (room - width) / 2 : (block.align === "end") !== rtl ? room - width : 0;
    const left = frame.x + (rtl ? (look?.right ?? 0) * size : block.indent * size + shift) + lead;
    for (const item of runs) item.x += left;
    if (first && block.marker) {
      const sign = runsOf(block.marker, { start: 0, end: block.marker.text.length, visible: block.marker.text.length }, size, theme, role, look ? (runs[0]?.fill ?? fill) : undefined);
      const gutter = (look ? Math.max(-look.first, 0) : INDENT) * size;
      const at = rtl ? frame.x + frame.width - block.indent * size + Math.max(0, gutter - sign.width) : (block.align === "start" ? frame.x + block.indent * size : left) - gutter;
      for (const item of sign.runs) runs.unshift({ ...item, x: item.x + at, marker: true, ...(look ? {} : { fill: theme.colours.accent }) });
    }
    const { sign: own } = block;
    const gutter = Math.max(-(look?.first ?? 0), 0) * size;
    const sign = own && first ? { source: own.source, x: (rtl ? left + width : left - gutter) + (rtl ? Math.max(0, gutter - own.width * size) : 0), y: baseline - own.height * size, width: own.width * size, height: own.height * size } : undefined;
    const hyphen = block.shaped.text.slice(range.start, range.visible).replace(/[\n\u00AD]/g, "");
    lines.push({ x: left, y: baseline, width, height: lineHeight, text: hyphen, paragraph: index, runs, ...(sign ? { sign } : {}) });
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
    if (piece.tab) {
      x += width;
      last = undefined;
      continue;
    }
    const words = text.slice(from, to).replace(/[\n\t]/g, " ");
    if (last && !piece.style.formula && last.run.face === piece.face && last.style === piece.style && last.level === piece.level) {
      const placed: PlacedWord = { x: last.run.width, text: words, word: part };
      last.run.words?.push(placed);
      last.run.text = piece.level % 2 ? words + last.run.text : last.run.text + words;
      last.run.width += width;
    } else {
      const { colours } = theme;
      const { tone, formula, rise } = piece.style;
      const fill = piece.style.fill ?? own ?? (piece.style.link ? colours.link : tone ? toneColour(tone, colours) : piece.style.code ? colours.second : role === "number" ? colours.accent : role === "subtitle" || role === "caption" ? colours.muted : colours.ink);
      const next: SceneRun = {
        x,
        width,
        text: words,
        face: piece.face,
        size: em,
        fill,
        rtl: piece.level % 2 === 1,
        ...(piece.style.link ? { link: piece.style.link, underline: piece.style.underline ?? "single" } : piece.style.underline ? { underline: piece.style.underline } : {}),
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

