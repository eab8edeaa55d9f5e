import { type Cell, within, must } from "@unitext/core/model";
import type { Block, Figure } from "@unitext/core/text";
import { child, childrenOf, localName, type XmlElement } from "../../shared/xml";
import { cellOf, ColumnSides, tableFigure } from "../../shared/document/table";
import { attributeOf, isOn, propertyValue } from "./styles";

/** Reads the cells of a table: their blocks, and where to report what was adapted. */
export interface CellReader {
  block(element: XmlElement, into: Block[]): void;
  say(message: string): void;
}

/** Returns the rows of a table or the cells of a row, including those in content controls. */
function parts(element: XmlElement, name: "tr" | "tc"): XmlElement[] {
  return element.children.flatMap((part) =>
    localName(part) === name ? [part] : localName(part) === "sdt" ? childrenOf(child(part, "sdtContent"), name) : [],
  );
}

/** Returns the only cell of a table that is a frame around its content; undefined for other tables. */
export function framedCell(table: XmlElement): XmlElement | undefined {
  const [row, ...others] = parts(table, "tr");
  const cells = row ? parts(row, "tc") : [];
  return others.length === 0 &&
    cells.length === 1 &&
    Number(propertyValue(child(child(cells[0], "tcPr"), "gridSpan")) ?? 1) === 1
    ? cells[0]
    : undefined;
}

/** Reads the content of a cell. */
export function cellBlocks(cell: XmlElement, reader: CellReader): Block[] {
  const blocks: Block[] = [];
  for (const inner of cell.children) if (localName(inner) !== "tcPr") reader.block(inner, blocks);
  return blocks;
}

/**
 * Reads a table (ECMA-376-1, 17.4) with merged cells, and blocks that cannot be in it, to follow it. Returns undefined
 * when it has no cell.
 */
export function readTable(
  element: XmlElement,
  reader: CellReader,
): { figure: Extract<Figure, { kind: "table" }>; after: Block[] } | undefined {
  const rows = parts(element, "tr");
  const grid: (Cell | null)[][] = rows.map(() => []);
  const sides = new ColumnSides();
  const open = new Map<number, Cell>();
  const after: Block[] = [];
  let header = 0;
  rows.forEach((row, y) => {
    const line = must(grid[y]);
    const properties = child(row, "trPr");
    if (child(properties, "tblHeader") && isOn(child(properties, "tblHeader")) && header === y) header = y + 1;
    let x = Math.max(0, Math.trunc(Number(propertyValue(child(properties, "gridBefore")) ?? 0)) || 0);
    within("columns", x, "table");
    for (let skip = 0; skip < x; skip++) line[skip] = { text: [] };
    for (const cell of parts(row, "tc")) {
      const own = child(cell, "tcPr");
      const columns = Math.min(60, Math.max(1, Number(propertyValue(child(own, "gridSpan")) ?? 1) || 1));
      const merge = child(own, "vMerge");
      const above = merge && (propertyValue(merge) ?? "continue") === "continue" ? open.get(x) : undefined;
      if (above) {
        above.rows = (above.rows ?? 1) + 1;
        line[x] = null;
      } else {
        const { text, side, after: held } = cellOf(cellBlocks(cell, reader));
        after.push(...held);
        if (y >= header && text.length) sides.add(x, side);
        const made: Cell = { text, ...(columns > 1 ? { columns } : {}) };
        line[x] = made;
        if (merge) open.set(x, made);
        else open.delete(x);
      }
      for (let dx = 1; dx < columns; dx++) line[x + dx] = null;
      x += columns;
      within("columns", x, "table");
    }
  });
  const look = child(child(element, "tblPr"), "tblLook");
  const first =
    attributeOf(look, "firstRow") === "1" || (Number.parseInt(attributeOf(look, "val") ?? "0", 16) & 0x20) !== 0;
  const figure = tableFigure({ grid, align: sides.columns(), header, first }, (message) => reader.say(message));
  return figure && { figure, after };
}
