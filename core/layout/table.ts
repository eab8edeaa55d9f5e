import { mixed } from "@unitext/core/figures";
import {
  type Align,
  type Cell,
  type DeckMetadata,
  type Frame,
  isEmptyText,
  type RichText,
  type TableElement,
  type ThemeColours,
  must,
} from "@unitext/core/model";
import { type SceneNode, bulletNodes, type TableGrid } from "./scene";
import { drawFill, strokeOf } from "./shapes";
import { breakText, setText, shapeText } from "./text";
import type { ParagraphLayout, TextContext } from "./textstyle";

/** A shaped cell, with the positions that it covers. */
interface Placed {
  cell: Cell;
  row: number;
  column: number;
  columns: number;
  rows: number;
  blocks: ParagraphLayout[];
  align: Align;
}

/** Padding of a cell, in em: left and right, above and below. */
const PAD = { x: 0.5, y: 0.28 };
const STRONG = (text: RichText): RichText =>
  text.map((paragraph) => ({
    ...paragraph,
    runs: paragraph.runs.map((run) => ({ ...run, marks: [...new Set(["strong" as const, ...(run.marks ?? [])])] })),
  }));

function cellsOf(
  { rows, header, align }: Pick<TableElement, "rows" | "header" | "align">,
  setting: TextContext,
): Placed[] {
  return rows.flatMap((row, at) =>
    row.flatMap((cell, column) => {
      if (!cell) return [];
      const own = align[column] ?? "start";
      const shown = at < header ? { ...cell, text: strong(cell.text) } : cell;
      const columns = Math.min(cell.columns ?? 1, row.length - column);
      return [
        {
          cell: shown,
          row: at,
          column,
          columns,
          rows: Math.min(cell.rows ?? 1, rows.length - at),
          blocks: shapeText(shown.text, "figure", own, setting),
          align: own,
        },
      ];
    }),
  );
}

const strongOnce = new WeakMap<RichText, RichText>();
function strong(text: RichText): RichText {
  const made = strongOnce.get(text) ?? STRONG(text);
  strongOnce.set(text, made);
  return made;
}

/** Returns the widths in em that columns need so that no word is broken, and so that no line is. */
function needs(cells: readonly Placed[], columns: number): { least: number[]; most: number[] } {
  const least = Array<number>(columns).fill(1);
  const most = Array<number>(columns).fill(1);
  for (const { blocks, column, columns: over } of cells) {
    for (const { shaped, indent } of blocks) {
      const { breaks, upTo } = shaped;
      let start = 0;
      let line = 0;
      let [word, whole] = [0, 0];
      for (const { at, visible, required } of breaks) {
        word = Math.max(word, (upTo[visible] ?? 0) - (upTo[start] ?? 0));
        whole = Math.max(whole, (upTo[visible] ?? 0) - (upTo[line] ?? 0));
        start = at;
        if (required) line = at;
      }
      for (let at = column; at < column + over; at++) {
        least[at] = Math.max(must(least[at]), Math.min(14, word + indent) / over);
        most[at] = Math.max(must(most[at]), (whole + indent) / over);
      }
    }
  }
  return { least, most };
}

/** Returns column widths in points: what columns need, and the rest distributed by how much they could use. */
function widthsOf({ least, most }: ReturnType<typeof needs>, size: number, width: number): number[] {
  const pad = 2 * PAD.x * size;
  const low = least.map((value) => value * size + pad);
  const high = most.map((value, at) => Math.max(value * size + pad, must(low[at])));
  const sum = (list: readonly number[]) => list.reduce((total, value) => total + value, 0);
  const [lowest, highest] = [sum(low), sum(high)];
  if (lowest >= width) return low.map((value) => (value * width) / lowest);
  if (highest <= width) {
    const free = width - highest;
    return high.map((value) => value + (free * value) / highest);
  }
  return low.map((value, at) => value + ((width - lowest) * (must(high[at]) - value)) / (highest - lowest));
}

function heightsOf(cells: readonly Placed[], rows: number, widths: readonly number[], size: number): number[] {
  const heights = Array<number>(rows).fill(size * (1.25 + 2 * PAD.y));
  const spanning: [Placed, number][] = [];
  for (const cell of cells) {
    const width = spanOf(widths, cell.column, cell.columns) - 2 * PAD.x * size;
    const height = breakText(cell.blocks, "figure", size, width).height + 2 * PAD.y * size;
    if (cell.rows > 1) spanning.push([cell, height]);
    else heights[cell.row] = Math.max(must(heights[cell.row]), height);
  }
  for (const [{ row, rows: over }, height] of spanning) {
    const lack = height - spanOf(heights, row, over);
    if (lack > 0) heights[row + over - 1] = must(heights[row + over - 1]) + lack;
  }
  return heights;
}

function spanOf(list: readonly number[], from: number, count: number): number {
  let sum = 0;
  for (let at = from; at < from + count; at++) sum += list[at] ?? 0;
  return sum;
}

