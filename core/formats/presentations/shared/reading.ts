import { Asset, type Deck, type DeckMetadata, type Slide, must } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { z } from "zod";

const Assets = z.record(z.string(), Asset);

/** What reading a presentation needs: the file's name, ids, hashes. */
export interface ReadOptions {
  name: string;
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
}

/** A deck read from a file, the bytes of its pictures by SHA-256, and what was changed or left out. */
export interface ReadDeck extends Pick<Report, "adapted" | "left"> {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  /** Pictures to convert, by name: they are not among its assets until they are converted. */
  pendingPictures?: ReadonlyMap<string, Uint8Array>;
}

/**
 * Some slides of a file in order, with the deck's metadata as far as it is known, and the bytes that they are the first
 * to need.
 */
export interface ReadBatch {
  metadata: DeckMetadata;
  slides: Slide[];
  blobs: Map<string, Uint8Array>;
  /** Pictures to convert that were met so far, by the names that slides use. */
  pendingPictures: ReadonlyMap<string, Uint8Array>;
  /** The number of slides in the file. */
  of: number;
}

/** A file as it is read: batch after batch, and at the end what was changed or left out. */
export type ReadBatches = Generator<ReadBatch, Pick<Report, "adapted" | "left">>;

/**
 * Whether a batch of this many slides is handed over after `done` slides of the file: the first batches are small, so
 * that slides are soon seen.
 */
export const isBatch = (slides: number, done: number): boolean => (done <= 4 ? slides >= 4 : slides >= 60);

/** Joins batches into a whole deck. */
export function collectBatches(batches: ReadBatches): ReadDeck {
  const slides: Slide[] = [];
  const blobs = new Map<string, Uint8Array>();
  let last: ReadBatch | undefined;
  for (;;) {
    const next = batches.next();
    if (next.done)
      return {
        deck: { ...must(last).metadata, slides },
        blobs,
        pendingPictures: must(last).pendingPictures,
        ...next.value,
      };
    last = next.value;
    slides.push(...next.value.slides);
    for (const [sha256, bytes] of next.value.blobs) blobs.set(sha256, bytes);
  }
}

/** The files inside a file that is read. */
export interface ImportedFiles {
  blobs: Map<string, Uint8Array>;
  assets: Record<string, Asset>;
  /** Returns the bytes of a part by their hash, among all pictures, films and sounds. */
  bySum(sha256: string): Uint8Array | undefined;
}

/**
 * Imports files that slides of Unitext name and that no shape refers to, by the hashes stored with their names (`kept`,
 * as it is in the file). Names are looked up only while files are missing.
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

/** Returns the media type of a film or sound by the extension of its path; undefined for others. */
export function mediaOf(path: string): Asset["mediaType"] | undefined {
  return MEDIA[/\.([^.]*)$/.exec(path)?.[1]?.toLowerCase() ?? ""];
}
