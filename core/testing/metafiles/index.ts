import { must } from "@unitext/core/model";
/**
 * Metafiles for tests, written record by record as [MS-WMF] and [MS-EMF] define them: a coloured box for each that is
 * asked for, on a page of `width` by `height`.
 */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
  /** Red, green and blue. */
  colour: readonly [number, number, number];
}

class Bytes {
  private readonly all: number[] = [];
  word(...values: number[]): this {
    for (const value of values) this.all.push(value & 255, (value >> 8) & 255);
    return this;
  }
  long(...values: number[]): this {
    for (const value of values)
      this.all.push(value & 255, (value >> 8) & 255, (value >> 16) & 255, (value >> 24) & 255);
    return this;
  }
  get bytes(): number[] {
    return this.all;
  }
}

/** A WMF (2.3): with `inch` units to the inch it has the placeable header (2.3.2.3), otherwise only its own header. */
export function wmf(
  width: number,
  height: number,
  boxes: readonly Box[],
  { inch, words }: { inch?: number; words?: string } = {},
): Uint8Array {
  const records: number[][] = [];
  const record = (type: number, fill: (into: Bytes) => void) => {
    const body = new Bytes();
    fill(body);
    records.push([...new Bytes().long(3 + body.bytes.length / 2).word(type).bytes, ...body.bytes]);
  };
  record(0x020b, (into) => into.word(0, 0)); // META_SETWINDOWORG
  record(0x020c, (into) => into.word(height, width)); // META_SETWINDOWEXT
  record(0x02fa, (into) => into.word(5, 0, 0).long(0)); // META_CREATEPENINDIRECT: PS_NULL
  record(0x012d, (into) => into.word(0)); // META_SELECTOBJECT
  boxes.forEach(({ x, y, width: w, height: h, colour: [r, g, b] }, nth) => {
    record(0x02fc, (into) =>
      into
        .word(0)
        .long(r | (g << 8) | (b << 16))
        .word(0),
    ); // META_CREATEBRUSHINDIRECT: BS_SOLID
    record(0x012d, (into) => into.word(nth + 1));
    record(0x041b, (into) => into.word(y + h, x + w, y, x)); // META_RECTANGLE
  });
  if (words !== undefined) {
    const even = words.length % 2 ? `${words} ` : words;
    record(0x0521, (into) => {
      into.word(words.length);
      for (let at = 0; at < even.length; at += 2) into.word(even.charCodeAt(at) | (even.charCodeAt(at + 1) << 8));
      into.word(2, 2);
    }); // META_TEXTOUT
  }
  record(0, () => {}); // META_EOF
  const size = 9 + records.reduce((sum, one) => sum + one.length / 2, 0);
  const header = new Bytes()
    .word(1, 9, 0x300)
    .long(size)
    .word(boxes.length + 1)
    .long(Math.max(...records.map((one) => one.length / 2)))
    .word(0);
  const placed = new Bytes()
    .long(0x9ac6cdd7)
    .word(0, 0, 0, width, height, inch ?? 1440)
    .long(0);
  const sum = Array.from(
    { length: 10 },
    (_, nth) => must(placed.bytes[nth * 2]) | (must(placed.bytes[nth * 2 + 1]) << 8),
  ).reduce((one, other) => one ^ other, 0);
  placed.word(sum);
  return Uint8Array.from([...(inch === undefined ? [] : placed.bytes), ...header.bytes, ...records.flat()]);
}

/** An EMF (2.3.4) in pixels of a device with a hundred to the inch. */
export function emf(width: number, height: number, boxes: readonly Box[]): Uint8Array {
  const records: number[][] = [];
  const record = (type: number, ...values: number[]) =>
    records.push([...new Bytes().long(type, 8 + values.length * 4, ...values).bytes]);
  record(37, -0x80000000 + 8); // EMR_SELECTOBJECT: NULL_PEN
  boxes.forEach(({ x, y, width: w, height: h, colour: [r, g, b] }, nth) => {
    record(39, nth + 1, 0, r | (g << 8) | (b << 16), 0); // EMR_CREATEBRUSHINDIRECT
    record(37, nth + 1);
    record(43, x, y, x + w, y + h); // EMR_RECTANGLE
  });
  record(14, 0, 16, 20); // EMR_EOF
  const frame = (pixels: number) => Math.round((pixels / 100) * 2540);
  const size = 88 + records.reduce((sum, one) => sum + one.length, 0);
  const header = new Bytes()
    .long(
      1,
      88,
      0,
      0,
      width - 1,
      height - 1,
      0,
      0,
      frame(width),
      frame(height),
      0x464d4520,
      0x10000,
      size,
      records.length + 1,
    )
    .word(boxes.length + 1, 0)
    .long(0, 0, 0, 1000, 800, 254, 203);
  return Uint8Array.from([...header.bytes, ...records.flat()]);
}
