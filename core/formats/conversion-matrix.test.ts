import { layoutSlide, leavesOf, type SceneNode } from "@unitext/core/layout";
import { type Deck, metadataOf, type Slide, must } from "@unitext/core/model";
import { filesBench, withoutTags, deckWith } from "@unitext/core/testing/files";
import { strToU8, unzipSync, zipSync } from "fflate";
import { WRITERS, writeReport } from "./index";

// What files of other programs say (ECMA-376-1; numbers from memory), read, and written in the other format with nothing kept: the page must be drawn as it was.
const bench = filesBench();
const shown: Deck = deckWith({
  kind: "text",
  id: "t",
  slot: null,
  text: [{ kind: "plain", level: 0, runs: [{ text: "tide" }] }],
  frame: { x: 100, y: 100, width: 400, height: 60 },
});
const parts = unzipSync(withoutTags(WRITERS.pptx.write(shown, bench.context) as Uint8Array));
const HEAD =
  '<p:sld xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"><p:cSld>';
const shape = (fill: string, list: string, text: string) =>
  `<p:sp><p:nvSpPr><p:cNvPr id="2" name="One"/><p:cNvSpPr txBox="1"/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="1270000" y="1270000"/><a:ext cx="5080000" cy="1524000"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom>${fill}</p:spPr><p:txBody><a:bodyPr/><a:lstStyle>${list}</a:lstStyle>${text}</p:txBody></p:sp>`;
const slideOf = (inside: string) =>
  bench.read(
    zipSync({
      ...parts,
      "ppt/slides/slide1.xml": strToU8(
        `${HEAD}<p:spTree><p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr/>${inside}</p:spTree></p:cSld></p:sld>`,
      ),
    }),
    "other.pptx",
  ).deck;
function through(deck: Deck, format: "pptx" | "odp"): Deck {
  const bare = {
    ...deck,
    assets: {},
    slides: deck.slides.map(({ sourcePart: _, ...slide }) => ({
      ...slide,
      elements: slide.elements.map(({ sourceShape: __, ...element }) => element),
    })) as Slide[],
  };
  return bench.read(withoutTags(WRITERS[format].write(bare, bench.context) as Uint8Array), `other.${format}`).deck;
}
const nodes = (deck: Deck): SceneNode[] =>
  leavesOf(
    layoutSlide(must(deck.slides[0]), { metadata: metadataOf(deck), number: 1, fonts: bench.context.fonts }).nodes,
  );
const round = (value: number) => Math.round(value * 2) / 2;
/** Words with their places, sizes and faces. */
const words = (deck: Deck) =>
  nodes(deck).flatMap((node) =>
    node.kind === "text"
      ? node.lines.flatMap((line) =>
          line.runs
            .filter(({ text }) => text.trim())
            .map(({ text, x, size, face }) => [text.trim(), round(x), round(line.y), round(size), face]),
        )
      : [],
  );
/** Areas with how they are painted. */
const paints = (deck: Deck): unknown[] =>
  nodes(deck).flatMap((node) =>
    node.kind === "paths"
      ? node.paths.flatMap(({ fill, paint }): unknown[] => (paint ? [paint.fill] : fill ? [fill] : []))
      : [],
  );

const word = (text: string, rPr = "") => `<a:p><a:r><a:rPr lang="en" ${rPr}/><a:t>${text}</a:t></a:r></a:p>`;
/** A table of one column, a cell for each text. */
const table = (...cells: string[]) =>
  `<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="3" name="Table"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><p:xfrm><a:off x="1270000" y="1270000"/><a:ext cx="5080000" cy="1524000"/></p:xfrm><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/table"><a:tbl><a:tblPr/><a:tblGrid><a:gridCol w="5080000"/></a:tblGrid>${cells.map((cell) => `<a:tr h="508000"><a:tc><a:txBody><a:bodyPr/><a:lstStyle/>${cell}</a:txBody><a:tcPr/></a:tc></a:tr>`).join("")}</a:tbl></a:graphicData></a:graphic></p:graphicFrame>`;
const item = (properties: string, text: string) =>
  `<a:p><a:pPr${properties}><a:buChar char="•"/></a:pPr><a:r><a:rPr lang="en"/><a:t>${text}</a:t></a:r></a:p>`;
const inFace = (face: string, text: string) =>
  `<a:p><a:r><a:rPr lang="en" sz="1700"><a:latin typeface="${face}"/></a:rPr><a:t>${text}</a:t></a:r></a:p>`;

