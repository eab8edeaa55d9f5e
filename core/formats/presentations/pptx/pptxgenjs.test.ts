import { createRequire } from "node:module";
import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { type Deck, type Element, metadataOf, textOf, must } from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { propertiesOf } from "@unitext/core/testing/formatting";
import { PNG } from "pngjs";
import { type ReadResult, WRITERS } from "../../index";

// Each row is something that the npm package pptxgenjs (4.0.1) can be told, and what its documentation says that it means: inches and points as given there, shares in percent. A slide a row.
// biome-ignore lint/suspicious/noExplicitAny: the types of the package are those of a browser script.
type Any = any;
const Generator = createRequire(import.meta.url)("pptxgenjs") as new () => Any;
const photo = new PNG({ width: 40, height: 20 });
photo.data.fill(120);
const PHOTO = `data:image/png;base64,${PNG.sync.write(photo).toString("base64")}`;
const FILM = `data:video/mp4;base64,${Buffer.from("not really a film").toString("base64")}`;
const SOUND = `data:audio/mp3;base64,${Buffer.from("not really a sound").toString("base64")}`;
const BOX = { x: 1, y: 1, w: 4, h: 2 };
const bench = filesBench();

type Row = [name: string, draw: (slide: Any) => void, wanted: object];
const text =
  (options: object, words: Any = "word") =>
  (slide: Any) =>
    slide.addText(words, { ...BOX, ...options });
const run = (options: object) => text({}, [{ text: "word", options }]);
const look = (wanted: object) => ({ text: [{ runs: [{ text: "word", properties: wanted }] }] });
const paragraph = (wanted: object) => ({ text: [{ properties: wanted }] });
const shape = (name: string, options: object) => (slide: Any) => slide.addShape(name, { ...BOX, ...options });
const image = (options: object) => (slide: Any) => slide.addImage({ data: PHOTO, ...BOX, ...options });
const table =
  (rows: Any, options: object = {}) =>
  (slide: Any) =>
    slide.addTable(rows, { ...BOX, ...options });
const DATA = [
  { name: "North", labels: ["Jan", "Feb", "Mar"], values: [1, 3, 2] },
  { name: "South", labels: ["Jan", "Feb", "Mar"], values: [2, 2, 4] },
];
const chart =
  (kind: string, options: object = {}, data: Any = DATA) =>
  (slide: Any) =>
    slide.addChart(kind, data, { ...BOX, ...options });

const CHARACTERS: Row[] = [
  ["a size", run({ fontSize: 27 }), look({ size: 27 })],
  ["a colour", run({ color: "7A2E57" }), look({ colour: "#7a2e57" })],
  ["a font", run({ fontFace: "Georgia" }), look({ font: "Georgia" })],
  ["bold and slanted", run({ bold: true, italic: true }), { text: [{ runs: [{ marks: ["strong", "emphasis"] }] }] }],
  ["struck", run({ strike: true }), { text: [{ runs: [{ marks: ["strike"] }] }] }],
  ["struck twice, as once", run({ strike: "dblStrike" }), { text: [{ runs: [{ marks: ["strike"] }] }] }],
  ["a line below", run({ underline: { style: "sng" } }), look({ underline: "single" })],
  ["two lines below", run({ underline: { style: "dbl" } }), look({ underline: "double" })],
  ["a heavy line below", run({ underline: { style: "heavy" } }), look({ underline: "heavy" })],
  ["dots below", run({ underline: { style: "dotted" } }), look({ underline: "dotted" })],
  ["dashes below", run({ underline: { style: "dash" } }), look({ underline: "dashed" })],
  ["a wave below", run({ underline: { style: "wavy" } }), look({ underline: "wavy" })],
  ["a colour behind", run({ highlight: "FFFF00" }), look({ highlight: "#ffff00" })],
  ["room between letters", run({ charSpacing: 3 }), look({ spacing: 3 })],
  ["above the line", run({ superscript: true }), look({ rise: 0.3 })],
  ["below the line", run({ subscript: true }), look({ rise: -0.4 })],
  ["raised by percent", run({ baseline: 50 }), look({ rise: expect.any(Number) })],
  ["another language", run({ lang: "es-ES" }), look({ language: "es-ES" })],
  [
    "a link to a page",
    run({ hyperlink: { url: "https://example.org/tides" } }),
    { text: [{ runs: [{ text: "word", link: "https://example.org/tides" }] }] },
  ],
  [
    "lines broken in a paragraph",
    text({}, [{ text: "one" }, { text: "two", options: { softBreakBefore: true } }]),
    { text: [{ runs: [{ text: "one" }, { text: "\n" }, { text: "two" }] }] },
  ],
  [
    "paragraphs",
    text({}, [{ text: "one", options: { breakLine: true } }, { text: "two" }]),
    { text: [{ runs: [{ text: "one" }] }, { runs: [{ text: "two" }] }] },
  ],
];

