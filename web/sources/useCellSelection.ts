import type { CellRange } from "@unitext/core/model";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";

/** How far keys move the selection: rows and columns. */
const MOVES: Record<string, readonly [rows: number, columns: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-20, 0],
  PageDown: [20, 0],
};

interface Place {
  row: number;
  column: number;
}

/** Returns the cell that a part of the grid belongs to, by its `data-cell`. */
function placeAt(target: EventTarget): Place | undefined {
  const [row, column] = ((target as HTMLElement).closest<HTMLElement>("[data-cell]")?.dataset.cell ?? "").split("/");
  return column === undefined ? undefined : { row: Number(row), column: Number(column) };
}

/**
 * Selects a rectangle of cells by dragging, with Shift and a click, or with Shift and the arrow keys. Returns the
 * handlers of the grid; `show` brings a cell into view.
 */
export function useCellSelection({
  rows,
  columns,
  range,
  onRange,
  show,
}: {
  rows: number;
  columns: number;
  range: CellRange | undefined;
  onRange: (range: CellRange) => void;
  show: (row: number, column: number) => void;
}) {
  /** The cells at which the selection began and where it ends. */
  const anchor = useRef<Place>(undefined);
  const head = useRef<Place>(undefined);
  const select = (to: Place) => {
    const from = anchor.current ?? to;
    head.current = to;
    onRange({
      top: Math.min(from.row, to.row),
      left: Math.min(from.column, to.column),
      bottom: Math.max(from.row, to.row),
      right: Math.max(from.column, to.column),
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const move = MOVES[event.key];
    if (!move) return;
    event.preventDefault();
    const from = head.current ?? { row: range?.top ?? 0, column: range?.left ?? 0 };
    const to = {
      row: Math.max(0, Math.min(rows - 1, from.row + move[0])),
      column: Math.max(0, Math.min(columns - 1, from.column + move[1])),
    };
    if (!event.shiftKey) anchor.current = to;
    select(to);
    show(to.row, to.column);
  };
  const onPointerDown = (event: PointerEvent) => {
    const at = placeAt(event.target);
    if (!at) return;
    if (!event.shiftKey) anchor.current = at;
    select(at);
  };
  const onPointerMove = (event: PointerEvent) => {
    if (event.buttons !== 1) return;
    const at = placeAt(document.elementFromPoint(event.clientX, event.clientY) ?? event.target);
    if (at) select(at);
  };
  return { onKeyDown, onPointerDown, onPointerMove };
}
