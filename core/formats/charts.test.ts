import { type ChartElement, type Deck, type Element, emptyDeck, type Slide, must } from "@unitext/core/model";
import { filesBench } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { child, childrenOf, readXml } from "./shared/xml";
import { WRITERS } from "./index";

// Chart parts as ECMA-376-1, 21.2, and chart documents as OpenDocument 1.3, part 3, 11, describe them, written by hand.
const bench = filesBench();
const { context } = bench;
function read(bytes: Uint8Array, format: string): Deck {
  const found = bench.read(bytes, `other.${format}`);
  return found.deck;
}
const chartOf = (deck: Deck): Partial<ChartElement> => {
  const found = deck.slides[0]?.elements.find(({ kind }) => kind === "chart") as ChartElement | undefined;
  if (!found) return {};
  const { id: _, sourceShape: __, name: ___, slot: ____, style: _____, frame: ______, ...rest } = found;
  return rest;
};
const model = {
  kind: "chart",
  id: "c",
  slot: null,
  frame: { x: 72, y: 72, width: 400, height: 240 },
  type: "column",
  categories: ["Jan", "Feb"],
  series: [{ name: "North", values: [1, 2] }],
} as Element;
const deckWith = (element: Element): Deck => ({
  ...emptyDeck("d", "D"),
  slides: [{ id: "s", parent: null, arrangement: "blank", notes: [], hidden: false, elements: [element] }],
});
const strip = (parts: Record<string, Uint8Array>, format: "pptx" | "odp") => {
  for (const name of Object.keys(parts)) if (name.includes("/tags/")) delete parts[name];
  if (format === "odp")
    parts["meta.xml"] = strToU8(
      strFromU8(must(parts["meta.xml"])).replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, ""),
    );
  return parts;
};
function rewritten(deck: Deck, format: "pptx" | "odp"): Deck {
  const slides = deck.slides.map(({ sourcePart: _, ...slide }) => ({
    ...slide,
    elements: slide.elements.map(({ sourceShape: __, ...element }) => element),
  })) as Slide[];
  const assets = Object.fromEntries(Object.entries(deck.assets).filter(([name]) => !name.startsWith("kept/")));
  return read(
    zipSync(strip(unzipSync(WRITERS[format].write({ ...deck, assets, slides }, context) as Uint8Array), format)),
    format,
  );
}

const base = strip(unzipSync(WRITERS.pptx.write(deckWith(model), context) as Uint8Array), "pptx");
const chartPath = must(Object.keys(base).find((path) => /charts\/chart[^/]*\.xml$/.test(path)));
const strings = (name: string, values: readonly string[]) =>
  `<c:${name}><c:strRef><c:f>Sheet1!$A$2</c:f><c:strCache><c:ptCount val="${values.length}"/>${values.map((value, nth) => `<c:pt idx="${nth}"><c:v>${value}</c:v></c:pt>`).join("")}</c:strCache></c:strRef></c:${name}>`;
const numbers = (name: string, values: readonly (number | null)[], format = "General") =>
  `<c:${name}><c:numRef><c:f>Sheet1!$B$2</c:f><c:numCache><c:formatCode>${format}</c:formatCode><c:ptCount val="${values.length}"/>${values.map((value, nth) => (value === null ? "" : `<c:pt idx="${nth}"><c:v>${value}</c:v></c:pt>`)).join("")}</c:numCache></c:numRef></c:${name}>`;
const ser = (
  nth: number,
  name: string,
  values: readonly (number | null)[],
  more = "",
  categories: readonly string[] = ["Jan", "Feb", "Mar"],
) =>
  `<c:ser><c:idx val="${nth}"/><c:order val="${nth}"/>${strings("tx", [name]).replace(/c:strRef>/g, "c:strRef>")}${more}${strings("cat", categories)}${numbers("val", values)}</c:ser>`;
const axes = '<c:axId val="1"/><c:axId val="2"/>';
const catAx = (more = "") =>
  `<c:catAx><c:axId val="1"/><c:scaling><c:orientation val="minMax"/></c:scaling><c:delete val="0"/><c:axPos val="b"/>${more}<c:crossAx val="2"/></c:catAx>`;
const valAx = (scaling = "", more = "") =>
  `<c:valAx><c:axId val="2"/><c:scaling><c:orientation val="minMax"/>${scaling}</c:scaling><c:delete val="0"/><c:axPos val="l"/>${more}<c:crossAx val="1"/></c:valAx>`;
