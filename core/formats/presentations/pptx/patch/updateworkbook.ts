import { columnName, type ChartElement, escapeXml, Failure, must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { partText, type PackedPart, packedParts, unpacked, zip } from "../../../shared/archive";
import { child, childrenOf, readXml, scanXml } from "../../../shared/xml";
import { type SourceParts, relationshipsXml } from "./sourceparts";
import { resolveTarget } from "../package/package";
import { type Package, relationshipsPath, relativeTo } from "../package/parts";
import { readChart } from "../read/chart";
import { type CellChange, updateChart } from "./updatechart";
import { workbook } from "../write/workbook";

const local = (name: string) => name.slice(name.indexOf(":") + 1);
const columnIn = (reference: string) =>
  [...(/^[A-Z]+/.exec(reference)?.[0] ?? "A")].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1;

interface Row {
  number: number;
  from: number;
  /** Where its opening tag ends, and where its closing tag starts; equal when it is empty. */
  open: number;
  close: number;
  cells: { column: number; from: number; to: number; style: string | undefined }[];
}

/** Where the rows and cells of a sheet are in its XML. */
interface SheetRanges {
  rows: Row[];
  /** The namespace prefix of its elements. */
  prefix: string;
  /** The index after its last row. */
  end: number;
}

function sheetRanges(text: string, where: string): SheetRanges {
  const rows: Row[] = [];
  const stack: string[] = [];
  let [prefix, end] = ["", 0];
  scanXml(text, where, {
    open(tag, attributes, from, to) {
      const name = local(tag);
      if (name === "sheetData") [prefix, end] = [tag.slice(0, tag.length - name.length), to];
      if (name === "row" && stack.at(-1) === "sheetData") {
        const number = Number(attributes.r) || (rows.at(-1)?.number ?? 0) + 1;
        rows.push({ number, from, open: to, close: to, cells: [] });
      }
      const row = rows.at(-1);
      if (name === "c" && stack.at(-1) === "row" && row) {
        const column = attributes.r ? columnIn(attributes.r) : (row.cells.at(-1)?.column ?? -1) + 1;
        row.cells.push({ column, from, to, style: attributes.s });
      }
      stack.push(name);
    },
    close(from, to) {
      const name = stack.pop();
      const row = rows.at(-1);
      if (name === "sheetData") end = from;
      if (name === "row" && row && stack.at(-1) === "sheetData") row.close = from;
      const cell = row?.cells.at(-1);
      if (name === "c" && cell && stack.at(-1) === "row") cell.to = to;
    },
  });
  return { rows, prefix, end };
}

/** Writes a cell; an empty one only where it has a style. */
function cellXml(p: string, { column, row, value }: CellChange, style?: string): string {
  const open = `<${p}c r="${columnName(column)}${row}"${style ? ` s="${style}"` : ""}`;
  if (value === null || value === "") return style ? `${open}/>` : "";
  return typeof value === "number"
    ? `${open}><${p}v>${value}</${p}v></${p}c>`
    : `${open} t="inlineStr"><${p}is><${p}t xml:space="preserve">${escapeXml(value)}</${p}t></${p}is></${p}c>`;
}

interface Edit {
  from: number;
  to: number;
  words: string;
}

/** Returns the edits that set cells of one row, ordered by column. */
function rowEdits({ rows, prefix: p, end }: SheetRanges, number: number, changes: readonly CellChange[]): Edit[] {
  const row = rows.find((one) => one.number === number);
  const words = `<${p}row r="${number}">${changes.map((change) => cellXml(p, change)).join("")}</${p}row>`;
  if (!row) {
    const at = rows.find((one) => one.number > number)?.from ?? end;
    return [{ from: at, to: at, words }];
  }
  // An empty row has a single tag.
  if (row.close < row.open) return [{ from: row.from, to: row.open, words }];
  return changes.map((change) => {
    const known = row.cells.find(({ column }) => column === change.column);
    if (known) return { from: known.from, to: known.to, words: cellXml(p, change, known.style) };
    const at = row.cells.find(({ column }) => column > change.column)?.from ?? row.close;
    return { from: at, to: at, words: cellXml(p, change) };
  });
}

/**
 * Returns a sheet (ECMA-376-1, 18.3.1.73) with new values in some cells; cell formats stay. Of a cell given twice, as
 * categories shared by series are, the last value counts.
 */
export function withCells(text: string, where: string, given: readonly CellChange[]): string {
  const changes = [...new Map(given.map((change) => [`${change.column}/${change.row}`, change])).values()];
  const ranges = sheetRanges(text, where);
  const numbers = [...new Set(changes.map(({ row }) => row))].sort((a, b) => a - b);
  const edits = numbers.flatMap((number) => {
    const inRow = changes.filter(({ row }) => row === number).sort((a, b) => a.column - b.column);
    return rowEdits(ranges, number, inRow);
  });
  // Insertions at one place stay in their order.
  return edits
    .map((edit, nth) => ({ ...edit, nth }))
    .sort((a, b) => b.from - a.from || b.nth - a.nth)
    .reduce((out, { from, to, words }) => out.slice(0, from) + words + out.slice(to), text);
}

/** Returns the paths of a workbook's sheets by name; undefined when it cannot be read. */
function sheetPaths(
  text: (path: string) => string | undefined,
): Map<string | undefined, string | undefined> | undefined {
  const main = "xl/workbook.xml";
  const book = text(main);
  const links = text("xl/_rels/workbook.xml.rels");
  if (book === undefined || links === undefined) return undefined;
  const targets = new Map(
    readXml(links, "workbook").children.map(({ attributes }) => [
      attributes.Id,
      resolveTarget(main, attributes.Target ?? ""),
    ]),
  );
  const sheets = childrenOf(child(readXml(book, main), "sheets"), "sheet");
  const idOf = (attributes: Record<string, string>) =>
    Object.entries(attributes).find(([key]) => key.endsWith(":id"))?.[1];
  return new Map(sheets.map(({ attributes }) => [attributes.name, targets.get(idOf(attributes))]));
}

/** Returns a table part with some of its columns renamed. */
const withColumnNames = (text: string, renamed: ReadonlyMap<string, string>): string =>
  text.replace(/(<(?:\w+:)?tableColumn\b[^>]*?\sname=)"([^"]*)"/g, (whole, open: string, name: string) =>
    renamed.has(name) ? `${open}"${escapeXml(must(renamed.get(name)))}"` : whole,
  );

