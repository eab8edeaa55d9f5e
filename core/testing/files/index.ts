import { createHash } from "node:crypto";
import { type ReadResult, readDeck } from "@unitext/core/formats";
import { idSource } from "../index";
import { shippedFonts } from "../fonts";

export const sha256 = (bytes: Uint8Array): string => createHash("sha256").update(bytes).digest("hex");

/** Where tests write and read files: the pictures given are there, and what is taken in of a file that is read is there when the next is written. */
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
