import { type CellRange, columnName, formatCells } from "@unitext/core/model";
import { SheetWindow } from "@unitext/server/api";
import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useEffect, useRef, useState } from "react";
import { get } from "../api/client";
import { useCellSelection } from "./useCellSelection";

const [ROW, COLUMN, HEAD] = [26, 104, 52];
/** Rows and columns that are loaded at a time. */
const [PAGE, WIDTH] = [100, 60];

type Cell = SheetWindow["cells"][number][number];

/** Loads pages of rows of a sheet as they come into view. */
function usePages(source: string, version: string, sheet: string, language: string) {
  const [pages, setPages] = useState<ReadonlyMap<number, SheetWindow["cells"]>>(new Map());
  const asked = useRef(new Set<number>());
  const [problem, setProblem] = useState("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: another sheet or version starts with no pages.
  useEffect(() => {
    asked.current = new Set();
    setPages(new Map());
    setProblem("");
  }, [source, version, sheet]);
  const load = (page: number) => {
    if (asked.current.has(page)) return;
    asked.current.add(page);
    const query = new URLSearchParams({
      sheet,
      top: String(page * PAGE),
      rows: String(PAGE),
      columns: String(WIDTH),
      language,
    });
    get(`/sources/${source}/cells?${query}`, SheetWindow).then(
      ({ cells }) => setPages((now) => new Map(now).set(page, cells)),
      (error: Error) => setProblem(error.message),
    );
  };
  return { pages, load, problem };
}

const GridRow = memo(function GridRow({
  row,
  top,
  cells,
  columns,
  range,
}: {
  row: number;
  top: number;
  cells: readonly Cell[] | undefined;
  columns: number;
  range: CellRange | undefined;
}) {
  return (
    <div role="row" aria-rowindex={row + 1} className="absolute flex" style={{ top, height: ROW }}>
      <div
        role="rowheader"
        className="bg-base-200 hairline quiet sticky left-0 z-10 border-r border-b px-1 text-right text-xs leading-6"
        style={{ width: HEAD }}
      >
        {row + 1}
      </div>
      {Array.from({ length: columns }, (_, column) => {
        const cell = cells?.[column];
        const inside = range && column >= range.left && column <= range.right;
        return (
          <div
            key={column}
            role="gridcell"
            aria-selected={inside ?? false}
            data-cell={`${row}/${column}`}
            className={`hairline shrink-0 truncate border-r border-b px-1 text-xs leading-6 ${cell?.number ? "text-right tabular-nums" : ""} ${inside ? "bg-secondary/20" : ""}`}
            style={{ width: COLUMN }}
            title={cell?.text}
          >
            {cell?.text}
          </div>
        );
      })}
    </div>
  );
});

/** The cells of a sheet, of which a rectangle can be selected by dragging or with Shift and the arrow keys. */
export function SheetGrid({
  source,
  version,
  sheet,
  rows,
  columns: count,
  language,
  range,
  onRange,
}: {
  source: string;
  version: string;
  sheet: string;
  rows: number;
  columns: number;
  language: string;
  range: CellRange | undefined;
  onRange: (range: CellRange) => void;
}) {
  const columns = Math.min(Math.max(count, 1), WIDTH);
  const scroller = useRef<HTMLDivElement>(null);
  const { pages, load, problem } = usePages(source, version, sheet, language);
  const virtual = useVirtualizer({
    count: Math.max(rows, 1),
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const shown = virtual.getVirtualItems();
  const [first, last] = [shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0];
  // biome-ignore lint/correctness/useExhaustiveDependencies: pages are loaded as rows come into view.
  useEffect(() => {
    for (let page = Math.floor(first / PAGE); page <= Math.floor(last / PAGE); page++) load(page);
  }, [first, last, sheet, source, version]);

  const selection = useCellSelection({ rows, columns, range, onRange, show: (row) => virtual.scrollToIndex(row) });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <p role="status" className="quiet px-1 py-0.5 text-xs">
        {problem ||
          (range
            ? `${sheet}, ${formatCells(range)} selected`
            : "Select cells by dragging, or with Shift and the arrow keys.")}
        {count > WIDTH ? ` The first ${WIDTH} of ${count} columns are shown.` : ""}
      </p>
      <div
        ref={scroller}
        role="grid"
        aria-label={`Cells of ${sheet}`}
        aria-rowcount={rows}
        aria-colcount={columns}
        tabIndex={0}
        className="hairline min-h-0 flex-1 overflow-auto border select-none"
        {...selection}
      >
        <div style={{ width: HEAD + columns * COLUMN, height: virtual.getTotalSize() + ROW, position: "relative" }}>
          <div role="row" className="bg-base-200 sticky top-0 z-20 flex" style={{ height: ROW }}>
            <div className="bg-base-200 hairline sticky left-0 border-r border-b" style={{ width: HEAD }} />
            {Array.from({ length: columns }, (_, column) => (
              <div
                key={column}
                role="columnheader"
                className="hairline quiet shrink-0 border-r border-b text-center text-xs leading-6"
                style={{ width: COLUMN }}
              >
                {columnName(column)}
              </div>
            ))}
          </div>
          {shown.map(({ index, start }) => (
            <GridRow
              key={index}
              row={index}
              top={start + ROW}
              cells={pages.get(Math.floor(index / PAGE))?.[index % PAGE]}
              columns={columns}
              range={range && index >= range.top && index <= range.bottom ? range : undefined}
            />
          ))}
        </div>
      </div>
    </div>
  );
}