/** The theme's appearance of tables in terms that a file can express: lengths in points. */
export interface TableAppearance extends TableGrid {
  /** Returns the appearance of a cell by its first and last row; equal ones are the same object. */
  worn(first: number, last: number): CellAppearance;
}

export type CellAppearance = Pick<Cell, "insets" | "fill" | "borders" | "anchor">;

const lineUnder = (row: number, rows: number, header: number, { accent, muted, paper }: ThemeColours) =>
  row === rows - 1 || row === header - 1
    ? { colour: accent, width: 1 }
    : { colour: mixed(muted, paper, 0.5), width: 0.5 };
const headingFill = ({ accent, paper }: ThemeColours) => mixed(accent, paper, 0.86);

function gridOf(
  table: Pick<TableElement, "rows" | "header" | "align">,
  width: number,
  size: number,
  setting: Pick<TextContext, "fonts" | "theme" | "language">,
): TableGrid {
  const cells = cellsOf(table, setting);
  const widths = widthsOf(needs(cells, Math.max(...table.rows.map((row) => row.length))), size, width);
  return { widths, heights: heightsOf(cells, table.rows.length, widths, size) };
}

/** Cell appearances, made once for the colours of a theme. */
const looksOnce = new WeakMap<ThemeColours, Map<string, CellAppearance>>();

function cellAppearance(
  size: number,
  heading: boolean,
  line: { colour: string; width: number },
  colours: ThemeColours,
): CellAppearance {
  const held = looksOnce.get(colours) ?? new Map<string, CellAppearance>();
  looksOnce.set(colours, held);
  const key = `${size}/${heading}/${line.colour}/${line.width}`;
  const [side, above] = [PAD.x * size, PAD.y * size];
  const look = held.get(key) ?? {
    insets: [side, above, side, above],
    ...(heading ? { fill: { kind: "solid", colour: headingFill(colours) } } : {}),
    borders: { bottom: line },
  };
  held.set(key, look);
  return look;
}

/**
 * Returns the appearance of a table without one of its own at a text size, `width` points wide, for programs that know
 * nothing of themes. `laid` is its grid where it has been laid out.
 */
export function tableAppearance(
  table: Pick<TableElement, "rows" | "header" | "align">,
  width: number,
  size: number,
  setting: Pick<TextContext, "fonts" | "theme" | "language">,
  laid?: TableGrid,
): TableAppearance {
  const { colours } = setting.theme;
  const { rows, header } = table;
  const under = rows.map((_, row) => {
    const line = lineUnder(row, rows.length, header, colours);
    return [cellAppearance(size, false, line, colours), cellAppearance(size, true, line, colours)] as const;
  });
  return {
    ...(laid ?? gridOf(table, width, size, setting)),
    worn: (first, last) => must(under[last])[first < header ? 1 : 0],
  };
}

/** A table set in a frame: its nodes, the size taken, the height used and the overflow. */
export interface SetTable {
  nodes: SceneNode[];
  size: number;
  used: number;
  overflow: number;
  grid: TableGrid;
}

/**
 * Sets a table in a frame: columns as wide as their words need, rows as high as their cells, at the largest of the
 * given sizes at which all rows fit, or at the smallest when none does.
 */
export function setTable(
  element: TableElement,
  frame: Frame,
  sizes: readonly number[],
  setting: TextContext,
  colours: ThemeColours,
  assets: DeckMetadata["assets"] = {},
): SetTable {
  if (element.widths) return setOwnTable(element, element.widths, frame, must(sizes[0]), setting, assets);
  const columns = Math.max(...element.rows.map((row) => row.length));
  const cells = cellsOf(element, setting);
  const need = needs(cells, columns);
  let size = must(sizes[0]);
  let widths: number[] = [];
  let heights: number[] = [];
  for (const next of sizes) {
    size = next;
    widths = widthsOf(need, size, frame.width);
    heights = heightsOf(cells, element.rows.length, widths, size);
    const tight = need.least.reduce((sum, value) => sum + (value + 2 * PAD.x) * size, 0) > frame.width;
    if (!tight && spanOf(heights, 0, heights.length) <= frame.height + 0.01) break;
  }
  const grid = { widths, heights };
  const used = spanOf(heights, 0, heights.length);
  const overflow = Math.max(0, used - frame.height);
  const nodes: SceneNode[] = [];
  if (setting.measure) return { nodes, size, used, overflow, grid };
  const tops = heights.map((_, at) => frame.y + spanOf(heights, 0, at));
  if (element.header)
    nodes.push({
      kind: "rect",
      x: frame.x,
      y: frame.y,
      width: frame.width,
      height: spanOf(heights, 0, element.header),
      fill: headingFill(colours),
    });
  heights.forEach((height, at) => {
    const line = lineUnder(at, heights.length, element.header, colours);
    nodes.push({
      kind: "rect",
      x: frame.x,
      y: must(tops[at]) + height - line.width,
      width: frame.width,
      height: line.width,
      fill: line.colour,
    });
  });
  for (const cell of cells) {
    const place = {
      x: frame.x + spanOf(widths, 0, cell.column) + PAD.x * size,
      y: must(tops[cell.row]) + PAD.y * size,
      width: spanOf(widths, cell.column, cell.columns) - 2 * PAD.x * size,
      height: spanOf(heights, cell.row, cell.rows) - 2 * PAD.y * size,
    };
    const { lines } = setText(
      cell.cell.text,
      { frame: place, role: "figure", anchor: cell.rows > 1 ? "middle" : "top", align: cell.align },
      [size],
      setting,
    );
    nodes.push({ kind: "text", element: element.id, role: "table", lines });
  }
  return { nodes, size, used, overflow, grid };
}

