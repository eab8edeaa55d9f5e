import { must } from "@unitext/core/model";
import { type RasterFile, dotsFile, shown } from "@unitext/core/testing/raster";
import { sha256 } from "@unitext/core/testing/files";
import { PNG } from "pngjs";
import { bmpPixels } from "./bmp";
import { rasterInfo, rasterPng } from "./raster";
import { PictureConverter, pictureInfo, pendingConversion } from "./index";
import { tiffPixels } from "./tiff";

const packed = async (bytes: Uint8Array) => {
  const info = rasterInfo(bytes);
  const made = info && (await rasterPng(bytes, info));
  return made && PNG.sync.read(Buffer.from(made));
};
const colours = (data: Uint8Array) =>
  Array.from({ length: data.length / 4 }, (_, nth) => [...data.subarray(nth * 4, nth * 4 + 3)]);
const long = (value: number) => [value & 255, (value >> 8) & 255, (value >> 16) & 255, (value >>> 24) & 255];
const word = (value: number) => [value & 255, (value >> 8) & 255];

describe("a TIFF or BMP of another program", () => {
  const kinds: [RasterFile, keyof typeof shown][] = [
    ["rgb-none.tiff", "rgb"],
    ["rgb-big-endian.tiff", "rgb"],
    ["rgb-lzw.tiff", "rgb"],
    ["rgb-lzw-differences.tiff", "rgb"],
    ["rgb-packbits.tiff", "rgb"],
    ["rgb-flate.tiff", "rgb"],
    ["rgb-strips.tiff", "rgb"],
    ["rgb-tiles.tiff", "rgb"],
    ["rgb-planes.tiff", "rgb"],
    ["palette.tiff", "palette"],
    ["grey.tiff", "grey"],
    ["grey-16.tiff", "grey-16"],
    ["grey-16-big-endian.tiff", "grey-16"],
    ["grey-16-differences.tiff", "grey-16"],
    ["bits.tiff", "bits"],
    ["bits-white-is-zero.tiff", "bits"],
    ["rgb.bmp", "rgb"],
    ["rgb-os2.bmp", "rgb"],
    ["palette.bmp", "palette"],
    ["palette-8.bmp", "palette"],
    ["palette-os2.bmp", "palette"],
    ["bits.bmp", "bits"],
  ];
  it.each(kinds)("%s has the pixels that were put in, as a PNG", async (name, picture) => {
    const bytes = dotsFile(name);
    const kind = name.endsWith("bmp") ? "bmp" : "tiff";
    expect(pictureInfo(bytes)).toBeUndefined();
    expect(pendingConversion(bytes)).toEqual({
      kind,
      width: 13,
      height: 7,
      extension: ".png",
      how: `its pixels (${kind}) are stored as PNG`,
    });
    const made = await packed(bytes);
    expect(made).toMatchObject({ width: 13, height: 7 });
    expect(colours(made?.data as Uint8Array)).toEqual(shown[picture]);
    expect([...(made?.data ?? [])].filter((_, at) => at % 4 === 3).every((alpha) => alpha === 255)).toBe(true);
    // Also as a stretch of a larger file.
    expect(rasterInfo(Uint8Array.from([9, 9, 9, ...bytes]).subarray(3))).toEqual({ kind, width: 13, height: 7 });
  });

  it.each(["other-jpeg.tiff", "other-fax.tiff"] as const)(
    "%s is packed in a way that is not read, and that is told",
    async (name) => {
      const found = {
        assets: {},
        blobs: new Map<string, Uint8Array>(),
        pendingPictures: new Map([[`${name}.png`, dotsFile(name)]]),
      };
      const drawings = new PictureConverter(sha256);
      await drawings.into(found);
      await drawings.into(found);
      expect(found.assets).toEqual({});
      expect(drawings.left).toEqual([
        {
          slide: null,
          what: `the pixels of the picture ${name}`,
          why: "they are damaged, too many, or compressed in a way that is not read; an empty frame is shown instead",
        },
      ]);
    },
  );

  it("is never waited for or let the reader fall, whatever bytes are flipped", () => {
    let state = 7;
    const random = (below: number) => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) % below;
    const files = kinds.map(([name]) => dotsFile(name));
    const outcomes = new Set<string>();
    for (let nth = 0; nth < 3000; nth++) {
      const bytes = Uint8Array.from(must(files[nth % files.length]));
      for (let flips = 1 + random(5); flips > 0; flips--) bytes[random(bytes.length)] = random(256);
      const info = rasterInfo(bytes.subarray(0, bytes.length - random(2) * random(bytes.length)));
      if (!info || info.width * info.height > 200_000) {
        outcomes.add("refused");
        continue;
      }
      try {
        const pixels = info.kind === "tiff" ? tiffPixels(bytes) : bmpPixels(bytes);
        outcomes.add(pixels ? "read" : "not read");
        if (pixels && info.width * info.height === 91) expect(pixels).toHaveLength(91 * 4);
      } catch {
        outcomes.add("damaged");
      }
    }
    expect([...outcomes].sort()).toEqual(expect.arrayContaining(["not read", "read", "refused"]));
  });

  it("with more pixels than a page can use is shown as a frame", async () => {
    const large = dotsFile("rgb.bmp");
    new DataView(large.buffer).setInt32(18, 9000, true);
    new DataView(large.buffer).setInt32(22, 9000, true);
    expect(rasterInfo(large)).toEqual({ kind: "bmp", width: 9000, height: 9000 });
    expect(await packed(large)).toBeUndefined();
  });
});

