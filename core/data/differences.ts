import { formatAddress, type SheetAddress } from "@unitext/core/model";
import { cellText } from "./format";
import { CellProblem, type Sheet, type Workbook } from "./workbook";

/** A cell that differs between two versions of a workbook; texts as its author sees them, empty where there is none. */
export interface CellChange {
  /** The address of the cell, such as `Levels!D2`. */
  cell: string;
  /** The text that names its row, where there is one. */
  row: string;
  from: string;
  to: string;
}

/** What differs between two versions of a workbook. */
export interface WorkbookChanges {
  addedSheets: string[];
  removedSheets: string[];
  /** Names, tables and charts that are new, and those that are gone. */
  addedNames: string[];
  removedNames: string[];
  /** How many cells differ, and the first of them. */
  count: number;
  cells: CellChange[];
}

/** The most changed cells that are listed one by one. */
const LISTED = 200;

const key = (content: ReturnType<Sheet["content"]>) => (content instanceof CellProblem ? content.code : content);

/**
 * Compares two versions of a workbook cell by cell, by address. Rows that moved as a whole count as changed cells; what
 * bindings make of them is decided by their names and headers.
 */
export function compareWorkbooks(before: Workbook, after: Workbook, language: string): WorkbookChanges {
  const names = ({ names: defined, tables, charts }: Workbook) =>
    new Set([...defined, ...tables, ...charts].map(({ name }) => name));
  const sheets = (workbook: Workbook) => new Set(workbook.sheets.map(({ name }) => name));
  const without = (all: ReadonlySet<string>, others: ReadonlySet<string>) => [...all].filter((one) => !others.has(one));
  const [oldSheets, newSheets, oldNames, newNames] = [sheets(before), sheets(after), names(before), names(after)];
  const changes: WorkbookChanges = {
    addedSheets: without(newSheets, oldSheets),
    removedSheets: without(oldSheets, newSheets),
    addedNames: without(newNames, oldNames),
    removedNames: without(oldNames, newNames),
    count: 0,
    cells: [],
  };
  for (const sheet of newSheets) if (oldSheets.has(sheet)) compareSheets(before, after, sheet, language, changes);
  return changes;
}

function compareSheets(before: Workbook, after: Workbook, name: string, language: string, changes: WorkbookChanges) {
  const [old, now] = [before.sheet(name), after.sheet(name)];
  const rows = Math.max(old.size.rows, now.size.rows);
  const columns = Math.max(old.size.columns, now.size.columns);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      if (key(old.content(row, column)) === key(now.content(row, column))) continue;
      changes.count += 1;
      if (changes.cells.length >= LISTED) continue;
      const address: SheetAddress = { sheet: name, top: row, left: column, bottom: row, right: column };
      const first = now.content(row, 0);
      changes.cells.push({
        cell: formatAddress(address),
        row: column > 0 && typeof first === "string" ? first.slice(0, 100) : "",
        from: cellText(old, row, column, language, before.date1904),
        to: cellText(now, row, column, language, after.date1904),
      });
    }
}
