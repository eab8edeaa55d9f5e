import type { ChartElement } from "@unitext/core/model";
import { useMemo, useState } from "react";
import { Dialog } from "../ui/Dialog";
import { Sheet } from "../ui/Sheet";
import { sheetRows, sheetTexts } from "../ui/sheetrows";
import { chartCells, withCells } from "./chartdata";

/** Empty rows and columns to type more in. */
const [MORE_ROWS, MORE_COLUMNS] = [6, 3];

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
  const [rows, setRows] = useState(() => sheetRows(cells, MORE_ROWS));
  const take = () => {
    const changes = sheetTexts(rows, columns).flatMap((row, y) =>
      row.flatMap((text, x) => (text === (cells[y]?.[x] ?? "") ? [] : [{ y, x, text }])),
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
      <Sheet
        rows={rows}
        columns={columns}
        titleOf={(nth) => (nth === 0 ? "Category" : `Series ${nth}`)}
        onChange={setRows}
      />
    </Dialog>
  );
}
