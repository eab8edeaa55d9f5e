import { type Cell, type DeckMetadata, type Frame, isEmptyText, type TableElement, must } from "@unitext/core/model";
import { type SceneNode, bulletNodes } from "./scene";
import { drawFill, strokeOf } from "./shapes";
import { breakText } from "./breaktext";
import { setText, shapeText } from "./text";
import type { TextContext } from "./textstyle";
import { columnLeft, type SetTable, spanOf } from "./tablegrid";

/** Default padding of a cell (ECMA-376-1, 21.1.3.17: 0.1 inch at the sides, 0.05 above and below). */
const CELL_INSETS = [7.2, 3.6, 7.2, 3.6] as const;

/** A cell of a table with its own widths. */
interface PlacedCell {
  cell: Cell;
  row: number;
  column: number;
  /** How many columns and rows it spans. */
  across: number;
  down: number;
  insets: readonly [left: number, top: number, right: number, bottom: number];
  /** The height that its text needs. */
  need: number;
}

/** Returns the cells with the heights that they need in columns of these widths. */
function placeCells(
  { rows, align }: TableElement,
  widths: readonly number[],
  size: number,
  setting: TextContext,
): PlacedCell[] {
  return rows.flatMap((cells, row) =>
    cells.flatMap((cell, column): PlacedCell[] => {
      if (!cell) return [];
      const insets = cell.insets ?? CELL_INSETS;
      const [left, top, right, bottom] = insets;
      const across = Math.min(cell.columns ?? 1, cells.length - column);
      const down = Math.min(cell.rows ?? 1, rows.length - row);
      const width = Math.max(1, spanOf(widths, column, across) - left - right);
      const blocks = shapeText(cell.text, "figure", align[column] ?? "start", setting);
      const text = cell.text.length ? breakText(blocks, "figure", size, width).height : size * 1.2;
      return [{ cell, row, column, across, down, insets, need: text + top + bottom }];
    }),
  );
}

/** Returns the heights of the rows: those that are given, or more where a cell needs it. */
function rowHeights(given: readonly number[], count: number, cells: readonly PlacedCell[], size: number): number[] {
  const heights = Array.from({ length: count }, (_, at) =>
    Math.max(
      given[at] ?? 0,
      ...cells.filter(({ row, down }) => row === at && down === 1).map(({ need }) => need),
      size * 0.4,
    ),
  );
  for (const { row, down, need } of cells) {
    const lack = need - spanOf(heights, row, down);
    if (down > 1 && lack > 0) heights[row + down - 1] = must(heights[row + down - 1]) + lack;
  }
  return heights;
}

/** Returns a cell of a table that is read from right to left with the borders of its left and right exchanged. */
export function mirroredCell(cell: Cell): Cell {
  if (!cell.borders) return cell;
  const { left, right, ...rest } = cell.borders;
  return {
    ...cell,
    borders: {
      ...rest,
      ...(left === undefined ? {} : { right: left }),
      ...(right === undefined ? {} : { left: right }),
    },
  };
}

/** Draws the borders of a cell whose box is given. */
export function borderNodes({ borders }: Cell, { x, y, width, height }: Frame, element: string): SceneNode[] {
  const sides = {
    left: [x, y, x, y + height],
    top: [x, y, x + width, y],
    right: [x + width, y, x + width, y + height],
    bottom: [x, y + height, x + width, y + height],
  } as const;
  return Object.entries(sides).flatMap(([side, [x1, y1, x2, y2]]): SceneNode[] => {
    const stroke = borders?.[side as keyof typeof sides];
    const d = `M${x1.toFixed(2)} ${y1.toFixed(2)}L${x2.toFixed(2)} ${y2.toFixed(2)}`;
    return stroke ? [{ kind: "paths", element, paths: [{ d, ...strokeOf(stroke) }] }] : [];
  });
}

function cellTextNodes(
  { cell, column, insets }: PlacedCell,
  box: Frame,
  { id, align }: TableElement,
  size: number,
  setting: TextContext,
): SceneNode[] {
  if (isEmptyText(cell.text)) return [];
  const [start, top, end, bottom] = insets;
  const [left, right] = setting.mirrored ? [end, start] : [start, end];
  const frame = {
    x: box.x + left,
    y: box.y + top,
    width: Math.max(1, box.width - left - right),
    height: Math.max(1, box.height - top - bottom),
  };
  const place = { frame, role: "figure" as const, anchor: cell.anchor ?? "top", align: align[column] ?? "start" };
  const { lines } = setText(cell.text, place, [size], setting);
  return [{ kind: "text", element: id, role: "table", lines }, ...bulletNodes(lines, id, setting.assets)];
}

/** Sets a table with widths, fills and borders of its own: rows grow with their text, nothing else changes. */
export function setOwnTable(
  element: TableElement,
  own: readonly number[],
  frame: Frame,
  size: number,
  setting: TextContext,
  assets: DeckMetadata["assets"],
): SetTable {
  const { id, rows, heights: given = [] } = element;
  const columns = Math.max(...rows.map((row) => row.length));
  const total = spanOf(own, 0, own.length) || 1;
  const widths = Array.from(
    { length: columns },
    (_, at) => ((own[at] ?? (own.at(-1) || total / columns)) * frame.width) / total,
  );
  const cells = placeCells(element, widths, size, setting);
  const heights = rowHeights(given, rows.length, cells, size);
  const used = spanOf(heights, 0, heights.length);
  const grid = { widths, heights };
  if (setting.measure) return { nodes: [], size, used, overflow: 0, grid };
  const fills: SceneNode[] = [];
  const front: SceneNode[] = [];
  for (const placed of cells) {
    const { cell, row, column, across, down } = placed;
    const box = {
      x: columnLeft(frame, widths, column, across, setting),
      y: frame.y + spanOf(heights, 0, row),
      width: spanOf(widths, column, across),
      height: spanOf(heights, row, down),
    };
    if (cell.fill) fills.push(...drawFill(cell.fill, box, id, assets));
    front.push(
      ...borderNodes(setting.mirrored ? mirroredCell(cell) : cell, box, id),
      ...cellTextNodes(placed, box, element, size, setting),
    );
  }
  const overflow = Math.max(0, used - Math.max(frame.height, spanOf(given, 0, given.length)));
  // A file's own row heights are taken on trust, so a little more is no overflow.
  const counted = overflow > frame.height * 0.1 + 12 ? overflow : 0;
  return { nodes: [...fills, ...front], size, used, overflow: counted, grid };
}