const PARAGRAPHS: Row[] = [
  ["in the middle", text({ align: "center" }), { text: [{ align: "centre" }] }],
  ["at the end", text({ align: "right" }), { text: [{ align: "end" }] }],
  ["from right to left", text({ rtlMode: true, align: "right" }), paragraph({ direction: "rtl" })],
  ["lines so many points apart", text({ lineSpacing: 30 }), paragraph({ line: { points: 30 } })],
  ["lines by a multiple", text({ lineSpacingMultiple: 1.5 }), paragraph({ line: { times: 1.5 } })],
  [
    "room before and after",
    text({ paraSpaceBefore: 12, paraSpaceAfter: 6 }),
    paragraph({ before: { points: 12 }, after: { points: 6 } }),
  ],
  [
    "tab stops in inches",
    text({}, [{ text: "a\tb", options: { tabStops: [{ position: 1 }, { position: 3, alignment: "r" }] } }]),
    paragraph({ tabs: [72, { at: 216, align: "end" }] }),
  ],
  ["points", text({ bullet: true }), { text: [{ kind: "bullet", level: 0, properties: { left: 27, first: -27 } }] }],
  [
    "points with a sign of their own, far in",
    text({ bullet: { characterCode: "25BA", indent: 40 } }),
    { text: [{ kind: "bullet", properties: { left: 40, first: -40, bullet: { character: "►" } } }] },
  ],
  [
    "deeper points",
    text({}, [
      { text: "one", options: { bullet: true, breakLine: true } },
      { text: "two", options: { bullet: true, indentLevel: 2 } },
    ]),
    {
      text: [
        { kind: "bullet", level: 0 },
        { kind: "bullet", level: 2 },
      ],
    },
  ],
  [
    "numbers",
    text({ bullet: { type: "number" } }),
    { text: [{ kind: "number", properties: { bullet: { scheme: "1." } } }] },
  ],
  [
    "numbers from another one",
    text({ bullet: { type: "number", numberStartAt: 7 } }),
    { text: [{ kind: "number", start: 7 }] },
  ],
  [
    "letters in brackets",
    text({ bullet: { type: "number", style: "alphaLcParenBoth" } }),
    { text: [{ properties: { bullet: { scheme: "(a)" } } }] },
  ],
  [
    "capital letters before a bracket",
    text({ bullet: { type: "number", style: "alphaUcParenR" } }),
    { text: [{ properties: { bullet: { scheme: "A)" } } }] },
  ],
  [
    "Roman numbers",
    text({ bullet: { type: "number", style: "romanUcPeriod" } }),
    { text: [{ properties: { bullet: { scheme: "I." } } }] },
  ],
  [
    "small Roman numbers in brackets",
    text({ bullet: { type: "number", style: "romanLcParenBoth" } }),
    { text: [{ properties: { bullet: { scheme: "(i)" } } }] },
  ],
  [
    "numbers alone",
    text({ bullet: { type: "number", style: "arabicPlain" } }),
    { text: [{ properties: { bullet: { scheme: "1" } } }] },
  ],
];

