import { Failure, parseAddress, parseCells } from "@unitext/core/model";
import { type Parts, partText, partTexts, unzip } from "../../formats/shared/archive";
import { at, childrenOf, readXml, type XmlElement } from "../../formats/shared/xml";
import { type DefinedName, readOnce, type SheetChart, type SheetTable, type Workbook } from "../workbook";
import { readChart } from "./charts";
import { readSharedStrings, readSheet } from "./sheet";
import { cellFormats } from "./styles";

interface Relationship {
  type: string;
  target: string;
  external: boolean;
}

interface SheetPart {
  name: string;
  hidden: boolean;
  path: string | undefined;
}

/** The parts of a workbook and their relationships (ECMA-376-1, 12; ECMA-376-2, 9.3). */
class XlsxPackage {
  readonly remarks: string[] = [];

  constructor(
    private readonly parts: Parts,
    readonly file: string,
  ) {}

  text(path: string): string | undefined {
    const bytes = this.parts.take(path);
    return bytes && partText(bytes);
  }

  /** Returns a large part as pieces of text. */
  texts(path: string): Iterable<string> | undefined {
    const pieces = this.parts.pieces(path);
    return pieces && partTexts(pieces);
  }

  xml(path: string): XmlElement | undefined {
    const text = this.text(path);
    return text === undefined ? undefined : readXml(text, `${this.file}, ${path}`);
  }

  /** Returns an optional part, or undefined with a remark when it is damaged. */
  optional(path: string, what: string): XmlElement | undefined {
    try {
      return this.xml(path);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      this.remarks.push(`${what} could not be read: ${error.message}`);
      return undefined;
    }
  }

  relationships(path: string): Map<string, Relationship> {
    const folder = path.slice(0, path.lastIndexOf("/") + 1);
    const root = this.optional(`${folder}_rels/${path.slice(folder.length)}.rels`, "The links between parts");
    return new Map(
      (root?.children ?? []).map(({ attributes: { Id = "", Type = "", Target = "", TargetMode } }) => [
        Id,
        {
          type: Type.slice(Type.lastIndexOf("/") + 1),
          target: resolvePath(folder, Target),
          external: TargetMode === "External",
        },
      ]),
    );
  }

  /** Returns the path of the first part of a type that a part refers to. */
  related(path: string, type: string): string | undefined {
    return [...this.relationships(path).values()].find((one) => one.type === type && !one.external)?.target;
  }
}

function resolvePath(folder: string, target: string): string {
  if (target.startsWith("/")) return target.slice(1);
  const steps: string[] = [];
  for (const step of `${folder}${target}`.split("/"))
    if (step === "..") steps.pop();
    else if (step !== "." && step !== "") steps.push(step);
  return steps.join("/");
}

const isOn = (value: string | undefined) => value === "1" || value === "true";

function readNames(workbook: XmlElement, sheets: readonly SheetPart[]): DefinedName[] {
  return childrenOf(at(workbook, "definedNames"), "definedName").flatMap(({ attributes, text }) => {
    const { name = "", localSheetId, hidden } = attributes;
    // Names of the program itself (print areas, filters) are no names of the author.
    if (!name || name.startsWith("_xlnm.") || isOn(hidden)) return [];
    const scope = localSheetId === undefined ? undefined : sheets[Number(localSheetId)]?.name;
    const address = parseAddress(text);
    const known = address && sheets.some((sheet) => sheet.name.toLowerCase() === address.sheet.toLowerCase());
    return [{ name, text, address: known ? address : undefined, ...(scope === undefined ? {} : { scope }) }];
  });
}

