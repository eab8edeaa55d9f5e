import { must } from "@unitext/core/model";
import catalogue from "./catalogue.json" with { type: "json" };

/** A face of a shipped family: one file, and the characters that it covers. */
export interface FaceInfo {
  id: string;
  weight: number;
  slant: string;
  covers: (codePoint: number) => boolean;
}

export interface Family {
  family: string;
  faces: readonly FaceInfo[];
}

/**
 * Returns the characters in a list of ranges. Each range is its distance from the end of the one before and, where it is
 * longer than one character, `+` and by how much; both in base 36.
 */
function charactersIn(ranges: string): ReadonlySet<number> {
  const points = new Set<number>();
  let end = 0;
  for (const range of ranges.split(" ")) {
    const [distance = "0", more = "0"] = range.split("+");
    const from = end + Number.parseInt(distance, 36);
    end = from + Number.parseInt(more, 36);
    for (let point = from; point <= end; point++) points.add(point);
  }
  return points;
}

/** Returns a test for the characters in a list of ranges, which is read when it is first asked. */
function coverage(ranges: string): FaceInfo["covers"] {
  let points: ReadonlySet<number> | undefined;
  return (codePoint) => {
    points ??= charactersIn(ranges);
    return points.has(codePoint);
  };
}

const COVERAGES = catalogue.ranges.map(coverage);

/** The shipped families, as lists of faces with the characters that they have. */
export const FAMILIES: readonly Family[] = catalogue.families.map(({ family, faces }) => ({
  family,
  faces: faces.map(({ id, weight, slant, ranges }) => ({ id, weight, slant, covers: must(COVERAGES[ranges]) })),
}));

/**
 * Returns the faces of a family for a page that chooses fonts itself, each with the characters that it has as a
 * `unicode-range` of CSS.
 */
export function facesForPage(family: string): { id: string; weight: number; unicodeRange: string }[] {
  const faces = catalogue.families.find((one) => one.family === family)?.faces ?? [];
  return faces
    .filter(({ slant }) => slant === "normal")
    .map(({ id, weight, ranges }) => ({ id, weight, unicodeRange: unicodeRange(must(catalogue.ranges[ranges])) }));
}

function unicodeRange(ranges: string): string {
  const found: [from: number, to: number][] = [];
  for (const point of charactersIn(ranges)) {
    const last = found.at(-1);
    if (last && last[1] === point - 1) last[1] = point;
    else found.push([point, point]);
  }
  const hex = (point: number) => point.toString(16);
  return found.map(([from, to]) => `U+${hex(from)}${from === to ? "" : `-${hex(to)}`}`).join(",");
}

/** Families to try in turn when the wanted one lacks a character. */
export const FALLBACK = [
  "Noto Sans",
  "Noto Sans Hebrew",
  "Noto Sans Arabic",
  "Noto Sans Devanagari",
  "Noto Sans Bengali",
  "Noto Sans Tamil",
  "Noto Sans Thai",
  "DejaVu Sans",
  "Noto Sans Symbols 2",
];

/** The families for Chinese, Japanese and Korean. They share characters, but each language draws them in its own way. */
const HAN = { hans: "Noto Sans SC", ja: "Noto Sans JP", ko: "Noto Sans KR", hant: "Noto Sans TC" } as const;

/** The families in the order in which a language asks for them, found once for each language. */
const orders = new Map<string, readonly Family[]>();

function fallbackFor(language: string): readonly Family[] {
  const known = orders.get(language);
  if (known) return known;
  const own = hanFamily(language);
  const others = Object.values(HAN).filter((name) => name !== own);
  const [first, ...rest] = FALLBACK;
  const names = own ? [must(first), own, ...rest, ...others] : [...FALLBACK, ...others];
  const families = names.map(familyNamed);
  orders.set(language, families);
  return families;
}

/** Returns the family in which a language writes Han characters; undefined for languages that do not. */
function hanFamily(language: string): string | undefined {
  if (!/^(zh|ja|ko|yue)\b/i.test(language)) return undefined;
  if (/^ja/i.test(language)) return HAN.ja;
  if (/^ko/i.test(language)) return HAN.ko;
  return /^yue\b|-(hant|tw|hk|mo)\b/i.test(language) && !/-hans\b/i.test(language) ? HAN.hant : HAN.hans;
}

export const FACE_IDS: readonly string[] = FAMILIES.flatMap(({ faces }) => faces.map(({ id }) => id));

/** Shipped families with the same widths as families that do not ship: lines break at the same places. */
const METRIC: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries({
    Carlito: ["calibri"],
    Caladea: ["cambria"],
    Gelasio: ["georgia"],
    Arimo: [
      "arial",
      "arial mt",
      "helvetica",
      "helvetica neue",
      "liberation sans",
      "albany",
      "albany amt",
      "nimbus sans",
      "nimbus sans l",
      "tex gyre heros",
    ],
    Tinos: [
      "times new roman",
      "times",
      "liberation serif",
      "thorndale",
      "thorndale amt",
      "nimbus roman",
      "nimbus roman no9 l",
      "tex gyre termes",
    ],
    Cousine: [
      "courier new",
      "courier",
      "courier std",
      "liberation mono",
      "cumberland",
      "cumberland amt",
      "nimbus mono",
      "nimbus mono l",
      "nimbus mono ps",
      "tex gyre cursor",
    ],
    // DejaVu was made from Vera and has its letters unchanged.
    "DejaVu Sans": ["bitstream vera sans"],
  }).flatMap(([shown, names]) => names.map((name) => [name, shown])),
);
/** Families of a similar kind and width, by words in their names: lines break nearly where they did. */
const NEAR: readonly [RegExp, string][] = [
  // “Code” as a word of its own: a family for Unicode need not be one for code.
  [/mono|\bcode|consol|typewriter|courier|terminal/i, "Cousine"],
  [/comic|chalkboard/i, "Comic Relief"],
  [/narrow|condensed|\bcond\b|oswald/i, "Archivo Narrow"],
  [/verdana|vera sans|arial black|montserrat|poppins/i, "DejaVu Sans"],
  [
    /century gothic|avant ?garde|urw gothic|adventor|open sans|\binter\b|lucida(?! (?:bright|fax|calligraphy|handwriting))/i,
    "Noto Sans",
  ],
  [/gill|candara|corbel|myriad|source sans|futura|tw cen|twentieth|cabin|jost/i, "Carlito"],
  [/century|schoolbook|schola\b|c059|bookman|bonum|merriweather|(?:noto|dejavu) serif/i, "Literata"],
  [/palatino|palladio|pagella|p052|antiqua|constantia|slab|(?<!sans[\s-]?)serif/i, "Gelasio"],
  [/roman|times|garamond|baskerville|didot|bodoni|minion|goudy/i, "Tinos"],
  [/cambria/i, "Caladea"],
  [/calibri/i, "Carlito"],
];

