import { must } from "@unitext/core/model";
import { unzlibSync } from "fflate";
import type { RasterImage } from "./rasterimage";

/** Tags of the first image of a file (TIFF 6.0, part 1, section 8; 14, 15, 18). */
const TAG = {
  width: 256,
  height: 257,
  bits: 258,
  compression: 259,
  photometric: 262,
  strips: 273,
  samples: 277,
  rows: 278,
  stripBytes: 279,
  planar: 284,
  predictor: 317,
  colours: 320,
  tileWidth: 322,
  tileHeight: 323,
  tiles: 324,
  tileBytes: 325,
  extra: 338,
} as const;
const SIZES: Record<number, number> = { 1: 1, 3: 2, 4: 4 };
const MOST_VALUES = 1_000_000;

type Tags = (tag: number) => number[];

/** Reads the integer tags of a TIFF's first image; undefined for anything else. */
function tagsOf(bytes: Uint8Array): { tags: Tags; little: boolean } | undefined {
  if (bytes.length < 14) return undefined;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const order = view.getUint16(0);
  const little = order === 0x4949;
  if ((!little && order !== 0x4d4d) || view.getUint16(2, little) !== 42) return undefined;
  const directory = view.getUint32(4, little);
  if (directory + 2 > bytes.length) return undefined;
  const entries = new Map<number, number>();
  for (
    let nth = 0, at = directory + 2;
    nth < view.getUint16(directory, little) && at + 12 <= bytes.length;
    nth++, at += 12
  )
    entries.set(view.getUint16(at, little), at);
  const tags: Tags = (tag) => {
    const at = entries.get(tag);
    if (at === undefined) return [];
    const size = SIZES[view.getUint16(at + 2, little)];
    const count = view.getUint32(at + 4, little);
    if (!size || count > MOST_VALUES) return [];
    const from = size * count <= 4 ? at + 8 : view.getUint32(at + 8, little);
    if (from + size * count > bytes.length) return [];
    return Array.from({ length: count }, (_, nth) =>
      size === 1
        ? view.getUint8(from + nth)
        : size === 2
          ? view.getUint16(from + nth * 2, little)
          : view.getUint32(from + nth * 4, little),
    );
  };
  return { tags, little };
}

/** Returns the size and resolution of a TIFF's first image; undefined when it is not one. */
export function tiffInfo(bytes: Uint8Array): RasterImage | undefined {
  const { tags } = tagsOf(bytes) ?? {};
  const [width, height] = [tags?.(TAG.width)[0], tags?.(TAG.height)[0]];
  return width && height ? { kind: "tiff", width, height } : undefined;
}

/** Decodes literal bytes and runs of one byte (section 9). */
function unpackBits(from: Uint8Array, out: Uint8Array): void {
  for (let at = 0, to = 0; at < from.length && to < out.length; ) {
    const count = ((from[at++] ?? 0) << 24) >> 24;
    if (count >= 0) for (let nth = 0; nth <= count && to < out.length; nth++) out[to++] = from[at++] ?? 0;
    else if (count !== -128) {
      out.fill(from[at++] ?? 0, to, to + 1 - count);
      to += 1 - count;
    }
  }
}

const [CLEAR, END, MOST_CODES] = [256, 257, 4096];

/** Decodes LZW codes of nine to twelve bits, highest bit first, each a string of bytes met before (section 13). */
function unpackLzw(from: Uint8Array, out: Uint8Array): void {
  const before = new Uint16Array(MOST_CODES);
  const last = new Uint8Array(MOST_CODES);
  const lengths = new Uint16Array(MOST_CODES);
  for (let code = 0; code < 256; code++) {
    last[code] = code;
    lengths[code] = 1;
  }
  let [next, width, old] = [258, 9, -1];
  let [to, held, bits] = [0, 0, 0];
  for (let at = 0; to < out.length; ) {
    while (bits < width && at < from.length) {
      held = ((held << 8) | (from[at++] ?? 0)) & 0xffffff;
      bits += 8;
    }
    if (bits < width) return;
    bits -= width;
    const code = (held >>> bits) & ((1 << width) - 1);
    if (code === END) return;
    if (code === CLEAR) {
      [next, width, old] = [258, 9, -1];
      continue;
    }
    if (code > next || (code === next && old < 0) || (code > END && code < next && !lengths[code])) return;
    // A code that is just being defined is the previous string followed by its own first byte.
    const known = code < next ? code : old;
    const length = lengths[known] ?? 0;
    let first = known;
    for (let nth = length - 1; nth >= 0; nth--) {
      if (to + nth < out.length) out[to + nth] = last[first] ?? 0;
      if (nth) first = before[first] ?? 0;
    }
    to += length;
    if (code === next && to < out.length) out[to++] = last[first] ?? 0;
    if (old >= 0 && next < MOST_CODES) {
      before[next] = old;
      last[next] = last[first] ?? 0;
      lengths[next] = (lengths[old] ?? 0) + 1;
      next += 1;
    }
    old = code;
    width = next >= 2047 ? 12 : next >= 1023 ? 11 : next >= 511 ? 10 : 9;
  }
}

