import {
  type Deck,
  emptyDeck,
  filesOf,
  type ForeignElement,
  metadataOf,
  newSlide,
  textOf,
  must,
} from "@unitext/core/model";
import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { tally } from "@unitext/core/tally";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";

import { WRITERS, writeReport } from "../../index";

// A diagram of another program: its data (ECMA-376-1, 21.4) and, beside the standard's parts, the drawing that programs keep of it, named by an extension of the data (the names from memory).
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const bench = filesBench(photo);
const EMU = 12700;
const A =
  'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
const DGM = "http://schemas.openxmlformats.org/drawingml/2006/diagram";
const point = (id: string, words: string) =>
  `<dgm:pt modelId="${id}"><dgm:prSet/><dgm:spPr/><dgm:t><a:bodyPr/><a:lstStyle/><a:p><a:r><a:rPr lang="en"/><a:t>${words}</a:t></a:r></a:p></dgm:t></dgm:pt>`;
const data = (drawing = "rIdDrawing") =>
  `<dgm:dataModel xmlns:dgm="${DGM}" ${A}><dgm:ptLst><dgm:pt modelId="0" type="doc"/>${point("1", "Ebb")}${point("2", "Flood")}</dgm:ptLst><dgm:cxnLst/><dgm:bg/><dgm:whole/><dgm:extLst><a:ext uri="drawing"><dsp:dataModelExt xmlns:dsp="urn:example:diagram-drawing" relId="${drawing}" minVer="1"/></a:ext></dgm:extLst></dgm:dataModel>`;
const shape = (id: number, x: number, y: number, fill: string, words: string, style = "") =>
  `<dsp:sp modelId="${id}"><dsp:nvSpPr><dsp:cNvPr id="0" name=""/><dsp:cNvSpPr/></dsp:nvSpPr><dsp:spPr><a:xfrm><a:off x="${x * EMU}" y="${y * EMU}"/><a:ext cx="${100 * EMU}" cy="${50 * EMU}"/></a:xfrm><a:prstGeom prst="roundRect"><a:avLst/></a:prstGeom>${fill}</dsp:spPr>${style}<dsp:txBody><a:bodyPr anchor="ctr"/><a:lstStyle/><a:p><a:pPr algn="ctr"/><a:r><a:rPr lang="en" sz="2000"/><a:t>${words}</a:t></a:r></a:p></dsp:txBody></dsp:sp>`;
const drawing = `<dsp:drawing xmlns:dsp="urn:example:diagram-drawing" ${A}><dsp:spTree><dsp:nvGrpSpPr><dsp:cNvPr id="0" name=""/><dsp:cNvGrpSpPr/></dsp:nvGrpSpPr><dsp:grpSpPr/>${shape(1, 10, 20, '<a:solidFill><a:schemeClr val="accent1"/></a:solidFill>', "Ebb")}${shape(2, 200, 20, '<a:blipFill><a:blip r:embed="rIdPicture"/><a:stretch><a:fillRect/></a:stretch></a:blipFill>', "Flood")}</dsp:spTree></dsp:drawing>`;
const frame = `<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="9" name="Tides"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><p:xfrm><a:off x="${100 * EMU}" y="${60 * EMU}"/><a:ext cx="${400 * EMU}" cy="${200 * EMU}"/></p:xfrm><a:graphic><a:graphicData uri="${DGM}"><dgm:relIds xmlns:dgm="${DGM}" r:dm="rIdData" r:lo="rIdData" r:qs="rIdData" r:cs="rIdData"/></a:graphicData></a:graphic></p:graphicFrame>`;
const REL = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const relationships = (rows: string) =>
  strToU8(
    `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${rows}</Relationships>`,
  );

