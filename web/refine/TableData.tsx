import type { TableElement } from "@unitext/core/model";
import { CaptionField } from "./CaptionField";
import type { Acts } from "./selection";

/** What a table is: its size, its rows of headings, and the way into its cells. */
export function TableData({
  table,
  acts,
  disabled,
  onOpen,
}: {
  table: TableElement;
  acts: Acts;
  disabled: boolean;
  onOpen: () => void;
}) {
  const setHeader = (wanted: number) =>
    acts.set(
      (element) =>
        element.kind === "table" ? { ...element, header: Math.max(0, Math.min(element.rows.length, wanted)) } : element,
      "Changed the rows of headings",
    );
  return (
    <fieldset disabled={disabled} className="mb-4">
      <legend className="mb-2 font-semibold">
        Table, {table.rows.length} rows by {table.rows[0]?.length ?? 0} columns
      </legend>
      {table.binding ? (
        <p className="quiet mb-2 text-xs">
          The cells follow {table.binding.source}. Unlink the table to change them here.
        </p>
      ) : (
        <>
          <button type="button" className="btn btn-sm btn-primary mb-2 w-full" data-first onClick={onOpen}>
            Change the cells
          </button>
          <p className="quiet mb-2 text-xs">
            Or press the table twice. Tab goes from cell to cell; edges are dragged; cells may be pasted from a
            spreadsheet.
          </p>
        </>
      )}
      <label className="flex items-center justify-between gap-2">
        Rows of headings
        <input
          type="number"
          min={0}
          max={table.rows.length}
          className="input input-sm w-20 text-right"
          value={table.header}
          onChange={({ target: { value } }) => setHeader(Number(value) || 0)}
        />
      </label>
      <CaptionField element={table} acts={acts} />
    </fieldset>
  );
}