const UNPACK: Record<number, (from: Uint8Array, out: Uint8Array) => void> = {
  1: (from, out) => out.set(from.subarray(0, out.length)),
  5: unpackLzw,
  8: (from, out) => void unzlibSync(from, { out }),
  32773: unpackBits,
  32946: (from, out) => void unzlibSync(from, { out }),
};

/**
 * Colours from the samples of one pixel, each from 0 to 255, by their meaning (section 8, 16;
 * `PhotometricInterpretation`).
 */
const COLOUR: Record<number, { samples: number; channel(sample: (nth: number) => number, nth: number): number }> = {
  0: { samples: 1, channel: (sample) => 255 - sample(0) },
  1: { samples: 1, channel: (sample) => sample(0) },
  2: { samples: 3, channel: (sample, nth) => sample(nth) },
  5: { samples: 4, channel: (sample, nth) => ((255 - sample(nth)) * (255 - sample(3))) / 255 },
};
const PALETTE = 3;

/** How the samples of an image lie in its file, and what they mean. */
interface TiffLayout {
  width: number;
  height: number;
  little: boolean;
  /** Bits of a sample; samples of a pixel, and how many of them lie together. */
  bits: number;
  samples: number;
  batch: number;
  planes: number;
  /** The size of a strip or tile in pixels, how many there are, and the bytes of one of its rows. */
  across: number;
  down: number;
  columns: number;
  rows: number;
  stride: number;
  offsets: readonly number[];
  counts: readonly number[];
  unpack: (from: Uint8Array, to: Uint8Array) => void;
  /** Whether samples are differences from the one at their left (section 14). */
  differences: boolean;
  meaning: number;
  colours: readonly number[];
  needed: number;
  /** The first extra sample may be alpha, premultiplied (1) or not (2) (section 18). */
  opaque: number | undefined;
}

/** Reads the layout of the first image; undefined for kinds that are not supported. */
function layoutOf(bytes: Uint8Array): TiffLayout | undefined {
  const { tags, little } = tagsOf(bytes) ?? {};
  if (!tags || little === undefined) return undefined;
  const one = (tag: number, usual: number) => tags(tag)[0] ?? usual;
  const [width, height, samples] = [one(TAG.width, 0), one(TAG.height, 0), one(TAG.samples, 1)];
  const depths = tags(TAG.bits);
  const bits = depths[0] ?? 1;
  const unpack = UNPACK[one(TAG.compression, 1)];
  const meaning = one(TAG.photometric, 1);
  const colours = tags(TAG.colours);
  const needed = meaning === PALETTE ? 1 : (COLOUR[meaning]?.samples ?? 9);
  const supported =
    samples >= needed &&
    samples <= 8 &&
    [1, 2, 4, 8, 16].includes(bits) &&
    depths.every((depth) => depth === bits) &&
    !(meaning === PALETTE && (bits > 8 || colours.length < 3 << bits));
  if (!unpack || !supported) return undefined;
  const tiled = tags(TAG.tiles).length > 0;
  const [offsets, counts] = tiled ? [tags(TAG.tiles), tags(TAG.tileBytes)] : [tags(TAG.strips), tags(TAG.stripBytes)];
  const [across, down] = tiled
    ? [one(TAG.tileWidth, 0), one(TAG.tileHeight, 0)]
    : [width, Math.min(height, one(TAG.rows, height))];
  if (!across || !down || across > width + 4096 || down > height + 4096) return undefined;
  const planes = one(TAG.planar, 1) === 2 ? samples : 1;
  const batch = samples / planes;
  const [columns, rows] = [Math.ceil(width / across), Math.ceil(height / down)];
  if (offsets.length < columns * rows * planes) return undefined;
  const stride = Math.ceil((across * batch * bits) / 8);
  const differences = one(TAG.predictor, 1) === 2;
  const opaque = tags(TAG.extra)[0];
  return {
    width,
    height,
    little,
    bits,
    samples,
    batch,
    planes,
    across,
    down,
    columns,
    rows,
    stride,
    offsets,
    counts,
    unpack,
    differences,
    meaning,
    colours,
    needed,
    opaque,
  };
}

