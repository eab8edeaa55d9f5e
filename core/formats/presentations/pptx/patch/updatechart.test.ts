import { createRequire } from "node:module";
import { type ChartElement, type Deck, type Element, type Slide, must } from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import fc from "fast-check";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { childrenOf, child, readXml } from "../../../shared/xml";
import { WRITERS, writeReport } from "../../../index";
import { updateWorkbook, withCells } from "./updateworkbook";
import { rangeOf } from "./updatechart";

const { context, read } = filesBench();
const write = (deck: Deck) => unzipSync(WRITERS.pptx.write(deck, context) as Uint8Array);
const textIn = (parts: Record<string, Uint8Array>, pattern: RegExp) =>
  Object.keys(parts)
    .filter((path) => pattern.test(path))
    .sort()
    .map((path) => strFromU8(must(parts[path])));
const CHART = /ppt\/charts\/chart[^/]*\.xml$/;

/** A presentation by the npm package pptxgenjs: two slides, each with a chart whose workbook has a table. */
async function generated(): Promise<Uint8Array> {
  // biome-ignore lint/suspicious/noExplicitAny: the types of the package are those of a browser script.
  const file = new (createRequire(import.meta.url)("pptxgenjs") as new () => any)();
  for (const top of [30, 60]) {
    const slide = file.addSlide();
    slide.addChart(
      "bar",
      [
        { name: "North", labels: ["Jan", "Feb", "Mar"], values: [10, 20, top] },
        { name: "South", labels: ["Jan", "Feb", "Mar"], values: [5, 6, 7] },
      ],
      { x: 1, y: 1, w: 6, h: 4, barGapWidthPct: 33, valAxisMinorUnit: 5, showTitle: true, title: "Levels" },
    );
  }
  return new Uint8Array(await file.write({ outputType: "STREAM", compression: true }));
}

/** The cells of the workbook behind the nth chart, as their sheet says them, with strings that are shared looked up. */
function cellsOf(parts: Record<string, Uint8Array>, nth = 0): Map<string, string> {
  const charts = Object.keys(parts)
    .filter((path) => CHART.test(path))
    .sort();
  const links = strFromU8(must(parts[must(charts[nth]).replace(/([^/]*)$/, "_rels/$1.rels")]));
  const target = /Target="\.\.\/(embeddings\/[^"]+)"/.exec(links)?.[1];
  const book = unzipSync(must(parts[`ppt/${target}`]));
  const shared = book["xl/sharedStrings.xml"]
    ? readXml(strFromU8(book["xl/sharedStrings.xml"]), "s").children.map((item) => child(item, "t")?.text ?? "")
    : [];
  const sheet = readXml(strFromU8(must(book["xl/worksheets/sheet1.xml"])), "sheet");
  return new Map(
    childrenOf(child(sheet, "sheetData"), "row").flatMap((row) =>
      childrenOf(row, "c").map((cell) => {
        const value = child(cell, "v")?.text ?? "";
        return [
          cell.attributes.r ?? "",
          cell.attributes.t === "s" ? (shared[Number(value)] ?? "") : (child(child(cell, "is"), "t")?.text ?? value),
        ] as const;
      }),
    ),
  );
}

const isChart = (element: Element): element is ChartElement => element.kind === "chart";
const chartOn = (deck: Deck, nth = 0) => must(deck.slides[nth]?.elements.find(isChart));
const changed = (deck: Deck, change: (chart: ChartElement) => ChartElement, on = 0): Deck => ({
  ...deck,
  slides: deck.slides.map(
    (slide, nth): Slide =>
      nth === on
        ? { ...slide, elements: slide.elements.map((element) => (isChart(element) ? change(element) : element)) }
        : slide,
  ),
});

