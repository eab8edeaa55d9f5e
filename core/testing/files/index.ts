import { createHash } from "node:crypto";
import { type ReadResult, readDeck } from "@unitext/core/formats";
import { type Deck, type Element, emptyDeck, newSlide } from "@unitext/core/model";
import { idSource } from "../index";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { shippedFonts } from "../fonts";

export const sha256 = (bytes: Uint8Array): string => createHash("sha256").update(bytes).digest("hex");

/** Returns a presentation without Unitext's tags, as another program would have written it. */
export function withoutTags(bytes: Uint8Array): Uint8Array {
  const bare = (part: Uint8Array) =>
    strToU8(
      strFromU8(part)
        .replace(/UNITEXT_/g, "OTHER_")
        .replace(/unitext:/g, "other:"),
    );
  return zipSync(
    Object.fromEntries(
      Object.entries(unzipSync(bytes)).map(([path, part]) => [
        path,
        /tags\/|^meta\.xml$/.test(path) ? bare(part) : part,
      ]),
    ),
  );
}

/** Returns a deck of one slide with one element, and the assets that it shows. */
export const deckWith = (element: Element, assets: Deck["assets"] = {}): Deck => ({
  ...emptyDeck("d", "Tides"),
  assets,
  slides: [{ ...newSlide("s", "blank"), elements: [element] }],
});

/**
 * Writes and reads files in tests: the given pictures are there, and what a file brings is there when the next is
 * written.
 */
export function filesBench(...pictures: readonly Uint8Array[]) {
  const blobs = new Map<string, Uint8Array>(pictures.map((bytes) => [sha256(bytes), bytes]));
  return {
    blobs,
    context: { fonts: shippedFonts(), at: new Date("2026-03-01T09:00:00Z"), picture: (sum: string) => blobs.get(sum) },
    read(bytes: Uint8Array, name: string, prefix = "r"): ReadResult {
      const found = readDeck(bytes, name, { newId: idSource(prefix), sha256 });
      for (const [sum, blob] of found.blobs) blobs.set(sum, blob);
      return found;
    },
  };
}
