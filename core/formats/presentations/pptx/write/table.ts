import type { CellAppearance } from "@unitext/core/layout";
import { type Cell, type RichText, type TableElement, within } from "@unitext/core/model";
import { type XmlElement, childrenOf, child, localName, xml } from "../../../shared/xml";
import { emu } from "../package/names";
import { strokeXml } from "./drawing";

type Table = Pick<TableElement, "rows" | "header" | "align">;

/**
 * The appearance of a table in a file: lengths in points, the appearance of cells by row, and whether headings are bold
 * by the theme.
 */
export interface TableMetrics {
  widths: readonly number[];
  heights: readonly number[];
  appearanceOf(cell: Cell, row: number): CellAppearance;
  bold: boolean;
}

/** Covered cells are marked as such (ECMA-376-1, 21.1.3.18). */
function coveredIn(rows: Table["rows"]): ReadonlyMap<string, { hMerge?: 1; vMerge?: 1 }> {
  const covered = new Map<string, { hMerge?: 1; vMerge?: 1 }>();
  for (const [y, row] of rows.entries())
    for (const [x, cell] of row.entries()) {
      for (let down = 0; down < (cell?.rows ?? 1); down++)
        for (let right = 0; right < (cell?.columns ?? 1); right++)
          if (down || right)
            covered.set(`${y + down}/${x + right}`, {
              ...(right ? { hMerge: 1 } : {}),
              ...(down ? { vMerge: 1 } : {}),
            });
    }
  return covered;
}

const EDGES = { left: "a:lnL", right: "a:lnR", top: "a:lnT", bottom: "a:lnB" } as const;
const ANCHOR = { top: undefined, middle: "ctr", bottom: "b" } as const;

/**
 * Writes a table (`a:tbl`, ECMA-376-1, 21.1.3.13); `paragraphs` writes the text of a cell, `fill` its fill;
 * `rtl` is whether its first column is at the right.
 */
export function tableXml(
  { rows, header, align }: Table,
  rtl: boolean,
  { widths, heights, appearanceOf, bold }: TableMetrics,
  paragraphs: (text: RichText) => string,
  fill: (fill: NonNullable<Cell["fill"]>) => string,
): string {
  const covered = coveredIn(rows);
  const cell = (one: Cell | null, x: number, y: number) => {
    const { insets, borders, anchor, ...look } = one ? appearanceOf(one, y) : {};
    const [left, top, right, bottom] = insets ?? [7.2, 3.6, 7.2, 3.6];
    const sided = (one?.text ?? []).map((paragraph) => ({
      ...paragraph,
      ...(paragraph.align || align[x] === undefined || align[x] === "start" ? {} : { align: align[x] }),
      ...(bold && y < header ? { runs: paragraph.runs.map(strong) } : {}),
    }));
    const edges = (["left", "right", "top", "bottom"] as const)
      .map((side) => strokeXml(borders?.[side] ?? null, EDGES[side]))
      .join("");
    return xml(
      "a:tc",
      { gridSpan: one?.columns, rowSpan: one?.rows, ...covered.get(`${y}/${x}`) },
      xml("a:txBody", {}, "<a:bodyPr/><a:lstStyle/>", paragraphs(sided)),
      xml(
        "a:tcPr",
        { marL: emu(left), marR: emu(right), marT: emu(top), marB: emu(bottom), anchor: ANCHOR[anchor ?? "top"] },
        edges,
        look.fill ? fill(look.fill) : "<a:noFill/>",
      ),
    );
  };
  const grid = xml("a:tblGrid", {}, ...widths.map((width) => xml("a:gridCol", { w: emu(width) })));
  return xml(
    "a:tbl",
    {},
    xml("a:tblPr", { rtl: rtl ? 1 : undefined, firstRow: header ? 1 : undefined }),
    grid,
    ...rows.map((row, y) => xml("a:tr", { h: emu(heights[y] ?? 0) }, ...row.map((one, x) => cell(one, x, y)))),
  );
}

const strong = (run: RichText[number]["runs"][number]) => ({
  ...run,
  marks: [...new Set([...(run.marks ?? []), "strong" as const])],
});

/** Reads a table; the bold of a header row is taken as part of its being a header. */
export function readTable(table: XmlElement, body: (text: XmlElement | undefined) => RichText): Table | undefined {
  const rows = childrenOf(table, "tr");
  const width = Math.max(0, ...rows.map((row) => childrenOf(row, "tc").length));
  if (!rows.length || !width) return undefined;
  within("cells", width * rows.length, "table");
  const on = (value: string | undefined) => value === "1" || value === "true";
  const header = on(child(table, "tblPr")?.attributes.firstRow) ? 1 : 0;
  const align: Table["align"] = Array.from({ length: width }, () => "start");
  const read = rows.map((row, y) => {
    const cells = childrenOf(row, "tc");
    return Array.from({ length: width }, (_, x): Cell | null => {
      const cell = cells[x];
      if (!cell) return { text: [] };
      const { gridSpan, rowSpan, hMerge, vMerge } = cell.attributes;
      if (on(hMerge) || on(vMerge)) return null;
      const text = body(cell.children.find((part) => localName(part) === "txBody"));
      const side = text[0]?.align;
      if (side && y >= header) align[x] = side;
      const plain = text
        .map(({ align: _, ...paragraph }) => ({
          ...paragraph,
          runs: paragraph.runs.map((run) =>
            y < header && run.marks?.includes("strong")
              ? { ...run, marks: run.marks.filter((mark) => mark !== "strong") }
              : run,
          ),
        }))
        .map((paragraph) => ({
          ...paragraph,
          runs: paragraph.runs.map(({ marks, ...run }) => (marks?.length ? { ...run, marks } : run)),
        }));
      const held = plain.filter(({ runs }) => runs.some(({ text: words }) => words.trim() !== ""));
      const columns = Math.min(Number(gridSpan ?? 1) || 1, width - x);
      const down = Math.min(Number(rowSpan ?? 1) || 1, rows.length - y);
      return { text: held, ...(columns > 1 ? { columns } : {}), ...(down > 1 ? { rows: down } : {}) };
    });
  });
  return { rows: read, header: Math.min(header, read.length), align };
}
