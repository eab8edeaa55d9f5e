import { loadFormulas } from "@unitext/core/figures";
import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { type Asset, type Deck, metadataOf, must } from "@unitext/core/model";
import { dotsFile } from "@unitext/core/testing/raster";
import { filesBench, sha256, withoutTags, deckWith } from "@unitext/core/testing/files";
import { emf, wmf } from "@unitext/core/testing/metafiles";
import { Resvg } from "@resvg/resvg-js";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { type ReadResult, withDrawings, WRITERS } from "./index";

// Presentations of other programs with pictures that pages do not show as they come: lists of drawing records, and pixels in other formats. The left half is petrol, the right half ochre.
const half = (x: number, colour: readonly [number, number, number]) => ({ x, y: 0, width: 50, height: 50, colour });
const HALVES = [half(0, [15, 92, 99]), half(50, [183, 121, 31])];
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 100, height: 50 })));
const bench = filesBench(photo);
const png = (svg: string, width: number) =>
  new Uint8Array(new Resvg(svg, { fitTo: { mode: "width", value: width } }).render().asPng());
const context = { ...bench.context, png };
const shown: Deck = deckWith(
  {
    kind: "picture",
    id: "p",
    slot: null,
    source: "a.png",
    alt: "Halves",
    frame: { x: 100, y: 60, width: 300, height: 100 },
  },
  { "a.png": { sha256: sha256(photo), mediaType: "image/png", width: 100, height: 50 } },
);

/** The presentation as another program would have written it, with other bytes for its picture, under another ending. */
function fileWith(format: "pptx" | "odp", bytes: Uint8Array, ending: string): Uint8Array {
  const parts = unzipSync(withoutTags(WRITERS[format].write(shown, context) as Uint8Array));
  const path = must(Object.keys(parts).find((name) => /(?:media|Pictures)\/.*\.png$/.test(name)));
  const name = path.slice(path.lastIndexOf("/") + 1);
  const renamed = name.replace(/png$/, ending);
  return zipSync(
    Object.fromEntries(
      Object.entries(parts).map(([one, part]): [string, Uint8Array] =>
        one === path
          ? [path.replace(name, renamed), bytes]
          : [
              one,
              /\.(?:xml|rels)$/.test(one)
                ? strToU8(
                    strFromU8(part)
                      .replaceAll(name, renamed)
                      .replace(
                        'Extension="png" ContentType="image/png"',
                        `Extension="${ending}" ContentType="image/${ending}"`,
                      ),
                  )
                : part,
            ],
      ),
    ),
  );
}

async function read(bytes: Uint8Array, name: string): Promise<ReadResult> {
  const found = await withDrawings(bench.read(bytes, name), sha256);
  for (const [sum, blob] of found.blobs) bench.blobs.set(sum, blob);
  return found;
}

const slideOf = ({ deck }: Pick<ReadResult, "deck">) => must(deck.slides[0]);

/** The colours in the middle of both halves of the frame, as another program draws the slide's drawing. */
function halves(found: Pick<ReadResult, "deck">): number[][] {
  const svg = unzipSync(WRITERS.svg.write(found.deck, context) as Uint8Array);
  const { data, width } = PNG.sync.read(Buffer.from(png(strFromU8(must(Object.values(svg)[0])), 960)));
  return [175, 325].map((x) => [...data.subarray((110 * width + x) * 4, (110 * width + x) * 4 + 3)]);
}

const COLOURS = HALVES.map(({ colour }) => [...colour]);

beforeAll(loadFormulas);

