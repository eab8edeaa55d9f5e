import { readFileSync } from "node:fs";
import { join } from "node:path";
import { sceneSvg } from "@unitext/core/draw";
import { loadFormulas } from "@unitext/core/figures";
import { type ReadDeck, WRITERS, type WritableFormat } from "@unitext/core/formats";
import { FontSet, layoutSlide, type Sheets } from "@unitext/core/layout";
import { type Deck, Failure, headOf } from "@unitext/core/model";
import { Resvg } from "@resvg/resvg-js";
import readPdf from "./readpdf";

/** A refusal as it passes between threads, where errors lose what they are. */
export interface Refused {
  refused: Pick<Failure, "code" | "where" | "message">;
}

/** Reads a PDF; run on a worker thread. */
export async function readPages(file: { bytes: Uint8Array; name: string }): Promise<ReadDeck | Refused> {
  try {
    return await readPdf(file);
  } catch (error) {
    if (error instanceof Failure) return { refused: { code: error.code, where: error.where, message: error.message } };
    throw error;
  }
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

/** The shipped fonts in a folder, opened once for each thread. */
export function fontsIn(folder: string): FontSet {
  const known = opened.get(folder) ?? new FontSet((id) => readFileSync(join(folder, `${id}.ttf`)));
  opened.set(folder, known);
  return known;
}

/** Writes a deck in a format; run on a worker thread, so that the server goes on answering. */
export default async function exportDeck({ fonts, deck, blobs, at, format, sheets }: ExportWork): Promise<Uint8Array> {
  await loadFormulas();
  return WRITERS[format].write(deck, { fonts: fontsIn(fonts), picture: (sha256) => blobs.get(sha256), at: new Date(at), png: svgPng, ...(sheets ? { sheets } : {}) });
}

/** Draws one slide as a PNG of a width in pixels. */
export function slidePng(deck: Deck, number: number, width: number, fonts: FontSet, picture: (sha256: string) => Uint8Array | undefined): Uint8Array {
  const slide = deck.slides[number - 1];
  if (!slide) return new Uint8Array();
  const scene = layoutSlide(slide, { head: headOf(deck), number, fonts });
  const svg = sceneSvg(scene, { outlines: fonts, picture: (sha256) => dataUri(deck, sha256, picture(sha256)) });
  return svgPng(svg, width);
}

/** Draws an SVG that needs no fonts as a PNG of a width in pixels. */
export function svgPng(svg: string, width: number): Uint8Array {
  return new Resvg(svg, { fitTo: { mode: "width", value: width }, font: { loadSystemFonts: false } }).render().asPng();
}

function dataUri(deck: Deck, sha256: string, bytes: Uint8Array | undefined): string | undefined {
  const type = Object.values(deck.assets).find((asset) => asset.sha256 === sha256)?.mediaType ?? "image/png";
  return bytes && `data:${type};base64,${Buffer.from(bytes).toString("base64")}`;
}