const BOXES: Row[] = [
  [
    "a place and a size in inches",
    text({ x: 0.5, y: 1.25, w: 3, h: 0.75 }),
    { frame: { x: 36, y: 90, width: 216, height: 54 } },
  ],
  [
    "a place in percent",
    text({ x: "10%", y: "50%", w: "25%", h: "10%" }),
    { frame: { x: 96, y: 270, width: 240, height: 54 } },
  ],
  ["turned", text({ rotate: 45 }), { rotation: 45 }],
  ["words at the top", text({ valign: "top" }), { box: expect.not.objectContaining({ anchor: "middle" }) }],
  ["words at the bottom", text({ valign: "bottom" }), { box: { anchor: "bottom" } }],
  ["margins of equal width", text({ margin: 18 }), { box: { insets: [18, 18, 18, 18] } }],
  ["text that gets smaller", text({ fit: "shrink" }), { box: { fit: "shrink" } }],
  ["a box that grows", text({ fit: "resize" }), { box: { fit: "grow" } }],
  ["text that does not wrap", text({ wrap: false }), { box: { wrap: false } }],
  ["lines that run down", text({ vert: "vert" }), { box: { turn: 90 } }],
  ["lines that run up", text({ vert: "vert270" }), { box: { turn: 270 } }],
  [
    "a fill with a share of it through",
    text({ fill: { color: "0F5C63", transparency: 40 } }),
    { fill: { kind: "solid", colour: "#0f5c63", opacity: expect.closeTo(0.6, 2) } },
  ],
  [
    "a line around it",
    text({ line: { color: "B23A30", width: 2.5, dashType: "lgDash" } }),
    { stroke: { colour: "#b23a30", width: 2.5, dash: "longdash" } },
  ],
  [
    "words in a form",
    text({ shape: "ellipse", fill: { color: "EEEEEE" } }),
    {
      kind: "shape",
      geometry: { preset: "ellipse" },
      fill: { colour: "#eeeeee" },
      text: [{ runs: [{ text: "word" }] }],
    },
  ],
];

const SHAPES: Row[] = [
  [
    "a form by its name",
    shape("star5", { fill: { color: "B9771F" } }),
    { kind: "shape", geometry: { preset: "star5" } },
  ],
  [
    "round corners: a share of the shorter side",
    shape("roundRect", { rectRadius: 0.5, fill: { color: "B9771F" } }),
    { geometry: { preset: "roundRect", adjust: { adj: expect.closeTo(25000, -1) } } },
  ],
  [
    "mirrored",
    shape("rtTriangle", { flipH: true, fill: { color: "B9771F" } }),
    { geometry: { preset: "rtTriangle" }, flip: "x" },
  ],
  ["upside down", shape("rtTriangle", { flipV: true, fill: { color: "B9771F" } }), { flip: "y" }],
  [
    "dots around it",
    shape("rect", { line: { color: "20302E", width: 1, dashType: "sysDot" } }),
    { stroke: { dash: "dot" } },
  ],
  [
    "dashes and dots around it",
    shape("rect", { line: { color: "20302E", width: 1, dashType: "lgDashDot" } }),
    { stroke: { dash: "longdashdot" } },
  ],
  [
    "a line with two ends",
    shape("line", { line: { color: "20302E", width: 2, beginArrowType: "oval", endArrowType: "stealth" } }),
    { geometry: { preset: "line" }, stroke: { head: { form: "oval" }, tail: { form: "barbed" } } },
  ],
  [
    "an open arrow and a diamond",
    shape("line", { line: { color: "20302E", width: 2, beginArrowType: "diamond", endArrowType: "arrow" } }),
    { stroke: { head: { form: "diamond" }, tail: { form: "open" } } },
  ],
  [
    "a shadow",
    shape("rect", {
      fill: { color: "FFFFFF" },
      shadow: { type: "outer", color: "336699", opacity: 0.5, blur: 6, offset: 4, angle: 90 },
    }),
    { shadow: { colour: "#336699", opacity: 0.5, blur: 6, distance: 4, direction: 90 } },
  ],
  [
    "a form of its own",
    shape("custGeom", {
      fill: { color: "5E7B35" },
      points: [
        { x: 0, y: 0, moveTo: true },
        { x: 4, y: 0 },
        { x: 2, y: 2, curve: { type: "quadratic", x1: 4, y1: 2 } },
        { close: true },
      ],
    }),
    {
      kind: "shape",
      geometry: { width: expect.any(Number), paths: [{ d: expect.stringMatching(/^M ?0 0 ?L ?\S+ 0 ?Q/) }] },
      fill: { colour: "#5e7b35" },
    },
  ],
  [
    "a link of the whole",
    (slide) => slide.addText("", { ...BOX, shape: "rect", hyperlink: { url: "https://example.org/all" } }),
    { kind: "shape", frame: { x: 72 } },
  ],
];

