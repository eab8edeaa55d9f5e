import type { Asset } from "@unitext/core/model";

const ascii = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));

/**
 * Returns the media type that the first bytes of a file show (WHATWG MIME Sniffing, 6; ISO/IEC 14496-12, 4.3 for
 * `ftyp`), whatever its name says; undefined for types that no deck holds.
 */
export function mediaTypeOf(bytes: Uint8Array): Asset["mediaType"] | undefined {
  const head = ascii(bytes, 0, 12);
  if (head.startsWith("\x89PNG\r\n\x1a\n")) return "image/png";
  if (head.startsWith("\xff\xd8\xff")) return "image/jpeg";
  if (/^GIF8[79]a/.test(head)) return "image/gif";
  if (head.startsWith("PK\x03\x04") || head.startsWith("PK\x05\x06")) return "application/zip";
  if (head.startsWith("RIFF") && head.slice(8, 12) === "WAVE") return "audio/wav";
  if (head.startsWith("\x1a\x45\xdf\xa3")) return "video/webm";
  if (head.slice(4, 8) === "ftyp") return /^M4[AB]/.test(head.slice(8, 12)) ? "audio/mp4" : "video/mp4";
  if (
    head.startsWith("ID3") ||
    (bytes[0] === 0xff && ((bytes[1] ?? 0) & 0xe0) === 0xe0 && ((bytes[1] ?? 0) & 0x06) !== 0)
  )
    return "audio/mpeg";
  const start = ascii(bytes, 0, 4096).replaceAll("\0", "");
  return /^(?:\xef\xbb\xbf|\xfe\xff|\xff\xfe)?\s*</.test(start) && /<(?:[\w-]+:)?svg[\s>]/.test(start)
    ? "image/svg+xml"
    : undefined;
}

/** File name extensions by media type, for the media that a deck can hold. */
export const EXTENSIONS: Record<string, string> = {
  "image/png": "png",
  "image/jpeg": "jpeg",
  "image/gif": "gif",
  "image/svg+xml": "svg",
  "video/mp4": "mp4",
  "video/webm": "webm",
  "audio/mpeg": "mp3",
  "audio/mp4": "m4a",
  "audio/wav": "wav",
  "application/zip": "zip",
};
