import {
  type Bullet,
  type LevelStyle,
  type Run,
  type TextStyle,
  canonical,
  type Paragraph,
  type RichText,
  run,
  type RunProperties,
  type SlotRole,
  tabParts,
  type Theme,
  wordsSize,
  must,
} from "@unitext/core/model";
import { faceFor } from "./fonts";
import { paragraphDirection, shapeParagraph, type StyleOf } from "./paragraph";
import type { ShapedParagraph, Tabs } from "./shapedparagraph";
import { BALANCED, balanced, breakText, withoutLoneWords } from "./breaktext";
import type { SceneLine } from "./scene";
import { paragraphGap, type SlotPlace } from "./slots";
import {
  type TextContext,
  HEADING,
  bulletAt,
  INDENT,
  type ParagraphLayout,
  styleFor,
  levelOf,
  paragraphMetrics,
  bulletOf,
  listIndents,
  listNumbers,
} from "./textstyle";
import { drawableCharacter, isSymbolFont } from "./symbols";
import { placeLines, type Broken } from "./placelines";

/**
 * Paragraphs shaped for a role, theme and language. Cached: trying another size or another break shapes nothing again.
 */
const shapedOnce = new WeakMap<Paragraph, { key: string; shaped: ShapedParagraph }>();
const shapingKeys = new WeakMap<Theme, string>();

/** Returns a key of what shaping takes from a theme: themes that differ only in sizes, spacing and colours share it. */
function shapingKey(theme: Theme): string {
  const known = shapingKeys.get(theme);
  if (known !== undefined) return known;
  const { design, fonts, roles = {} } = theme;
  const styles = Object.entries(roles).map(([role, { font, strong, italic, capitals }]) => [
    role,
    font,
    strong,
    italic,
    capitals,
  ]);
  const key = JSON.stringify([design, fonts.heading, fonts.body, fonts.code, styles]);
  shapingKeys.set(theme, key);
  return key;
}

function shapedFor(
  paragraph: Paragraph,
  role: SlotRole,
  { fonts, theme, language, style }: TextContext,
  styleOf: StyleOf,
  styled = "",
  tabs?: Tabs,
  level?: LevelStyle,
): ShapedParagraph {
  const formulas = paragraph.runs.some(({ marks }) => marks?.includes("formula"));
  const key = `${shapingKey(theme)}/${role}/${language}${styled}`;
  const known = formulas ? undefined : shapedOnce.get(paragraph);
  if (known?.key === key) return known.shaped;
  const isStyled = style !== undefined;
  const direction = paragraphDirection(paragraph, { level: level?.paragraph, language, styled: isStyled });
  const shaped = shapeParagraph(paragraph, fonts, language, styleOf, tabs, direction, isStyled, !HEADING.has(role));
  shapedOnce.set(paragraph, { key, shaped });
  return shaped;
}

const markers = new WeakMap<Theme, Map<string, ShapedParagraph>>();

/** Returns the bullet of an item, shaped once for a role, theme and language. */
function markerFor(
  sign: string,
  role: SlotRole,
  { fonts, theme, language }: TextContext,
  styleOf: StyleOf,
): ShapedParagraph {
  const held = markers.get(theme) ?? new Map<string, ShapedParagraph>();
  markers.set(theme, held);
  const key = `${role}/${language}/${sign}`;
  const shaped =
    held.get(key) ?? shapeParagraph({ kind: "plain", level: 0, runs: [run(sign)] }, fonts, language, styleOf);
  held.set(key, shaped);
  return shaped;
}

/** Shapes a text for a role once; it can then be fitted at any size. */
export function shapeText(
  text: RichText,
  role: SlotRole,
  align: SlotPlace["align"],
  setting: TextContext,
): ParagraphLayout[] {
  if (setting.style) return shapeStyled(text, role, setting, setting.style);
  const { theme } = setting;
  const numbers = listNumbers(text);
  const indents = listIndents(text);
  return text.map((paragraph, index) => {
    const styleOf: StyleOf = (marks, link, look) => styleFor(theme, role, marks, link, look);
    const sign =
      paragraph.kind === "plain"
        ? null
        : paragraph.kind === "number"
          ? `${numbers[index]}.`
          : bulletAt(paragraph.level, theme);
    const marker = sign === null ? null : markerFor(sign, role, setting, styleOf);
    return {
      shaped: shapedFor(paragraph, role, setting, styleOf),
      marker,
      indent: indents[index]?.left ?? 0,
      hang: indents[index]?.hang ?? 0,
      kind: paragraph.kind,
      align: paragraph.align ?? (marker ? "start" : align),
    };
  });
}

/** The height of a picture bullet relative to the text, in em. */
const SIGN = 0.8;

/**
 * The distance of tab stops after those that a text sets, in points: an inch (ECMA-376-1, 21.1.2.2.7, defTabSz as it is
 * usually set).
 */
const TAB_STEP = 72;

