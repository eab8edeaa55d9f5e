import { type Cell, type Element, joinRuns, type RichText, run } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { readFill, fillElement } from "./drawing";
import { readLine } from "./line";
import { EMU } from "../package/names";
import { readBody, type ReadContext, switchesOff } from "./text";
import { textStyle } from "./styles";
import type { ShapeWork, ShapeBase } from "./shapework";
import { colourOf } from "./shapetext";

const isOn = (value: string | undefined) => value === "1" || value === "true";

/** Where a cell is, and what its table says of it. */
interface CellPlace {
  row: number;
  column: number;
  rows: number;
  columns: number;
  /** The parts of the table style that apply to the cell, the strongest first. */
  parts: readonly XmlElement[];
}

/** Reads a table with the formatting that its table style gives its cells. */
export function readTable(work: ShapeWork, table: XmlElement, base: ShapeBase): Element {
  const rows = childrenOf(table, "tr");
  const widths = childrenOf(child(table, "tblGrid"), "gridCol").map(({ attributes }) =>
    Math.max(0, Number(attributes.w) / EMU || 0),
  );
  const columns = Math.max(1, widths.length, ...rows.map((row) => childrenOf(row, "tc").length));
  const flags = child(table, "tblPr")?.attributes ?? {};
  const style = work.tableStyle(child(child(table, "tblPr"), "tableStyleId")?.text.trim() ?? "");
  const lists = [child(work.inheritance.texts, "otherStyle"), work.defaults];
  const texts: ReadContext = { styles: lists, codeFont: undefined, link: work.link, looks: work.styles, blank: true };
  const cells = rows.map((tr, row) => {
    const own = childrenOf(tr, "tc");
    return Array.from({ length: columns }, (_, column): Cell | null => {
      const cell = own[column];
      if (!cell) return { text: [] };
      if (isOn(cell.attributes.hMerge) || isOn(cell.attributes.vMerge)) return null;
      const parts = styleParts(style, flags, row, column, rows.length, columns);
      return readCell(work, cell, { row, column, rows: rows.length, columns, parts }, texts);
    });
  });
  return {
    kind: "table",
    ...base,
    style: work.style(textStyle(lists, work.styles)),
    rows: cells.length ? cells : [[{ text: [] }]],
    ...(isOn(flags.rtl) ? { direction: "rtl" as const } : {}),
    header: Math.min(isOn(flags.firstRow) ? 1 : 0, cells.length),
    align: Array.from({ length: columns }, () => "start" as const),
    widths: Array.from({ length: columns }, (_, column) => widths[column] ?? 0),
    heights: rows.map(({ attributes }) => Math.max(0, Number(attributes.h) / EMU || 0)),
  };
}

function readCell(work: ShapeWork, cell: XmlElement, place: CellPlace, texts: ReadContext): Cell {
  const { parts } = place;
  const properties = child(cell, "tcPr");
  const own = readFill(fillElement(properties), work.drawing);
  const fill =
    own === undefined
      ? first(parts, (part) =>
          readFill(fillElement(at(part, "tcStyle", "fill")) ?? at(part, "tcStyle", "fill"), work.drawing),
        )
      : (own ?? undefined);
  const borders = cellBorders(work, properties, place);
  const insets = cellInsets(properties?.attributes ?? {});
  const { gridSpan, rowSpan } = cell.attributes;
  const across = Math.min(Math.floor(Number(gridSpan ?? 1)) || 1, place.columns - place.column, 200);
  const down = Math.min(Math.floor(Number(rowSpan ?? 1)) || 1, place.rows - place.row, 2000);
  const anchor = properties?.attributes.anchor;
  return {
    text: inTableStyle(work, readBody(child(cell, "txBody"), texts), parts, cell),
    ...(across > 1 ? { columns: across } : {}),
    ...(down > 1 ? { rows: down } : {}),
    ...(fill ? { fill } : {}),
    ...(anchor === "ctr" ? { anchor: "middle" as const } : anchor === "b" ? { anchor: "bottom" as const } : {}),
    ...(insets ? { insets } : {}),
    ...(Object.keys(borders).length ? { borders } : {}),
  };
}

