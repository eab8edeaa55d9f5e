import type { ChartElement } from "@unitext/core/model";
import { useMemo, useState } from "react";
import { DynamicDataSheetGrid, keyColumn, textColumn } from "react-datasheet-grid";
import "react-datasheet-grid/dist/style.css";
import { Dialog } from "../ui/Dialog";
import { chartCells, withCells } from "./chartdata";

type Row = Record<string, string | null>;

/** Empty rows and columns to type more in. */
const [MORE_ROWS, MORE_COLUMNS] = [6, 3];
const keyOf = (column: number) => `c${column}`;

/** The data of a chart in a sheet as wide as the window: typed, or pasted as a range from a spreadsheet. */
export function ChartSheet({
  chart,
  onSet,
  onClose,
}: {
  chart: ChartElement;
  onSet: (chart: ChartElement) => void;
  onClose: () => void;
}) {
  const cells = useMemo(() => chartCells(chart).map((row) => row.map(({ text }) => text)), [chart]);
  const columns = (cells[0]?.length ?? 1) + MORE_COLUMNS;
  const [rows, setRows] = useState<Row[]>(() => [
    ...cells.map((row): Row => Object.fromEntries(row.map((text, nth) => [keyOf(nth), text]))),
    ...Array.from({ length: MORE_ROWS }, (): Row => ({})),
  ]);
  const shape = useMemo(
    () =>
      Array.from({ length: columns }, (_, nth) => ({
        ...keyColumn(keyOf(nth), textColumn),
        title: nth === 0 ? "Category" : `Series ${nth}`,
        minWidth: 110,
      })),
    [columns],
  );
  const take = () => {
    const changes = rows.flatMap((row, y) =>
      Array.from({ length: columns }, (_, x) => ({ y, x, text: row[keyOf(x)] ?? "" })).filter(
        ({ x, text }) => text !== (cells[y]?.[x] ?? ""),
      ),
    );
    if (changes.length) onSet(withCells(chart, changes));
  };
  return (
    <Dialog
      title="Data of the chart"
      lead="The first row has the names of the series, the first column the categories. Cells copied from a spreadsheet can be pasted."
      width="page"
      onClose={onClose}
      // Escape ends the editing of a cell; it must not take the sheet away.
      onKeyDown={(event) => event.key === "Escape" && event.preventDefault()}
      onSubmit={take}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary">
            Take the data
          </button>
        </>
      )}
    >
      <DynamicDataSheetGrid<Row>
        value={rows}
        onChange={setRows}
        columns={shape}
        createRow={() => ({})}
        height={400}
        rowHeight={28}
        headerRowHeight={28}
      />
    </Dialog>
  );
}
