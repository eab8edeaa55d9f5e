import { type Cell, type Frame, isEmptyText, type TableElement, within } from "@unitext/core/model";
import { child, localName, type XmlNode, attribute } from "../../../shared/xml";
import { points } from "../package/names";
import { cellProperties, withTableStyle } from "./cells";
import type { Properties } from "./properties";
import { round } from "./shapegeometry";
import type { ShapeStyles } from "./shapestyles";

const repeated = (element: XmlNode, name: string, most: number) =>
  Math.min(most, Math.max(1, Number(attribute(element, name) ?? 1) || 1));

function gather(
  holder: XmlNode,
  name: string,
  headers: string,
  body: string,
  head = false,
): { element: XmlNode; head: boolean }[] {
  return holder.children.flatMap((part) => {
    const kind = localName(part);
    if (kind === name) return [{ element: part, head }];
    if (kind === headers) return gather(part, name, headers, body, true);
    return kind === body || kind === `${name}-group` ? gather(part, name, headers, body, head) : [];
  });
}

interface TableParts {
  table: XmlNode;
  columns: readonly XmlNode[];
  /** The rows, with whether each is a header. */
  rows: readonly { element: XmlNode; head: boolean }[];
}

/** Returns the columns and rows of a table, repeated ones once for each repetition. */
function partsOf(table: XmlNode): TableParts {
  const columns = gather(table, "table-column", "table-header-columns", "table-columns")
    .flatMap(({ element }) => Array.from({ length: repeated(element, "number-columns-repeated", 200) }, () => element))
    .slice(0, 200);
  const rows = gather(table, "table-row", "table-header-rows", "table-rows")
    .flatMap((row) => Array.from({ length: repeated(row.element, "number-rows-repeated", 500) }, () => row))
    .slice(0, 2000);
  return { table, columns, rows };
}

const isSet = (table: XmlNode, name: string) => attribute(table, name) === "true";

/** Returns the style name that the table's template gives to a cell; undefined where it has none. */
function templateStyle(
  { table, columns, rows }: TableParts,
  template: XmlNode | undefined,
  x: number,
  y: number,
): string | undefined {
  if (!template) return undefined;
  const part = (name: string) => attribute(child(template, name), "style-name");
  if (isSet(table, "use-first-row-styles") && y === 0) return part("first-row");
  if (isSet(table, "use-last-row-styles") && y === rows.length - 1) return part("last-row");
  if (isSet(table, "use-first-column-styles") && x === 0) return part("first-column");
  if (isSet(table, "use-last-column-styles") && x === columns.length - 1) return part("last-column");
  const band = isSet(table, "use-banding-rows-styles")
    ? part(y % 2 ? "odd-rows" : "even-rows")
    : isSet(table, "use-banding-columns-styles")
      ? part(x % 2 ? "odd-columns" : "even-columns")
      : undefined;
  return band ?? part("body");
}

/** Reads the cells of a table; covered cells are null. */
class CellReader {
  private readonly covered = new Set<string>();
  /** The style of the first cell's text, without bold and italic: that of the whole table. */
  style: string | undefined;

  constructor(
    private readonly styles: ShapeStyles,
    private readonly parts: TableParts,
    private readonly template: XmlNode | undefined,
  ) {}

  row(row: XmlNode, y: number): (Cell | null)[] {
    const width = this.parts.columns.length;
    const cells: (Cell | null)[] = [];
    for (const cell of row.children) {
      const kind = localName(cell);
      if (kind !== "table-cell" && kind !== "covered-table-cell") continue;
      for (let left = repeated(cell, "number-columns-repeated", 200); left > 0 && cells.length < width; left--) {
        const isCovered = kind === "covered-table-cell" || this.covered.has(`${y}/${cells.length}`);
        cells.push(isCovered ? null : this.cell(cell, row, cells.length, y));
      }
    }
    while (cells.length < width) cells.push(this.covered.has(`${y}/${cells.length}`) ? null : { text: [] });
    return cells;
  }

  private cell(cell: XmlNode, row: XmlNode, x: number, y: number): Cell {
    const { styles } = this;
    const { columns, rows } = this.parts;
    const properties = this.properties(cell, row, x, y);
    const { text, style } = styles.text(cell.children, properties, undefined, true);
    this.style ??= styles.unmarked(style);
    const wide = Math.min(repeated(cell, "number-columns-spanned", 200), columns.length - x);
    const tall = Math.min(repeated(cell, "number-rows-spanned", 500), rows.length - y);
    for (let dy = 0; dy < tall; dy++)
      for (let dx = 0; dx < wide; dx++) if (dx || dy) this.covered.add(`${y + dy}/${x + dx}`);
    const words = withTableStyle(text, style, this.style, styles.work);
    return {
      text: isEmptyText(words) && !words.some((paragraph) => paragraph.properties?.words) ? [] : words,
      ...(wide > 1 ? { columns: wide } : {}),
      ...(tall > 1 ? { rows: tall } : {}),
      ...cellProperties(properties, styles.paint(properties.graphic)),
    };
  }

  private properties(cell: XmlNode, row: XmlNode, x: number, y: number): Properties {
    const { styles } = this.styles.work;
    const own =
      attribute(cell, "style-name") ??
      attribute(row, "default-cell-style-name") ??
      attribute(this.parts.columns[x], "default-cell-style-name");
    const usual = templateStyle(this.parts, this.template, x, y);
    // Without a template, text has the style of the default cell, where a file has one (common practice, no source).
    const base =
      usual === undefined
        ? { ...styles.properties("table-cell", undefined), text: styles.properties("table-cell", "default").text }
        : styles.properties("table-cell", usual);
    return own === undefined ? base : styles.said("table-cell", own, base);
  }
}

/** Reads a table that is as wide as its frame; undefined when it has no cells. Throws a Failure for too many cells. */
export function readTable(
  shapes: ShapeStyles,
  table: XmlNode,
  frame: Frame,
): Omit<TableElement, "id" | "slot" | "frame"> | undefined {
  const { styles } = shapes.work;
  const parts = partsOf(table);
  const { columns, rows } = parts;
  within("cells", rows.length * columns.length, "table");
  if (!rows.length || !columns.length) return undefined;
  const template = styles.drawn.get(`table-template ${attribute(table, "template-name")}`);
  const cells = new CellReader(shapes, parts, template);
  const grid = rows.map(({ element }, y) => cells.row(element, y));
  const stated = columns.map(
    (column) => points(styles.properties("table-column", attribute(column, "style-name")).cell["column-width"]) ?? 0,
  );
  const sum = stated.reduce((total, width) => total + width, 0);
  const heights = rows.map(({ element }) => {
    const { cell } = styles.properties("table-row", attribute(element, "style-name"));
    return round(points(cell["row-height"] ?? cell["min-row-height"]) ?? 0);
  });
  const header = rows.findIndex(({ head }) => !head);
  const mode = styles.properties("table", attribute(table, "style-name")).cell["writing-mode"];
  return {
    kind: "table",
    ...(mode?.startsWith("rl") ? { direction: "rtl" as const } : {}),
    rows: grid,
    header: header > 0 ? header : isSet(table, "use-first-row-styles") ? 1 : 0,
    align: columns.map(() => "start" as const),
    widths: stated.map((width) => round(sum > 0 ? (width / sum) * frame.width : frame.width / columns.length)),
    heights,
    ...(cells.style ? { style: cells.style } : {}),
  };
}
