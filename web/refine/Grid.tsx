import { useRef } from "react";

export interface GridCell {
  text: string;
  /** The number of columns and rows that it spans. */
  columns?: number | undefined;
  rows?: number | undefined;
  head?: boolean;
  number?: boolean;
}

/** A grid of cells to type in; cells from a spreadsheet are pasted over many at once. `null` is a covered cell. */
export function Grid({
  label,
  cells,
  disabled,
  onSet,
  onPlace,
}: {
  label: string;
  cells: readonly (readonly (GridCell | null)[])[];
  disabled: boolean;
  onSet: (changes: { y: number; x: number; text: string }[]) => void;
  onPlace?: (y: number, x: number) => void;
}) {
  const table = useRef<HTMLTableElement>(null);
  const go = (y: number, x: number) =>
    table.current?.querySelector<HTMLTextAreaElement>(`[data-cell="${y}/${x}"]`)?.focus();
  return (
    <div className="max-h-96 overflow-auto">
      <table ref={table} aria-label={label} className="border-collapse">
        <tbody>
          {cells.map((row, y) => (
            <tr key={y}>
              {row.map((cell, x) =>
                cell ? (
                  <td key={x} colSpan={cell.columns} rowSpan={cell.rows} className="hairline border p-0 align-top">
                    <textarea
                      key={cell.text}
                      data-cell={`${y}/${x}`}
                      {...(y === 0 && x === 0 ? { "data-first": "" } : {})}
                      aria-label={`Row ${y + 1}, column ${x + 1}`}
                      rows={1}
                      defaultValue={cell.text}
                      disabled={disabled}
                      className={`block field-sizing-content min-h-8 w-full min-w-16 resize-none bg-transparent px-1.5 py-1 ${cell.head ? "font-semibold" : ""} ${cell.number ? "text-right" : ""}`}
                      onFocus={() => onPlace?.(y, x)}
                      onBlur={({ target: { value } }) => value !== cell.text && onSet([{ y, x, text: value }])}
                      onKeyDown={(event) => {
                        if (event.key === "Enter" && !event.shiftKey) {
                          event.preventDefault();
                          event.currentTarget.blur();
                          requestAnimationFrame(() => go(y + 1, x));
                        }
                      }}
                      onPaste={(event) => {
                        const rows = event.clipboardData
                          .getData("text/plain")
                          .replace(/\r?\n$/, "")
                          .split(/\r?\n/)
                          .map((line) => line.split("\t"));
                        if (rows.length < 2 && (rows[0]?.length ?? 0) < 2) return;
                        event.preventDefault();
                        onSet(rows.flatMap((line, dy) => line.map((text, dx) => ({ y: y + dy, x: x + dx, text }))));
                      }}
                    />
                  </td>
                ) : null,
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
