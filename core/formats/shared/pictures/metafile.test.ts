import { must } from "@unitext/core/model";
import { emf, wmf } from "@unitext/core/testing/metafiles";
import { sha256 } from "@unitext/core/testing/files";
import { strFromU8 } from "fflate";
import { PictureConverter, pictureInfo } from "./index";
import { metafileInfo } from "./metafile";

const PETROL = [15, 92, 99] as const;
const box = { x: 10, y: 5, width: 40, height: 20, colour: PETROL };
const plain = wmf(100, 50, [box]);
const placed = wmf(100, 50, [box], { inch: 100 });
const enhanced = emf(100, 50, [box]);
const drawn = async (...files: [string, Uint8Array][]) => {
  const drawings = new PictureConverter(sha256);
  const found = {
    assets: {} as Record<string, { sha256: string; mediaType: string; width: number; height: number }>,
    blobs: new Map<string, Uint8Array>(),
    pendingPictures: new Map(files),
  };
  await drawings.into(found as Parameters<PictureConverter["into"]>[0]);
  return {
    ...found,
    left: drawings.left,
    markup: (name: string) => strFromU8(found.blobs.get(found.assets[name]?.sha256 ?? "") ?? new Uint8Array()),
  };
};

describe("what a metafile is", () => {
  it.each([
    // [MS-WMF] 2.3.2.3: a box in units of which so many are an inch; CSS Values 3, 5.2: 96 pixels to the inch.
    ["a WMF that says where it stands", placed, { kind: "wmf", width: 96, height: 48 }],
    ["one in twentieths of a point", wmf(2880, 1440, [box], { inch: 1440 }), { kind: "wmf", width: 192, height: 96 }],
    // 2.3.2.2
    ["a WMF with its header alone", plain, { kind: "wmf", width: 0, height: 0 }],
    // [MS-EMF] 2.2.9: the frame in hundredths of a millimetre.
    ["an EMF", enhanced, { kind: "emf", width: 96, height: 48 }],
    ["a PNG", Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, ...new Array(100).fill(0)]), undefined],
    [
      "an EMF without its signature",
      Uint8Array.from(enhanced, (byte, at) => (at >= 40 && at < 44 ? 0 : byte)),
      undefined,
    ],
    ["a WMF of another version", Uint8Array.from(plain, (byte, at) => (at === 5 ? 9 : byte)), undefined],
    ["what breaks off in its header", placed.slice(0, 20), undefined],
    ["nothing", new Uint8Array(), undefined],
  ])("is told of %s", (_, bytes, found) => {
    expect(metafileInfo(bytes)).toEqual(found);
    // Also as a stretch of a larger file.
    expect(metafileInfo(Uint8Array.from([9, 9, 9, ...bytes]).subarray(3))).toEqual(found);
  });
});

describe("a metafile drawn as SVG", () => {
  it.each([
    ["a WMF", plain],
    ["a WMF that says where it stands", placed],
    ["an EMF", enhanced],
  ])("of %s is a picture in SVG with its boxes in their colours", async (_, bytes) => {
    const { assets, blobs, left, markup } = await drawn(["a.svg", bytes]);
    const asset = assets["a.svg"];
    expect(left).toEqual([]);
    expect(asset?.sha256).toBe(sha256(must(blobs.get(asset?.sha256 ?? ""))));
    expect({ ...asset }).toEqual({
      ...pictureInfo(must(blobs.get(asset?.sha256 ?? ""))),
      sha256: asset?.sha256,
    });
    expect(asset?.mediaType).toBe("image/svg+xml");
    expect((asset?.width ?? 0) / (asset?.height ?? 1)).toBeCloseTo(2, 1);
    expect(markup("a.svg")).toContain("#0f5c63");
    // It fills its frame, as metafiles do, whatever the frame's shape.
    expect(markup("a.svg")).toMatch(/^<svg [^>]*preserveAspectRatio="none"/);
  });

  it("names for its words a family that ships beside the one that it asks for", async () => {
    const { markup } = await drawn(["a.svg", wmf(100, 50, [], { words: "Tide < gauge" })]);
    expect(markup("a.svg")).toMatch(/<text[^>]*>[^<]*Tide &lt; gauge/);
    for (const [, list = ""] of markup("a.svg").matchAll(/font-family="([^"]*)"/g))
      expect(list).toMatch(/^&quot;[^&]+&quot;, &quot;[^&]+&quot;, sans-serif$/);
  });

  it("is made once for a file, however many lots of slides show it", async () => {
    const drawings = new PictureConverter(sha256);
    const pendingPictures = new Map([["a.svg", plain]]);
    const [first, second] = [
      { assets: {}, blobs: new Map<string, Uint8Array>(), pendingPictures },
      { assets: {}, blobs: new Map<string, Uint8Array>(), pendingPictures },
    ];
    await drawings.into(first);
    await drawings.into(second);
    expect(second.assets).toEqual(first.assets);
    expect([first.blobs.size, second.blobs.size]).toEqual([1, 0]);
  });

  it("is told where it cannot be made, and the others are there", async () => {
    const { assets, left } = await drawn(["gone.emf.svg", enhanced.slice(0, 60)], ["a.svg", plain]);
    expect(Object.keys(assets)).toEqual(["a.svg"]);
    expect(left).toEqual([
      {
        slide: null,
        what: "the drawing records of the picture gone.emf",
        why: "they are damaged, too many or none; an empty frame is shown instead",
      },
    ]);
  });

  it("is told where it has acts that nobody knows, and the others are drawn", async () => {
    // An act of a number beyond those of 2.1.1 before the last, which is 20 bytes long; nothing is said on the console.
    const { warn } = console;
    const said: unknown[] = [];
    console.warn = (...words) => said.push(words);
    const strange = Uint8Array.from([
      ...enhanced.slice(0, -20),
      0xf0,
      0,
      0,
      0,
      12,
      0,
      0,
      0,
      0,
      0,
      0,
      0,
      ...enhanced.slice(-20),
    ]);
    const { assets, left, markup } = await drawn(["a.emf.svg", strange]);
    expect(Object.keys(assets)).toEqual(["a.emf.svg"]);
    expect(markup("a.emf.svg")).toContain("#0f5c63");
    expect(left).toEqual([
      {
        slide: null,
        what: "some drawing records of the picture a.emf",
        why: "they are of a kind that is not known; the others are drawn",
      },
    ]);
    console.warn = warn;
    expect(said).toEqual([]);
  });

  it("is a drawing or none, whatever bytes are flipped", async () => {
    let seed = 7;
    const chance = (below: number) => {
      seed = (seed * 48271) % 2147483647;
      return seed % below;
    };
    for (let nth = 0; nth < 300; nth++) {
      const bytes = Uint8Array.from(must([plain, placed, enhanced][nth % 3]));
      for (let flips = chance(6); flips >= 0; flips--) bytes[chance(bytes.length)] = chance(256);
      const { assets, left } = await drawn(["a.svg", bytes]);
      expect(Object.keys(assets).length === 1 || left.length === 1).toBe(true);
    }
  });
});
