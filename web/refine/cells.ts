import type { CellRange } from "@unitext/core/edit";
import { isMirrored, type TableGrid } from "@unitext/core/layout";
import type { Frame, TableElement } from "@unitext/core/model";

/** A position in a table, counted from 0. */
export interface CellPlace {
  row: number;
  column: number;
}

/** The box of a cell on the slide, in points, with its position. */
export interface CellBox extends Frame, CellPlace {}

const sum = (list: readonly number[], from: number, count: number) =>
  list.slice(from, from + count).reduce((total, one) => total + one, 0);

/** Returns the boxes of the cells of a table whose grid has been laid out at a place. */
export function cellBoxes(
  table: TableElement,
  { widths, heights }: TableGrid,
  { x, y }: Pick<Frame, "x" | "y">,
  language: string,
): CellBox[] {
  const mirrored = isMirrored(table, language);
  const all = sum(widths, 0, widths.length);
  return table.rows.flatMap((cells, row) =>
    cells.flatMap((cell, column): CellBox[] => {
      if (!cell) return [];
      const width = sum(widths, column, cell.columns ?? 1);
      const before = sum(widths, 0, column);
      return [
        {
          row,
          column,
          x: mirrored ? x + all - before - width : x + before,
          y: y + sum(heights, 0, row),
          width,
          height: sum(heights, row, cell.rows ?? 1),
        },
      ];
    }),
  );
}

/** Returns the cell that is next in reading order, or before; undefined at either end. */
export function neighbour(boxes: readonly CellBox[], { row, column }: CellPlace, by: 1 | -1): CellBox | undefined {
  const at = boxes.findIndex((box) => box.row === row && box.column === column);
  return at < 0 ? undefined : boxes[at + by];
}

/** Returns the cell that covers a position; undefined outside of the table. */
export function cellAt(table: TableElement, row: number, column: number): CellPlace | undefined {
  for (let y = row; y >= 0; y--)
    for (let x = column; x >= 0; x--) {
      const cell = table.rows[y]?.[x];
      if (cell && y + (cell.rows ?? 1) > row && x + (cell.columns ?? 1) > column) return { row: y, column: x };
    }
  return undefined;
}

/** Returns the range between two positions. */
export function rangeOf(from: CellPlace, to: CellPlace): CellRange {
  return {
    top: Math.min(from.row, to.row),
    left: Math.min(from.column, to.column),
    bottom: Math.max(from.row, to.row),
    right: Math.max(from.column, to.column),
  };
}

/** Returns the cells of tab-separated text, as spreadsheets copy them. */
export function tabbedCells(text: string): string[][] {
  return text
    .replace(/\r?\n$/, "")
    .split(/\r?\n/)
    .map((line) => line.split("\t"));
}
