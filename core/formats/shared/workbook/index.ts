import { columnName, escapeXml } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { zip } from "../archive";
import { xml, XML_HEAD } from "../xml";

const MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const TYPES = "http://schemas.openxmlformats.org/package/2006/content-types";
const RELATIONSHIPS = "http://schemas.openxmlformats.org/package/2006/relationships";
const SML = "application/vnd.openxmlformats-officedocument.spreadsheetml";

/**
 * Writes a workbook with one sheet (SpreadsheetML in ECMA-376-1). Texts are never formulas. `widths` are those of the
 * columns in characters.
 */
export function writeSheet(
  rows: readonly (readonly (string | number | null | undefined)[])[],
  widths: readonly number[] = [],
): Uint8Array {
  const cell = (value: string | number | null | undefined, row: number, column: number) => {
    const r = `${columnName(column)}${row}`;
    if (value === null || value === undefined || value === "") return "";
    return typeof value === "number"
      ? xml("c", { r }, `<v>${value}</v>`)
      : xml("c", { r, t: "inlineStr" }, `<is><t xml:space="preserve">${escapeXml(value)}</t></is>`);
  };
  const lines = rows.map((cells, at) =>
    xml("row", { r: at + 1 }, ...cells.map((value, column) => cell(value, at + 1, column))),
  );
  const columns = widths.map((width, nth) => xml("col", { min: nth + 1, max: nth + 1, width, customWidth: 1 }));
  const parts: [string, string][] = [
    [
      "[Content_Types].xml",
      xml(
        "Types",
        { xmlns: TYPES },
        xml("Default", { Extension: "rels", ContentType: "application/vnd.openxmlformats-package.relationships+xml" }),
        xml("Default", { Extension: "xml", ContentType: "application/xml" }),
        xml("Override", { PartName: "/xl/workbook.xml", ContentType: `${SML}.sheet.main+xml` }),
        xml("Override", { PartName: "/xl/worksheets/sheet1.xml", ContentType: `${SML}.worksheet+xml` }),
      ),
    ],
    [
      "_rels/.rels",
      xml(
        "Relationships",
        { xmlns: RELATIONSHIPS },
        xml("Relationship", { Id: "rId1", Type: `${OFFICE}/officeDocument`, Target: "xl/workbook.xml" }),
      ),
    ],
    [
      "xl/workbook.xml",
      xml(
        "workbook",
        { xmlns: MAIN, "xmlns:r": OFFICE },
        xml("sheets", {}, xml("sheet", { name: "Sheet1", sheetId: 1, "r:id": "rId1" })),
      ),
    ],
    [
      "xl/_rels/workbook.xml.rels",
      xml(
        "Relationships",
        { xmlns: RELATIONSHIPS },
        xml("Relationship", { Id: "rId1", Type: `${OFFICE}/worksheet`, Target: "worksheets/sheet1.xml" }),
      ),
    ],
    [
      "xl/worksheets/sheet1.xml",
      xml(
        "worksheet",
        { xmlns: MAIN },
        columns.length ? xml("cols", {}, ...columns) : "",
        xml("sheetData", {}, ...lines),
      ),
    ],
  ];
  return zip(new Map(parts.map(([path, text]) => [path, strToU8(XML_HEAD + text)])));
}