/**
 * Returns the family shown for a wanted one: itself where it ships, else one of the same widths, else one of its kind.
 */
export function shownFamily(name: string): { family: string; fit: "same" | "metric" | "near" } {
  const key = name.trim().toLowerCase();
  const own = FAMILIES.find(({ family }) => family.toLowerCase() === key);
  if (own) return { family: own.family, fit: "same" };
  if (METRIC[key]) return { family: METRIC[key], fit: "metric" };
  return { family: NEAR.find(([words]) => words.test(key))?.[1] ?? "Arimo", fit: "near" };
}

const named = new Map<string, Family>();
/** Returns a shipped family, or the one that replaces it. */
export function familyNamed(name: string): Family {
  const known = named.get(name);
  if (known) return known;
  const { family: wanted } = shownFamily(name);
  const found = must(FAMILIES.find(({ family }) => family === wanted));
  named.set(name, found);
  return found;
}

/** Whether a font family is among the shipped fonts. */
export function isShipped(name: string): boolean {
  return FAMILIES.some(({ family }) => family.toLowerCase() === name.toLowerCase());
}

/** Returns the name of a face in CSS and SVG. Each face has its own name, so that a renderer never chooses another. */
export function cssFamily(face: string): string {
  return `unitext ${face}`;
}

function pick(faces: readonly FaceInfo[], codePoint: number, bold: boolean, italic: boolean): FaceInfo | undefined {
  let best: FaceInfo | undefined;
  let score = -1;
  for (const face of faces) {
    if (!face.covers(codePoint)) continue;
    const fit = (face.weight >= 600 === bold ? 2 : 0) + ((face.slant === "italic") === italic ? 1 : 0);
    if (fit > score) [best, score] = [face, fit];
  }
  return best;
}

/** The faces chosen so far, by family, language, and weight and slope as a number from 0 to 3. */
const chosen = new WeakMap<Family, Map<string, Map<number, FaceInfo>[]>>();

/**
 * Returns the face for a character in a style: of the family itself, else of the fallback families in the order of the
 * language, else the family's first.
 */
export function faceFor(family: Family, codePoint: number, bold: boolean, italic: boolean, language: string): FaceInfo {
  let languages = chosen.get(family);
  if (!languages) chosen.set(family, (languages = new Map()));
  let styles = languages.get(language);
  if (!styles) languages.set(language, (styles = [new Map(), new Map(), new Map(), new Map()]));
  const known = must(styles[(bold ? 2 : 0) + (italic ? 1 : 0)]);
  let face = known.get(codePoint);
  if (!face) known.set(codePoint, (face = chooseFace(family, codePoint, bold, italic, language)));
  return face;
}

function chooseFace(family: Family, codePoint: number, bold: boolean, italic: boolean, language: string): FaceInfo {
  const own = pick(family.faces, codePoint, bold, italic);
  if (own) return own;
  for (const { faces } of fallbackFor(language)) {
    const other = pick(faces, codePoint, bold, italic);
    if (other) return other;
  }
  return must(pick(family.faces, 0x20, bold, italic));
}

/** Latin letters beyond ASCII, most of which are in two blocks. */
const MAYBE_LATIN = /[\u00AA-\u02AF\u1D00-\u1EFF\u2C60-\u2C7F\uA720-\uAB6F\uFF21-\uFF5A]/;
const LATIN = /[^\0-\u007F\P{Script=Latin}]/gu;
const MARK = /\p{M}/u;

/** Letters that nearly every sentence of a language has, and that many families with Latin letters lack. */
const EXEMPLARS: Readonly<Record<string, string>> = { vi: "ạ" };

/**
 * Returns the family for a word: the wanted one, unless it lacks a Latin letter of the word, or one that the language
 * cannot do without, and a fallback family has them all. So no word is set in two typefaces.
 */
export function familyForWord(wanted: Family, word: string, language: string): Family {
  const exemplars = EXEMPLARS[language.slice(0, 2)] ?? "";
  if (!exemplars && !MAYBE_LATIN.test(word)) return wanted;
  const has = ({ faces }: Family, character: string) =>
    MARK.test(character) || pick(faces, must(character.codePointAt(0)), false, false) !== undefined;
  if (((exemplars + word).match(LATIN) ?? []).every((letter) => has(wanted, letter))) return wanted;
  return (
    fallbackFor(language).find((family) => [...exemplars, ...word].every((character) => has(family, character))) ??
    wanted
  );
}