const PICTURES: Row[] = [
  [
    "a picture with its description",
    image({ altText: "Two gauges" }),
    { kind: "picture", alt: "Two gauges", frame: { x: 72, y: 72, width: 288, height: 144 } },
  ],
  ["turned and mirrored", image({ rotate: 20, flipH: true }), { rotation: 20, flip: "x" }],
  ["round", image({ rounding: true }), { shape: { preset: "ellipse" } }],
  ["seen through", image({ transparency: 30 }), { opacity: 0.7 }],
  ["led to a page", image({ hyperlink: { url: "https://example.org/photo" } }), { link: "https://example.org/photo" }],
  [
    "cut: of 4 by 2 inches the middle",
    image({ sizing: { type: "crop", x: 1, y: 0.5, w: 2, h: 1 } }),
    {
      crop: {
        left: expect.closeTo(0.25, 2),
        top: expect.closeTo(0.25, 2),
        right: expect.closeTo(0.25, 2),
        bottom: expect.closeTo(0.25, 2),
      },
      frame: { width: 144, height: 72 },
    },
  ],
  [
    "that covers a square: half of it is cut off",
    image({ sizing: { type: "cover", w: 2, h: 2 } }),
    { frame: { width: 144, height: 144 }, crop: { left: expect.closeTo(0.25, 2), right: expect.closeTo(0.25, 2) } },
  ],
  [
    "a film",
    (slide) => slide.addMedia({ type: "video", data: FILM, ...BOX }),
    { kind: "media", type: "video", frame: { x: 72, width: 288 } },
  ],
  ["a sound", (slide) => slide.addMedia({ type: "audio", data: SOUND, ...BOX }), { kind: "media", type: "audio" }],
];

const TABLES: Row[] = [
  [
    "cells in their rows",
    table([
      ["a", "b"],
      ["c", "d"],
    ]),
    {
      kind: "table",
      rows: [
        [{ text: [{ runs: [{ text: "a" }] }] }, {}],
        [{}, { text: [{ runs: [{ text: "d" }] }] }],
      ],
    },
  ],
  [
    "widths and heights in inches",
    table(
      [
        ["a", "b"],
        ["c", "d"],
      ],
      { w: undefined, colW: [1, 3], rowH: [0.5, 1] },
    ),
    { widths: [72, 216], heights: [36, 72] },
  ],
  [
    "cells over two columns and two rows",
    table([
      [
        { text: "a", options: { colspan: 2 } },
        { text: "b", options: { rowspan: 2 } },
      ],
      ["c", "d"],
    ]),
    {
      rows: [
        [{ columns: 2 }, null, { rows: 2 }],
        [{}, {}, null],
      ],
    },
  ],
  [
    "a fill and an anchor",
    table([[{ text: "a", options: { fill: { color: "0F5C63" }, valign: "bottom" } }]]),
    { rows: [[{ fill: { colour: "#0f5c63" }, anchor: "bottom" }]] },
  ],
  [
    "margins",
    table([[{ text: "a", options: { margin: [0.1, 0.2, 0.3, 0.4] } }]]),
    { rows: [[{ insets: [expect.any(Number), expect.any(Number), expect.any(Number), expect.any(Number)] }]] },
  ],
  [
    "other lines on each side",
    table([
      [
        {
          text: "a",
          options: {
            border: [
              { type: "solid", pt: 1, color: "111111" },
              { type: "dash", pt: 2, color: "222222" },
              { type: "none" },
              { type: "solid", pt: 4, color: "444444" },
            ],
          },
        },
      ],
    ]),
    {
      rows: [
        [
          {
            borders: {
              top: { width: 1, colour: "#111111" },
              right: { width: 2, colour: "#222222", dash: "dash" },
              left: { width: 4 },
            },
          },
        ],
      ],
    },
  ],
  [
    "words that look otherwise",
    table([[{ text: [{ text: "a", options: { bold: true, color: "B23A30" } }, { text: "b" }] }]]),
    {
      rows: [
        [{ text: [{ runs: [{ text: "a", marks: ["strong"], properties: { colour: "#b23a30" } }, { text: "b" }] }] }],
      ],
    },
  ],
  ["a side", table([[{ text: "a", options: { align: "right" } }]]), { rows: [[{ text: [{ align: "end" }] }]] }],
];

