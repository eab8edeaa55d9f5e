import {
  type Binding,
  type Cell,
  type CellRange,
  type ChartElement,
  type ChartType,
  type Series,
  type SheetAddress,
  type TableElement,
  must,
  run,
} from "@unitext/core/model";
import { isDate, type TakenCell } from "./take";
import type { Workbook } from "./workbook";

const isNumber = ({ content }: TakenCell) => typeof content === "number";
const isBlank = ({ content }: TakenCell) => content === undefined || content === "";

/** Returns how many of the first rows are headings: one where its cells are texts or dates over numbers. */
export function headingRows(cells: readonly (readonly TakenCell[])[]): number {
  const [first, second] = cells;
  if (!first || !second) return 0;
  const words = first.filter((cell) => !isBlank(cell) && (!isNumber(cell) || isDate(cell))).length;
  const numbersBelow = first.some(
    (cell, nth) => !isNumber(cell) && cells.slice(1).some((row) => row[nth] && isNumber(must(row[nth]))),
  );
  if (words === 0) return 0;
  // Years over values are headings too: the corner above the names is empty or a word.
  return numbersBelow || words > first.length / 2 ? 1 : 0;
}

/** Returns the spans of merged cells that begin in a range, by row and column in it. */
function spans(merged: readonly CellRange[], address: SheetAddress): Map<string, { rows: number; columns: number }> {
  const found = new Map<string, { rows: number; columns: number }>();
  for (const { top, left, bottom, right } of merged) {
    if (top < address.top || left < address.left || bottom > address.bottom || right > address.right) continue;
    found.set(`${top - address.top}/${left - address.left}`, { rows: bottom - top + 1, columns: right - left + 1 });
  }
  return found;
}

/** Returns the rows of a table as a slide has them: texts with the spans of merged cells. */
export function tableRows(
  cells: readonly (readonly TakenCell[])[],
  workbook: Workbook,
  address: SheetAddress,
): (Cell | null)[][] {
  const sheet = workbook.sheet(address.sheet);
  const hidden = sheet.hiddenRows.size > 0 || sheet.hiddenColumns.size > 0;
  const merged = hidden ? new Map<string, { rows: number; columns: number }>() : spans(sheet.merged, address);
  const covered = new Set<string>();
  for (const [place, { rows, columns }] of merged) {
    const [row = 0, column = 0] = place.split("/").map(Number);
    for (let down = 0; down < rows; down++)
      for (let across = 0; across < columns; across++)
        if (down || across) covered.add(`${row + down}/${column + across}`);
  }
  return cells.map((row, y) =>
    row.map((cell, x): Cell | null => {
      if (covered.has(`${y}/${x}`)) return null;
      const span = merged.get(`${y}/${x}`);
      return {
        text:
          cell.text === ""
            ? []
            : cell.text.split("\n").map((line) => ({ kind: "plain", level: 0, runs: line ? [run(line)] : [] })),
        ...(span && span.columns > 1 ? { columns: span.columns } : {}),
        ...(span && span.rows > 1 ? { rows: span.rows } : {}),
      };
    }),
  );
}

/** Returns the alignment of each column: numbers at the end, everything else at the start. */
export function columnAligns(cells: readonly (readonly TakenCell[])[], header: number): ("start" | "end")[] {
  const width = cells[0]?.length ?? 0;
  return Array.from({ length: width }, (_, column) => {
    const filled = cells
      .slice(header)
      .flatMap((row) => (row[column] && !isBlank(must(row[column])) ? [must(row[column])] : []));
    return filled.length > 0 && filled.every((cell) => isNumber(cell) && !isDate(cell)) ? "end" : "start";
  });
}

/** Returns a table of taken cells. */
export function tableOf(
  cells: readonly (readonly TakenCell[])[],
  { workbook, address, headerRows, binding, id, slot }: BuildPlace,
): TableElement {
  const header = headerRows ?? headingRows(cells);
  return {
    kind: "table",
    id,
    slot,
    rows: tableRows(cells, workbook, address),
    header: Math.min(header, cells.length - 1),
    align: columnAligns(cells, header),
    binding,
  };
}

export interface BuildPlace {
  workbook: Workbook;
  address: SheetAddress;
  /** The number of heading rows where the workbook says it. */
  headerRows?: number | undefined;
  binding: Binding;
  id: string;
  slot: string | null;
}

/** The categories and series that a chart makes of cells. */
export interface ChartData {
  categories: string[];
  series: { name: string; values: (number | null)[] }[];
  /** Whether the categories are dates or other steps of time. */
  overTime: boolean;
  /** The number format of the values, when they share one. */
  format: string | undefined;
}

