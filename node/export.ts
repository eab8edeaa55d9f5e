import { loadFormulas } from "@unitext/core/figures";
import { type ByItself, WRITERS, type WritableFormat } from "@unitext/core/formats";
import { loadHyphenation, type Sheets } from "@unitext/core/layout";
import type { Deck } from "@unitext/core/model";
import { fontsIn } from "./fonts";
import { svgPng } from "./rasterise";

export interface ExportWork {
  fonts: string;
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  at: number;
  format: WritableFormat;
  sheets?: Sheets;
  /** Whether pages say where linked values come from. */
  sourceNotes?: boolean;
  /** Turns the slides of a web page automatically. */
  byItself?: ByItself;
}

/** Writes a deck in a format. */
export async function exportDeck({
  fonts,
  deck,
  blobs,
  at,
  format,
  sheets,
  sourceNotes = false,
  byItself,
}: ExportWork): Promise<Uint8Array> {
  await Promise.all([loadFormulas(), loadHyphenation(deck.language)]);
  return WRITERS[format].write(deck, {
    fonts: fontsIn(fonts),
    picture: (sha256) => blobs.get(sha256),
    at: new Date(at),
    png: svgPng(fonts),
    ...(sheets ? { sheets } : {}),
    sourceNotes,
    ...(byItself ? { byItself } : {}),
  });
}