const SERIES = [
  { name: "North", values: [1, 3, 2] },
  { name: "South", values: [2, 2, 4] },
];
const CHARTS: Row[] = [
  [
    "columns beside each other",
    chart("bar"),
    { kind: "chart", type: "column", categories: ["Jan", "Feb", "Mar"], series: SERIES },
  ],
  ["bars", chart("bar", { barDir: "bar" }), { type: "bar" }],
  ["columns on each other", chart("bar", { barGrouping: "stacked" }), { type: "column", stack: "sum" }],
  ["columns as shares", chart("bar", { barGrouping: "percentStacked" }), { type: "column", stack: "share" }],
  ["lines", chart("line"), { type: "line", series: SERIES }],
  ["smooth lines", chart("line", { lineSmooth: true }), { type: "line", series: [{ smooth: true }, { smooth: true }] }],
  ["areas", chart("area"), { type: "area", series: SERIES }],
  ["a pie", chart("pie", {}, [DATA[0]]), { type: "pie", series: [{ values: [1, 3, 2] }] }],
  ["a ring", chart("doughnut", {}, [DATA[0]]), { type: "doughnut", series: [{ values: [1, 3, 2] }] }],
  [
    "points by two values",
    chart("scatter", {}, [
      { name: "X", values: [1, 2, 3.5] },
      { name: "Y", values: [3, 5, 4] },
    ]),
    { type: "scatter", series: [{ name: "Y", values: [3, 5, 4], x: [1, 2, 3.5] }] },
  ],
  ["a star of three, as lines", chart("radar"), { type: "line", series: SERIES }],
  ["a title", chart("bar", { showTitle: true, title: "Levels" }), { title: "Levels" }],
  ["a key to the right", chart("bar", { showLegend: true, legendPos: "r" }), { legend: "right" }],
  ["a key above", chart("bar", { showLegend: true, legendPos: "t" }), { legend: "top" }],
  ["no key", chart("bar", { showLegend: false }), { legend: "none" }],
  [
    "values at their columns, in their format",
    chart("bar", { showValue: true, dataLabelFormatCode: "0.00" }),
    { labels: "value", format: "0.00" },
  ],
  [
    "shares at the parts of a pie",
    chart("pie", { showPercent: true, showValue: false }, [DATA[0]]),
    { labels: "share" },
  ],
  [
    "axes with titles and bounds",
    chart("bar", {
      showValAxisTitle: true,
      valAxisTitle: "metres",
      showCatAxisTitle: true,
      catAxisTitle: "month",
      valAxisMinVal: 0,
      valAxisMaxVal: 8,
    }),
    { xAxis: { title: "month" }, yAxis: { title: "metres", min: 0, max: 8 } },
  ],
  ["categories the other way", chart("bar", { catAxisOrientation: "maxMin" }), { xAxis: { reversed: true } }],
  [
    "colours of the series",
    chart("bar", { chartColors: ["0F5C63", "7A2E57"] }),
    { series: [{ colour: "#0f5c63" }, { colour: "#7a2e57" }] },
  ],
];

const ALL: readonly (readonly [string, readonly Row[]])[] = [
  ["characters", CHARACTERS],
  ["paragraphs", PARAGRAPHS],
  ["boxes", BOXES],
  ["shapes", SHAPES],
  ["pictures, films and sounds", PICTURES],
  ["tables", TABLES],
  ["charts", CHARTS],
];
const rows = ALL.flatMap(([, list]) => list);

let found: ReadResult;
let again: ReadResult;
/** A deck of one of its slides, to look at what stands on it. */
const only = (deck: Deck, name: string): Deck => ({
  ...deck,
  slides: [must(deck.slides[rows.findIndex(([one]) => one === name)])],
});
beforeAll(async () => {
  const made = new Generator();
  made.layout = "LAYOUT_WIDE";
  for (const [, draw] of rows) draw(made.addSlide());
  found = bench.read(new Uint8Array(await made.write({ outputType: "uint8array" })), "generated.pptx");
  // Rewritten, with nothing of its file, as another program reads it.
  const bare = (element: Element): Element => {
    const { sourceShape: _, ...rest } = element;
    return rest as Element;
  };
  const { deck } = found;
  const alone: Deck = {
    ...deck,
    assets: Object.fromEntries(Object.entries(deck.assets).filter(([name]) => !name.startsWith("kept/"))),
    slides: deck.slides.map(({ sourcePart: _, ...slide }) => ({ ...slide, elements: slide.elements.map(bare) })),
  };
  again = bench.read(withoutTags(WRITERS.pptx.write(alone, bench.context) as Uint8Array), "again.pptx");
});

describe.each(ALL)("%s of a deck that pptxgenjs wrote", (_, list) => {
  it.each(list)("%s", (name, _draw, wanted) => {
    expect(propertiesOf(only(found.deck, name))).toMatchObject(wanted);
    expect(propertiesOf(only(again.deck, name))).toMatchObject(wanted);
  });
});