/** Shapes the paragraphs of a text in the text style that a file gives it. */
class StyledShaper {
  private readonly numbers: ReturnType<typeof listNumbers>;
  private readonly indents: ReturnType<typeof listIndents>;
  private readonly hash: string;

  constructor(
    private readonly text: RichText,
    private readonly role: SlotRole,
    private readonly setting: TextContext,
    private readonly levels: TextStyle,
    /** The size of the text in points. */
    private readonly em: number,
  ) {
    this.numbers = listNumbers(text);
    this.indents = listIndents(text);
    this.hash = canonical(levels);
  }

  paragraph(paragraph: Paragraph, index: number): ParagraphLayout {
    const { role, setting, em } = this;
    const level = levelOf(this.levels, paragraph.level);
    const size = wordsSize(paragraph, level.run?.size ?? em);
    const metrics = paragraphMetrics(paragraph.properties, level.paragraph, em, size);
    const runLook = (own: RunProperties | undefined): RunProperties => ({ ...level.run, ...own });
    const styleOf: StyleOf = (marks, link, own) =>
      styleFor(setting.theme, role, withLevelMarks(level, marks), link, runLook(own), em);
    const first = paragraph.runs.find((item) => item.text.trim() !== "");
    const empty = paragraph.runs.every((item) => item.text === "");
    // An item without words shows no bullet (common practice, no source).
    const bullet = empty ? null : this.bullet(paragraph, index, level, first, { ...metrics.bullet });
    const marker = bullet?.marker ?? null;
    const listed = this.indents[index];
    const indent = metrics.left === undefined ? (marker ? (listed?.left ?? 0) : 0) : metrics.left / em;
    const listHang = metrics.left === undefined ? (listed?.hang ?? INDENT) : Math.max(0, -metrics.first);
    const hang = marker ? listHang : 0;
    const tabs = this.tabs(paragraph, metrics, indent, marker !== null);
    const blank = runLook(empty ? paragraph.properties?.words : first?.properties);
    const least = (blank.size ?? em) / em;
    const { family } = styleFor(setting.theme, role, [], undefined, blank, em);
    return {
      shaped: shapedFor(paragraph, role, setting, styleOf, `/${em}/${this.hash}`, tabs, level),
      marker,
      ...(bullet?.picture ? { sign: bullet.picture } : {}),
      indent,
      hang,
      kind: paragraph.kind,
      align: paragraph.align ?? level.align ?? "start",
      // There is no paragraph spacing above the first and below the last paragraph (common practice, no source).
      metrics: {
        em,
        before: index ? metrics.before : 0,
        after: index + 1 < this.text.length ? metrics.after : 0,
        times: metrics.times,
        exact: metrics.exact,
        first: metrics.left === undefined && marker ? -hang : metrics.first,
        right: metrics.right,
        least: Number.isFinite(least) ? least : 1,
        blank: setting.fonts.face(faceFor(family, 0x20, false, false, setting.language).id).metrics.line,
      },
    };
  }

  /** Shapes the bullet or number of an item; null for paragraphs without one. */
  private bullet(
    paragraph: Paragraph,
    index: number,
    level: LevelStyle,
    first: Run | undefined,
    bullet: Bullet,
  ): { marker: ShapedParagraph; picture?: ParagraphLayout["sign"] } | null {
    const { setting, role, em } = this;
    const { kind } = paragraph;
    if (kind === "plain") return null;
    const source = kind === "bullet" ? bullet.picture : undefined;
    const picture = source === undefined ? undefined : setting.assets?.[source];
    const sign = picture
      ? " "
      : kind === "number"
        ? bulletOf({ ...bullet, scheme: bullet.scheme ?? "1." }, must(this.numbers[index]))
        : drawableCharacter(bullet.character ?? "•", bullet.font);
    if (!sign) return null;
    const textLook: RunProperties = { ...level.run, ...first?.properties };
    const look: RunProperties = {
      ...textLook,
      ...(bullet.colour ? { colour: bullet.colour } : {}),
      ...(bullet.font && !isSymbolFont(bullet.font) ? { font: bullet.font } : {}),
      ...(bullet.size ? { size: (textLook.size ?? em) * bullet.size } : {}),
    };
    // A number is bold as its words are; a bullet is never bold.
    const marks =
      kind === "number" ? withLevelMarks(level, first?.marks ?? []).filter((mark) => mark === "strong") : [];
    const marker = shapeParagraph({ kind: "plain", level: 0, runs: [run(sign)] }, setting.fonts, setting.language, () =>
      styleFor(setting.theme, role, marks, undefined, look, em),
    );
    if (!picture) return { marker };
    const height = SIGN * (bullet.size ?? 1) * ((textLook.size ?? em) / em);
    return { marker, picture: { source: must(source), width: (height * picture.width) / picture.height, height } };
  }

  private tabs(
    { runs }: Paragraph,
    metrics: ReturnType<typeof paragraphMetrics>,
    indent: number,
    hasMarker: boolean,
  ): Tabs | undefined {
    if (!runs.some(({ text }) => text.includes("\t"))) return undefined;
    return {
      stops: (metrics.tabs ?? []).map(tabParts).map(({ at, align }) => ({ at: at / this.em, align })),
      step: TAB_STEP / this.em,
      first: indent + (hasMarker ? 0 : metrics.first),
      rest: indent,
    };
  }
}

