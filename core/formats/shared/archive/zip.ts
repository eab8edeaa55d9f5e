import { Failure, must } from "@unitext/core/model";
import { deflateSync, Inflate, inflateSync, strFromU8, strToU8, unzipSync } from "fflate";

/**
 * The parts of an archive by path, each unpacked when it is first used. One that cannot be unpacked throws a Failure
 * then.
 */
export interface Parts {
  has(path: string): boolean;
  get(path: string): Uint8Array | undefined;
  /** Returns a part that is used once and may be large: it is not kept in memory. */
  take(path: string): Uint8Array | undefined;
  /** Unpacks a large part piece by piece, so that it is never in memory whole. */
  pieces(path: string): Iterable<Uint8Array> | undefined;
  keys(): Iterable<string>;
  /** Returns the parts that were not used and cannot be unpacked. */
  damaged(): string[];
}

/** Limits of an archive; one beyond them is refused before it is unpacked. */
export const LIMITS = { parts: 20000, bytes: 1024 * 1024 * 1024, ratio: 200, slack: 10 * 1024 * 1024 };

/**
 * Opens a zip. Stored parts are views of the given bytes, not copies. Throws a Failure `not-readable` for a file that
 * is not a zip or is damaged, and for a path that leads out of the archive; `too-large` for one that would unpack
 * beyond the limits.
 */
export function unzip(bytes: Uint8Array, name: string): Parts {
  if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
  // MS-CFB, 2.2: a compound file wraps encrypted documents, and is the format of those before the standards.
  if (bytes[0] === 0xd0 && bytes[1] === 0xcf && bytes[2] === 0x11 && bytes[3] === 0xe0)
    throw new Failure(
      "not-readable",
      name,
      "The file is protected by a password, or of an older kind. Open it where it was made, save it without a password as a document of today (.pptx, .odp, .docx) and bring it in again.",
    );
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b)
    throw new Failure(
      "not-readable",
      name,
      "The file is not a zip archive, which this kind of document is. It may have been renamed or damaged.",
    );
  let parts = 0;
  let total = 0;
  const listed = new Map<string, number>();
  try {
    unzipSync(bytes, {
      filter: (file) => {
        parts += 1;
        total += file.originalSize;
        if (parts > LIMITS.parts || total > LIMITS.bytes || total > LIMITS.slack + bytes.length * LIMITS.ratio)
          throw tooLarge(name);
        refuseUnsafe(file.name);
        if (!file.name.endsWith("/")) listed.set(file.name, file.originalSize);
        return false;
      },
    });
    const packed = packedParts(bytes);
    for (const [path, part] of packed) if (listed.get(path) !== part.size) packed.delete(path);
    // Entries that the directory does not list in the plain form are unpacked at once.
    const other = new Set([...listed.keys()].filter((path) => !packed.has(path)));
    const found = other.size
      ? new Map(Object.entries(unzipSync(bytes, { filter: (file) => other.has(file.name) })))
      : new Map<string, Uint8Array>();
    return new OpenedArchive(listed, packed, found);
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw new Failure("not-readable", name, "The archive is damaged or cut off; it cannot be unpacked.");
  }
}

/** The parts of a file that is not an archive. */
export const NO_PARTS: Parts = {
  has: () => false,
  get: () => undefined,
  take: () => undefined,
  pieces: () => undefined,
  keys: () => [],
  damaged: () => [],
};

class OpenedArchive implements Parts {
  constructor(
    private readonly listed: ReadonlyMap<string, number>,
    private readonly packed: ReadonlyMap<string, PackedPart>,
    private readonly found: Map<string, Uint8Array>,
  ) {}

  has(path: string): boolean {
    return this.listed.has(path);
  }

  keys(): Iterable<string> {
    return this.listed.keys();
  }

  get(path: string): Uint8Array | undefined {
    const known = this.found.get(path);
    const part = known ? undefined : this.packed.get(path);
    if (!part) return known;
    const bytes = intact(path, part);
    this.found.set(path, bytes);
    return bytes;
  }

  take(path: string): Uint8Array | undefined {
    const part = this.packed.get(path);
    return this.found.get(path) ?? (part && intact(path, part));
  }

  pieces(path: string): Iterable<Uint8Array> | undefined {
    const known = this.found.get(path);
    const part = this.packed.get(path);
    return known ? [known] : part && inPieces(path, part);
  }

  damaged(): string[] {
    return [...this.packed].filter(([path, part]) => !this.found.has(path) && !whole(part)).map(([path]) => path);
  }
}

const damagedPart = (path: string) =>
  new Failure("not-readable", path, `The part ${path} of the file is damaged or cut off; it cannot be unpacked.`);

/** Returns the bytes of a part. Throws a Failure `not-readable` when it is damaged. */
function intact(path: string, part: PackedPart): Uint8Array {
  const bytes = whole(part);
  if (bytes) return bytes;
  throw damagedPart(path);
}

/** How many compressed bytes are unpacked at a time. */
const PIECE = 64 * 1024;

