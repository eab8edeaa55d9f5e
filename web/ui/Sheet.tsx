import { useMemo } from "react";
import { DynamicDataSheetGrid, keyColumn, textColumn } from "react-datasheet-grid";
import "react-datasheet-grid/dist/style.css";
import { keyOf, type SheetRow } from "./sheetrows";

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