describe("the packing of a TIFF", () => {
  // TIFF 6.0, section 2: a header, a directory, its entries of twelve bytes.
  function tiff(width: number, entries: Record<number, number>, strip: readonly number[]): Uint8Array {
    const all = { 256: width, 257: 1, 258: 8, 262: 1, 273: 0, 277: 1, 278: 1, 279: strip.length, ...entries };
    const at = 8 + 2 + Object.keys(all).length * 12 + 4;
    const rows = Object.entries({ ...all, 273: at }).flatMap(([tag, value]) => [
      ...word(Number(tag)),
      ...word(4),
      ...long(1),
      ...long(value),
    ]);
    return Uint8Array.from([
      0x49,
      0x49,
      42,
      0,
      ...long(8),
      ...word(Object.keys(all).length),
      ...rows,
      ...long(0),
      ...strip,
    ]);
  }
  const grey = (bytes: Uint8Array) => [...(tiffPixels(bytes) ?? [])].filter((_, at) => at % 4 === 0);

  it("in runs is that of the worked example", () => {
    // The example that goes with the description of PackBits (Apple, Technical Note 1023; from memory).
    const worked = [0xfe, 0xaa, 0x02, 0x80, 0x00, 0x2a, 0xfd, 0xaa, 0x03, 0x80, 0x00, 0x2a, 0x22, 0xf7, 0xaa];
    expect(grey(tiff(24, { 259: 32773 }, worked))).toEqual([
      0xaa,
      0xaa,
      0xaa,
      0x80,
      0x00,
      0x2a,
      0xaa,
      0xaa,
      0xaa,
      0xaa,
      0x80,
      0x00,
      0x2a,
      0x22,
      ...Array<number>(10).fill(0xaa),
    ]);
    // A count of -128 says nothing (section 9); what breaks off is black.
    expect(grey(tiff(4, { 259: 32773 }, [0x80, 0xff, 7]))).toEqual([7, 7, 0, 0]);
  });

  it("in LZW is that of the worked example", () => {
    // Section 13: the string 7 7 7 8 8 7 7 6 6 as Clear, 7, (258), 8, 8, (258), 6, 6, End, in codes of nine bits.
    const codes = [256, 7, 258, 8, 8, 258, 6, 6, 257];
    const bits = codes
      .map((code) => code.toString(2).padStart(9, "0"))
      .join("")
      .padEnd(88, "0");
    expect(
      grey(
        tiff(
          9,
          { 259: 5 },
          (bits.match(/.{8}/g) as string[]).map((byte) => Number.parseInt(byte, 2)),
        ),
      ),
    ).toEqual([7, 7, 7, 8, 8, 7, 7, 6, 6]);
  });

  it("has inks, and how opaque its dots are, where it says so", () => {
    // Section 16: of cyan, magenta, yellow and black 255 is all there is. Section 18: the sample beside the colours.
    const [red, green, blue, alpha] = tiffPixels(tiff(1, { 262: 5, 277: 4 }, [0, 255, 128, 51])) ?? [];
    expect([red, green, blue, alpha]).toEqual([204, 0, 102, 255]);
    expect([...(tiffPixels(tiff(1, { 262: 2, 277: 4, 338: 2 }, [200, 100, 50, 128])) ?? [])]).toEqual([
      200, 100, 50, 128,
    ]);
    expect([...(tiffPixels(tiff(1, { 262: 2, 277: 4, 338: 1 }, [100, 50, 25, 128])) ?? [])]).toEqual([
      199, 100, 50, 128,
    ]);
    expect([...(tiffPixels(tiff(1, { 262: 2, 277: 4, 338: 0 }, [100, 50, 25, 128])) ?? [])]).toEqual([
      100, 50, 25, 255,
    ]);
  });
});

