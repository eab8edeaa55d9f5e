import { type BindingHeaders, columnName, formatAddress, type SheetAddress } from "@unitext/core/model";
import { columnHeader, rowHeader } from "./resolve";
import type { Sheet, Workbook } from "./workbook";

const isFilled = (sheet: Sheet, row: number, { left, right }: SheetAddress) => {
  for (let column = left; column <= right; column++) if (sheet.content(row, column) !== undefined) return true;
  return false;
};

/** Returns the texts that name the first and last row and column of an address, by which it is found again. */
export function headersOf(sheet: Sheet, address: SheetAddress): BindingHeaders {
  const { top, left, bottom, right } = address;
  const ends = (from: number, to: number) => (from === to ? [from] : [from, to]);
  return {
    rows: ends(top, bottom).map((row) => rowHeader(sheet, row, right) ?? ""),
    columns: ends(left, right).map((column) => columnHeader(sheet, column, bottom) ?? ""),
    ...(bottom > top && !isFilled(sheet, bottom + 1, address) ? { open: true } : {}),
  };
}

/** Where an address is now: the same place, another one with the reason, or nowhere. */
export type Followed =
  | { state: "same" | "grown" | "moved"; address: SheetAddress; reason?: string }
  | { state: "missing"; reason: string };

/** The rows and columns of a sheet that are searched for headers. */
const SEARCHED = 20_000;

/** Finds the only line with a header; undefined when none or several have it. */
function only(count: number, headerOf: (nth: number) => string | undefined, wanted: string): number | undefined {
  let found: number | undefined;
  for (let nth = 0; nth < Math.min(count, SEARCHED); nth++) {
    if (headerOf(nth) !== wanted) continue;
    if (found !== undefined) return undefined;
    found = nth;
  }
  return found;
}

/** Follows the lines of one direction: their headers are where they were, elsewhere, or gone. */
function followLines(
  lines: readonly number[],
  headers: readonly string[],
  count: number,
  headerOf: (nth: number) => string | undefined,
): { lines: number[]; moved?: { header: string; to: number } } | { missing: string } {
  const next: number[] = [];
  let moved: { header: string; to: number } | undefined;
  for (const [nth, line] of lines.entries()) {
    const header = headers[nth] ?? "";
    if (header === "" || headerOf(line) === header) {
      next.push(line);
      continue;
    }
    const found = only(count, headerOf, header);
    if (found === undefined) return { missing: header };
    next.push(found);
    moved ??= { header, to: found };
  }
  // Lines without a header move with the other end.
  if (moved && headers.length === 2)
    for (const [nth, header] of headers.entries())
      if (header === "") {
        const other = 1 - nth;
        next[nth] = (lines[nth] ?? 0) + (next[other] ?? 0) - (lines[other] ?? 0);
      }
  return moved ? { lines: next, moved } : { lines: next };
}

/**
 * Follows an address to where its row and column headers are now. Rows that were added below a range that ended with
 * its list belong to it.
 */
export function followAddress(
  workbook: Workbook,
  address: SheetAddress,
  headers: BindingHeaders | undefined,
): Followed {
  if (!headers) return { state: "same", address };
  const sheet = workbook.sheet(address.sheet);
  const { top, left, bottom, right } = address;
  const lines = (from: number, to: number, ends: readonly string[]) => (ends.length === 1 ? [from] : [from, to]);
  const { rows: rowCount, columns: columnCount } = sheet.size;
  const rows = followLines(lines(top, bottom, headers.rows), headers.rows, rowCount, (row) =>
    rowHeader(sheet, row, Math.max(right, columnCount - 1)),
  );
  if ("missing" in rows)
    return { state: "missing", reason: `The row “${rows.missing}” is not on the sheet “${address.sheet}” any more.` };
  const columns = followLines(lines(left, right, headers.columns), headers.columns, columnCount, (column) =>
    columnHeader(sheet, column, Math.max(bottom, rowCount - 1)),
  );
  if ("missing" in columns)
    return {
      state: "missing",
      reason: `The column “${columns.missing}” is not on the sheet “${address.sheet}” any more.`,
    };
  const next: SheetAddress = {
    sheet: address.sheet,
    top: rows.lines[0] ?? top,
    bottom: rows.lines.at(-1) ?? bottom,
    left: columns.lines[0] ?? left,
    right: columns.lines.at(-1) ?? right,
  };
  if (next.bottom < next.top || next.right < next.left)
    return { state: "missing", reason: "Its rows or columns are in another order now." };
  let grown = 0;
  if (headers.open)
    while (grown < SEARCHED && isFilled(sheet, next.bottom + 1, next)) {
      next.bottom += 1;
      grown += 1;
    }
  if (rows.moved || columns.moved)
    return { state: "moved", address: next, reason: movedReason(rows.moved, columns.moved, next) };
  return grown
    ? { state: "grown", address: next, reason: `${grown} ${grown === 1 ? "row was" : "rows were"} added below.` }
    : { state: "same", address };
}

type Moved = { header: string; to: number } | undefined;
function movedReason(row: Moved, column: Moved, address: SheetAddress): string {
  const parts = [
    ...(row ? [`the row “${row.header}” is now row ${row.to + 1}`] : []),
    ...(column ? [`the column “${column.header}” is now column ${columnName(column.to)}`] : []),
  ];
  const [first = "", ...rest] = parts;
  return `${first.charAt(0).toUpperCase()}${first.slice(1)}${rest.map((part) => `, ${part}`).join("")}: ${formatAddress(address)}.`;
}