const BORDER_NAMES = { left: "lnL", top: "lnT", right: "lnR", bottom: "lnB" } as const;
const SIDES = ["left", "top", "right", "bottom"] as const;

/** Returns the borders of a cell: its own, else those that the table style gives the table's edges and inner lines. */
function cellBorders(
  work: ShapeWork,
  properties: XmlElement | undefined,
  { row, column, rows, columns, parts }: CellPlace,
): NonNullable<Cell["borders"]> {
  const inside = { left: column > 0, right: column < columns - 1, top: row > 0, bottom: row < rows - 1 };
  return Object.fromEntries(
    SIDES.flatMap((side) => {
      const own = readLine(child(properties, BORDER_NAMES[side]), work.drawing);
      const name = inside[side] ? (side === "left" || side === "right" ? "insideV" : "insideH") : side;
      const stroke =
        own === undefined
          ? first(parts, (part) =>
              readLine(
                at(part, "tcStyle", "tcBdr", name, "ln") ?? at(part, "tcStyle", "tcBdr", side, "ln"),
                work.drawing,
              ),
            )
          : own;
      return stroke ? [[side, stroke]] : [];
    }),
  );
}

/** Returns the insets of a cell in points: left, top, right, bottom. Returns undefined when all are the standard's. */
function cellInsets({
  marL,
  marT,
  marR,
  marB,
}: Record<string, string | undefined>): [number, number, number, number] | undefined {
  const inset = (value: string | undefined, usual: number) =>
    value === undefined ? usual : Math.max(0, Math.min(4032, Number(value) / EMU || 0));
  return [marL, marT, marR, marB].some((value) => value !== undefined)
    ? [inset(marL, 7.2), inset(marT, 3.6), inset(marR, 7.2), inset(marB, 3.6)]
    : undefined;
}

/** Returns the parts of a table style that apply to a cell, the strongest first (ECMA-376-1, 20.1.4.2.26). */
function styleParts(
  style: XmlElement | undefined,
  flags: Record<string, string>,
  y: number,
  x: number,
  rows: number,
  columns: number,
): XmlElement[] {
  if (!style) return [];
  const on = (name: string) => flags[name] === "1" || flags[name] === "true";
  const names = [
    ...(on("firstRow") && y === 0 ? ["firstRow"] : []),
    ...(on("lastRow") && y === rows - 1 ? ["lastRow"] : []),
    ...(on("firstCol") && x === 0 ? ["firstCol"] : []),
    ...(on("lastCol") && x === columns - 1 ? ["lastCol"] : []),
    ...(on("bandRow") ? [(y - (on("firstRow") ? 1 : 0)) % 2 === 0 ? "band1H" : "band2H"] : []),
    ...(on("bandCol") ? [(x - (on("firstCol") ? 1 : 0)) % 2 === 0 ? "band1V" : "band2V"] : []),
    "wholeTbl",
  ];
  return names.flatMap((name) => child(style, name) ?? []);
}

/** Returns the first result of `read` over the parts of a table style; null ends the search with none. */
function first<T>(parts: readonly XmlElement[], read: (part: XmlElement) => T | null | undefined): T | undefined {
  for (const part of parts) {
    const found = read(part);
    if (found !== undefined) return found ?? undefined;
  }
  return undefined;
}

/** Returns a cell's text with the colour and weight of its table style, where its runs set none. */
function inTableStyle(work: ShapeWork, text: RichText, parts: readonly XmlElement[], cell: XmlElement): RichText {
  const colour = first(parts, (part) => {
    const own = child(part, "tcTxStyle");
    return own && colourOf(work, { ...own, children: own.children.filter((inner) => localName(inner) !== "fontRef") });
  });
  const strong =
    first(parts, (part) => child(part, "tcTxStyle")?.attributes.b) === "on" && !switchesOff(child(cell, "txBody"), "b");
  if (!colour && !strong) return text;
  return text.map((paragraph) => ({
    ...paragraph,
    runs: joinRuns(
      paragraph.runs.map((item) =>
        run(
          item.text,
          strong ? [...(item.marks ?? []), "strong"] : item.marks,
          item.link,
          colour ? { colour, ...item.properties } : item.properties,
        ),
      ),
    ),
  }));
}
