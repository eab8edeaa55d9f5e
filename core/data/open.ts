import { Failure } from "@unitext/core/model";
import { readCsvWorkbook } from "./csv";
import { readOds } from "./ods/read";
import type { Workbook } from "./workbook";
import { readXlsx } from "./xlsx/read";

/** The readers of workbooks by extension; a workbook with macros is read without them. */
const READERS: Readonly<Record<string, (bytes: Uint8Array, file: string) => Workbook>> = {
  xlsx: readXlsx,
  xlsm: readXlsx,
  ods: readOds,
  csv: readCsvWorkbook,
  tsv: readCsvWorkbook,
};

/** The extensions of workbooks. */
export const WORKBOOKS = Object.keys(READERS);

/** Whether a file of this name is a workbook that numbers can be linked to. */
export const isWorkbookName = (name: string): boolean =>
  WORKBOOKS.includes(/\.([^./\\]+)$/.exec(name)?.[1]?.toLowerCase() ?? "");

/** Reads a workbook by the extension of its name. Throws a Failure for other kinds and for damaged files. */
export function openWorkbook(bytes: Uint8Array, file: string): Workbook {
  const read = READERS[/\.([^./\\]+)$/.exec(file)?.[1]?.toLowerCase() ?? ""];
  if (!read) throw new Failure("not-supported", file, "This is no workbook; .xlsx, .ods, .csv and .tsv files are.");
  return read(bytes, file);
}
