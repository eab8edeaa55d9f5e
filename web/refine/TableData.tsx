import { insertColumn, deleteColumn, deleteRow, insertRow } from "@unitext/core/edit";
import { plainText, type TableElement, textOf, must } from "@unitext/core/model";
import { useState } from "react";
import { Grid } from "./Grid";
import type { Acts } from "./selection";

/** A table's cells in a grid, with commands to add and remove rows and columns. */
export function TableData({ table, acts, disabled }: { table: TableElement; acts: Acts; disabled: boolean }) {
  const [{ y, x }, setPlace] = useState({ y: 0, x: 0 });
  const set = (change: (table: TableElement) => TableElement | undefined, words: string) =>
    acts.set((element) => (element.kind === "table" ? (change(element) ?? element) : element), words);
  const cells = table.rows.map((row, nth) =>
    row.map(
      (cell) => cell && { text: textOf(cell.text), columns: cell.columns, rows: cell.rows, head: nth < table.header },
    ),
  );
  const write = (changes: { y: number; x: number; text: string }[]) =>
    set(
      (element) => {
        const rows = element.rows.map((row) => [...row]);
        for (const change of changes) {
          const cell = rows[change.y]?.[change.x];
          if (!cell || !rows[change.y]) continue;
          // The first words set the appearance of the cell's text.
          const [first] = cell.text;
          const { properties: { words, ...stands } = {}, ...like } = first ?? {};
          const text = plainText(change.text).map((paragraph) => ({
            ...like,
            ...paragraph,
            ...(Object.keys(stands).length ? { properties: stands } : {}),
            runs: paragraph.runs.map((run) => ({
              ...(first?.runs[0] ?? (words ? { properties: words } : {})),
              text: run.text,
            })),
          }));
          must(rows[change.y])[change.x] = { ...cell, text };
        }
        return { ...element, rows };
      },
      changes.length > 1 ? "Changed cells of a table" : "Changed a cell of a table",
    );
  const button = (label: string, change: (table: TableElement) => TableElement | undefined, words: string) => (
    <button type="button" className="btn btn-xs" onClick={() => set(change, words)}>
      {label}
    </button>
  );
  return (
    <fieldset disabled={disabled} className="mb-4">
      <legend className="mb-2 font-semibold">
        Table, {table.rows.length} rows by {table.rows[0]?.length ?? 0} columns
      </legend>
      <Grid
        label="Cells of the table"
        cells={cells}
        disabled={disabled || table.binding !== undefined}
        onSet={write}
        onPlace={(row, column) => setPlace({ y: row, x: column })}
      />
      <p className="quiet mt-1 text-xs">
        {table.binding
          ? `The cells follow ${table.binding.source}. Unlink the table to change them here.`
          : `At row ${y + 1}, column ${x + 1}. Cells may be pasted from a spreadsheet.`}
      </p>
      <div className={table.binding ? "hidden" : "mt-2 grid grid-cols-2 gap-1"}>
        {button("Row above", (element) => insertRow(element, y), "Added a row")}
        {button("Row below", (element) => insertRow(element, y + 1), "Added a row")}
        {button("Column before", (element) => insertColumn(element, x), "Added a column")}
        {button("Column after", (element) => insertColumn(element, x + 1), "Added a column")}
        {button(`Without row ${y + 1}`, (element) => deleteRow(element, y), "Deleted a row")}
        {button(`Without column ${x + 1}`, (element) => deleteColumn(element, x), "Deleted a column")}
      </div>
      <label className="mt-2 flex items-center justify-between gap-2">
        Rows of headings
        <input
          type="number"
          min={0}
          max={table.rows.length}
          className="input input-sm w-20 text-right"
          value={table.header}
          onChange={({ target: { value } }) =>
            set(
              (element) => ({ ...element, header: Math.max(0, Math.min(element.rows.length, Number(value) || 0)) }),
              "Changed the rows of headings",
            )
          }
        />
      </label>
    </fieldset>
  );
}
