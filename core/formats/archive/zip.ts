import { Failure } from "@unitext/core/model";
import { strFromU8, unzipSync, zipSync } from "fflate";

/** The parts of an archive by their path. */
export type Parts = Map<string, Uint8Array>;

/** Bounds for an archive that is read: one that goes past them is refused before it is unpacked. */
export const LIMITS = { parts: 20000, bytes: 1024 * 1024 * 1024, ratio: 200, slack: 10 * 1024 * 1024 };

/**
 * Unpacks a zip. Throws a Failure `not-readable` for what is no zip or a broken one, and for a path that climbs out of
 * the archive; `too-large` for one that would unpack to more than the limits.
 */
export function unzip(bytes: Uint8Array, name: string): Parts {
  if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new Failure("not-readable", name, "The file is not a zip archive, which this kind of document is. It may have been renamed or damaged.");
  let parts = 0;
  let total = 0;
  try {
    const unpacked = unzipSync(bytes, {
      filter: (file) => {
        parts += 1;
        total += file.originalSize;
        if (parts > LIMITS.parts || total > LIMITS.bytes || total > LIMITS.slack + bytes.length * LIMITS.ratio) throw new Failure("too-large", name, "The archive would unpack to far more than a document holds, so it was not opened.");
        if (/(^|[\\/])\.\.([\\/]|$)|^[\\/]|^[A-Za-z]:/.test(file.name)) throw new Failure("not-readable", file.name, `The archive holds a path that leads out of it (${file.name}), so it was not opened.`);
        return !file.name.endsWith("/");
      },
    });
    return new Map(Object.entries(unpacked));
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw new Failure("not-readable", name, "The archive is damaged or cut off; it cannot be unpacked.");
  }
}

/** 1980-01-01, the earliest time that a zip can name: files do not depend on when they were written. */
const EPOCH = new Date(1980, 0, 1);
const STORED = /\.(png|jpe?g)$/i;

/** Packs parts into a zip in the order given; pictures are stored, all else is deflated. */
export function zip(parts: ReadonlyMap<string, Uint8Array>): Uint8Array {
  return zipSync(Object.fromEntries([...parts].map(([path, bytes]) => [path, [bytes, { level: STORED.test(path) ? 0 : 6, mtime: EPOCH }]])));
}

/** The text of a part in UTF-8 or UTF-16 with a byte order mark. */
export function partText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  return strFromU8(bytes).replace(/^\uFEFF/, "");
}
