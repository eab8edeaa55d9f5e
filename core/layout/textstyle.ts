import type { CodeTone } from "@unitext/core/figures";
import {
  canonical,
  DESIGNS,
  type DeckMetadata,
  type LevelStyle,
  MAX_LEVEL,
  type Paragraph,
  type ParagraphProperties,
  type RichText,
  type RunProperties,
  type SlotRole,
  type TextStyle,
  type Theme,
  must,
} from "@unitext/core/model";
import { familyNamed, type FontSet } from "./fonts";
import { roleAppearance } from "./roleproperties";
import type { ShapedParagraph, Style } from "./shapedparagraph";

/** What setting text needs: fonts, theme and the deck's language. */
export interface TextContext {
  fonts: FontSet;
  theme: Theme;
  language: string;
  /** The text colour, where it differs from that of its role. */
  fill?: string;
  /** The text style that a file gives, and the size in points that counts as one em. */
  style?: { levels: TextStyle; size: number };
  /** Whether the columns of the table are read from right to left. */
  mirrored?: boolean;
  /** Whether the shape has been made higher for its text already. */
  grown?: boolean;
  /** The files of picture bullets. */
  assets?: DeckMetadata["assets"];
  /** Only the overflow is wanted: no line is placed. */
  measure?: boolean;
  /** Only the places of elements are wanted: figures are not drawn. */
  places?: boolean;
}

/** The mark of a footnote's number, which the layout puts in place of the footnote. */
export const NOTE_MARK = "note";

/** The size of code and inline formulas relative to the text around them. */
export const CODE_SCALE = 0.88;
const TONE = "tone:";
export const toneMark = (tone: CodeTone) => `${TONE}${tone}`;

/** The roles of text that is not divided by hyphens. */
export const HEADING: ReadonlySet<SlotRole> = new Set(["opening", "title", "number", "statement", "name"]);

/** Returns the bullet of a level in a theme. */
export const bulletAt = (level: number, { design }: Theme): string => {
  const [first, below] = DESIGNS[design].bullets ?? ["•", "–"];
  return level % 2 ? below : first;
};
export const INDENT = 1.15;

/** A paragraph of a text being set. */
export interface ParagraphLayout {
  shaped: ShapedParagraph;
  marker: ShapedParagraph | null;
  /** Its picture bullet, in em. */
  sign?: { source: string; width: number; height: number };
  /** The left edge of the text in em, and how much of it is space for the bullet. */
  indent: number;
  hang: number;
  kind: Paragraph["kind"];
  align: "start" | "centre" | "end";
  /**
   * Metrics that a file sets: the points that count as one em for its edges, however far its letters shrink
   * (ECMA-376-1, 21.1.2.1.3: only the font is scaled); space before and after and line height in em (or as a multiple
   * of what the letters need); where the first line starts; the size of words in an empty line, and the line height of
   * their face.
   */
  metrics?: {
    em: number;
    before: number;
    after: number;
    times: number;
    exact: number;
    first: number;
    right: number;
    least: number;
    blank: number;
  };
}

const styles = new WeakMap<Theme, Map<string, Style>>();

/** Returns how runs of a role look in a theme: face, colour, size; computed once for each kind of run. */
export function styleFor(
  theme: Theme,
  role: SlotRole,
  marks: readonly string[],
  link: string | undefined,
  look?: RunProperties,
  em = 0,
): Style {
  const held = styles.get(theme) ?? styles.set(theme, new Map()).get(theme) ?? new Map<string, Style>();
  const key = `${role}/${marks.join()}/${link ?? ""}${look ? `/${em}${canonical(look)}` : ""}`;
  const known = held.get(key);
  if (known) return known;
  const code = marks.includes("code");
  // Text in the style of a file takes nothing but the font from its role.
  const appearance = roleAppearance(role, theme);
  const own = em ? undefined : appearance;
  const family = familyNamed(code ? theme.fonts.code : appearance.family);
  const bold = marks.includes("strong") || (!code && (own?.strong ?? role === "number"));
  const noted = marks.includes(NOTE_MARK);
  const tone = marks.find((mark) => mark.startsWith(TONE))?.slice(TONE.length) as CodeTone | undefined;
  const shown = code || marks.includes("formula");
  const style: Style = {
    family: shown && !code ? familyNamed(theme.fonts.code) : family,
    bold,
    italic: marks.includes("emphasis") || (!code && (own?.italic ?? false)),
    ...(own?.capitals && !code ? { caps: "all" as const } : {}),
    ...(own?.spacing && !code ? { spacing: own.spacing } : {}),
    strike: marks.includes("strike"),
    link,
    code: shown,
    scale: noted ? 0.62 : shown ? CODE_SCALE : 1,
    ...(noted ? { rise: 0.36 } : {}),
    ...(tone ? { tone } : {}),
    ...(look ? withLevelStyle(look, em, { code: shown }) : {}),
  };
  held.set(key, style);
  return style;
}