describe("a slide of a .pptx in an .odp, and back", () => {
  it.each([
    // 21.1.2.3.7: a typeface that is one for code is still the one that the file names.
    [
      "code in the face of its file",
      shape("", "", inFace("Courier New", "CacheRoot /raid1") + inFace("Courier New", "CacheEnable disk")),
    ],
    // 21.1.2.2.7: with neither margin nor indent the words follow their sign at once.
    [
      "items without room for their signs",
      shape("", '<a:lvl1pPr marL="0"><a:buChar char="•"/></a:lvl1pPr>', word("Few gauges") + word("Many tides")),
    ],
    [
      "items with a margin and no indent",
      shape("", '<a:lvl1pPr marL="254000" indent="0"><a:buChar char="•"/></a:lvl1pPr>', word("Few gauges")),
    ],
    [
      "items that hang",
      shape(
        "",
        '<a:lvl1pPr marL="342900" indent="-342900"><a:buChar char="•"/></a:lvl1pPr>',
        word("Few gauges") + word("Many tides"),
      ),
    ],
    // 21.1.2.2.1: breaks of lines at the ends of a paragraph are lines.
    [
      "a break before the words",
      shape("", "", `<a:p><a:br/><a:r><a:rPr lang="en"/><a:t>Few gauges</a:t></a:r></a:p>${word("Many tides")}`),
    ],
    [
      "breaks after the words",
      shape("", "", `<a:p><a:r><a:rPr lang="en"/><a:t>Few gauges</a:t></a:r><a:br/><a:br/></a:p>${word("Many tides")}`),
    ],
    [
      "a line of a tab alone, in small letters",
      shape(
        "",
        "",
        `${word("Few gauges", 'sz="2800"')}<a:p><a:r><a:rPr lang="en" sz="1200"/><a:t>\t</a:t></a:r></a:p>${word("Many tides", 'sz="2800"')}`,
      ),
    ],
    ["a paragraph of a break alone", shape("", "", `${word("Few gauges")}<a:p><a:br/></a:p>${word("Many tides")}`)],
    // 20.1.9.22: a form has a rectangle for its text.
    [
      "words in an ellipse",
      shape(
        "",
        "",
        word("Methods and routines for watching gauges and refining what is taught, with what students say of it"),
      ).replace('prst="rect"', 'prst="ellipse"'),
    ],
    [
      "words in an arrow",
      shape(
        "",
        "",
        word("Methods and routines for watching gauges and refining what is taught, with what students say of it"),
      ).replace('prst="rect"', 'prst="downArrow"'),
    ],
    // 21.1.2.2.10 and 11: room before a paragraph as a share of its own words.
    [
      "room by the words of each",
      shape(
        "",
        '<a:lvl1pPr><a:spcBef><a:spcPct val="50000"/></a:spcBef><a:defRPr sz="3200"/></a:lvl1pPr><a:lvl2pPr><a:spcBef><a:spcPct val="50000"/></a:spcBef><a:defRPr sz="2800"/></a:lvl2pPr>',
        `${word("Tomcat", 'sz="2800"')}${word("Edit", 'sz="1400"')}${word("Tune").replace("<a:p>", '<a:p><a:pPr lvl="1"/>')}`,
      ),
    ],
    [
      "items in cells, with and without room for their signs",
      table(
        word("Few gauges"),
        item(' marL="0" indent="0"', "Many tides"),
        item(' marL="342900" indent="-342900"', "All dunes") + word("No storms"),
      ),
    ],
    [
      "numbers that hang",
      shape(
        "",
        '<a:lvl1pPr marL="457200" indent="-457200"><a:buAutoNum type="arabicParenR"/></a:lvl1pPr>',
        word("Few gauges") + word("Many tides"),
      ),
    ],
  ])("draws %s where they were", (_, inside) => {
    const deck = slideOf(inside);
    expect(words(deck).length).toBeGreaterThan(1);
    expect(words(through(deck, "odp"))).toEqual(words(deck));
    expect(words(through(through(deck, "odp"), "pptx"))).toEqual(words(deck));
  });

  const gradient = (...stops: [number, string, number?][]) =>
    `<a:gradFill><a:gsLst>${stops.map(([at, colour, alpha]) => `<a:gs pos="${at * 1000}"><a:srgbClr val="${colour}">${alpha === undefined ? "" : `<a:alpha val="${alpha * 1000}"/>`}</a:srgbClr></a:gs>`).join("")}</a:gsLst><a:lin ang="5400000" scaled="0"/></a:gradFill>`;
  it.each([
    ["from one colour to another", gradient([0, "0F5C63"], [100, "F4F1E8"]), true],
    ["from the middle to both sides", gradient([0, "0F5C63"], [50, "F4F1E8"], [100, "0F5C63"]), true],
    ["from nothing to a colour", gradient([0, "FFFFFF", 0], [100, "FFFFFF"]), true],
    [
      "from its middle into nothing on both sides",
      gradient([0, "0F5C63", 0], [50, "F4F1E8"], [100, "0F5C63", 0]),
      true,
    ],
    ["that begins after a third", gradient([32, "FFFFFF", 0], [100, "FFFFFF"]), true],
    ["that is over after two thirds", gradient([0, "0F5C63"], [64, "F4F1E8"]), false],
    ["over three colours", gradient([0, "0F5C63"], [50, "F4F1E8"], [100, "B7791F"]), false],
    ["from a third to both sides", gradient([0, "0F5C63"], [33, "F4F1E8"], [100, "0F5C63"]), false],
  ])("paints a gradient %s, and tells it where it cannot", (_, fill, whole) => {
    const deck = slideOf(shape(fill, "", word("tide")));
    const same = JSON.stringify(paints(through(deck, "odp"))) === JSON.stringify(paints(deck));
    expect(same).toBe(whole);
    expect(writeReport(deck, "odp").adapted.some(({ how }) => how.startsWith("runs from its first colour"))).toBe(
      !whole,
    );
  });

  it("gives series the colours in which they were drawn, where no file says some", () => {
    const chart: Deck = {
      ...shown,
      slides: [
        {
          ...must(shown.slides[0]),
          elements: [
            {
              kind: "chart",
              id: "c",
              slot: null,
              frame: { x: 100, y: 100, width: 400, height: 240 },
              type: "column",
              categories: ["Jan"],
              legend: "right",
              series: [1, 2, 3, 4, 5, 6].map((value) => ({ name: `S${value}`, values: [value] })),
            },
          ],
        },
      ],
    };
    expect(paints(through(chart, "odp"))).toEqual(paints(chart));
    expect(paints(through(chart, "pptx"))).toEqual(paints(chart));
  });
});
