import { type ChartElement, escapeXml, columnName } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { zip } from "../../../shared/archive";
import { xml, XML_HEAD } from "../../../shared/xml";
import { NS } from "../package/names";

export type Chart = Pick<
  ChartElement,
  | "type"
  | "categories"
  | "series"
  | "stack"
  | "title"
  | "legend"
  | "labels"
  | "format"
  | "xAxis"
  | "yAxis"
  | "secondaryAxis"
>;
export const isScatter = ({ type }: Chart) => type === "scatter";

/** Returns the columns of the sheet: categories first, or an x column before each series of a scatter chart. */
function columnsOf(chart: Chart): { name: string; values: readonly (string | number | null)[] }[] {
  if (!isScatter(chart))
    return [{ name: "", values: chart.categories }, ...chart.series.map(({ name, values }) => ({ name, values }))];
  return chart.series.flatMap(({ name, values, x }) => [
    { name: "x", values: values.map((_, at) => x?.[at] ?? at + 1) },
    { name, values },
  ]);
}

/** Writes the workbook of a chart (SpreadsheetML in ECMA-376-1): one sheet with its categories and series. */
export function workbook(chart: Chart): Uint8Array {
  const columns = columnsOf(chart);
  const rows = Math.max(0, ...columns.map(({ values }) => values.length));
  const cell = (value: string | number | null | undefined, row: number, column: number) => {
    const r = `${columnName(column)}${row}`;
    if (value === null || value === undefined || value === "") return "";
    return typeof value === "number"
      ? xml("c", { r }, `<v>${value}</v>`)
      : xml("c", { r, t: "inlineStr" }, `<is><t xml:space="preserve">${escapeXml(value)}</t></is>`);
  };
  const lines = Array.from({ length: rows + 1 }, (_, at) =>
    xml(
      "row",
      { r: at + 1 },
      ...columns.map(({ name, values }, column) => cell(at ? values[at - 1] : name, at + 1, column)),
    ),
  );
  const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  const office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const sml = "application/vnd.openxmlformats-officedocument.spreadsheetml";
  const parts: [string, string][] = [
    [
      "[Content_Types].xml",
      xml(
        "Types",
        { xmlns: NS.types },
        xml("Default", { Extension: "rels", ContentType: "application/vnd.openxmlformats-package.relationships+xml" }),
        xml("Default", { Extension: "xml", ContentType: "application/xml" }),
        xml("Override", { PartName: "/xl/workbook.xml", ContentType: `${sml}.sheet.main+xml` }),
        xml("Override", { PartName: "/xl/worksheets/sheet1.xml", ContentType: `${sml}.worksheet+xml` }),
      ),
    ],
    [
      "_rels/.rels",
      xml(
        "Relationships",
        { xmlns: NS.rels },
        xml("Relationship", { Id: "rId1", Type: `${office}/officeDocument`, Target: "xl/workbook.xml" }),
      ),
    ],
    [
      "xl/workbook.xml",
      xml(
        "workbook",
        { xmlns: main, "xmlns:r": office },
        xml("sheets", {}, xml("sheet", { name: "Sheet1", sheetId: 1, "r:id": "rId1" })),
      ),
    ],
    [
      "xl/_rels/workbook.xml.rels",
      xml(
        "Relationships",
        { xmlns: NS.rels },
        xml("Relationship", { Id: "rId1", Type: `${office}/worksheet`, Target: "worksheets/sheet1.xml" }),
      ),
    ],
    ["xl/worksheets/sheet1.xml", xml("worksheet", { xmlns: main }, xml("sheetData", {}, ...lines))],
  ];
  return zip(new Map(parts.map(([path, text]) => [path, strToU8(XML_HEAD + text)])));
}
