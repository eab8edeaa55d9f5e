import type { TableLook } from "@unitext/core/layout";
import { type Cell, plainText, type RichText, type TableElement } from "@unitext/core/model";
import { type XmlElement, childrenOf, child, localName, xml } from "../archive";
import { emu } from "./names";

type Table = Pick<TableElement, "rows" | "header" | "align">;

/** A table (`a:tbl`, ECMA-376-1, 21.1.3.13) as the theme draws it. */
export function tableXml({ rows, header, align }: Table, { widths, heights, insets, fill, lines }: TableLook, paragraphs: (text: RichText) => string): string {
  const grid = xml("a:tblGrid", {}, ...widths.map((width) => xml("a:gridCol", { w: emu(width) })));
  const solid = (colour: string) => `<a:solidFill><a:srgbClr val="${colour.slice(1).toUpperCase()}"/></a:solidFill>`;
  const edges = (row: number, first: number) => `<a:lnL w="0"><a:noFill/></a:lnL><a:lnR w="0"><a:noFill/></a:lnR><a:lnT w="0"><a:noFill/></a:lnT><a:lnB w="${emu(lines[row]?.width ?? 0)}">${solid(lines[row]?.colour ?? fill)}</a:lnB>${first < header ? solid(fill) : "<a:noFill/>"}`;
  const [marL, marT, marR, marB] = insets.map(emu);
  const covered = (y: number, x: number): { hMerge?: number; vMerge?: number } => {
    for (let up = 0; up <= y; up++) {
      for (let left = 0; left <= x; left++) {
        const cell = rows[y - up]?.[x - left];
        if (cell && (up || left) && (cell.rows ?? 1) > up && (cell.columns ?? 1) > left) return { ...(left ? { hMerge: 1 } : {}), ...(up ? { vMerge: 1 } : {}) };
      }
    }
    return {};
  };
  const body = rows.map((row, y) =>
    xml(
      "a:tr",
      { h: emu(heights[y] ?? 0) },
      ...row.map((cell, x) => {
        const side = align[x] ?? "start";
        const text = (cell?.text.length ? cell.text : plainText(" ")).map((paragraph) => ({ ...paragraph, align: paragraph.align ?? side, runs: y < header ? paragraph.runs.map((run) => ({ ...run, marks: [...new Set([...(run.marks ?? []), "strong" as const])] })) : paragraph.runs }));
        return xml("a:tc", { gridSpan: cell?.columns, rowSpan: cell?.rows, ...(cell ? {} : covered(y, x)) }, xml("a:txBody", {}, "<a:bodyPr/><a:lstStyle/>", paragraphs(cell?.text.length ? text : [])), xml("a:tcPr", { marL, marR, marT, marB }, edges(y + (cell?.rows ?? 1) - 1, y)));
      }),
    ),
  );
  return xml("a:tbl", {}, xml("a:tblPr", { firstRow: header ? 1 : undefined }), grid, ...body);
}

/** Reads a table; a header row's own bold is taken as its being a header. */
export function readTable(table: XmlElement, body: (text: XmlElement | undefined) => RichText): Table | undefined {
  const rows = childrenOf(table, "tr");
  const width = Math.max(0, ...rows.map((row) => childrenOf(row, "tc").length));
  if (!rows.length || !width) return undefined;
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
      const plain = text.map(({ align: _, ...paragraph }) => ({ ...paragraph, runs: paragraph.runs.map((run) => (y < header && run.marks?.includes("strong") ? { ...run, marks: run.marks.filter((mark) => mark !== "strong") } : run)) })).map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map(({ marks, ...run }) => (marks?.length ? { ...run, marks } : run)) }));
      const held = plain.filter(({ runs }) => runs.some(({ text: words }) => words.trim() !== ""));
      const columns = Math.min(Number(gridSpan ?? 1) || 1, width - x);
      const down = Math.min(Number(rowSpan ?? 1) || 1, rows.length - y);
      return { text: held, ...(columns > 1 ? { columns } : {}), ...(down > 1 ? { rows: down } : {}) };
    });
  });
  return { rows: read, header: Math.min(header, read.length), align };
}
