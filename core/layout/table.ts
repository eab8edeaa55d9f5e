import {
  type Align,
  type Cell,
  DESIGNS,
  type DeckMetadata,
  type DesignDescriptor,
  type Frame,
  type RichText,
  type TableElement,
  mixed,
  type Theme,
  type ThemeColours,
  must,
} from "@unitext/core/model";
import type { SceneNode, TableGrid } from "./scene";
import { breakText } from "./breaktext";
import { setText, shapeText } from "./text";
import type { ParagraphLayout, TextContext } from "./textstyle";
import { borderNodes, mirroredCell, setOwnTable } from "./owntable";
import { drawFill } from "./shapes";
import { columnLeft, spanOf, type SetTable } from "./tablegrid";

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
export function needs(cells: readonly Placed[], columns: number): { least: number[]; most: number[] } {
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

/**
 * Returns column widths in points: those of `shares` where a table has them; else what columns need, and the rest
 * distributed by how much they could use.
 */
function widthsOf(
  { least, most }: ReturnType<typeof needs>,
  size: number,
  width: number,
  shares: readonly number[] | undefined,
): number[] {
  if (shares?.length === least.length) {
    const all = spanOf(shares, 0, shares.length);
    return shares.map((share) => (share * width) / all);
  }
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

/** Returns row heights in points: what the cells need, and no less than `given`. */
function heightsOf(
  cells: readonly Placed[],
  rows: number,
  widths: readonly number[],
  size: number,
  given: readonly number[] = [],
): number[] {
  const line = size * (1.25 + 2 * PAD.y);
  const heights = Array.from({ length: rows }, (_, row) => Math.max(line, given[row] ?? 0));
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

/** The theme's appearance of tables in terms that a file can express: lengths in points. */
export interface TableAppearance extends TableGrid {
  /** Returns the appearance of a cell by its first and last row; equal ones are the same object. */
  appearanceOf(first: number, last: number): CellAppearance;
}

export type CellAppearance = Pick<Cell, "insets" | "fill" | "borders" | "anchor">;

type Line = { colour: string; width: number };

/** How a design draws tables: the line under a row, and the fill of header and rows. */
interface TableStyle {
  line: (row: number, rows: number, header: number, colours: ThemeColours) => Line | undefined;
  fill: (row: number, header: number, colours: ThemeColours) => string | undefined;
}

const isEdge = (row: number, rows: number, header: number) => row === rows - 1 || row === header - 1;

const TABLES: Record<NonNullable<DesignDescriptor["table"]>, TableStyle> = {
  rules: {
    line: (row, rows, header, { accent, muted, paper }) =>
      isEdge(row, rows, header)
        ? { colour: accent, width: row === header - 1 ? 1.5 : 1 }
        : { colour: mixed(muted, paper, 0.6), width: 0.5 },
    fill: () => undefined,
  },
  bands: {
    line: (row, rows, header, { accent }) => (isEdge(row, rows, header) ? { colour: accent, width: 1 } : undefined),
    fill: (row, header, { accent, paper }) =>
      row < header ? mixed(accent, paper, 0.84) : (row - header) % 2 ? mixed(accent, paper, 0.94) : undefined,
  },
  filled: {
    line: (row, _, header, { muted, paper }) =>
      row < header ? undefined : { colour: mixed(muted, paper, 0.6), width: 0.5 },
    fill: (row, header, { accent, paper }) => (row < header ? mixed(accent, paper, 0.7) : undefined),
  },
};

const tableStyle = ({ design }: Theme): TableStyle => TABLES[DESIGNS[design].table ?? "bands"];

type ThemedTable = Pick<TableElement, "rows" | "header" | "align" | "shares" | "heights">;

function gridOf(
  table: ThemedTable,
  width: number,
  size: number,
  setting: Pick<TextContext, "fonts" | "theme" | "language">,
): TableGrid {
  const cells = cellsOf(table, setting);
  const need = needs(cells, Math.max(...table.rows.map((row) => row.length)));
  const widths = widthsOf(need, size, width, table.shares);
  return { widths, heights: heightsOf(cells, table.rows.length, widths, size, table.heights) };
}

/** How much larger than the theme says tables and code may be, where nothing breaks for it: a few lines of code more. */
const GROWTH = { table: [1.3, 1.2, 1.1], code: [1.6, 1.45, 1.3, 1.2, 1.1] } as const;

/** Returns the sizes above the largest of a list; none for a figure that shares its place and takes a given size. */
export const grownSizes = (sizes: readonly number[], kind: keyof typeof GROWTH): number[] =>
  sizes.length > 1 ? GROWTH[kind].map((factor) => must(sizes[0]) * factor) : [];

/** Cell appearances, made once for the colours of a theme. */
const appearances = new WeakMap<ThemeColours, Map<string, CellAppearance>>();

function cellAppearance(
  size: number,
  fill: string | undefined,
  line: Line | undefined,
  colours: ThemeColours,
): CellAppearance {
  const held = appearances.get(colours) ?? new Map<string, CellAppearance>();
  appearances.set(colours, held);
  const key = `${size}/${fill}/${line?.colour}/${line?.width}`;
  const [side, above] = [PAD.x * size, PAD.y * size];
  const made = held.get(key) ?? {
    insets: [side, above, side, above],
    ...(fill ? { fill: { kind: "solid", colour: fill } } : {}),
    ...(line ? { borders: { bottom: line } } : {}),
  };
  held.set(key, made);
  return made;
}

/**
 * Returns the appearance of a table without one of its own at a text size, `width` points wide, for programs that know
 * nothing of themes. `laid` is its grid where it has been laid out.
 */
export function tableAppearance(
  table: ThemedTable,
  width: number,
  size: number,
  setting: Pick<TextContext, "fonts" | "theme" | "language">,
  laid?: TableGrid,
): TableAppearance {
  const { colours } = setting.theme;
  const { rows, header } = table;
  const style = tableStyle(setting.theme);
  return {
    ...(laid ?? gridOf(table, width, size, setting)),
    appearanceOf: (first, last) =>
      cellAppearance(size, style.fill(first, header, colours), style.line(last, rows.length, header, colours), colours),
  };
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
  assets: DeckMetadata["assets"] = {},
): SetTable {
  if (element.widths) return setOwnTable(element, element.widths, frame, must(sizes[0]), setting, assets);
  const columns = Math.max(...element.rows.map((row) => row.length));
  const cells = cellsOf(element, setting);
  const need = needs(cells, columns);
  let size = must(sizes[0]);
  let widths: number[] = [];
  let heights: number[] = [];
  const grown = grownSizes(sizes, "table");
  for (const next of [...grown, ...sizes]) {
    size = next;
    widths = widthsOf(need, size, frame.width, element.shares);
    heights = heightsOf(cells, element.rows.length, widths, size, element.heights);
    const wanted = size > must(sizes[0]) ? need.most : need.least;
    const tight = wanted.reduce((sum, value) => sum + (value + 2 * PAD.x) * size, 0) > frame.width;
    if (!tight && spanOf(heights, 0, heights.length) <= frame.height + 0.01) break;
  }
  const used = spanOf(heights, 0, heights.length);
  const table = { size, used, overflow: Math.max(0, used - frame.height), grid: { widths, heights } };
  if (setting.measure) return { nodes: [], ...table };
  const nodes = [
    ...tableRules(element, cells, frame, table.grid, setting),
    ...cells.flatMap((cell) => cellLooks(element.id, cell, frame, table.grid, setting, assets)),
    ...cells.map((cell) => cellNode(element.id, cell, frame, table.grid, size, setting)),
  ];
  return { nodes, ...table };
}

/** Returns the stretches of columns that no cell reaches over from one row to the next, as first column and count. */
function freeColumns(columns: number, across: readonly Placed[]): [from: number, count: number][] {
  const found: [number, number][] = [];
  for (let column = 0; column < columns; column++) {
    if (across.some((cell) => column >= cell.column && column < cell.column + cell.columns)) continue;
    const last = found.at(-1);
    if (last && last[0] + last[1] === column) last[1] += 1;
    else found.push([column, 1]);
  }
  return found;
}

/** Draws the fills behind rows, and the rules under them. */
function tableRules(
  { header }: TableElement,
  cells: readonly Placed[],
  frame: Frame,
  { widths, heights }: TableGrid,
  setting: TextContext,
): SceneNode[] {
  const { x, y, width } = frame;
  const { theme } = setting;
  const { colours } = theme;
  const style = tableStyle(theme);
  const fills: SceneNode[] = [];
  const rules: SceneNode[] = [];
  heights.forEach((height, row) => {
    const top = y + spanOf(heights, 0, row);
    const fill = style.fill(row, header, colours);
    if (fill) fills.push({ kind: "rect", x, y: top, width, height, fill });
    const line = style.line(row, heights.length, header, colours);
    if (!line) return;
    const across = cells.filter((cell) => cell.row <= row && cell.row + cell.rows - 1 > row);
    for (const [from, count] of freeColumns(widths.length, across)) {
      const left = columnLeft(frame, widths, from, count, setting);
      const wide = spanOf(widths, from, count);
      rules.push({
        kind: "rect",
        x: left,
        y: top + height - line.width,
        width: wide,
        height: line.width,
        fill: line.colour,
      });
    }
  });
  return [...fills, ...rules];
}

/** Draws the fill and the borders that a cell has of its own, over those of the design. */
function cellLooks(
  element: string,
  { cell, row, rows, column, columns }: Placed,
  frame: Frame,
  { widths, heights }: TableGrid,
  setting: TextContext,
  assets: DeckMetadata["assets"],
): SceneNode[] {
  if (!cell.fill && !cell.borders) return [];
  const box = {
    x: columnLeft(frame, widths, column, columns, setting),
    y: frame.y + spanOf(heights, 0, row),
    width: spanOf(widths, column, columns),
    height: spanOf(heights, row, rows),
  };
  return [
    ...(cell.fill ? drawFill(cell.fill, box, element, assets) : []),
    ...borderNodes(setting.mirrored ? mirroredCell(cell) : cell, box, element),
  ];
}

/** Returns the appearance of a cell of a table that looks as the design has it: what it sets itself comes first. */
export function withCell(appearance: CellAppearance, { fill, borders, anchor, insets }: Cell): CellAppearance {
  if (!fill && !borders && !anchor && !insets) return appearance;
  return {
    ...appearance,
    ...(fill ? { fill } : {}),
    ...(borders ? { borders: { ...appearance.borders, ...borders } } : {}),
    ...(anchor ? { anchor } : {}),
    ...(insets ? { insets } : {}),
  };
}

function cellNode(
  element: string,
  cell: ReturnType<typeof cellsOf>[number],
  frame: Frame,
  { widths, heights }: TableGrid,
  size: number,
  setting: TextContext,
): SceneNode {
  const place = {
    x: columnLeft(frame, widths, cell.column, cell.columns, setting) + PAD.x * size,
    y: frame.y + spanOf(heights, 0, cell.row) + PAD.y * size,
    width: spanOf(widths, cell.column, cell.columns) - 2 * PAD.x * size,
    height: spanOf(heights, cell.row, cell.rows) - 2 * PAD.y * size,
  };
  const anchor = cell.cell.anchor ?? (cell.rows > 1 ? "middle" : "top");
  const { lines } = setText(
    cell.cell.text,
    { frame: place, role: "figure", anchor, align: cell.align },
    [size],
    setting,
  );
  return { kind: "text", element, role: "table", lines };
}