/** Unpacks a part piece by piece. Throws a Failure `not-readable` when it is damaged. */
function* inPieces(path: string, { method, data, size }: PackedPart): Generator<Uint8Array> {
  if (method === 0) {
    yield data;
    return;
  }
  let total = 0;
  let ready: Uint8Array[] = [];
  const inflate = new Inflate((piece) => ready.push(piece));
  for (let from = 0; from < data.length || from === 0; from += PIECE) {
    try {
      inflate.push(data.subarray(from, from + PIECE), from + PIECE >= data.length);
    } catch {
      throw damagedPart(path);
    }
    for (const piece of ready) {
      total += piece.length;
      yield piece;
    }
    ready = [];
  }
  if (total !== size) throw damagedPart(path);
}

/** Returns the bytes of a part; undefined when it is damaged. */
function whole(part: PackedPart): Uint8Array | undefined {
  try {
    const bytes = unpacked(part);
    return bytes.length === part.size ? bytes : undefined;
  } catch {
    return undefined;
  }
}

/**
 * Pictures are compressed already; the media type of an OpenDocument package must be readable without unpacking
 * (OpenDocument 1.3, part 2, 3.3).
 */
const STORED = /\.(png|jpe?g)$|^mimetype$/i;

/** A compressed part of an archive, with its uncompressed size and CRC-32. */
export interface PackedPart {
  method: 0 | 8;
  data: Uint8Array;
  size: number;
  crc: number;
}

function endOf(view: DataView): number {
  let end = view.byteLength - 22;
  while (end >= 0 && view.getUint32(end, true) !== 0x06054b50) end--;
  return end;
}

/**
 * Returns the directory of an archive (APPNOTE 6.3, 4.3.12): names, sizes and CRC-32 of all parts, which identify it
 * without reading it; all bytes when it has none.
 */
export function directoryOf(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = endOf(view);
  return end < 0 ? bytes : bytes.subarray(Math.min(end, view.getUint32(end + 16, true)));
}

/**
 * Returns the compressed parts of an archive without unpacking them (APPNOTE 6.3, 4.3). The archive has been read by
 * `unzip` before, which refuses damaged ones; entries with other compression methods are left out.
 */
export function packedParts(bytes: Uint8Array): Map<string, PackedPart> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const parts = new Map<string, PackedPart>();
  const end = endOf(view);
  if (end < 0) return parts;
  let at = view.getUint32(end + 16, true);
  for (
    let left = view.getUint16(end + 10, true);
    left > 0 && at + 46 <= bytes.length && view.getUint32(at, true) === 0x02014b50;
    left--
  ) {
    const [method, crc, packed, size] = [
      view.getUint16(at + 10, true),
      view.getUint32(at + 16, true),
      view.getUint32(at + 20, true),
      view.getUint32(at + 24, true),
    ];
    const [nameLength, extra, comment, local] = [
      view.getUint16(at + 28, true),
      view.getUint16(at + 30, true),
      view.getUint16(at + 32, true),
      view.getUint32(at + 42, true),
    ];
    // Names are in UTF-8 where a flag says so (APPNOTE 6.3, 4.4.4, bit 11).
    const name = strFromU8(bytes.subarray(at + 46, at + 46 + nameLength), !(view.getUint16(at + 8, true) & 2048));
    at += 46 + nameLength + extra + comment;
    if ((method !== 0 && method !== 8) || name.endsWith("/") || local + 30 > bytes.length) continue;
    const from = local + 30 + view.getUint16(local + 26, true) + view.getUint16(local + 28, true);
    parts.set(name, { method, data: bytes.subarray(from, from + packed), size, crc });
  }
  return parts;
}

/**
 * Returns the compressed parts of an archive that `unzip` has not checked. Throws a Failure for paths that lead out of
 * it, and for one that would unpack beyond the limits.
 */
export function checkedParts(bytes: Uint8Array, name: string): Map<string, PackedPart> {
  const parts = packedParts(bytes);
  let total = 0;
  for (const [path, { size }] of parts) {
    total += size;
    refuseUnsafe(path);
    if (parts.size > LIMITS.parts || total > LIMITS.bytes || total > LIMITS.slack + bytes.length * LIMITS.ratio)
      throw tooLarge(name);
  }
  return parts;
}

const tooLarge = (name: string) =>
  new Failure("too-large", name, "The archive would unpack to far more than a document holds, so it was not opened.");

function refuseUnsafe(path: string): void {
  if (/(^|[\\/])\.\.([\\/]|$)|^[\\/]|^[A-Za-z]:/.test(path))
    throw new Failure(
      "not-readable",
      path,
      `The archive holds a path that leads out of it (${path}), so it was not opened.`,
    );
}

/** Unpacks a part. */
export function unpacked({ method, data, size }: PackedPart): Uint8Array {
  return method === 0 ? data : inflateSync(data, { out: new Uint8Array(size) });
}

/**
 * Eight tables, so that eight bytes are processed at once: the first holds the remainders of bytes, each other one
 * those of the table before followed by a zero byte.
 */
