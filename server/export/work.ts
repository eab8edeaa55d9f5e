import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { sceneSvg } from "@unitext/core/draw";
import { loadFormulas } from "@unitext/core/figures";
import { Drawings, WRITERS, type WritableFormat } from "@unitext/core/formats";
import { FontSet, layoutSlide, type Sheets } from "@unitext/core/layout";
import { type Asset, type Deck, headOf } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { Resvg } from "@resvg/resvg-js";

/** Pictures drawn anew that pages do not show as they come, by name, and what of them could not be drawn. */
export interface Drawn extends Pick<Report, "left"> {
  assets: Record<string, Asset>;
  blobs: Map<string, Uint8Array>;
}

/** Draws pictures anew, which may take seconds. */
export async function drawPictures(undrawn: ReadonlyMap<string, Uint8Array>): Promise<Drawn> {
  const drawings = new Drawings((bytes) => createHash("sha256").update(bytes).digest("hex"));
  const drawn = { assets: {}, blobs: new Map<string, Uint8Array>() };
  await drawings.into({ ...drawn, undrawn });
  return { ...drawn, left: drawings.left };
}

export interface ExportWork {
  fonts: string;
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  at: number;
  format: WritableFormat;
  sheets?: Sheets;
}

const opened = new Map<string, FontSet>();

/** The shipped fonts in a folder, opened once for each process. */
export function fontsIn(folder: string): FontSet {
  const known = opened.get(folder) ?? new FontSet((id) => readFileSync(join(folder, `${id}.ttf`)));
  opened.set(folder, known);
  return known;
}

/** Writes a deck in a format. */
export default async function exportDeck({ fonts, deck, blobs, at, format, sheets }: ExportWork): Promise<Uint8Array> {
  await loadFormulas();
  return WRITERS[format].write(deck, {
    fonts: fontsIn(fonts),
    picture: (sha256) => blobs.get(sha256),
    at: new Date(at),
    png: svgPng(fonts),
    ...(sheets ? { sheets } : {}),
  });
}

/** Draws one slide as a PNG of a width in pixels. */
export function slidePng(
  deck: Deck,
  number: number,
  width: number,
  fonts: FontSet,
  png: (svg: string, width: number) => Uint8Array,
  picture: (sha256: string) => Uint8Array | undefined,
): Uint8Array {
  const slide = deck.slides[number - 1];
  if (!slide) return new Uint8Array();
  const scene = layoutSlide(slide, { head: headOf(deck), number, fonts });
  const svg = sceneSvg(scene, { outlines: fonts, picture: (sha256) => dataUri(deck, sha256, picture(sha256)) });
  return png(svg, width);
}

/** How wide a picture of lines is drawn that becomes dots. */
const DOTS = 1600;

/** The faces that stand for those that a picture in SVG names; its words are not shaped by Unitext. */
const FACES = [
  "noto-sans-latin",
  "noto-sans-latin-ext",
  "noto-sans-greek",
  "noto-sans-cyrillic",
  "arimo-latin",
  "tinos-latin",
  "cousine-latin",
].flatMap((name) => [
  `${name}-400-normal`,
  `${name}-700-normal`,
  ...(name === "noto-sans-latin" ? [`${name}-400-italic`] : []),
]);

/** Draws SVG as PNGs of a width in pixels. Drawings of Unitext need no fonts; a picture in SVG with words in it takes them from a folder. */
export function svgPng(fonts: string): (svg: string, width: number) => Uint8Array {
  const flat = new Map<string, string>();
  const faces = {
    loadSystemFonts: false,
    fontFiles: FACES.map((id) => join(fonts, `${id}.ttf`)),
    defaultFontFamily: "Noto Sans",
    sansSerifFamily: "Arimo",
    serifFamily: "Tinos",
    monospaceFamily: "Cousine",
  };
  const drawn = (svg: string, width: number, font: object) =>
    new Resvg(svg, { fitTo: { mode: "width", value: width }, font }).render().asPng();
  /** A picture in SVG that has pictures of dots in it, as dots: what draws here shows none in a picture. They are drawn once, and nothing is taken from elsewhere. */
  const flattened = (uri: string): string => {
    const known = flat.get(uri);
    if (known !== undefined) return known;
    const svg = Buffer.from(uri.slice(uri.indexOf(",") + 1), "base64").toString("utf8");
    const alone = svg.replace(/\s(?:xlink:)?href\s*=\s*("|')(?!#|data:image\/(?:png|jpeg|gif)[;,])[^"']*\1/g, "");
    const made = /<(?:\w+:)?image\b/.test(svg)
      ? `data:image/png;base64,${Buffer.from(drawn(alone, DOTS, faces)).toString("base64")}`
      : uri;
    if (flat.size >= 16) flat.clear();
    flat.set(uri, made);
    return made;
  };
  return (svg, width) => {
    if (!svg.includes("data:image/svg+xml")) return drawn(svg, width, { loadSystemFonts: false });
    return drawn(svg.replace(/data:image\/svg\+xml;base64,[A-Za-z0-9+/=]+/g, flattened), width, faces);
  };
}

function dataUri(deck: Deck, sha256: string, bytes: Uint8Array | undefined): string | undefined {
  const type = Object.values(deck.assets).find((asset) => asset.sha256 === sha256)?.mediaType ?? "image/png";
  return bytes && `data:${type};base64,${Buffer.from(bytes).toString("base64")}`;
}
