import { must, type Align, type Cell, type Run, within } from "@unitext/core/model";
import type { Element as HtmlElement, Nodes } from "hast";
import type { Figure } from "./manuscript";
import { isElement, styleOf, textIn } from "./htmlnodes";

/** The rows of a table in HTML. */
interface TableRows {
  rows: HtmlElement[];
  /** The rows inside `thead`. */
  heads: ReadonlySet<HtmlElement>;
  caption: string | undefined;
}

const elementsIn = (parent: HtmlElement): HtmlElement[] =>
  parent.children.filter((child): child is HtmlElement => isElement(child as Nodes));

/** Returns the rows of a table, and its caption. */
export function tableRows(table: HtmlElement): TableRows {
  const rows: HtmlElement[] = [];
  const heads = new Set<HtmlElement>();
  let caption: string | undefined;
  const walk = (parent: HtmlElement, isHead: boolean): void => {
    for (const element of elementsIn(parent)) {
      const { tagName } = element;
      if (tagName === "caption") caption = textIn(element).replace(/\s+/g, " ").trim();
      else if (tagName === "tr") {
        rows.push(element);
        if (isHead) heads.add(element);
      } else if (["thead", "tbody", "tfoot"].includes(tagName)) walk(element, tagName === "thead");
    }
  };
  walk(table, false);
  return { rows, heads, caption };
}

export const cellsOf = (row: HtmlElement): HtmlElement[] =>
  elementsIn(row).filter(({ tagName }) => tagName === "td" || tagName === "th");

const sideOf = (cell: HtmlElement): Align | undefined => {
  const css = `${styleOf(cell)};text-align:${String(cell.properties.align ?? "")}`;
  const side = /text-align:\s*(center|right)/.exec(css)?.[1];
  return side === "center" ? "centre" : side ? "end" : undefined;
};

/** The cells of a table, placed into a grid as HTML places them: spanned places are null, others undefined. */
class TableGrid {
  readonly align: Align[] = [];
  header = 0;
  private readonly grid: (Cell | null | undefined)[][];
  private places = 0;

  constructor(private readonly rows: number) {
    this.grid = Array.from({ length: rows }, () => []);
  }

  /** Places the cells of a row, the next ones after the places that cells above span. */
  row(y: number, cells: readonly HtmlElement[], inline: (cell: HtmlElement) => Run[]): void {
    let x = 0;
    for (const cell of cells) {
      while (this.grid[y]?.[x] !== undefined) x++;
      const columns = Math.min(200, Math.max(1, Number(cell.properties.colSpan ?? 1) || 1));
      const down = Math.min(this.rows - y, Math.max(1, Number(cell.properties.rowSpan ?? 1) || 1));
      const side = sideOf(cell);
      if (side && y >= this.header) this.align[x] = side;
      const runs = inline(cell);
      this.span(x, y, columns, down);
      must(this.grid[y])[x] = {
        text: runs.length ? [{ kind: "plain", level: 0, runs }] : [],
        ...(columns > 1 ? { columns } : {}),
        ...(down > 1 ? { rows: down } : {}),
      };
      x += columns;
    }
  }

  /** Returns the grid with empty cells where HTML has none. Throws a Failure for too many cells. */
  cells(): (Cell | null)[][] {
    const width = Math.max(0, ...this.grid.map(({ length }) => length));
    within("cells", width * this.rows, "table");
    return this.grid.map((row) =>
      Array.from({ length: width }, (_, at) => (row[at] === undefined ? { text: [] } : row[at])),
    );
  }

  private span(x: number, y: number, columns: number, down: number): void {
    this.places += columns * down;
    within("cells", this.places, "table");
    for (let dy = 0; dy < down; dy++) for (let dx = 0; dx < columns; dx++) must(this.grid[y + dy])[x + dx] = null;
  }
}

/** Returns a table of a document; undefined when it has no cells. `inline` reads the runs of a cell. */
export function tableFigure(
  { rows, heads, caption: own }: TableRows,
  inline: (cell: HtmlElement) => Run[],
  caption: string | undefined,
): Extract<Figure, { kind: "table" }> | undefined {
  const grid = new TableGrid(rows.length);
  rows.forEach((row, y) => {
    const cells = cellsOf(row);
    const isHead = heads.has(row) || cells.every(({ tagName }) => tagName === "th");
    if (grid.header === y && cells.length && isHead) grid.header = y + 1;
    grid.row(y, cells, inline);
  });
  const cells = grid.cells();
  const width = cells[0]?.length ?? 0;
  if (!width) return undefined;
  const words = own ?? caption;
  return {
    kind: "table",
    rows: cells,
    header: Math.min(grid.header, cells.length),
    align: Array.from({ length: width }, (_, at) => grid.align[at] ?? "start"),
    ...(words ? { caption: words } : {}),
  };
}
