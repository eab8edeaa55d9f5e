import type { TableGrid } from "@unitext/core/layout";
import { type PointerEvent as ReactPointerEvent, useState } from "react";

/** The width of the strip over an edge that can be dragged, in CSS pixels. */
const STRIP = 9;

/** The edges between columns and below rows, which are dragged to size them. */
export function TableEdges({
  grid: { widths, heights },
  scale,
  onColumn,
  onRow,
}: {
  grid: TableGrid;
  scale: number;
  /** Called with the column before the edge and how far it was dragged, in points. */
  onColumn: (column: number, by: number) => void;
  /** Called with the row above the edge and its new height, in points. */
  onRow: (row: number, height: number) => void;
}) {
  const [dragged, setDragged] = useState<{ axis: "x" | "y"; at: number; by: number }>();
  const drag = (axis: "x" | "y", at: number, end: (by: number) => void) => (event: ReactPointerEvent<HTMLElement>) => {
    event.stopPropagation();
    event.preventDefault();
    const from = axis === "x" ? event.clientX : event.clientY;
    const strip = event.currentTarget;
    strip.setPointerCapture(event.pointerId);
    const distance = (next: PointerEvent) => ((axis === "x" ? next.clientX : next.clientY) - from) / scale;
    const move = (next: PointerEvent) => setDragged({ axis, at, by: distance(next) });
    const stop = (next: PointerEvent) => {
      strip.removeEventListener("pointermove", move);
      strip.removeEventListener("pointerup", stop);
      setDragged(undefined);
      if (Math.abs(distance(next)) >= 1) end(distance(next));
    };
    strip.addEventListener("pointermove", move);
    strip.addEventListener("pointerup", stop);
  };
  const shift = (axis: "x" | "y", at: number) => (dragged?.axis === axis && dragged.at === at ? dragged.by * scale : 0);
  let x = 0;
  let y = 0;
  return (
    <>
      {widths.slice(0, -1).map((width, column) => {
        x += width;
        return (
          <div
            key={`c${column}`}
            aria-hidden="true"
            data-edge={`column/${column}`}
            className="absolute inset-y-0 cursor-col-resize hover:bg-secondary/40"
            style={{ left: x * scale - STRIP / 2 + shift("x", column), width: STRIP }}
            onPointerDown={drag("x", column, (by) => onColumn(column, by))}
          />
        );
      })}
      {heights.map((height, row) => {
        y += height;
        return (
          <div
            key={`r${row}`}
            aria-hidden="true"
            data-edge={`row/${row}`}
            className="absolute inset-x-0 cursor-row-resize hover:bg-secondary/40"
            style={{ top: y * scale - STRIP / 2 + shift("y", row), height: STRIP }}
            onPointerDown={drag("y", row, (by) => onRow(row, height + by))}
          />
        );
      })}
    </>
  );
}
