import type { SceneNode, TableGrid } from "./scene";

/** Returns the total length of `count` columns or rows from `from`. */
export function spanOf(list: readonly number[], from: number, count: number): number {
  let sum = 0;
  for (let at = from; at < from + count; at++) sum += list[at] ?? 0;
  return sum;
}

/** A table set in a frame: its nodes, the size taken, the height used and the overflow. */
export interface SetTable {
  nodes: SceneNode[];
  size: number;
  used: number;
  overflow: number;
  grid: TableGrid;
}