function fileOf(drawn: string | undefined, model = data()): Uint8Array {
  const parts = unzipSync(
    WRITERS.pptx.write({ ...emptyDeck("d", "D"), slides: [newSlide("s", "blank")] }, bench.context) as Uint8Array,
  );
  const slide = strFromU8(must(parts["ppt/slides/slide1.xml"]));
  const rows = strFromU8(must(parts["ppt/slides/_rels/slide1.xml.rels"]));
  const types = strFromU8(must(parts["[Content_Types].xml"]));
  return zipSync({
    ...Object.fromEntries(Object.entries(parts).filter(([path]) => !path.startsWith("ppt/tags/"))),
    "[Content_Types].xml": strToU8(
      types
        .replace(/<Override PartName="\/ppt\/tags\/[^>]*>/g, "")
        .replace(
          "</Types>",
          `<Default Extension="png" ContentType="image/png"/><Override PartName="/ppt/diagrams/data1.xml" ContentType="application/vnd.openxmlformats-officedocument.drawingml.diagramData+xml"/></Types>`,
        ),
    ),
    "ppt/slides/slide1.xml": strToU8(
      slide.replace(/<p:custDataLst>.*?<\/p:custDataLst>/, "").replace("</p:spTree>", `${frame}</p:spTree>`),
    ),
    "ppt/slides/_rels/slide1.xml.rels": relationships(
      `${/<Relationships[^>]*>(.*)<\/Relationships>/s.exec(rows)?.[1]?.replace(/<Relationship [^>]*tags[^>]*>/g, "")}<Relationship Id="rIdData" Type="${REL}/diagramData" Target="../diagrams/data1.xml"/><Relationship Id="rIdDrawing" Type="${REL}/diagramDrawing" Target="../diagrams/drawing1.xml"/>`,
    ),
    "ppt/diagrams/data1.xml": strToU8(model),
    ...(drawn === undefined
      ? {}
      : {
          "ppt/diagrams/drawing1.xml": strToU8(drawn),
          "ppt/diagrams/_rels/drawing1.xml.rels": relationships(
            `<Relationship Id="rIdPicture" Type="${REL}/image" Target="../media/tide.png"/>`,
          ),
          "ppt/media/tide.png": photo,
        }),
  });
}
const diagramIn = (deck: Deck) => deck.slides[0]?.elements.find(({ kind }) => kind === "foreign") as ForeignElement;

describe("a diagram of another program", () => {
  const { deck, adapted } = bench.read(fileOf(drawing), "tides.pptx");
  const diagram = diagramIn(deck);

  it("is shown as its file draws it: forms where they stand, in the theme's colours, with their words and pictures", () => {
    expect(diagram).toMatchObject({
      what: "diagram",
      name: "Tides",
      frame: { x: 100, y: 60, width: 400, height: 200 },
      drawing: { width: 400, height: 200 },
    });
    expect(diagram.text.map(({ runs }) => runs.map(({ text }) => text).join(""))).toEqual(["Ebb", "Flood"]);
    const [ebb, flood] = diagram.drawing?.elements ?? [];
    expect(ebb).toMatchObject({
      kind: "shape",
      frame: { x: 10, y: 20, width: 100, height: 50 },
      geometry: { preset: "roundRect" },
      fill: { kind: "solid", colour: deck.theme.colours.accent },
    });
    expect(flood).toMatchObject({ frame: { x: 200, y: 20 }, fill: { kind: "picture", source: "tide.png" } });
    expect(filesOf(must(deck.slides[0]), deck)).toContain("tide.png");
    expect(deck.assets["tide.png"]).toMatchObject({ sha256: sha256(photo) });
    expect(adapted).toContainEqual({
      slide: 1,
      what: "the diagram “Tides”",
      how: "shown as its file draws it; a .pptx keeps it",
    });
  });

  it("is drawn in its frame, and stretched with it", () => {
    const at = (of: Deck) =>
      leavesOf(
        layoutSlide(must(of.slides[0]), { metadata: metadataOf(of), number: 1, fonts: bench.context.fonts }).nodes,
      ).flatMap((node) =>
        node.kind === "text" ? node.lines.map(({ runs }) => runs.map(({ text }) => text).join("")) : [],
      );
    expect(at(deck)).toEqual(expect.arrayContaining(["Ebb", "Flood"]));
    const scene = layoutSlide(must(deck.slides[0]), {
      metadata: metadataOf(deck),
      number: 1,
      fonts: bench.context.fonts,
    });
    const group = scene.nodes.find((node) => node.kind === "group" && node.element === diagram.id);
    expect(group).toMatchObject({ matrix: [1, 0, 0, 1, 100, 60] });
    const moved: Deck = {
      ...deck,
      slides: deck.slides.map((slide) => ({
        ...slide,
        elements: slide.elements.map((element) =>
          element.id === diagram.id ? { ...element, frame: { x: 0, y: 0, width: 800, height: 100 } } : element,
        ),
      })) as Deck["slides"],
    };
    expect(
      layoutSlide(must(moved.slides[0]), {
        metadata: metadataOf(moved),
        number: 1,
        fonts: bench.context.fonts,
      }).nodes.find((node) => node.kind === "group" && node.element === diagram.id),
    ).toMatchObject({ matrix: [2, 0, 0, 0.5, 0, 0] });
  });

  it("stays in a .pptx as it came, with its data and its drawing, also when its slide is changed", () => {
    const moved: Deck = {
      ...deck,
      slides: deck.slides.map((slide) => ({
        ...slide,
        elements: slide.elements.map((element) =>
          element.id === diagram.id ? { ...element, frame: { x: 40, y: 40, width: 400, height: 200 } } : element,
        ),
      })) as Deck["slides"],
    };
    for (const given of [deck, moved]) {
      const parts = unzipSync(WRITERS.pptx.write(given, bench.context) as Uint8Array);
      expect(strFromU8(must(parts["ppt/diagrams/data1.xml"]))).toBe(data());
      expect(strFromU8(must(parts["ppt/diagrams/drawing1.xml"]))).toBe(drawing);
      expect(parts["ppt/media/tide.png"]).toEqual(photo);
    }
    const again = diagramIn(bench.read(WRITERS.pptx.write(moved, bench.context) as Uint8Array, "again.pptx").deck);
    expect(again).toMatchObject({ id: diagram.id, frame: { x: 40, y: 40, width: 400, height: 200 } });
    expect(again.drawing?.elements.length).toBe(2);
  });

  it("becomes a group of its forms in an .odp, which is said before, with as many words", () => {
    const report = writeReport(deck, "odp");
    expect(report.adapted).toContainEqual({
      slide: 1,
      what: "diagram “Tides”",
      how: "shown by its picture or its drawing, or by its name and words",
    });
    const read = bench.read(WRITERS.odp.write(deck, bench.context) as Uint8Array, "tides.odp").deck;
    const shapes = read.slides[0]?.elements ?? [];
    expect(shapes.map((element) => (element.kind === "shape" ? textOf(element.text) : element.kind))).toEqual([
      "Ebb",
      "Flood",
    ]);
    expect(shapes.map(({ frame }) => frame && [Math.round(frame.x), Math.round(frame.y)])).toEqual([
      [110, 80],
      [300, 80],
    ]);
    expect(new Set(shapes.map(({ groups }) => groups?.[0])).size).toBe(1);
    expect(tally(read)).toEqual(report.to);
  });

  // The drawing gives a text a place of its own, turned against its form: quarters that cancel each other leave it upright.
  it.each([
    ["a quarter", "5400000", "-5400000", undefined],
    ["a half", "10800000", "10800000", undefined],
    ["not", "0", "0", undefined],
    ["otherwise than it", "0", "5400000", 90],
  ])("shows the text of a form that is turned %s where the drawing places it", (_, form, against, rotation) => {
    const turned = drawing
      .replace("<a:xfrm>", `<a:xfrm rot="${form}">`)
      .replace(
        "</dsp:txBody>",
        `</dsp:txBody><dsp:txXfrm rot="${against}"><a:off x="${15 * EMU}" y="${5 * EMU}"/><a:ext cx="${80 * EMU}" cy="${30 * EMU}"/></dsp:txXfrm>`,
      );
    const [ebb, words, flood, ...others] =
      diagramIn(bench.read(fileOf(turned), "tides.pptx").deck).drawing?.elements ?? [];
    expect(ebb).toMatchObject({
      kind: "shape",
      text: [],
      frame: { x: 10, y: 20, width: 100, height: 50 },
      geometry: { preset: "roundRect" },
    });
    expect(ebb?.rotation ?? 0).toBe(Number(form) / 60000);
    expect(words).toMatchObject({
      kind: "text",
      frame: { x: 15, y: 5, width: 80, height: 30 },
      box: { anchor: "middle" },
    });
    expect(words?.kind === "text" && textOf(words.text)).toBe("Ebb");
    expect(words?.rotation).toBe(rotation);
    expect(words?.id).not.toBe(ebb?.id);
    expect([flood?.kind, others]).toEqual(["shape", []]);
  });

  it.each([
    ["without a drawing", fileOf(undefined)],
    ["whose data name a drawing that is not there", fileOf(drawing, data("rIdGone"))],
    [
      "whose drawing is empty",
      fileOf('<dsp:drawing xmlns:dsp="urn:example:diagram-drawing"><dsp:spTree/></dsp:drawing>'),
    ],
  ])("%s is shown by its name, and its words are there", (_, file) => {
    const read = bench.read(file, "tides.pptx");
    expect(diagramIn(read.deck)).not.toHaveProperty("drawing");
    expect(diagramIn(read.deck).text).toHaveLength(2);
    expect(read.adapted).toContainEqual({
      slide: 1,
      what: "the diagram “Tides”",
      how: "its words are read, its drawing is not; a .pptx keeps it",
    });
  });
});