describe("a chart of another program whose data are changed", () => {
  let deck: Deck;
  let before: Record<string, Uint8Array>;
  beforeAll(async () => {
    const bytes = await generated();
    before = unzipSync(bytes);
    deck = read(bytes, "other.pptx").deck;
  });
  const withValue = (chart: ChartElement): ChartElement => ({
    ...chart,
    series: chart.series.map((series, nth) => (nth === 0 ? { ...series, values: [10, 25.5, 30] } : series)),
  });

  it("stays that program's: one number is another, in its part and in its workbook, and nothing else", () => {
    const after = write(changed(deck, withValue));
    const [now, second] = textIn(after, CHART);
    const [was, other] = textIn(before, CHART);
    expect(second).toBe(other);
    expect(now).toContain('<c:gapWidth val="33"/>');
    // What stands around the values of the first series is as it was.
    const values = /<c:val>[\s\S]*?<\/c:val>/;
    expect(now?.replace(values, "")).toBe(was?.replace(values, ""));
    expect(now).toMatch(/<c:pt idx="1"><c:v>25.5<\/c:v><\/c:pt>/);
    const [cells, old] = [cellsOf(after), cellsOf(before)];
    const differing = [...new Set([...cells.keys(), ...old.keys()])].filter(
      (cell) => cells.get(cell) !== old.get(cell),
    );
    expect(differing.map((cell) => cells.get(cell))).toEqual(["25.5"]);
  });

  it("is read again with what was put in, by Unitext and by what knows nothing of it", () => {
    const after = write(changed(deck, withValue));
    for (const path of Object.keys(after)) if (path.includes("/tags/")) delete after[path];
    expect(chartOn(read(zipSync(after), "again.pptx").deck).series.map(({ values }) => values)).toEqual([
      [10, 25.5, 30],
      [5, 6, 7],
    ]);
  });

  it("is told as kept, and one whose looks are changed as not", () => {
    const more = must(chartOn(deck).sourceShape?.unsupported?.[0]);
    expect(more).toBeDefined();
    const lines = (given: Deck) =>
      writeReport(given, "pptx").adapted.filter(({ slide, what }) => slide === 1 && what.includes(more));
    expect(lines(changed(deck, withValue))).toEqual([]);
    expect(lines(changed(deck, (chart) => ({ ...chart, stack: "sum" })))).toHaveLength(1);
  });

  it("takes rows at its end, and gives them up, with the ranges that it names", () => {
    const longer = changed(deck, (chart) => ({
      ...chart,
      categories: [...chart.categories, "Apr"],
      series: chart.series.map((series, nth) => ({ ...series, values: [...series.values, 40 + nth] })),
    }));
    const after = write(longer);
    const [text = ""] = textIn(after, CHART);
    const ranges = [...text.matchAll(/<c:f>([^<]*)<\/c:f>/g)].map(([, range = ""]) => range);
    expect(ranges).toEqual(expect.arrayContaining(["Sheet1!$A$2:$A$5", "Sheet1!$B$2:$B$5", "Sheet1!$C$2:$C$5"]));
    expect(["A5", "B5", "C5"].map((cell) => cellsOf(after).get(cell))).toEqual(["Apr", "40", "41"]);
    const shorter = write(
      changed(deck, (chart) => ({
        ...chart,
        categories: ["Jan"],
        series: chart.series.map((series) => ({ ...series, values: series.values.slice(0, 1) })),
      })),
    );
    expect(["A2", "B2", "A3", "B3", "C4"].map((cell) => cellsOf(shorter).get(cell) ?? "")).toEqual([
      "Jan",
      "10",
      "",
      "",
      "",
    ]);
    expect(chartOn(read(zipSync(shorter), "short.pptx").deck).categories).toEqual(["Jan"]);
  });

  it("has its series renamed in the part, in the cell and in the table of its workbook, which must agree (18.5.1.3)", () => {
    const after = write(
      changed(deck, (chart) => ({
        ...chart,
        series: chart.series.map((series, nth) => (nth === 0 ? { ...series, name: "Nord & Süd" } : series)),
      })),
    );
    expect(textIn(after, CHART)[0]).toContain("<c:v>Nord &amp; Süd</c:v>");
    expect(cellsOf(after).get("B1")).toBe("Nord & Süd");
    const book = unzipSync(
      must(
        after[
          must(
            Object.keys(after)
              .filter((path) => path.endsWith(".xlsx"))
              .sort()[0],
          )
        ],
      ),
    );
    const table = Object.keys(book).find((path) => /xl\/tables\//.test(path));
    if (table) expect(strFromU8(must(book[table]))).toContain('name="Nord &amp; Süd"');
  });

  it("is a part of its own where a copy of its slide keeps the data that it had", () => {
    const [first, ...rest] = deck.slides as [Slide, ...Slide[]];
    const copied = changed({ ...deck, slides: [first, { ...first, id: "copy" }, ...rest] }, withValue);
    const charts = textIn(write(copied), CHART);
    expect(charts).toHaveLength(3);
    expect(charts.filter((text) => text.includes("<c:v>25.5</c:v>"))).toHaveLength(1);
  });

  it("is rewritten where it has other series than its part, which is told before", () => {
    const more = changed(deck, (chart) => ({
      ...chart,
      series: [...chart.series, { name: "East", values: [1, 2, 3] }],
    }));
    const [text = ""] = textIn(write(more), CHART);
    expect(text.match(/<c:ser>/g)).toHaveLength(3);
    expect(writeReport(more, "pptx").adapted.length).toBeGreaterThan(0);
  });

  it("is rewritten where its part draws another chart too, which keeps its own, and that is told before", () => {
    const path = "ppt/slides/slide1.xml";
    const frame = must(/<p:graphicFrame[\s\S]*?<\/p:graphicFrame>/.exec(strFromU8(must(before[path])))?.[0]);
    const both = read(
      zipSync({
        ...before,
        [path]: strToU8(strFromU8(must(before[path])).replace(frame, frame + frame.replace(/ id="\d+"/, ' id="77"'))),
      }),
      "twice.pptx",
    ).deck;
    const [first, second] = must(both.slides[0]).elements.filter(isChart) as [ChartElement, ChartElement];
    expect([first.sourceShape?.data, second.sourceShape?.data]).toEqual([undefined, undefined]);
    const made: Deck = {
      ...both,
      slides: both.slides.map((slide) => ({
        ...slide,
        elements: slide.elements.map((element) => (element.id === first.id ? withValue(first) : element)),
      })),
    };
    const told = (given: Deck) =>
      writeReport(given, "pptx").adapted.filter(
        ({ slide, what }) => slide === 1 && what.includes(first.sourceShape?.unsupported?.[0] ?? "-"),
      );
    expect(told(both)).toEqual([]);
    expect(told(made).length).toBeGreaterThan(0);
    const again = must(
      read(withoutTags(WRITERS.pptx.write(made, context) as Uint8Array), "again.pptx").deck.slides[0]?.elements.filter(
        isChart,
      ),
    );
    expect(again.map(({ series }) => series[0]?.values)).toEqual([
      [10, 25.5, 30],
      [10, 20, 30],
    ]);
  });

  it("leaves nothing of itself in the file when it is taken off its slide: its part and its workbook go", () => {
    const without = {
      ...deck,
      slides: deck.slides.map((slide, nth) =>
        nth === 0 ? { ...slide, elements: slide.elements.filter((element) => !isChart(element)) } : slide,
      ),
    };
    const after = write(without);
    expect(textIn(after, CHART)).toEqual([textIn(before, CHART)[1]]);
    expect(Object.keys(after).filter((path) => path.endsWith(".xlsx"))).toHaveLength(1);
    // What is there is named, and what is named is there (ECMA-376-2, 9.3).
    for (const path of Object.keys(after).filter((name) => name.endsWith(".rels"))) {
      const folder = path.replace(/_rels\/[^/]*$/, "");
      for (const { attributes } of readXml(strFromU8(must(after[path])), path).children) {
        if (attributes.TargetMode === "External") continue;
        const target = attributes.Target ?? "";
        const steps = target.startsWith("/") ? [] : folder.split("/").filter(Boolean);
        for (const step of target.split("/").filter(Boolean)) step === ".." ? steps.pop() : steps.push(step);
        expect(Object.keys(after)).toContain(steps.join("/"));
      }
    }
  });

  it("names its cells in one row or column of one sheet, or is not changed in its part", () => {
    expect(rangeOf("Sheet1!$B$2:$B$5")).toEqual({ sheet: "Sheet1", column: 1, row: 2, across: false });
    expect(rangeOf("'My ''own'' sheet'!$B$2:$E$2")).toEqual({
      sheet: "My 'own' sheet",
      column: 1,
      row: 2,
      across: true,
    });
    expect(rangeOf("Sheet1!$AA$1")).toEqual({ sheet: "Sheet1", column: 26, row: 1, across: false });
    for (const other of ["[Book2.xlsx]Sheet1!$A$1:$A$3", "Sheet1!$A$1:$B$3", "(Sheet1!$A$1,Sheet1!$A$3)", "Levels", ""])
      expect(rangeOf(other)).toBeUndefined();
  });
});

describe("a sheet with other values in some cells", () => {
  const sheet = (rows: string) =>
    `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${rows}</sheetData><pageMargins left="1"/></worksheet>`;
  const valuesIn = (text: string) =>
    new Map(
      childrenOf(child(readXml(text, "sheet"), "sheetData"), "row").flatMap((row) =>
        childrenOf(row, "c").flatMap((cell) => {
          const said = child(cell, "v")?.text ?? child(child(cell, "is"), "t")?.text;
          return said === undefined ? [] : [[must(cell.attributes.r), said] as const];
        }),
      ),
    );

  it("has each cell once, in order of rows and columns (18.3.1.4, 18.3.1.73), whatever stood there and whatever is put in", () => {
    const place = fc.record({ column: fc.nat(5), row: fc.integer({ min: 1, max: 6 }) });
    const value = fc.oneof(fc.integer(), fc.constantFrom("a & b", "<x>"), fc.constant(null));
    fc.assert(
      fc.property(
        fc.uniqueArray(place, { selector: ({ column, row }) => `${column}/${row}`, maxLength: 12 }),
        fc.uniqueArray(fc.tuple(place, value), { selector: ([{ column, row }]) => `${column}/${row}`, maxLength: 12 }),
        (stood, put) => {
          const name = ({ column, row }: { column: number; row: number }) => `${"ABCDEF"[column]}${row}`;
          const rows = [...new Set(stood.map(({ row }) => row))]
            .sort((a, b) => a - b)
            .map(
              (row) =>
                `<row r="${row}">${stood
                  .filter((one) => one.row === row)
                  .sort((a, b) => a.column - b.column)
                  .map((one) => `<c r="${name(one)}" s="3"><v>7</v></c>`)
                  .join("")}</row>`,
            )
            .join("");
          const made = withCells(
            sheet(rows),
            "sheet",
            [...put.map(([at]) => [at, "given before"] as const), ...put].map(([at, given]) => ({
              sheet: "S",
              ...at,
              value: given,
            })),
          );
          const wanted = new Map(stood.map((one) => [name(one), "7"]));
          for (const [at, given] of put) {
            if (given === null) wanted.delete(name(at));
            else wanted.set(name(at), String(given));
          }
          expect(new Map([...valuesIn(made)].sort())).toEqual(new Map([...wanted].sort()));
          const order = childrenOf(child(readXml(made, "sheet"), "sheetData"), "row").map(({ attributes }) =>
            Number(attributes.r),
          );
          expect(order).toEqual([...new Set(order)].sort((a, b) => a - b));
          for (const row of childrenOf(child(readXml(made, "sheet"), "sheetData"), "row")) {
            const letters = childrenOf(row, "c").map(({ attributes }) => must(attributes.r)[0]);
            expect(letters).toEqual([...new Set(letters)].sort());
          }
          expect(made).toContain('<pageMargins left="1"/>');
        },
      ),
      { numRuns: 300 },
    );
  });

  it("keeps the formats of its cells, and rows and sheets that are written shortly", () => {
    expect(withCells(sheet('<row r="1"/>'), "sheet", [{ sheet: "S", column: 1, row: 1, value: 4 }])).toBe(
      sheet('<row r="1"><c r="B1"><v>4</v></c></row>'),
    );
    expect(
      withCells(sheet('<row r="1"><c r="A1" s="9" t="s"><v>0</v></c></row>'), "sheet", [
        { sheet: "S", column: 0, row: 1, value: 4 },
      ]),
    ).toBe(sheet('<row r="1"><c r="A1" s="9"><v>4</v></c></row>'));
  });

  it("is left alone where the workbook cannot be read", () => {
    expect(updateWorkbook(strToU8("no workbook"), [], new Map())).toBeUndefined();
    expect(updateWorkbook(zipSync({ "a.txt": strToU8("x") }), [], new Map())).toBeUndefined();
  });
});
