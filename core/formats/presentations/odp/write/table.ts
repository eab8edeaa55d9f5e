import { type TableGrid, type CellAppearance, tableAppearance } from "@unitext/core/layout";
import { type TableElement, type Cell, plainText, must } from "@unitext/core/model";
import { flattenRuns } from "../../../shared/sourcepackage";
import { xml } from "../../../shared/xml";
import { length } from "../package/names";
import { fillAttributes, place } from "./drawing";
import { type Shape, type Work, borderOf, contextFor, inLevels } from "./frame";
import { textXml } from "./text";

type Table = Pick<TableElement, "rows" | "header" | "align" | "widths" | "heights" | "style">;

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
    appearanceOf: (cell, row) => look.appearanceOf(row, Math.min(row + (cell.rows ?? 1), rows.length) - 1),
  };
}

function tableXml(table: Table, shape: Shape, work: Work, laid: TableGrid | undefined): string {
  const { rows, header, align } = table;
  const { styles } = work;
  const columns = rows[0]?.length ?? 1;
  const { widths, heights, appearanceOf } = tableTransform(table, shape, work, laid);
  const levels = table.style === undefined ? undefined : work.metadata.styles?.[table.style];
  const column = (width: number) =>
    styles.remember(`column/${width}`, undefined, () =>
      styles.style("table-column", { "table-column-properties": { "style:column-width": length(width) } }),
    );
  const high = (height: number) =>
    styles.remember(`row/${height}`, undefined, () =>
      styles.style("table-row", { "table-row-properties": { "style:row-height": length(height) } }),
    );
  const styleOf = (look: CellAppearance) => {
    const [left, top, right, bottom] = look.insets ?? [7.2, 3.6, 7.2, 3.6];
    return styles.remember("cell", look, () =>
      styles.style("table-cell", {
        "graphic-properties": {
          ...fillAttributes(look.fill, work.definitions, work.file),
          "draw:textarea-vertical-align": look.anchor ?? "top",
          "fo:padding-left": length(left),
          "fo:padding-top": length(top),
          "fo:padding-right": length(right),
          "fo:padding-bottom": length(bottom),
        },
        "paragraph-properties": Object.fromEntries(
          (["left", "right", "top", "bottom"] as const).map((side) => [
            `fo:border-${side}`,
            borderOf(look.borders?.[side]),
          ]),
        ),
      }),
    );
  };
  const sided = [false, !table.widths].map((bold) =>
    Array.from({ length: columns }, (_, x) =>
      contextFor(work, shape.size, { bold, align: align[x] ?? "start", ...inLevels(levels) }),
    ),
  );
  const cell = (one: Cell | null, x: number, y: number) => {
    if (!one) return "<table:covered-table-cell/>";
    const text = flattenRuns(one.text, work.notes);
    return xml(
      "table:table-cell",
      {
        "table:style-name": styleOf(appearanceOf(one, y)),
        "table:number-columns-spanned": one.columns,
        "table:number-rows-spanned": one.rows,
      },
      textXml(text.length ? text : plainText(" "), must(sided[y < header ? 1 : 0]?.[x])),
    );
  };
  const line = (row: (Cell | null)[], y: number) =>
    xml(
      "table:table-row",
      { "table:style-name": heights[y] ? high(heights[y]) : undefined },
      ...row.map((one, x) => cell(one, x, y)),
    );
  const lines = rows.map(line);
  const grid = Array.from({ length: columns }, (_, x) =>
    xml("table:table-column", { "table:style-name": column(widths[x] || shape.frame.width / columns) }),
  );
  return xml(
    "table:table",
    { "table:use-first-row-styles": header ? "true" : undefined },
    ...grid,
    header ? xml("table:table-header-rows", {}, ...lines.slice(0, header)) : "",
    ...lines.slice(header),
  );
}

export function tableFrame(table: Table, shape: Shape, work: Work, laid?: TableGrid): string {
  return xml(
    "draw:frame",
    { "draw:name": shape.name, "draw:layer": "layout", ...place(shape.frame) },
    tableXml(table, shape, work, laid),
  );
}
