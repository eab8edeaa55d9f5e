import { type Cell, within } from "@unitext/core/model";
import type { Block, Figure } from "@unitext/core/text";
import { localName, type XmlNode, attribute } from "../../shared/xml";
import { cellOf, ColumnSides, tableFigure } from "../../shared/document/table";

/** Reads the cells of a table: their blocks, and where to report what was adapted. */
export interface CellReader {
  blocks(children: readonly XmlNode[], into: Block[]): void;
  say(message: string): void;
}

const count = (element: XmlNode, name: string, most: number) =>
  Math.min(most, Math.max(1, Number(attribute(element, name) ?? 1) || 1));

/** Returns the rows of a table in order, repeated rows included, and whether each is a header. */
function rowsOf(holder: XmlNode, head = false): { row: XmlNode; head: boolean }[] {
  return holder.children.flatMap((part) => {
    const name = localName(part);
    if (name === "table-row")
      return Array.from({ length: count(part, "number-rows-repeated", 200) }, () => ({ row: part, head }));
    if (name === "table-header-rows") return rowsOf(part, true);
    return name === "table-rows" || name === "table-row-group" ? rowsOf(part, head) : [];
  });
}

/**
 * Reads a table (OpenDocument 1.2, 9.1) with merged cells, and blocks that cannot be in it, to follow it. Returns
 * undefined when it has no cell.
 */
export function readTable(
  element: XmlNode,
  reader: CellReader,
): { figure: Extract<Figure, { kind: "table" }>; after: Block[] } | undefined {
  const rows = rowsOf(element);
  within("cells", rows.length, "table");
  let places = 0;
  const after: Block[] = [];
  const sides = new ColumnSides();
  const first = rows.findIndex(({ head }) => !head);
  const header = first < 0 ? rows.length : first;
  const grid = rows.map(({ row }, y) => {
    const cells: (Cell | null)[] = [];
    for (const part of row.children) {
      const repeated = count(part, "number-columns-repeated", 100);
      places += repeated;
      within("cells", places, "table");
      if (localName(part) === "covered-table-cell") for (let copy = 0; copy < repeated; copy++) cells.push(null);
      if (localName(part) !== "table-cell") continue;
      const blocks: Block[] = [];
      reader.blocks(part.children, blocks);
      const { text, side, after: held } = cellOf(blocks);
      after.push(...held);
      if (y >= header && text.length) sides.add(cells.length, side);
      const columns = count(part, "number-columns-spanned", 100);
      const down = count(part, "number-rows-spanned", rows.length - y);
      for (let copy = 0; copy < repeated; copy++)
        cells.push({ text, ...(columns > 1 ? { columns } : {}), ...(down > 1 ? { rows: down } : {}) });
    }
    return cells;
  });
  const figure = tableFigure({ grid, align: sides.columns(), header }, (message) => reader.say(message));
  return figure && { figure, after };
}