/** Default padding of a cell (ECMA-376-1, 21.1.3.17: 0.1 inch at the sides, 0.05 above and below). */
const CELL_INSETS = [7.2, 3.6, 7.2, 3.6] as const;

/** Sets a table with widths, fills and borders of its own: rows grow with their text, nothing else changes. */
function setOwnTable(
  { id, rows, align, widths: asked, heights = [] }: TableElement,
  own: readonly number[],
  frame: Frame,
  size: number,
  setting: TextContext,
  assets: DeckMetadata["assets"],
): SetTable {
  const columns = Math.max(...rows.map((row) => row.length));
  const total = spanOf(own, 0, own.length) || 1;
  const widths = Array.from(
    { length: columns },
    (_, at) => ((own[at] ?? (asked?.at(-1) || total / columns)) * frame.width) / total,
  );
  const placed = rows.flatMap((row, y) =>
    row.flatMap((cell, x) => {
      if (!cell) return [];
      const [left, top, right, bottom] = cell.insets ?? CELL_INSETS;
      const [over, down] = [Math.min(cell.columns ?? 1, row.length - x), Math.min(cell.rows ?? 1, rows.length - y)];
      const width = Math.max(1, spanOf(widths, x, over) - left - right);
      const blocks = shapeText(cell.text, "figure", align[x] ?? "start", setting);
      const text = cell.text.length ? breakText(blocks, "figure", size, width).height : size * 1.2;
      return [{ cell, x, y, over, down, need: text + top + bottom, insets: [left, top, right, bottom] as const }];
    }),
  );
  const high = rows.map((_, at) =>
    Math.max(
      heights[at] ?? 0,
      ...placed.filter(({ y, down }) => y === at && down === 1).map(({ need }) => need),
      size * 0.4,
    ),
  );
  for (const { y, down, need } of placed) {
    const lack = need - spanOf(high, y, down);
    if (down > 1 && lack > 0) high[y + down - 1] = must(high[y + down - 1]) + lack;
  }
  const used = spanOf(high, 0, high.length);
  const overflow = Math.max(0, used - Math.max(frame.height, spanOf(heights, 0, heights.length)));
  const nodes: SceneNode[] = [];
  const grid = { widths, heights: high };
  if (setting.measure) return { nodes, size, used, overflow: 0, grid };
  const lines: SceneNode[] = [];
  for (const { cell, x, y, over, down, insets } of placed) {
    const box = {
      x: frame.x + spanOf(widths, 0, x),
      y: frame.y + spanOf(high, 0, y),
      width: spanOf(widths, x, over),
      height: spanOf(high, y, down),
    };
    if (cell.fill) nodes.push(...drawFill(cell.fill, box, id, assets));
    const sides = {
      left: [box.x, box.y, box.x, box.y + box.height],
      top: [box.x, box.y, box.x + box.width, box.y],
      right: [box.x + box.width, box.y, box.x + box.width, box.y + box.height],
      bottom: [box.x, box.y + box.height, box.x + box.width, box.y + box.height],
    } as const;
    for (const [side, [x1, y1, x2, y2]] of Object.entries(sides)) {
      const stroke = cell.borders?.[side as keyof typeof sides];
      if (stroke)
        lines.push({
          kind: "paths",
          element: id,
          paths: [{ d: `M${x1.toFixed(2)} ${y1.toFixed(2)}L${x2.toFixed(2)} ${y2.toFixed(2)}`, ...strokeOf(stroke) }],
        });
    }
    if (isEmptyText(cell.text)) continue;
    const [left, top, right, bottom] = insets;
    const inner = {
      x: box.x + left,
      y: box.y + top,
      width: Math.max(1, box.width - left - right),
      height: Math.max(1, box.height - top - bottom),
    };
    const set = setText(
      cell.text,
      { frame: inner, role: "figure", anchor: cell.anchor ?? "top", align: align[x] ?? "start" },
      [size],
      setting,
    );
    lines.push(
      { kind: "text", element: id, role: "table", lines: set.lines },
      ...bulletNodes(set.lines, id, setting.assets),
    );
  }
  return { nodes: [...nodes, ...lines], size, used, overflow: overflow > frame.height * 0.1 + 12 ? overflow : 0, grid };
}
