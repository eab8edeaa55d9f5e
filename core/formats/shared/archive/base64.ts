import { withoutEnd, must } from "@unitext/core/model";

const ALPHABET = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";

/** Encodes bytes as base64 with padding (RFC 4648, section 4). */
export function toBase64(bytes: Uint8Array): string {
  let out = "";
  for (let at = 0; at < bytes.length; at += 3) {
    const value = ((bytes[at] ?? 0) << 16) | ((bytes[at + 1] ?? 0) << 8) | (bytes[at + 2] ?? 0);
    out +=
      must(ALPHABET[value >> 18]) +
      ALPHABET[(value >> 12) & 63] +
      (at + 1 < bytes.length ? ALPHABET[(value >> 6) & 63] : "=") +
      (at + 2 < bytes.length ? ALPHABET[value & 63] : "=");
  }
  return out;
}

/** Decodes base64 (RFC 4648, section 4). Characters outside the alphabet count as zero bits; padding is optional. */
export function fromBase64(text: string): Uint8Array {
  const clean = withoutEnd(text, "=");
  const bytes = new Uint8Array(Math.floor((clean.length * 3) / 4));
  let held = 0;
  let bits = 0;
  let at = 0;
  for (const character of clean) {
    held = ((held << 6) | Math.max(0, ALPHABET.indexOf(character))) & 0xffffff;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      bytes[at++] = (held >> bits) & 255;
    }
  }
  return bytes;
}
