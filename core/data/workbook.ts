import { type CellRange, type CsvRead, Failure, type SheetAddress, within } from "@unitext/core/model";

/** A cell that has no value: an error such as `#REF!`, or a formula without a stored result. */
export class CellProblem {
  constructor(readonly code: string) {}
}
/** The code of a formula that was stored without its result. */
export const NO_RESULT = "no result";

/** What a cell holds. Dates are serial numbers in the workbook's date system; empty cells are undefined. */
export type CellContent = number | string | boolean | CellProblem | undefined;

/** The rows of a sheet, of which most have cells side by side from the first column. */
export class Sheet {
  private readonly contents = new Map<number, CellContent[]>();
  private readonly styles = new Map<number, number[]>();
  readonly hiddenRows = new Set<number>();
  readonly hiddenColumns = new Set<number>();
  readonly merged: CellRange[] = [];
  private lastRow = -1;
  private lastColumn = -1;

  /** `formats` are the number formats that cells name by their number. */
  constructor(
    readonly name: string,
    private readonly formats: readonly string[] = [],
  ) {}

  set(row: number, column: number, content: CellContent, style = 0): void {
    if (content === undefined) return;
    let cells = this.contents.get(row);
    if (!cells) this.contents.set(row, (cells = []));
    while (cells.length < column) cells.push(undefined);
    cells[column] = content;
    if (style > 0) {
      let styles = this.styles.get(row);
      if (!styles) this.styles.set(row, (styles = []));
      while (styles.length < column) styles.push(0);
      styles[column] = style;
    }
    if (row > this.lastRow) this.lastRow = row;
    if (column > this.lastColumn) this.lastColumn = column;
  }

  content(row: number, column: number): CellContent {
    return this.contents.get(row)?.[column];
  }

  /** Returns the number format of a cell; “General” where it has none. */
  format(row: number, column: number): string {
    return this.formats[this.styles.get(row)?.[column] ?? 0] ?? "General";
  }

  /** The number of rows and columns up to the last cell with content. */
  get size(): { rows: number; columns: number } {
    return { rows: this.lastRow + 1, columns: this.lastColumn + 1 };
  }
}

/** A name for cells. `address` is undefined when it leads to no cells of this workbook; `scope` is the sheet that it is valid on. */
export interface DefinedName {
  name: string;
  text: string;
  address: SheetAddress | undefined;
  scope?: string;
}

/** A table of a sheet: its whole area, with header and total rows. */
export interface SheetTable {
  name: string;
  address: SheetAddress;
  headerRows: number;
  totalRows: number;
  columns: readonly string[];
}

/** A chart on a sheet, with the cells of its categories and series. */
export interface SheetChart {
  name: string;
  sheet: string;
  type: string;
  categories: SheetAddress | undefined;
  series: readonly { name: string; nameAt: SheetAddress | undefined; values: SheetAddress }[];
}

export interface SheetInfo {
  name: string;
  hidden: boolean;
}

/** A workbook. Its sheets are read when they are first asked for. */
export interface Workbook {
  /** The name of its file. */
  file: string;
  sheets: readonly SheetInfo[];
  names: readonly DefinedName[];
  tables: readonly SheetTable[];
  charts: readonly SheetChart[];
  /** Whether dates count from 1904 (ECMA-376-1, 18.17.4.1). */
  date1904: boolean;
  /** Returns a sheet by its exact name. Throws a Failure `not-found` when there is none, `not-readable` when it is damaged. */
  sheet(name: string): Sheet;
  /** How a .csv was read. */
  csv?: CsvRead;
  /** What of the file could not be read, a sentence each. */
  remarks: readonly string[];
}

/** Returns the name of a sheet as the workbook writes it: exactly, or else regardless of case; undefined when it has none. */
export function sheetNamed({ sheets }: Pick<Workbook, "sheets">, name: string): string | undefined {
  const lower = name.toLowerCase();
  return (sheets.find((sheet) => sheet.name === name) ?? sheets.find((sheet) => sheet.name.toLowerCase() === lower))
    ?.name;
}

/** Returns a function that reads each sheet once. */
export function readOnce(file: string, read: (name: string) => Sheet | undefined): (name: string) => Sheet {
  const sheets = new Map<string, Sheet>();
  return (name) => {
    const known = sheets.get(name) ?? read(name);
    if (!known) throw new Failure("not-found", file, `The workbook has no sheet “${name}”.`);
    sheets.set(name, known);
    return known;
  };
}

/**
 * Returns a text that does not keep a larger one in memory, of which it is a part: engines cut strings of 13 characters
 * and more out of another by reference.
 */
export const detached = (text: string): string => (text.length < 13 ? text : ` ${text}`.slice(1));

/** Passes on the pieces of a sheet's text. Throws a Failure `too-large` when they are longer than sheets may be. */
export function* withinLength(pieces: Iterable<string>, file: string): Generator<string> {
  let length = 0;
  for (const piece of pieces) {
    length += piece.length;
    within("sheetCharacters", length, file);
    yield piece;
  }
}