/**
 * Returns a workbook (ECMA-376-1, 12 and 18) with new values in some cells; undefined when it cannot be read or lacks a
 * sheet. The column names of its tables follow their cells.
 */
export function updateWorkbook(
  bytes: Uint8Array,
  changes: readonly CellChange[],
  renamed: ReadonlyMap<string, string>,
): Uint8Array | undefined {
  try {
    const parts = new Map<string, Uint8Array | PackedPart>(packedParts(bytes));
    const text = (path: string) => {
      const part = parts.get(path);
      return part === undefined ? undefined : partText(part instanceof Uint8Array ? part : unpacked(part));
    };
    const paths = sheetPaths(text);
    for (const sheet of new Set(changes.map((change) => change.sheet))) {
      const path = paths?.get(sheet);
      const words = path === undefined ? undefined : text(path);
      if (path === undefined || words === undefined) return undefined;
      const own = changes.filter((change) => change.sheet === sheet);
      parts.set(path, strToU8(withCells(words, path, own)));
    }
    for (const path of paths ? parts.keys() : [])
      if (/^xl\/tables\/[^/]*\.xml$/.test(path)) parts.set(path, strToU8(withColumnNames(must(text(path)), renamed)));
    return paths && zip(parts);
  } catch (error) {
    if (error instanceof Failure || error instanceof RangeError) return undefined;
    throw error;
  }
}

/**
 * Writes the part of a source chart with new data, and its workbook. Returns its path; undefined when the data do not
 * fit.
 */
export function chartWith(kept: SourceParts, pack: Package, part: string, chart: ChartElement): string | undefined {
  const text = kept.text(part);
  const before = text === undefined ? undefined : readChart(readXml(text, part), { named: new Map() });
  const made = text !== undefined && before ? updateChart(text, part, chart, before) : undefined;
  if (!made || !before) return undefined;
  const book = kept.related(part, "workbook");
  const bytes = book === undefined ? undefined : kept.file.bytes(book);
  const renamed = new Map(
    before.series.flatMap(({ name }, nth) =>
      chart.series[nth] && chart.series[nth].name !== name ? [[name, chart.series[nth].name] as const] : [],
    ),
  );
  // A workbook that cannot be read is written again, with the cells that the chart refers to.
  const cells = bytes && (updateWorkbook(bytes, made.cells, renamed) ?? workbook(chart));
  const path = pack.free(part);
  pack.put(path, kept.typeOf(part), strToU8(made.text));
  const rows = kept.relationships(part).flatMap((row) => {
    if (row.external) return [row];
    if (row.target !== book || !cells) {
      const target = kept.take(row.target);
      return target === undefined ? [] : [{ ...row, target: relativeTo(path, target) }];
    }
    const to = pack.free(row.target);
    pack.put(to, kept.typeOf(row.target), cells);
    return [{ ...row, target: relativeTo(path, to) }];
  });
  if (rows.length) pack.parts.set(relationshipsPath(path), strToU8(relationshipsXml(rows)));
  return path;
}