describe("a whole deck that pptxgenjs wrote", () => {
  const written = async (draw: (made: Any) => void): Promise<ReadResult> => {
    const made = new Generator();
    draw(made);
    return bench.read(new Uint8Array(await made.write({ outputType: "uint8array" })), "whole.pptx");
  };

  it("has the page that it was given in inches, its title, author and subject", async () => {
    const { deck } = await written((made) => {
      made.defineLayout({ name: "STRIP", width: 20, height: 5 });
      made.layout = "STRIP";
      Object.assign(made, { title: "Tides of autumn", author: "Field station", subject: "Open day" });
      made.addSlide().addText("word", BOX);
    });
    expect(deck.page).toEqual({ width: 1440, height: 360 });
    expect(deck.properties).toMatchObject({ title: "Tides of autumn", author: "Field station" });
  });

  it("has its sections where they begin", async () => {
    const { deck } = await written((made) => {
      for (const title of ["Ebb", "Flood"]) {
        made.addSection({ title });
        for (const nth of [1, 2]) made.addSlide({ sectionTitle: title }).addText(`${title} ${nth}`, BOX);
      }
    });
    expect(deck.slides.map(({ section }) => section)).toEqual(["Ebb", undefined, "Flood", undefined]);
  });

  it("has the colours and pictures behind its slides, its notes and what is hidden", async () => {
    const { deck } = await written((made) => {
      const coloured = made.addSlide();
      coloured.background = { color: "0B1F4B" };
      coloured.addNotes("Say it slowly.\nThen wait.");
      const pictured = made.addSlide();
      pictured.background = { data: PHOTO };
      pictured.hidden = true;
      made.addSlide().addText("word", BOX);
    });
    const [coloured, pictured, plain] = deck.slides as [
      Deck["slides"][number],
      Deck["slides"][number],
      Deck["slides"][number],
    ];
    expect(coloured.background).toEqual({ colour: "#0b1f4b" });
    expect(textOf(coloured.notes)).toBe("Say it slowly.\nThen wait.");
    expect(pictured).toMatchObject({ hidden: true });
    expect(JSON.stringify(pictured.background)).toContain("picture");
    expect(plain.background).toBeUndefined();
  });

  it("has the number of its slides in its place, in its colour", async () => {
    const { deck } = await written((made) => {
      made.layout = "LAYOUT_WIDE";
      for (let nth = 0; nth < 3; nth++) {
        const slide = made.addSlide();
        slide.slideNumber = { x: 12, y: 7, w: 1, h: 0.3, color: "B23A30", fontSize: 11 };
        slide.addText("word", BOX);
      }
    });
    const { nodes } = layoutSlide(must(deck.slides[2]), {
      metadata: metadataOf(deck),
      number: 3,
      fonts: bench.context.fonts,
    });
    const number = leavesOf(nodes)
      .flatMap((node) =>
        node.kind === "text" ? node.lines.flatMap(({ runs, y }) => runs.map((one) => ({ ...one, y }))) : [],
      )
      .find((one) => one.text === "3");
    expect(number).toMatchObject({ fill: "#b23a30", size: 11 });
    expect(number?.x).toBeGreaterThan(860);
    expect(number?.x).toBeLessThan(936);
    expect(number?.y).toBeGreaterThan(504);
    expect(number?.y).toBeLessThan(526);
  });

  it("may have five thousand things on a slide, which are all there, drawn, and back in the file", async () => {
    const { deck } = await written((made) => {
      const slide = made.addSlide();
      for (let nth = 0; nth < 5000; nth++)
        slide.addText(String(nth), {
          shape: nth % 2 ? "rect" : "ellipse",
          x: (nth % 100) / 10,
          y: Math.floor(nth / 100) / 10,
          w: 0.09,
          h: 0.09,
          fontSize: 4,
          fill: { color: "5E7B35" },
        });
    });
    const [slide] = deck.slides as [Deck["slides"][number]];
    expect(slide.elements).toHaveLength(5000);
    const { boxes } = layoutSlide(slide, { metadata: metadataOf(deck), number: 1, fonts: bench.context.fonts });
    expect(boxes).toHaveLength(5000);
    const moved = slide.elements.map((element, nth) =>
      nth === 4321 && element.frame ? { ...element, frame: { ...element.frame, x: 0 } } : element,
    );
    const back = bench.read(
      WRITERS.pptx.write({ ...deck, slides: [{ ...slide, elements: moved }] }, bench.context) as Uint8Array,
      "back.pptx",
    ).deck;
    expect(back.slides[0]?.elements.map(({ id, frame }) => [id, Math.round(frame?.x ?? -1)])).toEqual(
      moved.map(({ id, frame }) => [id, Math.round(frame?.x ?? -1)]),
    );
  }, 60_000);
});
