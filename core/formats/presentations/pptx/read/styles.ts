import {
  cutText,
  canonical,
  type LevelStyle,
  type ParagraphProperties,
  type RunProperties,
  type SCHEMES,
  tabStop,
  type TextBox,
  type TextStyle,
  valueHash,
  must,
} from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { firstPicture } from "./drawing";
import { type ColourContext, colourIn, fraction } from "./colour";
import { EMU } from "../package/names";

export interface StyleContext {
  colours: ColourContext;
  /** The families that the theme calls `+mj` and `+mn`. */
  fonts: { major: string; minor: string };
  /** Imports a picture bullet by its relationship in the part of its mark. */
  sign?: (id: string, mark: XmlElement) => string | undefined;
  /** The language of the deck; runs in another language set theirs. */
  language?: string;
}

const on = (value: string | undefined) => value === "1" || value === "true" || value === "on";
const points = (value: string | undefined) => Math.round(((Number(value) || 0) / EMU) * 100) / 100;
const clamp = (value: number, low: number, high: number) => Math.max(low, Math.min(high, value));

const UNDERLINE: Record<string, NonNullable<RunProperties["underline"]>> = {
  sng: "single",
  words: "single",
  dbl: "double",
  heavy: "heavy",
  dotted: "dotted",
  dottedHeavy: "dotted",
  dash: "dashed",
  dashHeavy: "dashed",
  dashLong: "dashed",
  dashLongHeavy: "dashed",
  dotDash: "dashed",
  dotDotDash: "dashed",
  wavy: "wavy",
  wavyHeavy: "wavy",
  wavyDbl: "wavy",
};

/** Returns a font family with the theme's names resolved. */
export function familyOf(typeface: string | undefined, { fonts }: StyleContext): string | undefined {
  if (!typeface) return undefined;
  const name = typeface.startsWith("+mj") ? fonts.major : typeface.startsWith("+mn") ? fonts.minor : typeface;
  return name ? cutText(name, 200) : undefined;
}

/** Returns the value of the first source that has one: an attribute, or an element with one of the given names. */
function nearest(sources: readonly (XmlElement | undefined)[]): {
  attribute(name: string): string | undefined;
  inner(...names: string[]): XmlElement | undefined;
} {
  return {
    attribute: (name) => sources.find((source) => source?.attributes[name] !== undefined)?.attributes[name],
    inner: (...names) => {
      for (const source of sources) {
        const found = source?.children.find((part) => names.includes(localName(part)));
        if (found) return found;
      }
      return undefined;
    },
  };
}

/** Reads character properties (`a:rPr`, `a:defRPr`; ECMA-376-1, 21.1.2.3.9), nearest source first. */
export function runProperties(sources: readonly (XmlElement | undefined)[], context: StyleContext): RunProperties {
  const { attribute, inner } = nearest(sources);
  const size = Number(attribute("sz")) / 100;
  const fill = inner("solidFill", "gradFill", "pattFill", "noFill");
  const seen =
    fill &&
    (localName(fill) === "gradFill"
      ? colourIn(child(child(fill, "gsLst"), "gs"), context.colours)
      : localName(fill) === "pattFill"
        ? colourIn(child(fill, "fgClr"), context.colours)
        : colourIn(fill, context.colours));
  const font = familyOf(inner("latin")?.attributes.typeface, context);
  const underline = UNDERLINE[attribute("u") ?? ""];
  const cap = attribute("cap");
  const highlight = colourIn(inner("highlight"), context.colours);
  const spacing = Number(attribute("spc")) / 100;
  const rise =
    Number((attribute("baseline") ?? "0").replace("%", "")) / (attribute("baseline")?.endsWith("%") ? 100 : 100000);
  return {
    ...(size >= 1 && size <= 4000 ? { size } : {}),
    ...(seen ? { colour: seen.colour } : {}),
    ...(font ? { font } : {}),
    ...(underline ? { underline } : {}),
    ...(cap === "all" || cap === "small" ? { caps: cap } : {}),
    ...(highlight ? { highlight: highlight.colour } : {}),
    ...(spacing ? { spacing: clamp(spacing, -100, 400) } : {}),
    ...(rise ? { rise: clamp(rise, -1, 1) } : {}),
  };
}