describe("a picture of drawing records, or of pixels in a TIFF or BMP, in a presentation", () => {
  const kinds: [string, "pptx" | "odp", Uint8Array, string, Asset["mediaType"]][] = [
    [".pptx as EMF", "pptx", emf(100, 50, HALVES), "emf", "image/svg+xml"],
    [".pptx as WMF", "pptx", wmf(100, 50, HALVES), "wmf", "image/svg+xml"],
    [".pptx as TIFF", "pptx", dotsFile("halves.tiff"), "tiff", "image/png"],
    [".pptx as BMP", "pptx", dotsFile("halves.bmp"), "bmp", "image/png"],
    [".odp as EMF", "odp", emf(100, 50, HALVES), "emf", "image/svg+xml"],
    [".odp as placed WMF", "odp", wmf(100, 50, HALVES, { inch: 100 }), "wmf", "image/svg+xml"],
    [".odp as TIFF", "odp", dotsFile("halves.tiff"), "tiff", "image/png"],
    [".odp as BMP", "odp", dotsFile("halves.bmp"), "bmp", "image/png"],
  ];

  it.each(kinds)("in a %s is drawn over its frame, and told", async (_, format, bytes, ending, mediaType) => {
    const found = await read(fileWith(format, bytes, ending), `tides.${format}`);
    const [element] = slideOf(found).elements;
    expect(element).toMatchObject({ kind: "picture", alt: "Halves" });
    const asset = element?.kind === "picture" ? found.deck.assets[element.source] : undefined;
    expect(asset).toMatchObject({ mediaType });
    const scene = layoutSlide(slideOf(found), { metadata: metadataOf(found.deck), number: 1, fonts: context.fonts });
    expect(leavesOf(scene.nodes).filter(({ kind }) => kind === "picture")).toHaveLength(1);
    expect(halves(found)).toEqual(COLOURS);
    expect(found.left).toEqual([]);
    expect(found.adapted).toContainEqual({
      slide: 1,
      what: expect.stringMatching(/^the picture “/),
      how: `${mediaType === "image/png" ? `its pixels (${ending}) are stored as PNG` : `its drawing (${ending}) is converted to SVG`}; ${format === "pptx" ? "a .pptx" : "an .odp"} keeps them`,
    });
  });

  it.each(kinds)(
    "in a %s stays in a file of its own kind as it came, also when its slide is changed",
    async (_, format, bytes, ending) => {
      const found = await read(fileWith(format, bytes, ending), `tides.${format}`);
      const moved: Deck = {
        ...found.deck,
        slides: [
          {
            ...slideOf(found),
            elements: slideOf(found).elements.map((element) => ({
              ...element,
              frame: { x: 100, y: 60, width: 300, height: 120 },
            })),
          },
        ],
      };
      for (const deck of [found.deck, moved]) {
        const parts = unzipSync(WRITERS[format].write(deck, context) as Uint8Array);
        const kept = Object.entries(parts).filter(([path]) => path.endsWith(`.${ending}`));
        expect(kept.map(([, part]) => part)).toEqual([bytes]);
        expect(halves(await read(WRITERS[format].write(deck, context) as Uint8Array, `again.${format}`))).toEqual(
          COLOURS,
        );
      }
    },
  );

  it.each(kinds)("in a %s goes into the other format as what is shown", async (_, format, bytes, ending, mediaType) => {
    const found = await read(fileWith(format, bytes, ending), `tides.${format}`);
    const other = format === "pptx" ? "odp" : "pptx";
    const there = await read(WRITERS[other].write(found.deck, context) as Uint8Array, `tides.${other}`);
    expect(halves(there)).toEqual(COLOURS);
    expect(there.deck.assets).toEqual(
      expect.objectContaining(
        Object.fromEntries(
          slideOf(there).elements.flatMap((element) =>
            element.kind === "picture" ? [[element.source, expect.objectContaining({ mediaType })]] : [],
          ),
        ),
      ),
    );
  });

  it("that cannot be drawn is told, and stands as a frame that a .pptx keeps", async () => {
    const broken = emf(100, 50, []).slice(0, 92);
    const found = await read(fileWith("pptx", broken, "emf"), "tides.pptx");
    expect(found.left).toEqual([
      {
        slide: null,
        what: expect.stringMatching(/^the drawing records of the picture .*\.emf$/),
        why: expect.stringMatching(/^they are damaged/),
      },
    ]);
    expect(Object.values(found.deck.assets).map(({ mediaType }) => mediaType)).not.toContain("image/svg+xml");
    expect(() => halves(found)).not.toThrow();
    const parts = unzipSync(WRITERS.pptx.write(found.deck, context) as Uint8Array);
    expect(
      Object.entries(parts)
        .filter(([path]) => path.endsWith(".emf"))
        .map(([, part]) => part),
    ).toEqual([broken]);
  });
});

