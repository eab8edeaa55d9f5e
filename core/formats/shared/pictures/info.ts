import { type Asset, MOST } from "@unitext/core/model";
import { svgInfo } from "./svg";

/** Whether bytes may be XML: a byte order mark, white space, then a tag. */
const MARKUP = /^(?:\u00ef\u00bb\u00bf|\u00fe\u00ff|\u00ff\u00fe)?[\s\0]*</;

type Size = Omit<Asset, "sha256">;

/**
 * Returns media type and pixel size of a picture that can be shown; undefined for anything else and for pictures with
 * too many pixels.
 */
export function pictureInfo(bytes: Uint8Array): Size | undefined {
  const size = pictureSize(bytes);
  return size && size.width * size.height <= MOST.pixels ? size : undefined;
}

/**
 * Returns media type and pixel size of a PNG (ISO/IEC 15948, IHDR), a GIF (89a, logical screen), a JPEG (ISO/IEC
 * 10918-1, frame header) or an SVG; undefined for anything else.
 */
export function pictureSize(bytes: Uint8Array): Size | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length > 24 && view.getUint32(0) === 0x89504e47 && view.getUint32(4) === 0x0d0a1a0a)
    return sized("image/png", view.getUint32(16), view.getUint32(20));
  if (bytes.length > 13 && view.getUint32(0) === 0x47494638)
    return hasImage(bytes) ? sized("image/gif", view.getUint16(6, true), view.getUint16(8, true)) : undefined;
  if (MARKUP.test(String.fromCharCode(...bytes.subarray(0, 64)))) return svgInfo(bytes);
  if (bytes.length < 4 || view.getUint16(0) !== 0xffd8) return undefined;
  let at = 2;
  while (at + 9 < bytes.length) {
    if (bytes[at] !== 0xff) return undefined;
    const marker = bytes[at + 1] ?? 0;
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc)
      return sized("image/jpeg", view.getUint16(at + 7), view.getUint16(at + 5));
    at += marker === 0xff ? 1 : 2 + view.getUint16(at + 2);
  }
  return undefined;
}

/**
 * Whether a GIF has a complete image among its blocks (89a, 17 to 26). Programs show it even where the rest is cut off.
 */
function hasImage(bytes: Uint8Array): boolean {
  const colours = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0);
  let at = 13 + colours(bytes[10] ?? 0);
  while (at < bytes.length) {
    const image = bytes[at] === 0x2c;
    if (!image && bytes[at] !== 0x21) return false;
    // An image descriptor, its colours and the size of its codes; of an extension its label.
    at += image ? 11 + colours(bytes[at + 9] ?? 0) : 2;
    while (bytes[at]) at += (bytes[at] ?? 0) + 1;
    if (image && at < bytes.length) return true;
    at += 1;
  }
  return false;
}

function sized(mediaType: Asset["mediaType"], width: number, height: number): Size | undefined {
  return width > 0 && height > 0 ? { mediaType, width, height } : undefined;
}
