const SIGNATURE = [0x89, 0x50, 0x4e, 0x47];
/** The chunk that ends a PNG: no data, its name and its checksum (PNG specification, third edition, 11.2.5). */
const END = [0, 0, 0, 0, 0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82];

/** Returns a PNG with the chunk that ends it, which some programs leave out; any other file as it is. */
export function withEndOfPng(bytes: Uint8Array): Uint8Array {
  const isPng = SIGNATURE.every((byte, at) => bytes[at] === byte);
  if (!isPng || END.slice(4, 8).every((byte, at) => bytes[bytes.length - 8 + at] === byte)) return bytes;
  const whole = new Uint8Array(bytes.length + END.length);
  whole.set(bytes);
  whole.set(END, bytes.length);
  return whole;
}