/** Returns marks with those that the level's style adds. */
const withLevelMarks = (level: LevelStyle, marks: readonly string[]): string[] => [
  ...(level.strong && !marks.includes("strong") ? ["strong"] : []),
  ...(level.emphasis && !marks.includes("emphasis") ? ["emphasis"] : []),
  ...marks,
];

/** Shapes a text in the text style that a file gives it. */
function shapeStyled(
  text: RichText,
  role: SlotRole,
  setting: TextContext,
  { levels, size }: NonNullable<TextContext["style"]>,
): ParagraphLayout[] {
  const shaper = new StyledShaper(text, role, setting, levels, size);
  return text.map((paragraph, index) => shaper.paragraph(paragraph, index));
}

/** Returns the height of the empty lines at the end of a text in points; they may overflow unnoticed. */
function blankBelow(blocks: readonly ParagraphLayout[], size: number): number {
  let height = 0;
  for (let at = blocks.length - 1; at > 0 && blocks[at]?.shaped.text === ""; at--) {
    const { metrics } = must(blocks[at]);
    height += metrics
      ? ((metrics.exact || metrics.least * metrics.blank * metrics.times) +
          metrics.before +
          (blocks[at - 1]?.metrics?.after ?? 0)) *
        size
      : 0;
  }
  return height;
}

/** A text set in a frame: its lines, the size taken, the height used and the overflow. */
export interface SetText {
  lines: SceneLine[];
  size: number;
  used: number;
  overflow: number;
}

/**
 * Sets a text in a frame: tries the given sizes, largest first, and takes the first at which all lines fit; if none
 * does, the smallest, and reports by how much the text overflows. The width never overflows.
 */
export function setText(
  text: RichText,
  place: SlotPlace,
  sizes: readonly number[],
  setting: TextContext,
  { columns = 1, gap = 0, wrap = true }: { columns?: number; gap?: number; wrap?: boolean } = {},
): SetText {
  const { frame, role } = place;
  const blocks = shapeText(text, role, place.align, setting);
  const measure = wrap ? Math.max(1, (frame.width - gap * (columns - 1)) / columns) : 1e6;
  const room = frame.height * columns;
  const apart = paragraphGap(role, setting.theme);
  let size = must(sizes[0]);
  let broken = breakText(blocks, role, size, measure, apart);
  for (const next of sizes.slice(1)) {
    if (broken.height - blankBelow(blocks, size) <= room + 0.01) break;
    size = next;
    broken = breakText(blocks, role, size, measure, apart);
  }
  const overflow = Math.max(0, broken.height - blankBelow(blocks, size) - room);
  if (setting.measure) return { lines: [], size, used: broken.height, overflow: overflow < 0.01 ? 0 : overflow };
  if (columns > 1)
    return {
      lines: inColumns(blocks, broken, size, place, setting, columns, measure, gap),
      size,
      used: Math.min(broken.height, frame.height),
      overflow: overflow < 0.01 ? 0 : overflow,
    };
  if (!setting.style && BALANCED.has(role)) broken = balanced(blocks, role, size, frame, broken);
  else if (!setting.style && !HEADING.has(role)) broken = withoutLoneWords(blocks, broken, size, measure);
  const spare = frame.height - broken.height;
  const top = frame.y + (spare <= 0 || place.anchor === "top" ? 0 : place.anchor === "middle" ? spare / 2 : spare);
  return {
    lines: placeLines(blocks, broken, size, top, place, setting),
    size,
    used: broken.height,
    overflow: overflow < 0.01 ? 0 : overflow,
  };
}

/** Sets the lines of a text in columns side by side, each filled before the next. */
function inColumns(
  blocks: readonly ParagraphLayout[],
  broken: Broken,
  size: number,
  place: SlotPlace,
  setting: TextContext,
  columns: number,
  width: number,
  gap: number,
): SceneLine[] {
  const { frame } = place;
  const lines = placeLines(blocks, broken, size, frame.y, { ...place, frame: { ...frame, width } }, setting);
  const fromRight = blocks[0]?.shaped.base === 1;
  let column = 0;
  let drop = 0;
  return lines.map((line) => {
    const bottom = line.y + line.height * 0.25 - drop;
    if (bottom > frame.y + frame.height && column < columns - 1) {
      column += 1;
      drop = line.y - line.height * 0.8 - frame.y;
    }
    const right = (fromRight ? columns - 1 - column : column) * (width + gap);
    const { sign } = line;
    return {
      ...line,
      ...(sign ? { sign: { ...sign, x: sign.x + right, y: sign.y - drop } } : {}),
      x: line.x + right,
      y: line.y - drop,
      runs: line.runs.map((item) => ({ ...item, x: item.x + right })),
    };
  });
}