const CRC = Array.from({ length: 8 }, () => new Int32Array(256));
for (const [nth, table] of CRC.entries()) {
  const before = CRC[nth - 1];
  for (let index = 0; index < 256; index++) {
    let value = before?.[index] ?? index;
    if (before) value = (value >>> 8) ^ ((CRC[0] as Int32Array)[value & 255] ?? 0);
    else for (let bit = 0; bit < 8; bit++) value = value & 1 ? 0xedb88320 ^ (value >>> 1) : value >>> 1;
    table[index] = value;
  }
}
/** Returns the CRC-32 of ISO/IEC 3309, as used in zip archives. */
export function crc32(bytes: Uint8Array): number {
  const [last, t1, t2, t3, t4, t5, t6, t7] = CRC as [
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
  ];
  const value = (table: Int32Array, index: number) => table[index & 255] ?? 0;
  const byte = (at: number) => bytes[at] ?? 0;
  let crc = -1;
  let at = 0;
  for (; at + 8 <= bytes.length; at += 8)
    crc =
      value(t7, crc ^ byte(at)) ^
      value(t6, (crc >>> 8) ^ byte(at + 1)) ^
      value(t5, (crc >>> 16) ^ byte(at + 2)) ^
      value(t4, (crc >>> 24) ^ byte(at + 3)) ^
      value(t3, byte(at + 4)) ^
      value(t2, byte(at + 5)) ^
      value(t1, byte(at + 6)) ^
      value(last, byte(at + 7));
  for (; at < bytes.length; at++) crc = value(last, crc ^ byte(at)) ^ (crc >>> 8);
  return (crc ^ -1) >>> 0;
}

function packed(path: string, part: Uint8Array | PackedPart): PackedPart {
  if (!(part instanceof Uint8Array)) return part;
  const stored = STORED.test(path);
  return {
    method: stored ? 0 : 8,
    data: stored ? part : deflateSync(part, { level: 6 }),
    size: part.length,
    crc: crc32(part),
  };
}

/**
 * 1980-01-01 as MS-DOS writes dates: the earliest that a zip can have, so that files do not depend on when they were
 * written.
 */
const DOS_DATE = 0x21;

/**
 * Packs parts into a zip in the given order. Pictures are stored, everything else is deflated, compressed parts are
 * copied.
 */
export function zip(parts: ReadonlyMap<string, Uint8Array | PackedPart>): Uint8Array {
  const entries = [...parts].map(([path, part]) => ({ name: strToU8(path), ...packed(path, part) }));
  const total = entries.reduce((sum, { name, data }) => sum + 76 + 2 * name.length + data.length, 22);
  const out = new Uint8Array(total);
  const view = new DataView(out.buffer);
  let at = 0;
  const offsets: number[] = [];
  const common = (from: number, { method, crc, data, size, name }: (typeof entries)[number]) => {
    view.setUint16(from, 20, true);
    view.setUint16(from + 2, 0x0800, true);
    view.setUint16(from + 4, method, true);
    view.setUint16(from + 8, DOS_DATE, true);
    view.setUint32(from + 10, crc, true);
    view.setUint32(from + 14, data.length, true);
    view.setUint32(from + 18, size, true);
    view.setUint16(from + 22, name.length, true);
  };
  for (const entry of entries) {
    offsets.push(at);
    view.setUint32(at, 0x04034b50, true);
    common(at + 4, entry);
    out.set(entry.name, at + 30);
    out.set(entry.data, at + 30 + entry.name.length);
    at += 30 + entry.name.length + entry.data.length;
  }
  const directory = at;
  entries.forEach((entry, nth) => {
    view.setUint32(at, 0x02014b50, true);
    view.setUint16(at + 4, 20, true);
    common(at + 6, entry);
    view.setUint32(at + 42, must(offsets[nth]), true);
    out.set(entry.name, at + 46);
    at += 46 + entry.name.length;
  });
  view.setUint32(at, 0x06054b50, true);
  view.setUint16(at + 8, entries.length, true);
  view.setUint16(at + 10, entries.length, true);
  view.setUint32(at + 12, at - directory, true);
  view.setUint32(at + 16, directory, true);
  return out;
}

/** Decodes a part in UTF-8, or in UTF-16 with a byte order mark. */
export function partText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  return strFromU8(bytes).replace(/^\uFEFF/, "");
}

/** Decodes a part chunk by chunk. It is UTF-8, or UTF-16 with a byte order mark. */
export function* partTexts(pieces: Iterable<Uint8Array>): Generator<string> {
  let decoder: TextDecoder | undefined;
  for (const piece of pieces) {
    decoder ??= new TextDecoder(
      piece[0] === 0xff && piece[1] === 0xfe
        ? "utf-16le"
        : piece[0] === 0xfe && piece[1] === 0xff
          ? "utf-16be"
          : "utf-8",
    );
    const text = decoder.decode(piece, { stream: true });
    if (text) yield text;
  }
  const rest = decoder?.decode();
  if (rest) yield rest;
}