const rich = (text: string) =>
  `<c:title><c:tx><c:rich><a:bodyPr/><a:p><a:r><a:t>${text}</a:t></a:r></a:p></c:rich></c:tx><c:overlay val="0"/></c:title>`;
const space = (plot: string, { title = "", legend = "" } = {}) =>
  `<?xml version="1.0" encoding="UTF-8"?><c:chartSpace xmlns:c="http://schemas.openxmlformats.org/drawingml/2006/chart" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><c:chart>${title}<c:plotArea><c:layout/>${plot}</c:plotArea>${legend}<c:plotVisOnly val="1"/></c:chart></c:chartSpace>`;
const two = ser(0, "North", [1.5, null, 3]) + ser(1, "South", [2, 4, 6]);
const bar = (dir: "bar" | "col", grouping: string, series = two, more = "") =>
  `<c:barChart><c:barDir val="${dir}"/><c:grouping val="${grouping}"/>${series}${more}${axes}</c:barChart>${catAx()}${valAx()}`;
const SERIES = [
  { name: "North", values: [1.5, null, 3] },
  { name: "South", values: [2, 4, 6] },
];
const CATEGORIES = ["Jan", "Feb", "Mar"];

describe("charts of a .pptx", () => {
  it.each<[string, string, object]>([
    [
      "columns beside each other",
      space(bar("col", "clustered")),
      { type: "column", categories: CATEGORIES, series: SERIES },
    ],
    ["bars", space(bar("bar", "clustered")), { type: "bar", series: SERIES }],
    ["columns on each other", space(bar("col", "stacked")), { type: "column", stack: "sum" }],
    ["columns as shares", space(bar("col", "percentStacked")), { type: "column", stack: "share" }],
    [
      "lines",
      space(`<c:lineChart><c:grouping val="standard"/>${two}${axes}</c:lineChart>${catAx()}${valAx()}`),
      { type: "line", series: SERIES },
    ],
    [
      "areas on each other",
      space(`<c:areaChart><c:grouping val="stacked"/>${two}${axes}</c:areaChart>${catAx()}${valAx()}`),
      { type: "area", stack: "sum" },
    ],
    [
      "a pie",
      space(`<c:pieChart><c:varyColors val="1"/>${ser(0, "Share", [3, 1, 2])}</c:pieChart>`),
      { type: "pie", categories: CATEGORIES, series: [{ name: "Share", values: [3, 1, 2] }] },
    ],
    [
      "a doughnut",
      space(
        `<c:doughnutChart><c:varyColors val="1"/>${ser(0, "Share", [3, 1, 2])}<c:holeSize val="50"/></c:doughnutChart>`,
      ),
      { type: "doughnut" },
    ],
    [
      "points by two values",
      space(
        `<c:scatterChart><c:scatterStyle val="lineMarker"/><c:ser><c:idx val="0"/><c:order val="0"/>${strings("tx", ["Wind"])}${numbers("xVal", [1, 2, 3.5])}${numbers("yVal", [3, 5, 4])}</c:ser>${axes}</c:scatterChart>${valAx().replace('<c:axId val="2"/>', '<c:axId val="1"/>').replace('crossAx val="1"', 'crossAx val="2"')}${valAx()}`,
      ),
      { type: "scatter", series: [{ name: "Wind", values: [3, 5, 4], x: [1, 2, 3.5] }] },
    ],
    [
      "columns with a line",
      space(
        `<c:barChart><c:barDir val="col"/><c:grouping val="clustered"/>${ser(0, "North", [1.5, null, 3])}${axes}</c:barChart><c:lineChart><c:grouping val="standard"/>${ser(1, "South", [2, 4, 6])}${axes}</c:lineChart>${catAx()}${valAx()}`,
      ),
      {
        type: "combined",
        series: [
          { name: "North", type: "column" },
          { name: "South", type: "line" },
        ],
      },
    ],
    [
      "series in the order that they say, over all forms (21.2.2.128)",
      space(
        `<c:barChart><c:barDir val="col"/><c:grouping val="clustered"/>${ser(0, "North", [1, 2, 3])}${ser(2, "East", [7, 8, 9])}${axes}</c:barChart><c:lineChart><c:grouping val="standard"/>${ser(1, "South", [4, 5, 6])}${axes}</c:lineChart>${catAx()}${valAx()}`,
      ),
      {
        type: "combined",
        series: [
          { name: "North", type: "column" },
          { name: "South", type: "line" },
          { name: "East", type: "column" },
        ],
      },
    ],
    [
      "series as they stand where two say the same",
      space(bar("col", "clustered", ser(1, "South", [2, 4, 6]) + ser(1, "North", [1.5, null, 3]))),
      { series: [SERIES[1], SERIES[0]] },
    ],
    [
      "points in the colour of their signs",
      space(
        `<c:scatterChart><c:scatterStyle val="lineMarker"/><c:ser><c:idx val="0"/><c:order val="0"/>${strings("tx", ["Wind"])}<c:spPr><a:ln><a:noFill/></a:ln></c:spPr><c:marker><c:symbol val="circle"/><c:spPr><a:solidFill><a:srgbClr val="B7791F"/></a:solidFill></c:spPr></c:marker>${numbers("xVal", [1, 2, 3])}${numbers("yVal", [3, 5, 4])}</c:ser>${axes}</c:scatterChart>${valAx()}${valAx()}`,
      ),
      { type: "scatter", series: [{ name: "Wind", colour: "#b7791f" }] },
    ],
    [
      "a title, and the key at its side",
      space(bar("col", "clustered"), {
        title: rich("Levels &amp; winds"),
        legend: '<c:legend><c:legendPos val="r"/></c:legend>',
      }),
      { title: "Levels & winds", legend: "right" },
    ],
    ["no key", space(bar("col", "clustered")), { legend: "none" }],
    [
      "axes with titles and ends",
      space(
        `<c:barChart><c:barDir val="col"/><c:grouping val="clustered"/>${two}${axes}</c:barChart>${catAx(rich("Month"))}${valAx('<c:max val="8"/><c:min val="-2"/>', rich("Metres"))}`,
      ),
      { xAxis: { title: "Month" }, yAxis: { title: "Metres", min: -2, max: 8 } },
    ],
    [
      "axes of points with ends",
      space(
        `<c:scatterChart><c:scatterStyle val="lineMarker"/><c:ser><c:idx val="0"/><c:order val="0"/>${strings("tx", ["Wind"])}${numbers("xVal", [1, 2])}${numbers("yVal", [3, 5])}</c:ser>${axes}</c:scatterChart><c:valAx><c:axId val="1"/><c:scaling><c:max val="4"/><c:min val="0"/></c:scaling><c:delete val="0"/><c:axPos val="b"/><c:crossAx val="2"/></c:valAx>${valAx('<c:max val="9"/>')}`,
      ),
      { type: "scatter", xAxis: { min: 0, max: 4 }, yAxis: { max: 9 } },
    ],
    [
      "labels with values",
      space(
        bar(
          "col",
          "clustered",
          two,
          '<c:dLbls><c:showLegendKey val="0"/><c:showVal val="1"/><c:showCatName val="0"/><c:showSerName val="0"/><c:showPercent val="0"/><c:showBubbleSize val="0"/></c:dLbls>',
        ),
      ),
      { labels: "value" },
    ],
    [
      "a colour of its own",
      space(
        bar(
          "col",
          "clustered",
          ser(0, "North", [1, 2, 3], '<c:spPr><a:solidFill><a:srgbClr val="7A2E57"/></a:solidFill></c:spPr>'),
        ),
      ),
      { series: [{ colour: "#7a2e57" }] },
    ],
    [
      "columns from right to left",
      space(
        `<c:barChart><c:barDir val="col"/><c:grouping val="clustered"/>${two}${axes}</c:barChart>${catAx().replace("minMax", "maxMin")}${valAx()}`,
      ),
      { type: "column", xAxis: { reversed: true } },
    ],
    [
      "bars from the foot, as the standard draws them",
      space(bar("bar", "clustered")),
      { type: "bar", xAxis: { reversed: true } },
    ],
    [
      "single columns in colours of their own",
      space(
        bar(
          "col",
          "clustered",
          ser(
            0,
            "North",
            [1, 2, 3],
            '<c:dPt><c:idx val="1"/><c:invertIfNegative val="0"/><c:bubble3D val="0"/><c:spPr><a:solidFill><a:srgbClr val="B43232"/></a:solidFill></c:spPr></c:dPt>',
          ),
        ),
      ),
      { series: [{ points: [null, "#b43232", null] }] },
    ],
    [
      "slices in colours of their own",
      space(
        `<c:pieChart><c:varyColors val="1"/>${ser(0, "Share", [3, 1, 2], ["112233", "445566", "778899"].map((colour, nth) => `<c:dPt><c:idx val="${nth}"/><c:bubble3D val="0"/><c:spPr><a:solidFill><a:srgbClr val="${colour}"/></a:solidFill></c:spPr></c:dPt>`).join(""))}</c:pieChart>`,
      ),
      { type: "pie", series: [{ points: ["#112233", "#445566", "#778899"] }] },
    ],
    [
      "points of a line that are not joined (21.2.2.204)",
      space(
        `<c:lineChart><c:grouping val="standard"/>${ser(0, "North", [1, 2, 3], '<c:spPr><a:ln><a:noFill/></a:ln></c:spPr><c:marker><c:symbol val="circle"/><c:spPr><a:solidFill><a:srgbClr val="B7791F"/></a:solidFill></c:spPr></c:marker>')}${axes}</c:lineChart>${catAx()}${valAx()}`,
      ),
      { type: "line", series: [{ joined: false, colour: "#b7791f" }] },
    ],
    [
      "points by two values joined by a curve",
      space(
        `<c:scatterChart><c:scatterStyle val="smoothMarker"/><c:ser><c:idx val="0"/><c:order val="0"/>${strings("tx", ["Wind"])}<c:spPr><a:ln w="19050"><a:solidFill><a:srgbClr val="B7791F"/></a:solidFill></a:ln></c:spPr>${numbers("xVal", [1, 2, 3])}${numbers("yVal", [3, 5, 4])}<c:smooth val="1"/></c:ser>${axes}</c:scatterChart>${valAx()}${valAx()}`,
      ),
      { type: "scatter", series: [{ name: "Wind", joined: true, smooth: true, colour: "#b7791f" }] },
    ],
    [
      "a curved line",
      space(
        `<c:lineChart><c:grouping val="standard"/>${ser(0, "North", [1, 2, 3]).replace("</c:ser>", '<c:smooth val="1"/></c:ser>')}${axes}</c:lineChart>${catAx()}${valAx()}`,
      ),
      { type: "line", series: [{ smooth: true }] },
    ],
    [
      "columns with a line on a second axis",
      space(
        `<c:barChart><c:barDir val="col"/><c:grouping val="clustered"/>${ser(0, "North", [1.5, null, 3])}${axes}</c:barChart><c:lineChart><c:grouping val="standard"/>${ser(1, "South", [2000, 4000, 6000])}<c:axId val="3"/><c:axId val="4"/></c:lineChart>${catAx()}${valAx("", rich("Metres"))}<c:valAx><c:axId val="4"/><c:scaling><c:orientation val="minMax"/><c:max val="8000"/></c:scaling><c:delete val="0"/><c:axPos val="r"/>${rich("Visitors")}<c:numFmt formatCode="#,##0" sourceLinked="0"/><c:crossAx val="3"/><c:crosses val="max"/></c:valAx><c:catAx><c:axId val="3"/><c:scaling><c:orientation val="minMax"/></c:scaling><c:delete val="1"/><c:axPos val="b"/><c:crossAx val="4"/></c:catAx>`,
      ),
      {
        type: "combined",
        series: [
          { name: "North", type: "column" },
          { name: "South", type: "line", axis: "secondary" },
        ],
        yAxis: { title: "Metres" },
        secondaryAxis: { title: "Visitors", max: 8000, format: "#,##0" },
      },
    ],
    [
      "two lines, the one that is named first measured on the right",
      space(
        `<c:lineChart><c:grouping val="standard"/>${ser(0, "North", [1.5, null, 3])}<c:axId val="3"/><c:axId val="4"/></c:lineChart><c:lineChart><c:grouping val="standard"/>${ser(1, "South", [2, 4, 6])}${axes}</c:lineChart>${catAx()}${valAx()}<c:valAx><c:axId val="4"/><c:scaling><c:orientation val="minMax"/></c:scaling><c:delete val="0"/><c:axPos val="r"/><c:crossAx val="3"/><c:crosses val="max"/></c:valAx><c:catAx><c:axId val="3"/><c:scaling><c:orientation val="minMax"/></c:scaling><c:delete val="1"/><c:axPos val="b"/><c:crossAx val="4"/></c:catAx>`,
      ),
      { type: "line" },
    ],
    [
      "a format of numbers",
      space(
        `<c:barChart><c:barDir val="col"/><c:grouping val="clustered"/>${two}${axes}</c:barChart>${catAx()}${valAx("", '<c:numFmt formatCode="0.00" sourceLinked="0"/>')}`,
      ),
      { format: "0.00" },
    ],
  ])("%s", (_, xml, wanted) => {
    const deck = read(zipSync({ ...base, [chartPath]: strToU8(xml) }), "pptx");
    expect(chartOf(deck)).toMatchObject(wanted);
    expect(chartOf(rewritten(deck, "pptx"))).toMatchObject(wanted);
    // The same chart, in the other format and back.
    expect(chartOf(rewritten(deck, "odp"))).toMatchObject(wanted);
  });

  it("measured by two axes are written with an axis that each plot names, and whose partners name each other (21.2.2.9, 21.2.2.32)", () => {
    const parts = unzipSync(
      WRITERS.pptx.write(
        deckWith({
          ...model,
          type: "combined",
          categories: CATEGORIES,
          series: [
            { ...SERIES[0], type: "column" },
            { ...SERIES[1], type: "line", axis: "secondary" },
          ],
          secondaryAxis: { title: "Visitors", format: "0" },
        } as Element),
        context,
      ) as Uint8Array,
    );
    const area = child(child(readXml(strFromU8(must(parts[chartPath])), "chart"), "chart"), "plotArea");
    const axesOf = (plot: string) => childrenOf(child(area, plot), "axId").map(({ attributes }) => attributes.val);
    const all = [...childrenOf(area, "catAx"), ...childrenOf(area, "valAx")].map((axis) => [
      child(axis, "axId")?.attributes.val,
      child(axis, "crossAx")?.attributes.val,
    ]);
    expect(new Set([...axesOf("barChart"), ...axesOf("lineChart")]).size).toBe(4);
    expect(new Set(all.map(([id]) => id))).toEqual(new Set([...axesOf("barChart"), ...axesOf("lineChart")]));
    for (const [id, crossed] of all) expect(all).toContainEqual([crossed, id]);
    // CT_PlotArea: plots before axes.
    const names = (area?.children ?? []).map(({ local }) => local);
    expect(names.slice(1)).toEqual(["barChart", "lineChart", "catAx", "valAx", "valAx", "catAx"]);
  });

  it("say what of their part is not drawn, by name, and nothing where all is", () => {
    const more = (xml: string) => {
      const found = read(zipSync({ ...base, [chartPath]: strToU8(xml) }), "pptx").slides[0]?.elements.find(
        ({ kind }) => kind === "chart",
      );
      return found?.sourceShape?.unsupported ?? [];
    };
    expect(more(strFromU8(must(base[chartPath])))).toEqual([]);
    expect(more(space(bar("col", "clustered")))).toEqual([]);
    expect(
      more(
        space(
          bar(
            "col",
            "clustered",
            ser(0, "North", [1, 2, 3], '<c:trendline><c:trendlineType val="linear"/></c:trendline>'),
            '<c:gapWidth val="150"/>',
          ),
        ),
      ),
    ).toEqual(["the trend lines", "the gaps between its columns"]);
    expect(
      more(
        space(
          `<c:barChart><c:barDir val="col"/><c:grouping val="clustered"/>${two}${axes}</c:barChart>${catAx()}${valAx('<c:logBase val="10"/>', "<c:minorGridlines/>")}<c:dTable><c:showHorzBorder val="1"/></c:dTable>`,
        ),
      ),
    ).toEqual(["the logarithmic scale", "the fine grid", "the table under it"]);
    expect(
      more(space(bar("col", "clustered", ser(0, "North", [1, 2, 3], "<c:spPr><a:gradFill/></c:spPr><c:unheardOf/>")))),
    ).toEqual(["the fills of its series", "other settings"]);
  });

  it("without their workbook are read from what the part remembers", () => {
    const parts = { ...base, [chartPath]: strToU8(space(bar("col", "clustered"))) };
    for (const path of Object.keys(parts)) if (/embeddings|charts\/_rels/.test(path)) delete parts[path];
    expect(chartOf(read(zipSync(parts), "pptx"))).toMatchObject({ series: SERIES });
  });

  it("have their data in a workbook when they are written (18.3.1 and 21.2.2.63), where the chart says that they are", () => {
    const parts = unzipSync(
      WRITERS.pptx.write(
        deckWith({ ...model, categories: CATEGORIES, series: SERIES } as Element),
        context,
      ) as Uint8Array,
    );
    const book = unzipSync(must(parts[must(Object.keys(parts).find((path) => /embeddings\/.*\.xlsx$/.test(path)))]));
    const sheet = readXml(
      strFromU8(must(book[must(Object.keys(book).find((path) => /sheet1\.xml$/.test(path)))])),
      "sheet",
    );
    const cells = new Map(
      childrenOf(child(sheet, "sheetData"), "row").flatMap((row) =>
        childrenOf(row, "c").map(
          (cell) => [cell.attributes.r, child(cell, "v")?.text ?? child(child(cell, "is"), "t")?.text] as const,
        ),
      ),
    );
    const named = (range: string) => {
      const [, column, from, to] = /^([A-Z])(\d+)(?::[A-Z](\d+))?$/.exec(range) ?? [];
      return Array.from({ length: Number(to ?? from) - Number(from) + 1 }, (_, nth) =>
        cells.get(`${column}${Number(from) + nth}`),
      );
    };
    const chart = strFromU8(
      must(parts[must(Object.keys(parts).find((path) => /charts\/chart[^/]*\.xml$/.test(path)))]),
    );
    const said = (name: string) =>
      [...chart.matchAll(new RegExp(`<c:${name}>[\\s\\S]*?<c:f>([^<]*)</c:f>`, "g"))].map(([, range = ""]) =>
        named(range.replace(/^'?[^!]*'?!/, "").replace(/\$/g, "")),
      );
    expect(said("tx")).toEqual([["North"], ["South"]]);
    expect(said("cat")).toEqual([CATEGORIES, CATEGORIES]);
    expect(said("val")).toEqual([
      ["1.5", undefined, "3"],
      ["2", "4", "6"],
    ]);
  });
});

