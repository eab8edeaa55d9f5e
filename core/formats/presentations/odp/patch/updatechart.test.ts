import { type ChartElement, type Deck, type Element, emptyDeck, type Slide, must } from "@unitext/core/model";
import { unresolved } from "@unitext/core/testing";
import { filesBench } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { WRITERS, writeReport } from "../../../index";
import { updateChart } from "./updatechart";

const { context, read } = filesBench();
const write = (deck: Deck) => unzipSync(WRITERS.odp.write(deck, context) as Uint8Array);
const CURVE =
  '<chart:regression-curve chart:style-name="trend"><chart:equation chart:display-equation="true"/></chart:regression-curve>';
const model: ChartElement = {
  kind: "chart",
  id: "c",
  slot: null,
  name: "Levels",
  frame: { x: 72, y: 72, width: 400, height: 240 },
  type: "column",
  categories: ["Jan", "Feb", "Mar"],
  series: [
    { name: "North", values: [10, 20, 30] },
    { name: "South", values: [5, null, 7] },
  ],
};

/** A presentation with a chart that says more than Unitext draws, a picture of it beside, and nothing of Unitext. */
function given(): Uint8Array {
  const slide = (id: string): Slide => ({
    id,
    parent: null,
    arrangement: "blank",
    notes: [],
    hidden: false,
    elements: [model],
  });
  const parts = write({ ...emptyDeck("d", "D"), slides: [slide("s"), slide("t")] });
  parts["meta.xml"] = strToU8(
    strFromU8(must(parts["meta.xml"])).replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, ""),
  );
  const path = "Object 1/content.xml";
  parts[path] = strToU8(strFromU8(must(parts[path])).replace(/(<chart:series\b[^>]*>)/, `$1${CURVE}`));
  parts["Object 1/styles.xml"] = strToU8(
    '<office:document-styles xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" office:version="1.3"/>',
  );
  parts["META-INF/manifest.xml"] = strToU8(
    strFromU8(must(parts["META-INF/manifest.xml"])).replace(
      "</manifest:manifest>",
      '<manifest:file-entry manifest:full-path="Object 1/styles.xml" manifest:media-type="text/xml"/></manifest:manifest>',
    ),
  );
  return zipSync(
    Object.fromEntries(
      Object.entries(parts).map(([name, bytes]) => [
        name,
        name === "mimetype" ? [bytes, { level: 0 as const }] : bytes,
      ]),
    ),
  );
}

const isChart = (element: Element): element is ChartElement => element.kind === "chart";
const changed = (deck: Deck, change: (chart: ChartElement) => ChartElement): Deck => ({
  ...deck,
  slides: deck.slides.map(
    (slide, nth): Slide =>
      nth === 0
        ? { ...slide, elements: slide.elements.map((element) => (isChart(element) ? change(element) : element)) }
        : slide,
  ),
});
const charts = (parts: Record<string, Uint8Array>) =>
  Object.keys(parts)
    .filter((path) => /^Object [^/]+\/content\.xml$/.test(path))
    .map((path) => strFromU8(must(parts[path])));
const again = (parts: Record<string, Uint8Array>) => read(zipSync(parts), "again.odp").deck;
const chartOn = (deck: Deck, nth = 0) => must(deck.slides[nth]?.elements.find(isChart));

