import { type CsvReading, Failure, type WorkbookKind, workbookKind } from "@unitext/core/model";
import { readCsvWorkbook } from "./csv";
import { readOds } from "./ods/read";
import type { Workbook } from "./workbook";
import { readXlsx } from "./xlsx/read";

const READERS: Readonly<Record<WorkbookKind, (bytes: Uint8Array, file: string, csv?: CsvReading) => Workbook>> = {
  xlsx: readXlsx,
  xlsm: readXlsx,
  ods: readOds,
  csv: readCsvWorkbook,
  tsv: readCsvWorkbook,
};

/**
 * Reads a workbook by the extension of its name; `csv` corrects what would be recognised of a .csv or .tsv. Throws a Failure for other kinds and for
 * damaged files.
 */
export function openWorkbook(bytes: Uint8Array, file: string, csv?: CsvReading): Workbook {
  const kind = workbookKind(file);
  if (!kind) throw new Failure("not-supported", file, "This is no workbook; .xlsx, .ods, .csv and .tsv files are.");
  return READERS[kind](bytes, file, csv);
}
