import type { PartTextContext } from "./stylesheet";
import { type TableGrid, type CellAppearance, isMirrored, tableAppearance, withCell } from "@unitext/core/layout";
import { type TableElement, type Cell, plainText, must } from "@unitext/core/model";
import { flattenRuns } from "../../../shared/sourcepackage";
import { xml } from "../../../shared/xml";
import { length } from "../package/names";
import { fillAttributes, place } from "./drawing";
import { type Shape, type Work, borderOf, contextFor, inLevels } from "./frame";
import { textXml } from "./text";

type Table = Pick<TableElement, "rows" | "header" | "align" | "widths" | "heights" | "shares" | "style" | "direction">;

/** Returns the appearance of a table: its own, or that of the theme where it has none. */
function tableTransform(
  table: Table,
  { size, frame }: Shape,
  { fonts, theme, metadata }: Work,
  laid: TableGrid | undefined,
): { widths: number[]; heights: number[]; appearanceOf(cell: Cell, row: number): CellAppearance } {
  const { widths, heights = [], rows } = table;
  if (widths) return { widths, heights, appearanceOf: (cell) => cell };
  const look = tableAppearance(table, frame.width, size, { fonts, theme, language: metadata.language }, laid);
  return {
    ...look,
    appearanceOf: (cell, row) =>
      withCell(look.appearanceOf(row, Math.min(row + (cell.rows ?? 1), rows.length) - 1), cell),
  };
}

const SIDES = ["left", "right", "top", "bottom"] as const;

/** Returns the name of the style of cells with an appearance. */
function cellStyle(appearance: CellAppearance, { styles, definitions, file }: Work): string {
  const [left, top, right, bottom] = appearance.insets ?? [7.2, 3.6, 7.2, 3.6];
  return styles.remember("cell", appearance, () =>
    styles.style("table-cell", {
      "graphic-properties": {
        ...fillAttributes(appearance.fill, definitions, file),
        "draw:textarea-vertical-align": appearance.anchor ?? "top",
        "fo:padding-left": length(left),
        "fo:padding-top": length(top),
        "fo:padding-right": length(right),
        "fo:padding-bottom": length(bottom),
      },
      "paragraph-properties": Object.fromEntries(
        SIDES.map((side) => [`fo:border-${side}`, borderOf(appearance.borders?.[side])]),
      ),
    }),
  );
}

function cellXml(cell: Cell | null, appearance: CellAppearance, context: PartTextContext, work: Work): string {
  if (!cell) return "<table:covered-table-cell/>";
  const text = flattenRuns(cell.text, work.notes);
  return xml(
    "table:table-cell",
    {
      "table:style-name": cellStyle(appearance, work),
      "table:number-columns-spanned": cell.columns,
      "table:number-rows-spanned": cell.rows,
    },
    textXml(text.length ? text : plainText(" "), context),
  );
}

function tableXml(table: Table, shape: Shape, work: Work, laid: TableGrid | undefined): string {
  const { rows, header, align } = table;
  const { styles } = work;
  const columns = rows[0]?.length ?? 1;
  const { widths, heights, appearanceOf } = tableTransform(table, shape, work, laid);
  const levels = table.style === undefined ? undefined : work.metadata.styles?.[table.style];
  const columnStyle = (width: number) =>
    styles.remember(`column/${width}`, undefined, () =>
      styles.style("table-column", { "table-column-properties": { "style:column-width": length(width) } }),
    );
  const rowStyle = (height: number) =>
    styles.remember(`row/${height}`, undefined, () =>
      styles.style("table-row", { "table-row-properties": { "style:row-height": length(height) } }),
    );
  // The contexts of body and header cells, by column.
  const contexts = [false, !table.widths].map((bold) =>
    Array.from({ length: columns }, (_, x) =>
      contextFor(work, shape.size, { bold, align: align[x] ?? "start", ...inLevels(levels) }),
    ),
  );
  const lines = rows.map((row, y) => {
    const cells = row.map((cell, x) => {
      const context = must(contexts[y < header ? 1 : 0]?.[x]);
      return cellXml(cell, cell ? appearanceOf(cell, y) : {}, context, work);
    });
    return xml("table:table-row", { "table:style-name": heights[y] ? rowStyle(heights[y]) : undefined }, ...cells);
  });
  const grid = Array.from({ length: columns }, (_, x) =>
    xml("table:table-column", { "table:style-name": columnStyle(widths[x] || shape.frame.width / columns) }),
  );
  // ODF 1.3 part 3, 20.404: the columns of a table run in its writing mode.
  const rightToLeft = styles.remember("table/rl-tb", undefined, () =>
    styles.style("table", { "table-properties": { "style:writing-mode": "rl-tb" } }),
  );
  return xml(
    "table:table",
    {
      "table:style-name": isMirrored(table, work.metadata.language) ? rightToLeft : undefined,
      "table:use-first-row-styles": header ? "true" : undefined,
    },
    ...grid,
    header ? xml("table:table-header-rows", {}, ...lines.slice(0, header)) : "",
    ...lines.slice(header),
  );
}

/**
 * Writes a frame with a table. `laid` has the widths and heights that the layout found; without it they are computed.
 */
export function tableFrame(table: Table, shape: Shape, work: Work, laid?: TableGrid): string {
  return xml(
    "draw:frame",
    { "draw:name": shape.name, "draw:layer": "layout", ...place(shape.frame) },
    tableXml(table, shape, work, laid),
  );
}
