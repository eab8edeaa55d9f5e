import { type Deck, type Element, emptyDeck, newSlide, must } from "@unitext/core/model";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import { Resvg } from "@resvg/resvg-js";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { type WritableFormat, WRITERS, writeReport } from "./index";

const drawing = strToU8(
  '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="40" viewBox="0 0 80 40"><rect width="40" height="40" fill="#0f5c63"/><rect x="40" width="40" height="40" fill="#b7791f"/></svg>',
);
// The smallest picture of the kind (GIF89a, appendix A; the bytes from memory).
const moving = Uint8Array.from(Buffer.from("R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7", "base64"));
const bench = filesBench(drawing, moving);
const png = (svg: string, width: number) =>
  new Resvg(svg, { fitTo: { mode: "width", value: width }, font: { loadSystemFonts: false } }).render().asPng();
const context = { ...bench.context, png };
const assets = {
  "gauge.svg": { sha256: sha256(drawing), mediaType: "image/svg+xml" as const, width: 80, height: 40 },
  "wave.gif": { sha256: sha256(moving), mediaType: "image/gif" as const, width: 1, height: 1 },
};
const picture = (source: string, y: number, more: object = {}): Element =>
  ({
    kind: "picture",
    id: `p${y}`,
    slot: null,
    frame: { x: 100, y, width: 160, height: 80 },
    source,
    alt: "A gauge",
    ...more,
  }) as Element;
const deck: Deck = {
  ...emptyDeck("d", "Lines"),
  assets,
  slides: [
    {
      ...newSlide("one", "blank"),
      elements: [
        picture("gauge.svg", 40),
        picture("gauge.svg", 200, { opacity: 0.5, crop: { left: 0.5, top: 0, right: 0, bottom: 0 } }),
      ],
    },
    {
      ...newSlide("two", "blank"),
      background: { picture: "gauge.svg" },
      elements: [
        {
          kind: "shape",
          id: "s",
          slot: null,
          frame: { x: 400, y: 100, width: 100, height: 100 },
          geometry: { preset: "ellipse" },
          fill: { kind: "picture", source: "gauge.svg" },
          text: [],
        } as Element,
      ],
    },
  ],
};
const write = (format: WritableFormat, of = deck) => WRITERS[format].write(of, context) as Uint8Array;
const text = (parts: Record<string, Uint8Array>, path: string) => strFromU8(must(parts[path]));

/** The file without what Unitext alone knows of it. */
const bare = (bytes: Uint8Array) =>
  zipSync(
    Object.fromEntries(
      Object.entries(unzipSync(bytes)).map(([path, part]) => [
        path,
        /tags\/|^meta\.xml$/.test(path)
          ? strToU8(
              strFromU8(part)
                .replace(/UNITEXT_/g, "OTHER_")
                .replace(/unitext:/g, "other:"),
            )
          : part,
      ]),
    ),
  );