describe("charts of an .odp", () => {
  const parts = strip(unzipSync(WRITERS.odp.write(deckWith(model), context) as Uint8Array), "odp");
  const path = "Object 1/content.xml";
  const NAMES =
    'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:chart="urn:oasis:names:tc:opendocument:xmlns:chart:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0"';
  const value = (one: number | string | null) =>
    typeof one === "number"
      ? `<table:table-cell office:value-type="float" office:value="${one}"><text:p>${one}</text:p></table:table-cell>`
      : `<table:table-cell${one === null ? "" : ' office:value-type="string"'}><text:p>${one ?? ""}</text:p></table:table-cell>`;
  const row = (...cells: (number | string | null)[]) =>
    `<table:table-row>${cells.map(value).join("")}</table:table-row>`;
  const sheet = `<table:table table:name="local-table"><table:table-header-columns><table:table-column/></table:table-header-columns><table:table-columns><table:table-column table:number-columns-repeated="2"/></table:table-columns><table:table-header-rows>${row(null, "North", "South")}</table:table-header-rows><table:table-rows>${row("Jan", 1.5, 2)}${row("Feb", null, 4)}${row("Mar", 3, 6)}</table:table-rows></table:table>`;
  const series = (column: string, attributes = "") =>
    `<chart:series chart:values-cell-range-address="local-table.$${column}$2:.$${column}$4" chart:label-cell-address="local-table.$${column}$1"${attributes}><chart:data-point chart:repeated="3"/></chart:series>`;
  const document = (
    kind: string,
    plot: { style?: string; title?: string; legend?: string; series?: string; axes?: string },
  ) =>
    `<?xml version="1.0"?><office:document-content ${NAMES} office:version="1.3"><office:automatic-styles><style:style style:name="plot" style:family="chart"><style:chart-properties ${plot.style ?? ""}/></style:style><style:style style:name="plum" style:family="chart"><style:graphic-properties draw:fill="solid" draw:fill-color="#7a2e57"/></style:style><style:style style:name="bare" style:family="chart"><style:graphic-properties draw:stroke="none" draw:fill-color="#7a2e57"/></style:style><style:style style:name="lined" style:family="chart"><style:chart-properties chart:interpolation="cubic-spline"/><style:graphic-properties draw:stroke="solid" svg:stroke-color="#7a2e57"/></style:style></office:automatic-styles><office:body><office:chart><chart:chart chart:class="chart:${kind}" svg:width="400pt" svg:height="240pt">${plot.title ? `<chart:title><text:p>${plot.title}</text:p></chart:title>` : ""}${plot.legend ? `<chart:legend chart:legend-position="${plot.legend}"/>` : ""}<chart:plot-area chart:style-name="plot" table:cell-range-address="local-table.$A$1:.$C$4" chart:data-source-has-labels="both">${plot.axes ?? '<chart:axis chart:dimension="x" chart:name="primary-x"><chart:categories table:cell-range-address="local-table.$A$2:.$A$4"/></chart:axis><chart:axis chart:dimension="y" chart:name="primary-y"/>'}${plot.series ?? series("B") + series("C")}</chart:plot-area>${sheet}</chart:chart></office:chart></office:body></office:document-content>`;

  it.each<[string, string, object]>([
    ["columns", document("bar", {}), { type: "column", categories: CATEGORIES, series: SERIES }],
    ["bars", document("bar", { style: 'chart:vertical="true"' }), { type: "bar", series: SERIES }],
    ["columns on each other", document("bar", { style: 'chart:stacked="true"' }), { stack: "sum" }],
    ["columns as shares", document("bar", { style: 'chart:percentage="true"' }), { stack: "share" }],
    ["lines", document("line", {}), { type: "line", series: SERIES }],
    ["areas", document("area", {}), { type: "area" }],
    [
      "a pie",
      document("circle", { series: series("C") }),
      { type: "pie", series: [{ name: "South", values: [2, 4, 6] }] },
    ],
    ["a doughnut", document("ring", { series: series("C") }), { type: "doughnut" }],
    ["a title and a key", document("bar", { title: "Levels", legend: "end" }), { title: "Levels", legend: "right" }],
    [
      "columns with a line",
      document("bar", { series: series("B") + series("C", ' chart:class="chart:line"') }),
      { type: "combined", series: [{ type: "column" }, { type: "line" }] },
    ],
    [
      "single columns in colours of their own",
      document("bar", {
        series: series("B").replace(
          '<chart:data-point chart:repeated="3"/>',
          '<chart:data-point chart:repeated="2"/><chart:data-point chart:style-name="plum"/>',
        ),
      }),
      { series: [{ points: expect.arrayContaining(["#7a2e57"]) }] },
    ],
    [
      "curved lines",
      document("line", { style: 'chart:interpolation="cubic-spline"' }),
      { type: "line", series: [{ smooth: true }, { smooth: true }] },
    ],
    [
      "points of a line that are not joined",
      document("line", { series: series("B", ' chart:style-name="bare"') + series("C") }),
      { type: "line", series: [{ joined: false, colour: "#7a2e57" }, { name: "South" }] },
    ],
    [
      "points by two values, not joined",
      document("scatter", { series: series("B", ' chart:style-name="bare"') }),
      { type: "scatter", series: [{ colour: "#7a2e57" }] },
    ],
    [
      "points by two values joined by a curve",
      document("scatter", { series: series("B", ' chart:style-name="lined"') }),
      { type: "scatter", series: [{ joined: true, smooth: true, colour: "#7a2e57" }] },
    ],
    [
      "points by two values joined as the plot says",
      document("scatter", { style: 'chart:lines="true"' }),
      { type: "scatter", series: [{ joined: true }, { joined: true }] },
    ],
    [
      "a second axis",
      document("line", {
        series: series("B") + series("C", ' chart:attached-axis="secondary-y"'),
        axes: '<chart:axis chart:dimension="x" chart:name="primary-x"><chart:categories table:cell-range-address="local-table.$A$2:.$A$4"/></chart:axis><chart:axis chart:dimension="y" chart:name="primary-y"/><chart:axis chart:dimension="y" chart:name="secondary-y"><chart:title><text:p>Visitors</text:p></chart:title></chart:axis>',
      }),
      { series: [{ name: "North" }, { name: "South", axis: "secondary" }], secondaryAxis: { title: "Visitors" } },
    ],
    [
      "a colour of its own",
      document("bar", { series: series("B", ' chart:style-name="plum"') }),
      { series: [{ colour: "#7a2e57" }] },
    ],
  ])("%s", (_, xml, wanted) => {
    const deck = read(zipSync({ ...parts, [path]: strToU8(xml) }), "odp");
    expect(chartOf(deck)).toMatchObject(wanted);
    expect(chartOf(rewritten(deck, "odp"))).toMatchObject(wanted);
    expect(chartOf(rewritten(deck, "pptx"))).toMatchObject(wanted);
  });
});
