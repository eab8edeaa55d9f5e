import { must } from "@unitext/core/model";
import type { RasterImage } from "./rasterimage";

/** The compression of a BMP's pixels (BITMAPINFOHEADER, [MS-WMF] 2.2.2.3 and 2.1.1.7). */
const PACKED = { RGB: 0, RLE8: 1, RLE4: 2, FIELDS: 3, ALPHA: 6 } as const;

interface Layout {
  width: number;
  height: number;
  /** Whether the first row is the top one. */
  down: boolean;
  bits: number;
  packed: number;
  /** The offset of the pixels. */
  from: number;
  /** Bit masks of red, green, blue and alpha, where pixels have more than eight bits. */
  masks: readonly [number, number, number, number];
  /** The palette as bytes of red, green and blue. */
  palette: Uint8Array;
}

/**
 * Reads the header of a BMP, or its short OS/2 form ([MS-WMF] 2.2.2.2). Returns undefined for anything else and for
 * other compressions.
 */
function layoutOf(bytes: Uint8Array): Layout | undefined {
  if (bytes.length < 26 || bytes[0] !== 0x42 || bytes[1] !== 0x4d) return undefined;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const size = view.getUint32(14, true);
  const short = size === 12;
  if (!short && (size < 40 || bytes.length < 14 + size)) return undefined;
  const height = short ? view.getInt16(20, true) : view.getInt32(22, true);
  const bits = view.getUint16(short ? 24 : 28, true);
  const packed = short ? PACKED.RGB : view.getUint32(30, true);
  const known =
    packed === PACKED.RGB
      ? [1, 4, 8, 16, 24, 32]
      : packed === PACKED.RLE8
        ? [8]
        : packed === PACKED.RLE4
          ? [4]
          : packed === PACKED.FIELDS || packed === PACKED.ALPHA
            ? [16, 32]
            : [];
  if (!known.includes(bits)) return undefined;
  const fields = packed === PACKED.FIELDS || packed === PACKED.ALPHA;
  const alpha = packed === PACKED.ALPHA || size >= 56;
  if (fields && bytes.length < (alpha ? 70 : 66)) return undefined;
  const mask = (at: number) => view.getUint32(at, true);
  const masks: Layout["masks"] = fields
    ? [mask(54), mask(58), mask(62), alpha ? mask(66) : 0]
    : bits === 16
      ? [0x7c00, 0x3e0, 0x1f, 0]
      : [0xff0000, 0xff00, 0xff, 0];
  const entry = short ? 3 : 4;
  const colours = bits > 8 ? 0 : Math.min(1 << bits, (short ? 0 : view.getUint32(46, true)) || 1 << bits);
  const palette = new Uint8Array(768);
  for (let nth = 0; nth < colours; nth++)
    for (let channel = 0; channel < 3; channel++)
      palette[nth * 3 + channel] = bytes[14 + size + nth * entry + 2 - channel] ?? 0;
  return {
    width: short ? view.getUint16(18, true) : view.getInt32(18, true),
    height: Math.abs(height),
    down: height < 0,
    bits,
    packed,
    from: view.getUint32(10, true),
    masks,
    palette,
  };
}

/** Returns the size and resolution of a BMP; undefined when it is not one. */
export function bmpInfo(bytes: Uint8Array): RasterImage | undefined {
  const { width, height } = layoutOf(bytes) ?? {};
  return width && height && width > 0 ? { kind: "bmp", width, height } : undefined;
}

/** Decodes the palette indices of runs and literal pixels ([MS-WMF] 3.1.6.4 and 3.1.6.5), rows in file order. */
function runs(bytes: Uint8Array, { width, height, bits, from }: Layout): Uint8Array {
  const out = new Uint8Array(width * height);
  let [x, y] = [0, 0];
  const put = (colour: number) => {
    if (x < width && y < height) out[y * width + x] = colour;
    x += 1;
  };
  const nibble = (byte: number, nth: number) => (bits === 8 ? byte : nth % 2 ? byte & 15 : byte >> 4);
  for (let at = from; at + 1 < bytes.length && y < height; ) {
    const [count, value] = [bytes[at] ?? 0, bytes[at + 1] ?? 0];
    at += 2;
    if (count) for (let nth = 0; nth < count; nth++) put(nibble(value, nth));
    else if (value === 0) [x, y] = [0, y + 1];
    else if (value === 1) break;
    else if (value === 2) {
      x += bytes[at] ?? 0;
      y += bytes[at + 1] ?? 0;
      at += 2;
    } else {
      const taken = bits === 8 ? value : Math.ceil(value / 2);
      for (let nth = 0; nth < value; nth++) put(nibble(bytes[at + (bits === 8 ? nth : nth >> 1)] ?? 0, nth));
      // Literal pixels are padded to a word.
      at += taken + (taken % 2);
    }
  }
  return out;
}

/** Returns the pixels of a BMP in RGBA, top row first; pixels missing at the end are black. */
export function bmpPixels(bytes: Uint8Array): Uint8Array | undefined {
  const layout = layoutOf(bytes);
  if (!layout) return undefined;
  const { width, height, down, bits, packed, from, masks, palette } = layout;
  const numbers = packed === PACKED.RLE8 || packed === PACKED.RLE4 ? runs(bytes, layout) : undefined;
  // Rows are padded to four bytes.
  const stride = ((width * bits + 31) >>> 5) * 4;
  const channels = masks.map((mask) => {
    const shift = mask ? Math.clz32(mask & -mask) ^ 31 : 0;
    return { mask, shift, most: mask >>> shift || 1 };
  });
  const out = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++) {
    const row = down ? y : height - 1 - y;
    for (let x = 0; x < width; x++) {
      const to = (y * width + x) * 4;
      if (bits <= 8) {
        const at = x * bits;
        const number = numbers
          ? (numbers[row * width + x] ?? 0)
          : ((bytes[from + row * stride + (at >> 3)] ?? 0) >> (8 - bits - (at & 7))) & ((1 << bits) - 1);
        for (let channel = 0; channel < 3; channel++) out[to + channel] = palette[number * 3 + channel] ?? 0;
        out[to + 3] = 255;
        continue;
      }
      const at = from + row * stride + x * (bits >> 3);
      let value = 0;
      for (let byte = (bits >> 3) - 1; byte >= 0; byte--) value = (value << 8) | (bytes[at + byte] ?? 0);
      for (let channel = 0; channel < 4; channel++) {
        const { mask, shift, most } = must(channels[channel]);
        out[to + channel] = mask ? Math.round((((value & mask) >>> shift) * 255) / most) : 255;
      }
    }
  }
  return out;
}