describe("a picture in SVG", () => {
  it("is in a .pptx as its drawing and, for programs that do not know it, as a raster picture beside it", () => {
    const parts = unzipSync(write("pptx"));
    const slide = text(parts, "ppt/slides/slide1.xml");
    const rows = new Map(
      [...text(parts, "ppt/slides/_rels/slide1.xml.rels").matchAll(/<Relationship [^>]*>/g)].map(([row]) => [
        / Id="([^"]*)"/.exec(row)?.[1] ?? "",
        /Target="([^"]*)"/.exec(row)?.[1] ?? "",
      ]),
    );
    const blips = [...slide.matchAll(/<a:blip r:embed="([^"]*)">(.*?)<\/a:blip>/g)];
    expect(blips).toHaveLength(2);
    for (const [, dots = "", inside = ""] of blips) {
      const lines = /<asvg:svgBlip [^>]*r:embed="([^"]*)"/.exec(inside)?.[1] ?? "";
      const at = (id: string) => must(parts[`ppt/${rows.get(id)?.replace("../", "")}`]);
      expect(at(lines)).toEqual(drawing);
      const { width, height, data } = PNG.sync.read(Buffer.from(at(dots)));
      expect([width, height]).toEqual([1200, 600]);
      const pixel = (x: number) => [...data.subarray((300 * width + x) * 4, (300 * width + x) * 4 + 3)];
      expect([pixel(300), pixel(900)]).toEqual([
        [0x0f, 0x5c, 0x63],
        [0xb7, 0x79, 0x1f],
      ]);
      // CT_Blip (ECMA-376-1, 20.1.8.13): effects, then the list of extensions.
      expect(inside).toMatch(/^(?:<a:alphaModFix amt="50000"\/>)?<a:extLst>/);
    }
    // Both are written once, and the package says what they are.
    expect(Object.keys(parts).filter((path) => path.startsWith("ppt/media/"))).toHaveLength(2);
    expect(text(parts, "[Content_Types].xml")).toMatch(/Extension="svg" ContentType="image\/svg\+xml"/);
  });

  it("is in an .odp as its drawing first, then as a raster picture (10.4.2: the first that a program can show)", () => {
    const parts = unzipSync(write("odp"));
    const frames = [...text(parts, "content.xml").matchAll(/<draw:frame [^>]*>((?:<draw:image [^>]*\/>)+)/g)].map(
      ([, images = ""]) => [...images.matchAll(/xlink:href="([^"]*)"/g)].map(([, path = ""]) => path),
    );
    expect(frames.map((paths) => paths.map((path) => path.replace(/.*\./, "")))).toEqual([
      ["svg", "png"],
      ["svg", "png"],
    ]);
    for (const path of frames.flat())
      expect(text(parts, "META-INF/manifest.xml")).toContain(
        `manifest:full-path="${path}" manifest:media-type="image/${path.endsWith("svg") ? "svg+xml" : "png"}"`,
      );
    expect(parts[must(frames[0]?.[0])]).toEqual(drawing);
  });

  it.each(["pptx", "odp"] as const)(
    "comes back from a .%s as the drawing that it was, as Unitext and as another program reads it, fills and backgrounds too",
    (format) => {
      for (const bytes of [write(format), bare(write(format))]) {
        const read = bench.read(bytes, `deck.${format}`).deck;
        const drawn = Object.values(read.assets).filter(({ mediaType }) => mediaType.startsWith("image/"));
        expect(drawn.length).toBeGreaterThan(0);
        for (const asset of drawn) expect(asset).toMatchObject(assets["gauge.svg"]);
        const [one, two] = read.slides;
        expect(one?.elements.map(({ kind }) => kind)).toEqual(["picture", "picture"]);
        expect(one?.elements[1]).toMatchObject({ opacity: 0.5, crop: { left: 0.5, top: 0, right: 0, bottom: 0 } });
        expect(
          JSON.stringify([
            two?.background,
            two?.elements[0]?.fill,
            two?.master && read.masters?.[two.master]?.background,
          ]).match(/"(?:picture|source)":"[^"]*\.svg"/g)?.length,
        ).toBe(2);
      }
    },
  );

  it.each(["pptx", "odp"] as const)("is kept in a .%s of another program whose slide is changed", (format) => {
    const { deck: read } = bench.read(bare(write(format)), `deck.${format}`);
    const [one, ...others] = read.slides as [Deck["slides"][number], ...Deck["slides"]];
    const moved = {
      ...read,
      slides: [
        {
          ...one,
          elements: one.elements.map((element, nth) =>
            nth ? element : { ...element, frame: { x: 10, y: 10, width: 320, height: 160 } },
          ),
        },
        ...others,
      ],
    };
    const again = bench.read(write(format, moved), `deck.${format}`).deck;
    expect(again.slides[0]?.elements[0]).toMatchObject({
      kind: "picture",
      frame: { x: 10, y: 10, width: 320, height: 160 },
    });
    const [shown] = again.slides[0]?.elements ?? [];
    expect(again.assets[shown?.kind === "picture" ? shown.source : ""]).toMatchObject(assets["gauge.svg"]);
  });

  it("is told where it is drawn in dots, and is there: a PDF holds it and a moving one", async () => {
    const given: Deck = {
      ...deck,
      slides: [{ ...newSlide("one", "blank"), elements: [picture("gauge.svg", 40), picture("wave.gif", 200)] }],
    };
    expect(writeReport(given, "pdf").adapted.map(({ what, how }) => `${what}: ${how}`)).toEqual([
      "the picture gauge.svg: drawn as pixels, up to 2400 in a row",
      "the picture wave.gif: shown standing still",
    ]);
    const { getDocument, OPS } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    const page = await (
      await getDocument({
        data: (await WRITERS.pdf.write(given, context)).slice(),
        useSystemFonts: false,
        verbosity: 0,
      }).promise
    ).getPage(1);
    const { fnArray, argsArray } = await page.getOperatorList();
    const images = fnArray.flatMap((operator, nth) =>
      operator === OPS.paintImageXObject ? [(argsArray[nth] as unknown[]).slice(1)] : [],
    );
    expect(images).toEqual([
      [1200, 600],
      [1, 1],
    ]);
  });

  it("is drawn on a web page and in drawings as it is", () => {
    const html = strFromU8(write("html"));
    expect(html.match(/href="data:image\/svg\+xml;base64,/g)?.length).toBeGreaterThanOrEqual(2);
    const archive = unzipSync(write("svg"));
    expect(strFromU8(must(Object.values(archive)[0]))).toContain(
      `data:image/svg+xml;base64,${Buffer.from(drawing).toString("base64")}`,
    );
    for (const format of ["html", "svg", "png", "pptx", "odp", "json"] as const)
      expect(writeReport(deck, format).adapted.filter(({ what }) => what.includes("gauge"))).toEqual([]);
  });

  // The colours of SVG 1.1, 15.10 (saturate) and of a luminance cut in the middle: what a page of a PDF holds is that picture itself.
  it.each([
    ["grey", (pixel: number[]) => expect(new Set(pixel).size).toBe(1)],
    [
      "mono",
      (pixel: number[]) =>
        expect(pixel.every((value) => value === 0) || pixel.every((value) => value === 255)).toBe(true),
    ],
    ["washout", (pixel: number[]) => expect(Math.min(...pixel)).toBeGreaterThan(170)],
  ] as const)("is %s in a PDF where it is so on its slide, also half seen through", async (recolour, holds) => {
    const given: Deck = {
      ...deck,
      slides: [{ ...newSlide("one", "blank"), elements: [picture("gauge.svg", 40, { recolour, opacity: 0.5 })] }],
    };
    const { getDocument, OPS } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    const page = await (
      await getDocument({
        data: (await WRITERS.pdf.write(given, context)).slice(),
        useSystemFonts: false,
        verbosity: 0,
      }).promise
    ).getPage(1);
    const { fnArray, argsArray } = await page.getOperatorList();
    const name = (argsArray[fnArray.indexOf(OPS.paintImageXObject)] as [string])[0];
    const { data, width, height, kind } = await new Promise<{
      data: Uint8Array;
      width: number;
      height: number;
      kind: number;
    }>((resolve) => page.objs.get(name, resolve));
    const step = kind === 3 ? 4 : 3;
    for (const x of [0.25, 0.75]) {
      const at = (Math.floor(height / 2) * width + Math.floor(width * x)) * step;
      holds([...data.subarray(at, at + 3)]);
    }
    expect(writeReport(given, "pdf").adapted.map(({ how }) => how)).toEqual(["drawn as pixels, up to 2400 in a row"]);
  });
});