/** Unpacks a strip or tile. */
function segmentOf(bytes: Uint8Array, layout: TiffLayout, nth: number): Uint8Array {
  const { offsets, counts, stride, down, across, batch, bits, little } = layout;
  const from = must(offsets[nth]);
  const out = new Uint8Array(stride * down);
  layout.unpack(bytes.subarray(from, from + (counts[nth] ?? out.length)), out);
  if (layout.differences && bits === 8)
    for (let y = 0; y < down; y++)
      for (let x = batch; x < stride; x++)
        out[y * stride + x] = ((out[y * stride + x] ?? 0) + (out[y * stride + x - batch] ?? 0)) & 255;
  if (layout.differences && bits === 16) {
    const view = new DataView(out.buffer);
    for (let y = 0; y < down; y++)
      for (let x = batch; x < across * batch; x++)
        view.setUint16(
          y * stride + x * 2,
          view.getUint16(y * stride + x * 2, little) + view.getUint16(y * stride + (x - batch) * 2, little),
          little,
        );
  }
  return out;
}

/** Returns a function that writes a pixel in RGBA from the segments of its planes, a segment's row and column. */
function painterOf(layout: TiffLayout, out: Uint8Array) {
  const { bits, stride, little, planes, batch, meaning, colours, needed, opaque } = layout;
  const colour = COLOUR[meaning];
  const hasOpacity = (opaque === 1 || opaque === 2) && layout.samples > needed;
  const number = (from: Uint8Array, y: number, nth: number): number => {
    if (bits === 8) return from[y * stride + nth] ?? 0;
    if (bits === 16) return from[y * stride + nth * 2 + (little ? 1 : 0)] ?? 0;
    const at = nth * bits;
    return ((from[y * stride + (at >> 3)] ?? 0) >> (8 - bits - (at & 7))) & ((1 << bits) - 1);
  };
  const scale = bits < 8 ? 255 / ((1 << bits) - 1) : 1;
  // By far the most common and the largest files.
  const plain = bits === 8 && planes === 1 && meaning === 2 && !hasOpacity;
  return (to: number, held: readonly Uint8Array[], y: number, x: number): void => {
    if (plain) {
      const from = y * stride + x * batch;
      const strip = must(held[0]);
      out[to] = strip[from] ?? 0;
      out[to + 1] = strip[from + 1] ?? 0;
      out[to + 2] = strip[from + 2] ?? 0;
      out[to + 3] = 255;
      return;
    }
    const raw = (nth: number) =>
      planes > 1 ? number(must(held[nth]), y, x) : number(must(held[0]), y, x * batch + nth);
    const sample = (nth: number) => raw(nth) * scale;
    const alpha = hasOpacity ? sample(needed) : 255;
    const share = opaque === 1 && alpha > 0 && alpha < 255 ? 255 / alpha : 1;
    for (let channel = 0; channel < 3; channel++) {
      const value = colour ? colour.channel(sample, channel) : must(colours[(channel << bits) + raw(0)]) >> 8;
      out[to + channel] = Math.min(255, Math.round(value * share));
    }
    out[to + 3] = Math.round(alpha);
  };
}

/**
 * Returns the pixels of a TIFF's first image in RGBA: strips or tiles, interleaved or planar samples of 1, 2, 4, 8 or
 * 16 bits, uncompressed, PackBits, LZW or deflate. Returns undefined for other kinds.
 */
export function tiffPixels(bytes: Uint8Array): Uint8Array | undefined {
  const layout = layoutOf(bytes);
  if (!layout) return undefined;
  const { width, height, across, down, columns, rows, planes } = layout;
  const out = new Uint8Array(width * height * 4);
  const paint = painterOf(layout, out);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const held = Array.from({ length: planes }, (_, plane) =>
        segmentOf(bytes, layout, plane * columns * rows + row * columns + column),
      );
      for (let y = 0; y < down && row * down + y < height; y++)
        for (let x = 0; x < across && column * across + x < width; x++)
          paint(((row * down + y) * width + column * across + x) * 4, held, y, x);
    }
  }
  return out;
}
