import type { Frame } from "@unitext/core/model";
import type { SceneNode, TableGrid } from "./scene";
import type { TextContext } from "./textstyle";

/** Returns the total length of `count` columns or rows from `from`. */
export function spanOf(list: readonly number[], from: number, count: number): number {
  let sum = 0;
  for (let at = from; at < from + count; at++) sum += list[at] ?? 0;
  return sum;
}

/** Returns the left edge of columns in points; from right to left, the first column is at the right. */
export function columnLeft(
  { x }: Frame,
  widths: readonly number[],
  column: number,
  count: number,
  { mirrored = false }: Pick<TextContext, "mirrored">,
): number {
  const before = spanOf(widths, 0, column);
  return mirrored ? x + spanOf(widths, 0, widths.length) - before - spanOf(widths, column, count) : x + before;
}

/** A table set in a frame: its nodes, the size taken, the height used and the overflow. */
export interface SetTable {
  nodes: SceneNode[];
  size: number;
  used: number;
  overflow: number;
  grid: TableGrid;
}
