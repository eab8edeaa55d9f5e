const SIGNATURE = [0x89, 0x50, 0x4e, 0x47];
/** The chunk that ends a PNG: no data, its name and its checksum (PNG specification, third edition, 11.2.5). */
const END = [0, 0, 0, 0, 0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82];

/** The signature has 8 bytes; a chunk has 12 beside its data: length, name and checksum. */
const [HEAD, CHUNK] = [8, 12];

/** Whether a PNG ends with a complete chunk and lacks only its end chunk (IEND). */
function endsWithChunk(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = HEAD;
  while (at + CHUNK <= bytes.length) at += view.getUint32(at) + CHUNK;
  return at === bytes.length;
}

/** Returns a PNG with the chunk that ends it, which some programs leave out; any other file, and a damaged one, as it is. */
export function withEndOfPng(bytes: Uint8Array): Uint8Array {
  const isPng = SIGNATURE.every((byte, at) => bytes[at] === byte);
  if (!isPng || END.slice(4, 8).every((byte, at) => bytes[bytes.length - 8 + at] === byte)) return bytes;
  if (!endsWithChunk(bytes)) return bytes;
  const whole = new Uint8Array(bytes.length + END.length);
  whole.set(bytes);
  whole.set(END, bytes.length);
  return whole;
}