describe("the packing of a BMP", () => {
  // [MS-WMF] 2.2.2.3: a header of forty bytes behind that of the file; longer ones say masks themselves.
  function bmp(
    width: number,
    height: number,
    bits: number,
    compression: number,
    pixels: readonly number[],
    { masks = [], palette = [], size = 40 }: { masks?: number[]; palette?: number[]; size?: number } = {},
  ): Uint8Array {
    const beside = masks.flatMap(long);
    const header = [
      ...long(size),
      ...long(width),
      ...long(height),
      ...word(1),
      ...word(bits),
      ...long(compression),
      ...long(0),
      ...long(0),
      ...long(0),
      ...long(palette.length / 4),
      ...long(0),
      ...beside,
    ];
    const whole = [...header, ...Array<number>(Math.max(0, size - header.length)).fill(0), ...palette];
    return Uint8Array.from([0x42, 0x4d, ...long(0), ...long(0), ...long(14 + whole.length), ...whole, ...pixels]);
  }
  const greys = Array.from({ length: 256 }, (_, nth) => [nth, nth, nth, 0]).flat();
  const row = (bytes: Uint8Array, y: number, width: number) =>
    [...(bmpPixels(bytes) ?? [])].filter((_, at) => at % 4 === 0).slice(y * width, (y + 1) * width);

  it("in runs of bytes and of halves is that of the worked examples", () => {
    // The examples that go with the description of both ([MS-WMF], 3.1.6.4 and 3.1.6.5; from memory): the lowest row first.
    const eight = [3, 4, 5, 6, 0, 3, 0x45, 0x56, 0x67, 0, 2, 0x78, 0, 2, 5, 1, 2, 0x78, 0, 0, 9, 0x1e, 0, 1];
    const bytes = bmp(20, 3, 8, 1, eight, { palette: greys });
    expect(row(bytes, 2, 20)).toEqual([4, 4, 4, 6, 6, 6, 6, 6, 0x45, 0x56, 0x67, 0x78, 0x78, 0, 0, 0, 0, 0, 0, 0]);
    expect(row(bytes, 1, 20)).toEqual([...Array<number>(18).fill(0), 0x78, 0x78]);
    expect(row(bytes, 0, 20)).toEqual([...Array<number>(9).fill(0x1e), ...Array<number>(11).fill(0)]);
    const four = [3, 4, 5, 6, 0, 6, 0x45, 0x56, 0x67, 0, 4, 0x78, 0, 2, 5, 1, 4, 0x78, 0, 0, 9, 0x1e, 0, 1];
    const halves = bmp(28, 3, 4, 2, four, { palette: greys.slice(0, 64) });
    expect(row(halves, 2, 28)).toEqual([
      0,
      4,
      0,
      0,
      6,
      0,
      6,
      0,
      4,
      5,
      5,
      6,
      6,
      7,
      7,
      8,
      7,
      8,
      ...Array<number>(10).fill(0),
    ]);
    expect(row(halves, 1, 28)).toEqual([...Array<number>(23).fill(0), 7, 8, 7, 8, 0]);
    expect(row(halves, 0, 28)).toEqual([1, 14, 1, 14, 1, 14, 1, 14, 1, ...Array<number>(19).fill(0)]);
  });

  it("of sixteen and thirty-two bits has the colours of its masks, and stands from the top where its height is negative", () => {
    // Five bits a colour as a rule; 31 is all there is.
    expect([...(bmpPixels(bmp(2, 1, 16, 0, [...word(0x7c00), ...word(0x03e0)])) ?? [])]).toEqual([
      255, 0, 0, 255, 0, 255, 0, 255,
    ]);
    expect([
      ...(bmpPixels(bmp(2, 1, 16, 3, [...word(0xf800), ...word(0x0410)], { masks: [0xf800, 0x7e0, 0x1f] })) ?? []),
    ]).toEqual([255, 0, 0, 255, 0, 130, 132, 255]);
    // The fourth byte means nothing without a mask.
    expect([...(bmpPixels(bmp(1, -2, 32, 0, [1, 2, 3, 0, 4, 5, 6, 0])) ?? [])]).toEqual([3, 2, 1, 255, 6, 5, 4, 255]);
    expect([...(bmpPixels(bmp(1, 2, 32, 0, [1, 2, 3, 0, 4, 5, 6, 0])) ?? [])]).toEqual([6, 5, 4, 255, 3, 2, 1, 255]);
    expect([
      ...(bmpPixels(bmp(1, 1, 32, 3, [1, 2, 3, 128], { size: 108, masks: [0xff0000, 0xff00, 0xff, 0xff000000] })) ??
        []),
    ]).toEqual([3, 2, 1, 128]);
  });

  it("that holds a JPEG or a PNG, or breaks off in its header, is none that is read", () => {
    expect(rasterInfo(bmp(1, 1, 0, 4, [255, 216]))).toBeUndefined();
    expect(rasterInfo(bmp(1, 1, 24, 0, []).slice(0, 30))).toBeUndefined();
  });
});