const NUMBERS: Record<string, (typeof SCHEMES)[number]> = {
  arabicPeriod: "1.",
  arabicParenR: "1)",
  arabicParenBoth: "(1)",
  arabicPlain: "1",
  alphaLcPeriod: "a.",
  alphaLcParenR: "a)",
  alphaLcParenBoth: "(a)",
  alphaUcPeriod: "A.",
  alphaUcParenR: "A)",
  alphaUcParenBoth: "(A)",
  romanLcPeriod: "i.",
  romanLcParenR: "i)",
  romanLcParenBoth: "(i)",
  romanUcPeriod: "I.",
  romanUcParenR: "I)",
  romanUcParenBoth: "(I)",
};
/** Whether a numbering scheme (ST_TextAutonumberScheme) is drawn exactly. */
export const isNumberScheme = (type: string): boolean => type in NUMBERS;
export const SCHEME_NAMES = Object.fromEntries(
  Object.entries(NUMBERS).map(([name, scheme]) => [scheme, name]),
) as Record<(typeof SCHEMES)[number], string>;

function spacingOf(element: XmlElement | undefined): { points: number } | { times: number } | undefined {
  const exact = child(element, "spcPts")?.attributes.val;
  if (exact !== undefined) return { points: clamp(Number(exact) / 100 || 0, 0, 4000) };
  const share = child(element, "spcPct")?.attributes.val;
  return share === undefined ? undefined : { times: clamp(fraction(share), 0, 20) };
}

/** Types of tab stops (ST_TextTabAlignType, ECMA-376-1, 20.1.10.86; the number from memory). */
const TABS: Record<string, "end" | "centre" | "decimal"> = { r: "end", ctr: "centre", dec: "decimal" };

/** Reads paragraph properties (`a:pPr`, `a:lvl1pPr`; ECMA-376-1, 21.1.2.2.7), nearest source first. */
export function paragraphProperties(
  sources: readonly (XmlElement | undefined)[],
  context: StyleContext,
): ParagraphProperties {
  const { attribute, inner } = nearest(sources);
  const before = spacingOf(inner("spcBef"));
  const after = spacingOf(inner("spcAft"));
  const line = spacingOf(inner("lnSpc"));
  const mark = inner("buNone", "buChar", "buAutoNum", "buBlip");
  const kind = mark ? localName(mark) : undefined;
  const sign = kind === "buChar" ? mark?.attributes.char?.slice(0, 8) : undefined;
  const scheme = kind === "buAutoNum" ? NUMBERS[mark?.attributes.type ?? ""] : undefined;
  const picture =
    kind === "buBlip" ? firstPicture(child(mark, "blip"), (id) => context.sign?.(id, must(mark))) : undefined;
  const own = inner("buClr", "buClrTx");
  const colour = own && localName(own) === "buClr" ? colourIn(own, context.colours)?.colour : undefined;
  const size = inner("buSzPct", "buSzTx", "buSzPts");
  const share = size && localName(size) === "buSzPct" ? size : undefined;
  // "As the text" (buFontTx, buSzTx) ends inheritance from styles further off.
  const font = inner("buFont", "buFontTx")?.attributes.typeface;
  const bullet = {
    ...(sign ? { character: sign } : {}),
    ...(scheme ? { scheme } : {}),
    ...(picture ? { picture } : {}),
    ...(colour ? { colour } : {}),
    ...(share ? { size: clamp(fraction(share.attributes.val), 0.1, 4) } : {}),
    ...(font && kind === "buChar" ? { font: cutText(font, 200) } : {}),
  };
  const [left, right, first] = [attribute("marL"), attribute("marR"), attribute("indent")];
  const rtl = attribute("rtl");
  const tabs = childrenOf(inner("tabLst"), "tab")
    .map(({ attributes }) => tabStop(clamp(points(attributes.pos), 0, 4032), TABS[attributes.algn ?? ""] ?? "start"))
    .slice(0, 32);
  return {
    ...(before ? { before } : {}),
    ...(after ? { after } : {}),
    ...(line
      ? { line: "times" in line ? { times: clamp(line.times, 0.1, 20) } : { points: clamp(line.points, 1, 4000) } }
      : {}),
    ...(left === undefined ? {} : { left: clamp(points(left), -4032, 4032) }),
    ...(right === undefined || !Number(right) ? {} : { right: clamp(points(right), -4032, 4032) }),
    ...(first === undefined ? {} : { first: clamp(points(first), -4032, 4032) }),
    ...(tabs.length ? { tabs } : {}),
    ...(rtl === undefined ? {} : { direction: on(rtl) ? "rtl" : "ltr" }),
    ...(Object.keys(bullet).length ? { bullet } : {}),
  };
}

