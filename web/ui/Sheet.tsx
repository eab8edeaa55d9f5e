import { useMemo } from "react";
import { DynamicDataSheetGrid, keyColumn, textColumn } from "react-datasheet-grid";
import "react-datasheet-grid/dist/style.css";

/** A row of a sheet: texts by the keys of its columns; a cell without text may be missing. */
export type SheetRow = Record<string, string | null>;

const keyOf = (column: number) => `c${column}`;

/** Returns texts as the rows of a sheet, with empty rows below them. */
export const sheetRows = (texts: readonly (readonly string[])[], empty: number): SheetRow[] => [
  ...texts.map((row): SheetRow => Object.fromEntries(row.map((text, nth) => [keyOf(nth), text]))),
  ...Array.from({ length: empty }, (): SheetRow => ({})),
];

/** Returns the texts of a sheet's rows, each with so many columns. */
export const sheetTexts = (rows: readonly SheetRow[], columns: number): string[][] =>
  rows.map((row) => Array.from({ length: columns }, (_, nth) => row[keyOf(nth)] ?? ""));

/** Cells of text that are typed, filled, or pasted as a range from a spreadsheet. */
export function Sheet({
  rows,
  columns,
  titleOf,
  onChange,
}: {
  rows: SheetRow[];
  columns: number;
  titleOf: (column: number) => string;
  onChange: (rows: SheetRow[]) => void;
}) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the titles follow from the number of columns.
  const shape = useMemo(
    () =>
      Array.from({ length: columns }, (_, nth) => ({
        ...keyColumn(keyOf(nth), textColumn),
        title: titleOf(nth),
        minWidth: 100,
      })),
    [columns],
  );
  return (
    <DynamicDataSheetGrid<SheetRow>
      value={rows}
      onChange={onChange}
      columns={shape}
      createRow={() => ({})}
      height={392}
      rowHeight={28}
      headerRowHeight={28}
    />
  );
}
