import { type CellRange, parseAddress, parseCells, type SheetAddress } from "@unitext/core/model";
import { CellProblem, type Sheet, type SheetChart, sheetNamed, type Workbook } from "./workbook";

/** The cells that a range leads to in a workbook; `headerRows` of them are headings where a table says so. */
export interface ResolvedRange {
  kind: "address" | "name" | "table" | "chart";
  address: SheetAddress;
  headerRows?: number;
  /** The chart whose categories and series are meant. */
  chart?: SheetChart;
}

/** A range that leads nowhere, with a sentence that says why. */
export interface UnresolvedRange {
  missing: string;
}

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** Returns a rectangle without the rows and columns beyond the last cell with content. */
function clipped(range: CellRange, { size }: Sheet): CellRange {
  return {
    ...range,
    bottom: Math.max(range.top, Math.min(range.bottom, size.rows - 1)),
    right: Math.max(range.left, Math.min(range.right, size.columns - 1)),
  };
}

const TABLE = /^([^[\]!]+)\[(.+)\]$/;

function tableRange(workbook: Workbook, text: string): ResolvedRange | UnresolvedRange | undefined {
  const [, name = text, column] = TABLE.exec(text) ?? [];
  const table = workbook.tables.find((one) => same(one.name, name));
  if (!table) return undefined;
  const { address, headerRows, totalRows } = table;
  const data = { ...address, bottom: address.bottom - totalRows };
  if (column === undefined || same(column, "#All")) return { kind: "table", address: data, headerRows };
  const nth = table.columns.findIndex((one) => same(one, column));
  if (nth < 0) return { missing: `The table “${table.name}” has no column “${column}”.` };
  const left = address.left + nth;
  return { kind: "table", address: { ...data, top: data.top + headerRows, left, right: left } };
}

/** What a range that names a chart of the workbook begins with. */
export const CHART = "chart:";

function chartRange(workbook: Workbook, name: string): ResolvedRange | UnresolvedRange {
  const chart = workbook.charts.find((one) => same(one.name, name));
  const [first] = chart?.series ?? [];
  return chart && first
    ? { kind: "chart", address: chart.categories ?? first.values, headerRows: 1, chart }
    : { missing: `The workbook has no chart “${name}”.` };
}

/**
 * Finds the cells of a range: an address with its sheet, one without when the workbook has a single sheet, a defined
 * name, a table, a column of a table (`Gauges[Level]`), a chart (`chart:NAME`), or the name of a sheet for all of its cells.
 */
export function resolveRange(workbook: Workbook, range: string): ResolvedRange | UnresolvedRange {
  const text = range.trim();
  if (text.startsWith(CHART)) return chartRange(workbook, text.slice(CHART.length));
  const address = parseAddress(text);
  if (address) {
    const sheet = sheetNamed(workbook, address.sheet);
    return sheet === undefined
      ? { missing: `The workbook has no sheet “${address.sheet}”.` }
      : { kind: "address", address: { ...clipped(address, workbook.sheet(sheet)), sheet } };
  }
  const cells = parseCells(text);
  const [only, second] = workbook.sheets;
  const named = workbook.names.find(({ name }) => same(name, text));
  if (cells && only && !second && !named)
    return { kind: "address", address: { ...clipped(cells, workbook.sheet(only.name)), sheet: only.name } };
  if (named) {
    if (!named.address)
      return { missing: `The name “${named.name}” leads to no cells of the workbook (${named.text}).` };
    const sheet = sheetNamed(workbook, named.address.sheet) ?? named.address.sheet;
    return { kind: "name", address: { ...clipped(named.address, workbook.sheet(sheet)), sheet } };
  }
  const table = tableRange(workbook, text);
  if (table) return table;
  const whole = sheetNamed(workbook, text);
  if (whole !== undefined) {
    const { rows, columns } = workbook.sheet(whole).size;
    if (rows > 0)
      return { kind: "address", address: { sheet: whole, top: 0, left: 0, bottom: rows - 1, right: columns - 1 } };
  }
  if (cells)
    return {
      missing: `“${text}” names no sheet, and the workbook has ${workbook.sheets.length}. Write it as Sheet!${text}.`,
    };
  return { missing: `The workbook has no name, table or sheet “${text}”.` };
}

/** Returns the text of a cell that names its row or column; undefined for numbers, errors and empty cells. */
function label(sheet: Sheet, row: number, column: number): string | undefined {
  const content = sheet.content(row, column);
  if (content === undefined || content instanceof CellProblem || typeof content === "boolean") return undefined;
  if (typeof content === "number") return undefined;
  return content.trim() === "" ? undefined : content.trim().slice(0, 500);
}

/** Returns the text that names a row: the first one in it, up to a column. */
export function rowHeader(sheet: Sheet, row: number, upTo: number): string | undefined {
  for (let column = 0; column <= upTo; column++) {
    const text = label(sheet, row, column);
    if (text !== undefined) return text;
  }
  return undefined;
}

/**
 * Returns the text that names a column: of the cells above a row and in it, the one nearest to the first row that has
 * texts in most of its cells. Headers of dates and years are compared by what they show.
 */
export function columnHeader(sheet: Sheet, column: number, upTo: number): string | undefined {
  for (let row = 0; row <= upTo; row++) {
    const text = label(sheet, row, column);
    if (text !== undefined) return text;
  }
  return undefined;
}