describe("a chart of another .odp whose data are changed", () => {
  const bytes = given();
  const { deck } = read(bytes, "other.odp");
  const withValue = (chart: ChartElement): ChartElement => ({
    ...chart,
    series: chart.series.map((series, nth) => (nth === 0 ? { ...series, values: [10, 25.5, 30] } : series)),
  });

  it("keeps what its document says beside them, and the other chart as it was", () => {
    const after = write(changed(deck, withValue));
    const before = charts(unzipSync(bytes));
    const now = charts(after);
    expect(now).toHaveLength(2);
    const [first] = now.filter((text) => text.includes("25.5"));
    expect(first).toContain(CURVE);
    expect(now.filter((text) => text !== first)).toEqual([before[1]]);
    // Without its table the document is the one that it was.
    const table = /<table:table-header-rows>[\s\S]*<\/table:table-rows>/;
    const head = /^<\?xml[^>]*\?>\s*/;
    expect(first?.replace(table, "").replace(head, "")).toBe(before[0]?.replace(table, "").replace(head, ""));
    expect(Object.keys(after).filter((path) => path.endsWith("/styles.xml"))).toHaveLength(1);
  });

  it("leaves nothing of the old numbers in the file: neither its document, though the name of another begins alike, nor the picture of it", () => {
    const parts: Record<string, Uint8Array> = unzipSync(bytes);
    const picture = "ObjectReplacements/Object 1";
    parts[picture] = strToU8("a picture of the old numbers");
    parts["content.xml"] = strToU8(
      strFromU8(must(parts["content.xml"]))
        .replace(/(<draw:object [^>]*"\.\/Object 1"[^>]*\/>)/, `$1<draw:image xlink:href="./${picture}"/>`)
        .replaceAll('./Object 2"', './Object 12"'),
    );
    parts["Object 12/content.xml"] = must(parts["Object 2/content.xml"]);
    delete parts["Object 2/content.xml"];
    parts["META-INF/manifest.xml"] = strToU8(
      strFromU8(must(parts["META-INF/manifest.xml"]))
        .replaceAll('"Object 2/', '"Object 12/')
        .replace(
          "</manifest:manifest>",
          `<manifest:file-entry manifest:full-path="${picture}" manifest:media-type=""/></manifest:manifest>`,
        ),
    );
    const old = zipSync(parts);
    const whole = read(old, "old.odp").deck;
    expect(Object.keys(write(whole))).toContain(picture);
    const after = write(changed(whole, withValue));
    expect(Object.keys(after)).not.toContain(picture);
    expect(charts(after)).toHaveLength(2);
    expect(charts(after).filter((text) => text.includes('office:value="20"'))).toHaveLength(1);
    expect(unresolved(after)).toEqual([]);
  });

  it("is read again with what was put in, and every name, part and entry of the file leads somewhere", () => {
    const after = write(changed(deck, withValue));
    expect(chartOn(again(after)).series.map(({ values }) => values)).toEqual([
      [10, 25.5, 30],
      [5, null, 7],
    ]);
    expect(chartOn(again(after), 1).series.map(({ values }) => values)).toEqual([
      [10, 20, 30],
      [5, null, 7],
    ]);
    expect(unresolved(after)).toEqual([]);
  });

  it("takes more rows and fewer, other names, and a place of its own", () => {
    const longer = write(
      changed(deck, (chart) => ({
        ...chart,
        categories: ["Jan", "Feb", "Mar", "Apr & May"],
        series: chart.series.map((series, nth) => ({
          ...series,
          name: nth ? series.name : "Nord",
          values: [...series.values, 40 + nth],
        })),
      })),
    );
    const [text = ""] = charts(longer).filter((one) => one.includes("Apr &amp; May"));
    expect(text).toContain("$A$2:.$A$5");
    expect(text).toContain("$C$2:.$C$5");
    expect(chartOn(again(longer))).toMatchObject({
      categories: ["Jan", "Feb", "Mar", "Apr & May"],
      series: [{ name: "Nord", values: [10, 20, 30, 40] }, { values: [5, null, 7, 41] }],
    });
    const shorter = write(
      changed(deck, (chart) => ({
        ...chart,
        frame: { x: 100, y: 90, width: 300, height: 200 },
        categories: ["Jan"],
        series: chart.series.map((series) => ({ ...series, values: series.values.slice(0, 1) })),
      })),
    );
    expect(chartOn(again(shorter))).toMatchObject({
      categories: ["Jan"],
      frame: { x: 100, y: 90, width: 300, height: 200 },
    });
    expect(charts(shorter).filter((one) => one.includes(CURVE))).toHaveLength(1);
  });

  it("is rewritten with another form or other series", () => {
    for (const change of [
      (chart: ChartElement): ChartElement => ({ ...chart, type: "line" }),
      (chart: ChartElement): ChartElement => ({ ...chart, series: chart.series.slice(0, 1) }),
    ]) {
      const after = write(changed(deck, change));
      expect(charts(after).filter((one) => one.includes(CURVE))).toEqual([]);
      expect(chartOn(again(after)).series).toHaveLength(change(chartOn(deck)).series.length);
    }
  });

  it("has told what of it is not drawn, and tells again where it goes", () => {
    const { adapted } = read(bytes, "other.odp");
    expect(adapted.filter(({ what }) => what.includes("Levels"))).toEqual([
      {
        slide: 1,
        what: "the trend lines of “Levels”",
        how: "not drawn; an .odp keeps it as long as the chart is not reformatted here",
      },
    ]);
    const lines = (next: Deck, format: "odp" | "pptx") =>
      [...writeReport(next, format).adapted, ...writeReport(next, format).left].filter(({ what }) =>
        what.includes("trend lines"),
      ).length;
    expect([
      lines(deck, "odp"),
      lines(changed(deck, withValue), "odp"),
      lines(
        changed(deck, (chart) => ({ ...chart, type: "line" })),
        "odp",
      ),
      lines(deck, "pptx"),
    ]).toEqual([0, 0, 1, 1]);
  });

  it("is counted as it was before and after", () => {
    const report = writeReport(changed(deck, withValue), "odp");
    expect([report.from.charts, report.to.charts]).toEqual([2, 2]);
    expect(report.left).toEqual([]);
  });

  it("is left alone where its document has another number of series, or no table of its own", () => {
    const [text = ""] = charts(unzipSync(bytes));
    expect(updateChart(text, "content.xml", { ...model, series: model.series.slice(0, 1) })).toBeUndefined();
    expect(updateChart(text.replace(/<table:table [\s\S]*<\/table:table>/, ""), "content.xml", model)).toBeUndefined();
    expect(updateChart(text, "content.xml", model)).toContain("North");
  });
});