function readTable(table: XmlElement | undefined, sheet: string): SheetTable | undefined {
  const { displayName, name, ref = "", headerRowCount = "1", totalsRowCount = "0" } = table?.attributes ?? {};
  const range = parseCells(ref);
  const title = displayName ?? name;
  if (!table || !title || !range) return undefined;
  return {
    name: title,
    address: { sheet, ...range },
    headerRows: Number(headerRowCount),
    totalRows: Number(totalsRowCount),
    // Line ends in headers are written as `_x000a_` (ECMA-376-1, 22.9.2.19).
    columns: childrenOf(at(table, "tableColumns"), "tableColumn").map(({ attributes }) =>
      (attributes.name ?? "").replaceAll(/_x000[aAdD]_/g, "\n"),
    ),
  };
}

/** Reads the tables and charts of a sheet through its relationships. */
function readSheetParts(pack: XlsxPackage, { name, path }: SheetPart): { tables: SheetTable[]; charts: SheetChart[] } {
  const tables: SheetTable[] = [];
  const charts: SheetChart[] = [];
  for (const { type, target, external } of path ? pack.relationships(path).values() : []) {
    if (external) continue;
    if (type === "table") {
      const table = readTable(pack.optional(target, `A table of the sheet “${name}”`), name);
      if (table) tables.push(table);
    } else if (type === "drawing")
      for (const one of pack.relationships(target).values()) {
        if (one.type !== "chart" || one.external) continue;
        const space = pack.optional(one.target, `A chart of the sheet “${name}”`);
        const chart = space && readChart(space, name, charts.length + 1);
        if (chart) charts.push(chart);
      }
  }
  return { tables, charts };
}

/**
 * Reads a workbook in SpreadsheetML (.xlsx, ECMA-376-1, 12 and 18). Formulas have their stored results; macros and links
 * to other files are not followed. Throws a Failure `not-readable` for a file that is no workbook or is damaged.
 */
export function readXlsx(bytes: Uint8Array, file: string): Workbook {
  const pack = new XlsxPackage(unzip(bytes, file), file);
  const main = pack.related("", "officeDocument") ?? "xl/workbook.xml";
  const workbook = pack.xml(main);
  if (workbook?.local !== "workbook")
    throw new Failure(
      "not-readable",
      file,
      "The file is no workbook: it has no sheets. Choose an .xlsx, .ods or .csv file.",
    );
  const links = pack.relationships(main);
  const idOf = (attributes: Record<string, string>) =>
    Object.entries(attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
  const parts = childrenOf(at(workbook, "sheets"), "sheet").flatMap(({ attributes }): SheetPart[] => {
    const link = links.get(idOf(attributes));
    // Sheets of charts alone have no cells.
    if (link && link.type !== "worksheet") return [];
    const { name = "", state = "visible" } = attributes;
    return [{ name, hidden: state !== "visible", path: link?.target }];
  });
  const formats = cellFormats(pack.optional(relatedIn(links, "styles") ?? "", "The number formats"));
  let strings: readonly string[] | undefined;
  const sharedStrings = () => {
    const text = pack.text(relatedIn(links, "sharedStrings") ?? "");
    strings ??= text === undefined ? [] : readSharedStrings(text, file);
    return strings;
  };
  const more = parts.map((part) => readSheetParts(pack, part));
  return {
    file,
    sheets: parts.map(({ name, hidden }) => ({ name, hidden })),
    names: readNames(workbook, parts),
    tables: more.flatMap(({ tables }) => tables),
    charts: more.flatMap(({ charts }) => charts),
    date1904: isOn(at(workbook, "workbookPr")?.attributes.date1904),
    remarks: pack.remarks,
    sheet: readOnce(file, (name) => {
      const part = parts.find((one) => one.name === name);
      if (!part) return undefined;
      const pieces = part.path === undefined ? undefined : pack.texts(part.path);
      if (!pieces)
        throw new Failure("not-readable", file, `The sheet “${name}” is missing in the file, which is damaged.`);
      return readSheet(pieces, { name, strings: sharedStrings(), formats, file });
    }),
  };
}

const relatedIn = (links: ReadonlyMap<string, Relationship>, type: string): string | undefined =>
  [...links.values()].find((one) => one.type === type && !one.external)?.target;