const TIMES =
  /^(?:q[1-4]|[1-4]\.? quarter|(?:19|20)\d\d(?:[-/ ](?:0?[1-9]|1[0-2]|q[1-4]))?|week \d+|(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|mär|mai|okt|dez|ene|abr|ago|dic|janv|févr|mars|avr|juin|juil|août|sept|oct|nov|déc)[a-zäéû]*\.?(?: (?:19|20)?\d\d)?)$/i;

/** Whether a text names a time: a month, a quarter, a year. */
export const namesTime = (text: string): boolean => TIMES.test(text.trim());

/** Whether the headings of columns are steps of time and the names of rows are not: then time goes along the rows. */
function timeAcross(cells: readonly (readonly TakenCell[])[]): boolean {
  const [[, ...titles] = [], ...body] = cells;
  const isTime = (cell: TakenCell) => isDate(cell) || namesTime(cell.text);
  if (titles.length < 2 || !titles.every(isTime)) return false;
  return body.length > 0 && body.every(([name]) => name !== undefined && !isNumber(name) && !isTime(name));
}

/**
 * Returns what a chart shows of cells: a first column of texts or dates has the categories, a first row of texts the
 * names of series; where time goes along the rows it is the other way round. Returns undefined when there are no numbers.
 */
export function chartData(given: readonly (readonly TakenCell[])[], headerRows?: number): ChartData | undefined {
  const across = headerRows !== 0 && timeAcross(given);
  const cells = across ? must(given[0]).map((_, column) => given.map((row) => must(row[column]))) : given;
  const header = Math.min(headerRows ?? headingRows(cells), 1);
  const body = cells.slice(header);
  const [titles] = header ? cells : [];
  const width = body[0]?.length ?? 0;
  if (!body.length || width === 0) return undefined;
  const first = body.map((row) => must(row[0]));
  const years =
    titles !== undefined && width > 1 && first.every((cell) => isNumber(cell) && /^(19|20)\d\d$/.test(cell.text));
  const named = width > 1 && (years || first.some((cell) => !isBlank(cell) && (!isNumber(cell) || isDate(cell))));
  const from = named ? 1 : 0;
  const numeric = Array.from({ length: width - from }, (_, nth) => from + nth).filter((column) =>
    body.some((row) => row[column] && isNumber(must(row[column]))),
  );
  if (!numeric.length) return undefined;
  // Percentages would look flat beside amounts, so only the more frequent of the two kinds is drawn.
  const isShare = (column: number) =>
    body.some((row) => row[column] && isNumber(must(row[column])) && must(row[column]).code.includes("%"));
  const shares = numeric.filter(isShare);
  const columns = shares.length * 2 > numeric.length ? shares : numeric.filter((column) => !isShare(column));
  const categories = body.map((row, nth) => (named ? must(row[0]).text : String(nth + 1)));
  const codes = new Set(
    columns.flatMap((column) =>
      body.flatMap((row) => (row[column] && isNumber(must(row[column])) ? [must(row[column]).code] : [])),
    ),
  );
  const [code] = codes;
  return {
    categories,
    series: columns.map((column, nth) => ({
      name: titles?.[column]?.text || (columns.length > 1 ? `Series ${nth + 1}` : ""),
      values: body.map((row) => {
        const content = row[column]?.content;
        return typeof content === "number" ? content : null;
      }),
    })),
    overTime: named && (first.every((cell) => isBlank(cell) || isDate(cell)) || categories.every(namesTime)),
    format: codes.size === 1 && code !== "General" ? code : undefined,
  };
}

/** Whether the values are shares of a whole: positive, a few, and together 1 or 100. */
function areShares({ series }: ChartData): boolean {
  const [only, more] = series;
  if (!only || more || only.values.length < 2 || only.values.length > 8) return false;
  if (only.values.some((value) => value === null || value < 0)) return false;
  const total = only.values.reduce<number>((sum, value) => sum + (value ?? 0), 0);
  return Math.abs(total - 1) < 0.011 || Math.abs(total - 100) < 1.1;
}

/** Returns the type of chart that fits data: a line over time, a pie for shares of a whole, else columns or bars. */
export function chartTypeFor(data: ChartData): ChartType {
  if (areShares(data)) return "pie";
  if (data.overTime) return "line";
  return data.categories.length > 8 || data.categories.some((name) => name.length > 18) ? "bar" : "column";
}

/** Returns a chart of taken cells; undefined when there are no numbers. */
export function chartOf(
  cells: readonly (readonly TakenCell[])[],
  { headerRows, binding, id, slot }: BuildPlace,
  type?: ChartType,
): ChartElement | undefined {
  const data = chartData(cells, headerRows);
  if (!data) return undefined;
  return {
    kind: "chart",
    id,
    slot,
    type: type ?? chartTypeFor(data),
    categories: data.categories,
    series: data.series.map((one): Series => ({ ...one })),
    ...(data.format ? { format: data.format } : {}),
    binding,
  };
}