/** Returns the alignment of `algn` by reading direction; undefined for a value without a counterpart. */
export function alignOf(algn: string | undefined, rtl: boolean): LevelStyle["align"] {
  return algn === "ctr" ? "centre" : algn === (rtl ? "l" : "r") ? "end" : undefined;
}

/**
 * Returns the text style of a body, level by level, from list styles (`a:lstStyle` and the master's), nearest first.
 * With `boldRuns`, runs set their weight themselves, so that the level's own weight must not apply.
 */
export function textStyle(
  lists: readonly (XmlElement | undefined)[],
  context: StyleContext,
  own?: { colour: string | undefined; font: string | undefined },
): TextStyle {
  const levels = Array.from({ length: 9 }, (_, nth): LevelStyle => {
    const sources = lists.flatMap((list) => [
      child(list, `lvl${nth + 1}pPr`),
      ...(nth === 0 || !child(list, `lvl${nth + 1}pPr`) ? [child(list, "defPPr")] : []),
    ]);
    const runs = sources.map((source) => child(source, "defRPr"));
    const look = runProperties(runs, context);
    if (own?.colour && !runs[0]) look.colour = own.colour;
    if (own?.font && !child(runs[0], "latin")) look.font = own.font;
    const attribute = (name: string) => runs.find((source) => source?.attributes[name] !== undefined)?.attributes[name];
    const paragraph = paragraphProperties(sources, context);
    const align = alignOf(
      sources.find((source) => source?.attributes.algn !== undefined)?.attributes.algn,
      paragraph.direction === "rtl",
    );
    return {
      run: { size: 18, ...look },
      ...(Object.keys(paragraph).length ? { paragraph } : {}),
      ...(align ? { align } : {}),
      ...(on(attribute("b")) ? { strong: true } : {}),
      ...(on(attribute("i")) ? { emphasis: true } : {}),
    };
  });
  // Levels at the end that equal the one before are left out.
  while (levels.length > 1 && canonical(levels.at(-1)) === canonical(levels.at(-2))) levels.pop();
  return levels;
}

/** Returns a name for a style by its content. */
export const styleName = (style: TextStyle) => valueHash(style);

/** Reads how text is set in a shape (`a:bodyPr`, ECMA-376-1, 21.1.2.1.1), nearest source first. */
export function textBox(bodies: readonly (XmlElement | undefined)[]): TextBox {
  const attribute = (name: string) => bodies.find((body) => body?.attributes[name] !== undefined)?.attributes[name];
  const fit = bodies
    .flatMap((body) => body?.children ?? [])
    .map(localName)
    .find((name) => /Autofit|AutoFit/.test(name));
  const inset = (name: string, usual: number) =>
    attribute(name) === undefined ? usual : clamp(points(attribute(name)), -4032, 4032);
  const anchor = { ctr: "middle", b: "bottom", t: "top" }[attribute("anchor") ?? "t"] as TextBox["anchor"];
  const columns = Number(attribute("numCol") ?? 1);
  const turn = { vert: 90, vert270: 270, eaVert: 90, mongolianVert: 90, wordArtVert: 90 }[
    attribute("vert") ?? ""
  ] as TextBox["turn"];
  return {
    insets: [inset("lIns", 7.2), inset("tIns", 3.6), inset("rIns", 7.2), inset("bIns", 3.6)],
    ...(anchor && anchor !== "top" ? { anchor } : {}),
    ...(columns >= 2 && columns <= 16
      ? { columns: Math.floor(columns), gap: clamp(points(attribute("spcCol")), 0, 1000) }
      : {}),
    fit: fit === "normAutofit" ? "shrink" : fit === "spAutoFit" ? "grow" : "none",
    ...(attribute("wrap") === "none" ? { wrap: false } : {}),
    ...(turn ? { turn } : {}),
  };
}

/** Returns the families of a theme's font scheme. */
export function schemeFonts(theme: XmlElement | undefined): StyleContext["fonts"] {
  const face = (kind: string) => at(theme, "themeElements", "fontScheme", kind, "latin")?.attributes.typeface ?? "";
  return { major: face("majorFont"), minor: face("minorFont") };
}

const numbers = new WeakMap<XmlElement, number>();
let count = 0;
/** Returns a number that identifies a list style; 0 for an empty one. */
export function numberOf(element: XmlElement | undefined): number {
  if (!element?.children.length) return 0;
  const known = numbers.get(element) ?? ++count;
  numbers.set(element, known);
  return known;
}
