import { type KeyboardEvent, useState } from "react";

/** The largest table that the grid offers; larger ones grow as cells are pasted or added. */
const [ROWS, COLUMNS] = [8, 8];
const STEPS: Record<string, readonly [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** A small grid on which the size of a new table is chosen, by pointing or with the arrow keys and Enter. */
export function TableSize({
  onChoose,
  onClose,
}: {
  onChoose: (rows: number, columns: number) => void;
  onClose: () => void;
}) {
  const [{ rows, columns }, setSize] = useState({ rows: 3, columns: 3 });
  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (event.key === "Escape") onClose();
    else if (event.key === "Enter" || event.key === " ") onChoose(rows, columns);
    else if (step)
      setSize({
        rows: Math.min(ROWS, Math.max(1, rows + step[0])),
        columns: Math.min(COLUMNS, Math.max(1, columns + step[1])),
      });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className="hairline bg-base-100 my-1 border p-2">
      <button
        type="button"
        ref={(button) => button?.focus()}
        aria-label={`${rows} rows by ${columns} columns. The arrow keys change the size, Enter makes the table.`}
        className="grid grid-cols-8 gap-1"
        onKeyDown={onKeyDown}
        onClick={() => onChoose(rows, columns)}
        data-table-size
      >
        {Array.from({ length: ROWS * COLUMNS }, (_, nth) => {
          const [row, column] = [Math.floor(nth / COLUMNS) + 1, (nth % COLUMNS) + 1];
          return (
            <span
              key={`${row}/${column}`}
              className={`hairline h-5 w-5 border ${row <= rows && column <= columns ? "bg-secondary" : "bg-base-200"}`}
              onPointerEnter={() => setSize({ rows: row, columns: column })}
            />
          );
        })}
      </button>
      <p className="pt-1 text-center text-xs" role="status">
        {rows} rows by {columns} columns
      </p>
    </div>
  );
}
