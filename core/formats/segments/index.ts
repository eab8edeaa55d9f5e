import { openWorkbook } from "@unitext/core/data";
import { Failure } from "@unitext/core/model";
import { type ExchangeFile, readXliff, writeXliff, type XliffVersion, xmlText } from "@unitext/core/translate";
import Papa from "papaparse";
import { extensionOf } from "../catalogue";
import { decoded } from "../shared/document/text";
import { writeSheet } from "../shared/workbook";
import { readRows, rowsOf, type SegmentTable } from "./rows";
import { readWordTables, writeWordTable } from "./word";

export type { SegmentTable } from "./rows";

/** The files in which segments are exchanged, by extension: XLIFF for tools, tables for people without. */
export const SEGMENT_FILES = ["xlf", "xlsx", "csv", "docx"] as const;
export type SegmentFile = (typeof SEGMENT_FILES)[number];

/** The widths of place, source, translation, state and id in a sheet, in characters. */
const WIDTHS = [28, 60, 60, 14, 24];

/** Returns the rows of a workbook's first sheet as texts. */
function sheetRows(bytes: Uint8Array, file: string): string[][] {
  const book = openWorkbook(bytes, file);
  const [first] = book.sheets;
  if (!first) return [];
  const sheet = book.sheet(first.name);
  const { rows, columns } = sheet.size;
  return Array.from({ length: rows }, (_, row) =>
    Array.from({ length: columns }, (_, column) => {
      const content = sheet.content(row, column);
      return content === undefined || typeof content === "object" ? "" : String(content);
    }),
  );
}

/** Writes the segments of a deck as a file of exchange. `xliff` is the version of an .xlf. */
export function writeSegments(table: SegmentTable, as: SegmentFile, xliff: XliffVersion = "1.2"): Uint8Array {
  const { deck, to } = table;
  if (as === "xlf") return new TextEncoder().encode(writeXliff(table, xliff));
  const rows = rowsOf(table);
  if (as === "xlsx") return writeSheet(rows, WIDTHS);
  if (as === "docx") return writeWordTable(rows, { from: deck.language, to });
  // The byte order mark tells spreadsheets that it is UTF-8.
  return new TextEncoder().encode(`\uFEFF${Papa.unparse(rows)}\r\n`);
}

/** Reads a file of exchange by the extension of its name. Throws a Failure for what is none. */
export function readSegments(bytes: Uint8Array, file: string): ExchangeFile {
  switch (extensionOf(file)) {
    case "xlf":
    case "xliff":
      return readXliff(xmlText(bytes, file), file);
    case "docx":
      return readRows(readWordTables(bytes, file), file);
    case "xlsx":
    case "ods":
      return readRows(sheetRows(bytes, file), file);
    case "csv":
    case "tsv":
      return readRows(Papa.parse<string[]>(decoded(bytes, file).text, { skipEmptyLines: "greedy" }).data, file);
    default:
      throw new Failure("not-supported", file, "Translations are read from .xlf, .xlsx, .ods, .csv and .docx files.");
  }
}
