/** A row of a sheet: texts by the keys of its columns; a cell without text may be missing. */
export type SheetRow = Record<string, string | null>;

/** Returns the key of a column. */
export const keyOf = (column: number) => `c${column}`;

/** Returns texts as the rows of a sheet, with empty rows below them. */
export const sheetRows = (texts: readonly (readonly string[])[], empty: number): SheetRow[] => [
  ...texts.map((row): SheetRow => Object.fromEntries(row.map((text, nth) => [keyOf(nth), text]))),
  ...Array.from({ length: empty }, (): SheetRow => ({})),
];

/** Returns the texts of a sheet's rows, each with so many columns. */
export const sheetTexts = (rows: readonly SheetRow[], columns: number): string[][] =>
  rows.map((row) => Array.from({ length: columns }, (_, nth) => row[keyOf(nth)] ?? ""));
