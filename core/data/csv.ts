import Papa from "papaparse";
import { type CsvReading, Failure, within } from "@unitext/core/model";
import { decoded } from "../formats/shared/document/text";
import { serialOf } from "./serial";
import { CellProblem, readOnce, Sheet, type CellContent, type Workbook } from "./workbook";

const POINT = /^[+-]?(?:\d+|\d{1,3}(?:,\d{3})+)(?:\.\d+)?(?:[eE][+-]?\d+)?$/;
const COMMA = /^[+-]?(?:\d+|\d{1,3}(?:\.\d{3})+)(?:,\d+)?(?:[eE][+-]?\d+)?$/;

/** Recognises the decimal sign from values that can be read in one way only. */
function decimalOf(rows: readonly (readonly string[])[], delimiter: string): "." | "," {
  if (delimiter === ",") return ".";
  let [points, commas] = [0, 0];
  for (const row of rows.slice(0, 1000))
    for (const value of row) {
      const text = value.trim();
      if (/^[+-]?\d+,\d+$/.test(text) && !/^[+-]?\d{1,3},\d{3}$/.test(text)) commas += 1;
      else if (/^[+-]?\d+\.\d+$/.test(text) && !/^[+-]?\d{1,3}\.\d{3}$/.test(text)) points += 1;
    }
  return commas > points ? "," : ".";
}

/** Errors of spreadsheets, which are texts in what they export (ECMA-376-1, 18.17.3). */
const ERROR = /^#(?:DIV\/0!|N\/A|NAME\?|NULL!|NUM!|REF!|VALUE!)$/;
const DELIMITERS = [",", ";", "\t", "|"] as const;
const FORMATS = ["General", "yyyy-mm-dd", "yyyy-mm-dd hh:mm", "0%"] as const;

/** Returns what a value holds and the number of its format. */
function contentOf(text: string, decimal: "." | ","): [content: CellContent, format: number] {
  const value = text.trim();
  if (value === "") return [undefined, 0];
  if (ERROR.test(value)) return [new CellProblem(value), 0];
  const percent = value.endsWith("%") ? value.slice(0, -1).trim() : undefined;
  const digits = percent ?? value;
  if ((decimal === "," ? COMMA : POINT).test(digits)) {
    const plain = decimal === "," ? digits.replaceAll(".", "").replace(",", ".") : digits.replaceAll(",", "");
    // A number with leading zeros is an identifier, such as a postcode.
    if (!/^[+-]?0\d/.test(digits))
      return [percent === undefined ? Number(plain) : Number(plain) / 100, percent === undefined ? 0 : 3];
  }
  const serial = /^\d{4}-\d{2}-\d{2}/.test(value) ? serialOf(value) : undefined;
  return serial === undefined ? [text.replace(GUARD, ""), 0] : [serial, Number.isInteger(serial) ? 1 : 2];
}

/** Recognises the delimiter from the first lines that are not empty. */
function delimiterOf(text: string): (typeof DELIMITERS)[number] {
  const { meta } = Papa.parse(text.slice(0, 100_000).trimEnd(), {
    preview: 50,
    skipEmptyLines: true,
    delimitersToGuess: [...DELIMITERS],
  });
  return DELIMITERS.find((one) => one === meta.delimiter) ?? ",";
}

/** Decodes a text in a stated encoding. Throws a Failure when it is not known or the bytes are not text in it. */
function decodedAs(bytes: Uint8Array, file: string, encoding: string): string {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    throw new Failure("not-readable", file, `The file is not text in ${encoding}. Choose another encoding.`);
  }
}

/** Put before typed text that begins like a formula, so that no spreadsheet program evaluates it. */
const GUARD = /^'(?=[=+\-@])/;

/**
 * Writes rows of typed values as comma separated values (RFC 4180). Texts that a spreadsheet program would take for a
 * formula begin with an apostrophe; it is taken off again when they are read.
 */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  const guarded = (value: string) => (/^[=+\-@]/.test(value) && !POINT.test(value.trim()) ? `'${value}` : value);
  return `${Papa.unparse(rows.map((row) => row.map(guarded)))}\r\n`;
}

/** Returns the rows that `writeCsv` wrote, as they were typed. */
export function readTypedRows(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text.replace(/\r\n$/, ""), { delimiter: "," });
  return data.map((row) => row.map((value) => value.replace(GUARD, "")));
}

/**
 * Reads comma, semicolon or tab separated values as a workbook of one sheet with the name of the file. Encoding,
 * delimiter and decimal sign are recognised unless given. What looks like a formula is a text. Throws a Failure for bytes
 * that are not text.
 */
export function readCsvWorkbook(bytes: Uint8Array, file: string, reading: CsvReading = {}): Workbook {
  const found = reading.encoding
    ? { text: decodedAs(bytes, file, reading.encoding), encoding: reading.encoding }
    : decoded(bytes, file);
  const { text, encoding = "utf-8" } = found;
  const delimiter = reading.delimiter ?? delimiterOf(text);
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: false, delimiter });
  const decimal = reading.decimal ?? decimalOf(data, delimiter);
  const name = file.replace(/^.*[/\\]/, "").replace(/\.[^.]*$/, "") || "Sheet1";
  const sheet = new Sheet(name, FORMATS);
  let cells = 0;
  for (const [row, values] of data.entries()) {
    cells += values.length;
    within("sheetCells", cells, file);
    for (const [column, value] of values.entries()) {
      const [content, format] = contentOf(value, decimal);
      sheet.set(row, column, content, format);
    }
  }
  const widths = new Set(data.filter((row) => row.length > 1 || row[0]?.trim()).map((row) => row.length));
  const remarks = [
    ...(!reading.encoding && encoding !== "utf-8" ? [`The text is not in UTF-8; it was read as ${encoding}.`] : []),
    ...(widths.size > 1 ? ["Some rows have fewer values than others; the cells that they leave out are empty."] : []),
  ];
  return {
    file,
    sheets: [{ name, hidden: false }],
    names: [],
    tables: [],
    charts: [],
    date1904: false,
    csv: { encoding, delimiter, decimal },
    remarks,
    sheet: readOnce(file, (wanted) => (wanted === name ? sheet : undefined)),
  };
}
