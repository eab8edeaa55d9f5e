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

/** Returns a test for a list of Unicode ranges in hex: `0-ff,131`. */
function coverage(ranges: string): FaceInfo["covers"] {
  const points = new Set<number>();
  for (const range of ranges.split(",")) {
    const [from = "0", to = from] = range.split("-");
    for (let point = Number.parseInt(from, 16); point <= Number.parseInt(to, 16); point++) points.add(point);
  }
  return (codePoint) => points.has(codePoint);
}

const shared = new Map<string, FaceInfo["covers"]>();
const covers = (ranges: string) =>
  shared.get(ranges) ?? shared.set(ranges, coverage(ranges)).get(ranges) ?? coverage(ranges);

/** The shipped families, as lists of faces with their Unicode ranges. */
export const FAMILIES: readonly Family[] = catalogue.map(({ family, faces }) => ({
  family,
  faces: faces.map(({ id, weight, slant, ranges }) => ({ id, weight, slant, covers: covers(ranges) })),
}));

/** Families to try in turn when the wanted one lacks a character. */
export const FALLBACK = ["Noto Sans", "Noto Sans Hebrew", "Noto Sans Arabic", "DejaVu Sans", "Noto Sans Symbols 2"];

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

/**
 * Returns the face for a character in a style: of the family itself, else of the fallback families, else the family's
 * first.
 */
export function faceFor(family: Family, codePoint: number, bold: boolean, italic: boolean): FaceInfo {
  const own = pick(family.faces, codePoint, bold, italic);
  if (own) return own;
  for (const name of FALLBACK) {
    const other = pick(familyNamed(name).faces, codePoint, bold, italic);
    if (other) return other;
  }
  return must(pick(family.faces, 0x20, bold, italic));
}
