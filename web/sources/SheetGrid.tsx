import { type CellRange, columnName, formatAddress, formatCells } from "@unitext/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type ClipboardEvent, memo, useEffect, useRef } from "react";
import { CELLS_TYPE, cellsData } from "./cellclipboard";
import { useCellSelection } from "./useCellSelection";
import { BLOCK, type GridCell, useCells } from "./useCells";

const [ROW, COLUMN, HEAD] = [26, 104, 52];

/** A part of the sheet that has a name: its cells are outlined and labelled. */
export interface GridMark {
  name: string;
  range: CellRange;
}

const GridRow = memo(function GridRow({
  row,
  top,
  first,
  last,
  near,
  far,
  range,
}: {
  row: number;
  top: number;
  first: number;
  last: number;
  /** The loaded cells of this row in the blocks of the first and the last column. */
  near: readonly GridCell[] | undefined;
  far: readonly GridCell[] | undefined;
  range: CellRange | undefined;
}) {
  const blockOf = (column: number) => Math.floor(column / BLOCK.columns);
  return (
    <div role="row" aria-rowindex={row + 1} className="absolute flex" style={{ top, height: ROW }}>
      <div
        role="rowheader"
        className="bg-base-200 hairline quiet sticky left-0 z-10 border-r border-b px-1 text-right text-xs leading-6"
        style={{ width: HEAD }}
      >
        {row + 1}
      </div>
      {Array.from({ length: last - first + 1 }, (_, nth) => {
        const column = first + nth;
        const cell = (blockOf(column) === blockOf(first) ? near : far)?.[column % BLOCK.columns];
        const inside = range && column >= range.left && column <= range.right;
        return (
          <div
            key={column}
            role="gridcell"
            aria-colindex={column + 1}
            aria-selected={inside ?? false}
            data-cell={`${row}/${column}`}
            className={`hairline shrink-0 truncate border-r border-b px-1 text-xs leading-6 ${cell?.number ? "text-right tabular-nums" : ""} ${inside ? "bg-secondary/20" : ""}`}
            style={{ width: COLUMN, marginLeft: nth === 0 ? first * COLUMN : 0 }}
            title={cell?.text}
          >
            {cell?.text}
          </div>
        );
      })}
    </div>
  );
});

function Marks({ marks }: { marks: readonly GridMark[] }) {
  return marks.map(({ name, range }) => (
    <div
      key={`${name} ${formatCells(range)}`}
      aria-hidden="true"
      className="border-primary pointer-events-none absolute border-2"
      style={{
        top: (range.top + 1) * ROW,
        left: HEAD + range.left * COLUMN,
        height: (range.bottom - range.top + 1) * ROW,
        width: (range.right - range.left + 1) * COLUMN,
      }}
    >
      <span className="bg-primary text-primary-content absolute right-0 bottom-full max-w-full truncate px-1 text-[0.65rem] leading-3.5">
        {name}
      </span>
    </div>
  ));
}

/**
 * The cells of a sheet, of which a rectangle can be selected by dragging or with Shift and the arrow keys. Only what is in
 * view is in the page, and only that is loaded.
 */
export function SheetGrid({
  source,
  state,
  sheet,
  rows,
  columns,
  language,
  range,
  marks,
  onRange,
}: {
  source: string;
  state: string;
  sheet: string;
  rows: number;
  columns: number;
  language: string;
  range: CellRange | undefined;
  marks: readonly GridMark[];
  onRange: (range: CellRange) => void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const { blockAt, load, problem } = useCells({ source, state, sheet, language });
  const down = useVirtualizer({
    count: Math.max(rows, 1),
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: Math.max(columns, 1),
    getScrollElement: () => scroller.current,
    estimateSize: () => COLUMN,
    overscan: 3,
  });
  const [shown, shownColumns] = [down.getVirtualItems(), across.getVirtualItems()];
  const [top, bottom] = [shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0];
  const [left, right] = [shownColumns[0]?.index ?? 0, shownColumns.at(-1)?.index ?? 0];
  // biome-ignore lint/correctness/useExhaustiveDependencies: blocks are loaded as cells come into view.
  useEffect(() => {
    // What comes next is loaded before it is in view.
    const ahead = Math.min(bottom + BLOCK.rows / 2, Math.max(rows - 1, 0));
    for (const row of [top, bottom, ahead]) for (const column of [left, right]) load(row, column);
  }, [top, bottom, left, right, sheet, source, state]);
  // Cells that were chosen by their name are brought into view.
  const chosen = range ? formatCells(range) : "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another choice scrolls.
  useEffect(() => {
    if (range && (range.top > bottom || range.bottom < top)) down.scrollToIndex(range.top, { align: "center" });
    if (range && (range.left > right || range.right < left)) across.scrollToIndex(range.left, { align: "center" });
  }, [chosen]);

  const show = (row: number, column: number) => {
    down.scrollToIndex(row);
    across.scrollToIndex(column);
  };
  const copy = (event: ClipboardEvent) => {
    if (!range) return;
    const lines: string[] = [];
    for (let row = range.top; row <= range.bottom; row++) {
      const cells: string[] = [];
      for (let column = range.left; column <= range.right; column++)
        cells.push(blockAt(row, column)?.[row % BLOCK.rows]?.[column % BLOCK.columns]?.text ?? "");
      lines.push(cells.join("\t"));
    }
    event.clipboardData.setData("text/plain", lines.join("\n"));
    event.clipboardData.setData(CELLS_TYPE, cellsData(source, formatAddress({ ...range, sheet })));
    event.preventDefault();
  };
  const selection = useCellSelection({ rows, columns, range, onRange, show });
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <p role="status" className="quiet px-1 py-0.5 text-xs">
        {problem ||
          (range
            ? `${sheet}, ${formatCells(range)} selected`
            : "Select cells by dragging, or with Shift and the arrow keys.")}
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
        onCopy={copy}
      >
        <div style={{ width: HEAD + across.getTotalSize(), height: down.getTotalSize() + ROW, position: "relative" }}>
          <div role="row" className="bg-base-200 sticky top-0 z-20 flex" style={{ height: ROW }}>
            <div className="bg-base-200 hairline sticky left-0 z-10 border-r border-b" style={{ width: HEAD }} />
            {shownColumns.map(({ index }, nth) => (
              <div
                key={index}
                role="columnheader"
                className="hairline quiet shrink-0 border-r border-b text-center text-xs leading-6"
                style={{ width: COLUMN, marginLeft: nth === 0 ? left * COLUMN : 0 }}
              >
                {columnName(index)}
              </div>
            ))}
          </div>
          <Marks marks={marks} />
          {shown.map(({ index, start }) => (
            <GridRow
              key={index}
              row={index}
              top={start + ROW}
              first={left}
              last={right}
              near={blockAt(index, left)?.[index % BLOCK.rows]}
              far={blockAt(index, right)?.[index % BLOCK.rows]}
              range={range && index >= range.top && index <= range.bottom ? range : undefined}
            />
          ))}
        </div>
      </div>
    </div>
  );
}
