import { Asset, type Deck, type DeckMetadata, type Slide } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { z } from "zod";

const Assets = z.record(z.string(), Asset);

/** What reading a presentation needs of the world: its name, ids, sums. */
export interface ReadOptions {
  name: string;
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
}

/** A deck read from a file, the bytes of its pictures by SHA-256, and what could not be taken as it was. */
export interface ReadDeck extends Pick<Report, "adapted" | "left"> {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  /** The pictures that are to be drawn anew, by name: they have no place among its assets until they are. */
  undrawn?: ReadonlyMap<string, Uint8Array>;
}

/** Some slides of a file in their order, with the deck's head as far as it is known with them, and the bytes that they are the first to need. */
export interface ReadBatch {
  metadata: DeckMetadata;
  slides: Slide[];
  blobs: Map<string, Uint8Array>;
  /** The pictures to be drawn anew that were met up to here, by the names that slides have for them. */
  undrawn: ReadonlyMap<string, Uint8Array>;
  /** How many slides the file has. */
  of: number;
}
/** A file as it is read: lot after lot, and at the end what could not be taken as it was. */
export type ReadBatches = Generator<ReadBatch, Pick<Report, "adapted" | "left">>;

/** Whether a lot of so many slides is handed over after `done` of the file: the first are few, so that they are soon seen. */
export const isBatch = (slides: number, done: number): boolean => (done <= 4 ? slides >= 4 : slides >= 60);

/** The whole deck from its lots. */
export function collectBatches(lots: ReadBatches): ReadDeck {
  const slides: Slide[] = [];
  const blobs = new Map<string, Uint8Array>();
  let last: ReadBatch | undefined;
  for (;;) {
    const next = lots.next();
    if (next.done)
      return {
        deck: { ...(last as ReadBatch).metadata, slides },
        blobs,
        undrawn: (last as ReadBatch).undrawn,
        ...next.value,
      };
    last = next.value;
    slides.push(...next.value.slides);
    for (const [sha256, bytes] of next.value.blobs) blobs.set(sha256, bytes);
  }
}

/** The files inside a file that is read, as they are taken in. */
export interface ImportedFiles {
  blobs: Map<string, Uint8Array>;
  assets: Record<string, Asset>;
  /** The bytes of a part by their sum, among all that may be pictures, films and sounds. */
  bySum(sha256: string): Uint8Array | undefined;
}

/**
 * Takes in the files that slides of Unitext name and that no shape has led to, by the sums that the file keeps with their
 * names (`kept`, as it stands there). The names that slides have are asked for only while files are missing.
 */
export function sourceNames(files: ImportedFiles, kept: unknown): (names: () => Iterable<string>) => void {
  const missing = new Map(Object.entries(Assets.safeParse(kept).data ?? {}));
  return (names) => {
    for (const name of missing.keys()) if (files.assets[name]) missing.delete(name);
    for (const name of missing.size ? names() : []) {
      const asset = missing.get(name);
      const bytes = asset && files.bySum(asset.sha256);
      if (!bytes) continue;
      files.blobs.set(asset.sha256, bytes);
      files.assets[name] = asset;
      missing.delete(name);
    }
  };
}

const MEDIA: Record<string, Asset["mediaType"]> = {
  mp4: "video/mp4",
  m4v: "video/mp4",
  webm: "video/webm",
  mp3: "audio/mpeg",
  m4a: "audio/mp4",
  wav: "audio/wav",
};
/** The media type of a film or sound by the ending of its path; undefined where it is none that is played. */
export function mediaOf(path: string): Asset["mediaType"] | undefined {
  return MEDIA[/\.([^.]*)$/.exec(path)?.[1]?.toLowerCase() ?? ""];
}
