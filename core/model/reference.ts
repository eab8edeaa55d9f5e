/** A rectangle of cells; rows and columns count from 0, and both ends belong to it. */
export interface CellRange {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/** An address on a sheet, such as `Levels!A1:C5`. */
export interface SheetAddress extends CellRange {
  sheet: string;
}

/** The most rows and columns of a sheet (ECMA-376-1, 18.3.1.73 and 18.18.62, from memory: XFD1048576). */
const [MAX_ROW, MAX_COLUMN] = [1_048_576, 16_384];

/** Returns the letters of a spreadsheet column, counted from 0. */
export function columnName(index: number): string {
  return (index >= 26 ? columnName(Math.floor(index / 26) - 1) : "") + String.fromCharCode(65 + (index % 26));
}

/** Returns the number of a spreadsheet column from its letters, counted from 0. */
export function columnIndex(letters: string): number {
  let index = 0;
  for (const letter of letters.toUpperCase()) index = index * 26 + letter.charCodeAt(0) - 64;
  return index - 1;
}

/** Returns the address of a cell, such as `B3`. */
export const cellName = (row: number, column: number): string => `${columnName(column)}${row + 1}`;

const CORNER = "\\$?([A-Za-z]{1,3})\\$?(\\d{1,7})";
const CELLS = new RegExp(`^${CORNER}(?::${CORNER})?$`);
const COLUMNS = /^\$?([A-Za-z]{1,3}):\$?([A-Za-z]{1,3})$/;
const ROWS = /^\$?(\d{1,7}):\$?(\d{1,7})$/;

/** Parses a rectangle such as `A1:C5`, `B3`, `B:C` or `2:4`; undefined for anything else. */
export function parseCells(text: string): CellRange | undefined {
  const cells = CELLS.exec(text);
  const columns = cells ? undefined : COLUMNS.exec(text);
  const rows = cells || columns ? undefined : ROWS.exec(text);
  let range: CellRange;
  if (cells) {
    const [, left = "", top = "", right = left, bottom = top] = cells;
    range = { top: Number(top) - 1, left: columnIndex(left), bottom: Number(bottom) - 1, right: columnIndex(right) };
  } else if (columns)
    range = { top: 0, left: columnIndex(columns[1] ?? ""), bottom: MAX_ROW - 1, right: columnIndex(columns[2] ?? "") };
  else if (rows) range = { top: Number(rows[1]) - 1, left: 0, bottom: Number(rows[2]) - 1, right: MAX_COLUMN - 1 };
  else return undefined;
  const ordered = {
    top: Math.min(range.top, range.bottom),
    left: Math.min(range.left, range.right),
    bottom: Math.max(range.top, range.bottom),
    right: Math.max(range.left, range.right),
  };
  return ordered.top >= 0 && ordered.left >= 0 && ordered.bottom < MAX_ROW && ordered.right < MAX_COLUMN
    ? ordered
    : undefined;
}

/** Parses an address with its sheet, such as `'Tide levels'!$A$1:C5`; undefined when it has no sheet or no cells. */
export function parseAddress(text: string): SheetAddress | undefined {
  const [, quoted, plain, cells = ""] = /^(?:'((?:[^']|'')+)'|([^'!]+))!(.+)$/.exec(text.trim()) ?? [];
  const sheet = quoted?.replaceAll("''", "'") ?? plain;
  const range = parseCells(cells);
  return sheet !== undefined && range ? { sheet, ...range } : undefined;
}

/** Returns a rectangle as text, such as `A1:C5`; a single cell has no colon. */
export function formatCells({ top, left, bottom, right }: CellRange): string {
  const from = cellName(top, left);
  return top === bottom && left === right ? from : `${from}:${cellName(bottom, right)}`;
}

/** Returns an address as text; the sheet is quoted where its name has other characters than letters, digits and `_`. */
export function formatAddress({ sheet, ...range }: SheetAddress): string {
  const name = /^[\p{L}_][\p{L}\p{N}_]*$/u.test(sheet) ? sheet : `'${sheet.replaceAll("'", "''")}'`;
  return `${name}!${formatCells(range)}`;
}