/**
 * Returns a style with the properties of a level; `em` is the size in points that counts as one em, 0 where sizes
 * follow the place.
 */
function withLevelStyle(
  { size, colour, font, underline, caps, highlight, spacing, rise, language }: RunProperties,
  em: number,
  { code }: { code: boolean },
): Partial<Style> {
  const scale = (size && em ? size / em : 1) * (rise ? 0.66 : 1);
  return {
    ...(size && em ? { scale } : rise ? { scale: scale * (code ? CODE_SCALE : 1) } : {}),
    ...(colour ? { fill: colour } : {}),
    ...(font ? { family: familyNamed(font) } : {}),
    ...(underline ? { underline } : {}),
    ...(caps ? { caps } : {}),
    ...(language ? { language } : {}),
    ...(highlight ? { highlight } : {}),
    ...(spacing && em ? { spacing: spacing / (em * scale) } : {}),
    ...(rise ? { rise } : {}),
  };
}

export const levelOf = (levels: TextStyle, level: number): LevelStyle =>
  levels[Math.min(level, levels.length - 1)] ?? {};

/** Returns the metrics of a paragraph whose words are `tall`, by its own properties and those of its level, in em. */
export function paragraphMetrics(
  own: ParagraphProperties | undefined,
  level: ParagraphProperties | undefined,
  em: number,
  tall: number,
): ParagraphProperties & NonNullable<ParagraphLayout["metrics"]> {
  const look = { ...level, ...own };
  const gap = (value: ParagraphProperties["before"]) =>
    !value ? 0 : "points" in value ? value.points / em : (value.times * 1.2 * tall) / em;
  return {
    ...look,
    before: gap(look.before),
    after: gap(look.after),
    times: look.line && "times" in look.line ? look.line.times : 1,
    exact: look.line && "points" in look.line ? look.line.points / em : 0,
    first: (look.first ?? 0) / em,
    right: (look.right ?? 0) / em,
    least: 1,
  } as never;
}

/** Returns the bullet of an item that sets one: its own, or its number in the scheme. */
export function bulletOf(bullet: ParagraphProperties["bullet"], number: number): string | undefined {
  if (!bullet?.scheme) return bullet?.character;
  const [, open = "", kind = "1", close = ""] = /^(\(?)([1aAiI])(.*)$/.exec(bullet.scheme) ?? [];
  const letters = (value: number): string =>
    value <= 0 ? "" : letters(Math.floor((value - 1) / 26)) + String.fromCharCode(97 + ((value - 1) % 26));
  const written = kind === "1" ? String(number) : kind.toLowerCase() === "a" ? letters(number) : roman(number);
  return `${open}${kind === kind.toUpperCase() ? written.toUpperCase() : written}${close}`;
}

function roman(value: number): string {
  const signs: [number, string][] = [
    [1000, "m"],
    [900, "cm"],
    [500, "d"],
    [400, "cd"],
    [100, "c"],
    [90, "xc"],
    [50, "l"],
    [40, "xl"],
    [10, "x"],
    [9, "ix"],
    [5, "v"],
    [4, "iv"],
    [1, "i"],
  ];
  let left = Math.min(value, 3999);
  return signs
    .map(([worth, sign]) => {
      const count = Math.floor(left / worth);
      left -= count * worth;
      return sign.repeat(count);
    })
    .join("");
}

/**
 * By how much each further digit of its number widens the space before an item, in em: digits of the shipped faces are
 * at most that wide.
 */
const DIGIT = 0.62;

const USUAL_ROOMS: readonly number[] = Array<number>(MAX_LEVEL + 1).fill(INDENT);

/** Returns the space before numbers in em, level by level: as much as the longest number of a level needs. */
export function numberWidths(text: RichText): readonly number[] {
  if (!text.some(({ kind }) => kind === "number")) return USUAL_ROOMS;
  const rooms = [...USUAL_ROOMS];
  const numbers = listNumbers(text);
  text.forEach(({ kind, level }, at) => {
    if (kind === "number")
      rooms[level] = Math.max(must(rooms[level]), INDENT + (String(numbers[at]).length - 1) * DIGIT);
  });
  return rooms;
}

/**
 * Returns the default indents of a text's paragraphs in em: the left edge of their words, and how much of it is space
 * for the bullet.
 */
export function listIndents(text: RichText): { left: number; hang: number }[] {
  const rooms = numberWidths(text);
  // What continues an item is aligned with its text.
  const open: number[] = [];
  return text.map(({ kind, level }) => {
    const hang = kind === "plain" ? 0 : kind === "number" ? must(rooms[level]) : INDENT;
    const left = kind === "plain" ? (level ? (open[level - 1] ?? level * INDENT) : 0) : level * INDENT + hang;
    if (kind !== "plain") open[level] = left;
    return { left, hang };
  });
}

/** Returns the list number of each paragraph among its neighbours on the same level; 0 for none. */
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