describe("an embedded object of a .pptx", () => {
  const P =
    'xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
  const object = (spid: string) =>
    `<p:graphicFrame ${P}><p:nvGraphicFramePr><p:cNvPr id="7" name="Levels"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><p:xfrm><a:off x="1270000" y="762000"/><a:ext cx="3810000" cy="1270000"/></p:xfrm><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/presentationml/2006/ole"><p:oleObj spid="${spid}" name="Sheet" r:id="rIdObject" imgW="100" imgH="50" progId="Sheet.8"><p:embed/></p:oleObj></a:graphicData></a:graphic></p:graphicFrame>`;
  // ECMA-376-4, 19: how shapes, and the pictures in them, are placed in an older drawing.
  const drawing =
    '<xml xmlns:v="urn:example:vml" xmlns:o="urn:example:office"><v:shapetype id="_t75"/><v:shape id="first" o:spid="_s1026" type="#_t75"><v:imagedata o:relid="rId1" o:title=""/></v:shape><v:shape id="_s1027"><v:imagedata o:relid="rId1"/></v:shape><v:shape id="_s1028"/></xml>';
  const REL = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  function fileOf(spid: string, vml = drawing): Uint8Array {
    const parts = unzipSync(
      withoutTags(
        WRITERS.pptx.write({ ...shown, slides: [{ ...must(shown.slides[0]), elements: [] }] }, context) as Uint8Array,
      ),
    );
    const [slide, rows, types] = [
      "ppt/slides/slide1.xml",
      "ppt/slides/_rels/slide1.xml.rels",
      "[Content_Types].xml",
    ].map((path) => strFromU8(must(parts[path]))) as [string, string, string];
    return zipSync({
      ...parts,
      "[Content_Types].xml": strToU8(
        types.replace(
          "</Types>",
          '<Default Extension="vml" ContentType="application/vnd.openxmlformats-officedocument.vmlDrawing"/><Default Extension="emf" ContentType="image/emf"/><Default Extension="bin" ContentType="application/vnd.openxmlformats-officedocument.oleObject"/></Types>',
        ),
      ),
      "ppt/slides/slide1.xml": strToU8(slide.replace("</p:spTree>", `${object(spid)}</p:spTree>`)),
      "ppt/slides/_rels/slide1.xml.rels": strToU8(
        rows.replace(
          "</Relationships>",
          `<Relationship Id="rIdVml" Type="${REL}/vmlDrawing" Target="../drawings/vmlDrawing1.vml"/><Relationship Id="rIdObject" Type="${REL}/oleObject" Target="../embeddings/object1.bin"/></Relationships>`,
        ),
      ),
      "ppt/drawings/vmlDrawing1.vml": strToU8(vml),
      "ppt/drawings/_rels/vmlDrawing1.vml.rels": strToU8(
        `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${REL}/image" Target="../media/levels.emf"/></Relationships>`,
      ),
      "ppt/embeddings/object1.bin": strToU8("made up"),
      "ppt/media/levels.emf": emf(100, 50, HALVES),
    });
  }

  it.each([
    ["by the number of its shape", "_s1026"],
    ["by the id of its shape", "_s1027"],
  ])("is shown by the picture of an older drawing, found %s", async (_, spid) => {
    const found = await read(fileOf(spid), "levels.pptx");
    expect(slideOf(found).elements).toEqual([
      expect.objectContaining({
        kind: "foreign",
        what: "embedded object (Sheet.8)",
        name: "Levels",
        picture: "levels.emf.svg",
      }),
    ]);
    expect(halves(found)).toEqual(COLOURS);
    const parts = unzipSync(WRITERS.pptx.write(found.deck, context) as Uint8Array);
    expect(strFromU8(must(parts["ppt/embeddings/object1.bin"]))).toBe("made up");
    expect(strFromU8(must(parts["ppt/drawings/vmlDrawing1.vml"]))).toBe(drawing);
  });

  it.each([
    ["names no shape of it", "_s9999", drawing],
    ["names a shape without a picture", "_s1028", drawing],
    ["has a drawing that is no XML", "_s1026", "<xml><br><p>"],
  ])("that %s is shown by its name", async (_, spid, vml) => {
    const found = await read(fileOf(spid, vml), "levels.pptx");
    expect(slideOf(found).elements).toEqual([expect.objectContaining({ kind: "foreign", name: "Levels" })]);
    expect(slideOf(found).elements[0]).not.toHaveProperty("picture");
  });
});
