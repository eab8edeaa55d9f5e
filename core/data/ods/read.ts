import { columnIndex, Failure, type SheetAddress, within } from "@unitext/core/model";
import { type Parts, partText, partTexts, unzip } from "../../formats/shared/archive";
import {
  at,
  attribute,
  child,
  childrenOf,
  readMixed,
  scanXmlPieces,
  type XmlNode,
  XmlTree,
} from "../../formats/shared/xml";
import { dayShareOf, serialOf } from "../serial";
import {
  CellProblem,
  type CellContent,
  detached,
  type DefinedName,
  NO_RESULT,
  readOnce,
  Sheet,
  type SheetChart,
  type SheetInfo,
  type SheetTable,
  type Workbook,
  withinLength,
} from "../workbook";
import { readOdfChart, type SheetObject } from "./charts";
import { formatsByStyle } from "./formats";

const CORNER = "(?:\\$?(?:'((?:[^']|'')+)'|([^.'$:]+)))?\\.\\$?([A-Z]+)\\$?(\\d+)";
const RANGE = new RegExp(`^${CORNER}(?::${CORNER})?$`);

/** Parses an address as OpenDocument writes it, such as `$Levels.$A$1:.$C$5` (part 3, 19.594); undefined for others. */
export function parseOdfAddress(text: string): SheetAddress | undefined {
  const found = RANGE.exec(text.trim());
  if (!found) return undefined;
  const sheet = found[1]?.replaceAll("''", "'") ?? found[2];
  const [left, top] = [columnIndex(found[3] ?? ""), Number(found[4]) - 1];
  const [right, bottom] = found[7] ? [columnIndex(found[7]), Number(found[8]) - 1] : [left, top];
  return sheet === undefined ? undefined : { sheet, top, left, bottom, right };
}

/** A cell while it is read. */
interface OpenCell {
  attributes: Record<string, string>;
  repeated: number;
  paragraphs: string[];
}

/** How often an empty row or cell may be repeated: sheets are filled with them to their last row and column. */
const FILLING = 1000;

/** Reads the tables of a spreadsheet while its content is scanned (OpenDocument 1.3, part 3, 9.1). */
class TableReader {
  readonly sheets: Sheet[] = [];
  readonly infos: { name: string; style: string }[] = [];
  /** The objects in frames on the sheets, of which some are charts. */
  readonly objects: SheetObject[] = [];
  private frame = "";
  private readonly stack: string[] = [];
  private sheet: Sheet | undefined;
  private row = 0;
  private column = 0;
  private rowRepeated = 1;
  private rowAttributes: Record<string, string> = {};
  private firstOfRow: { column: number; content: CellContent; style: number; cell: OpenCell }[] = [];
  private cell: OpenCell | undefined;
  private inParagraph = 0;
  private ignored = 0;
  private cells = 0;
  private readonly styleNumbers = new Map<string, number>();
  private columnStyles: string[] = [];

  constructor(
    /** Returns the format codes of cell styles, which are read before the first table. */
    private readonly formatsOf: () => ReadonlyMap<string, string>,
    private readonly codes: string[],
    private readonly file: string,
  ) {}

  /** The format codes by style, once a cell has asked for one. */
  private formats: ReadonlyMap<string, string> | undefined;

  open(name: string, attributes: Record<string, string>): void {
    this.stack.push(name);
    if (name === "draw:frame") this.frame = attributes["draw:name"] ?? "";
    else if (name === "draw:object" && this.sheet && attributes["xlink:href"])
      this.objects.push({
        sheet: this.sheet.name,
        name: this.frame,
        folder: attributes["xlink:href"].replace(/^\.\//, "").replace(/\/$/, ""),
      });
    if (this.ignored > 0 || name === "office:annotation" || name === "table:shapes" || name === "table:dde-links") {
      this.ignored += 1;
      return;
    }
    if (name === "table:table") this.openTable(attributes);
    else if (name === "table:table-column") this.openColumn(attributes);
    else if (name === "table:table-row") this.openRow(attributes);
    else if (name === "table:table-cell" || name === "table:covered-table-cell")
      this.cell = { attributes, repeated: Number(attributes["table:number-columns-repeated"] ?? 1), paragraphs: [] };
    else if (this.cell && (name === "text:p" || name === "text:h")) {
      this.inParagraph += 1;
      if (this.inParagraph === 1) this.cell.paragraphs.push("");
    } else if (this.inParagraph > 0 && name === "text:s") this.text(" ".repeat(Number(attributes["text:c"] ?? 1)));
    else if (this.inParagraph > 0 && name === "text:tab") this.text("\t");
    else if (this.inParagraph > 0 && name === "text:line-break") this.text("\n");
  }

  private openTable(attributes: Record<string, string>): void {
    const name = attributes["table:name"] ?? "";
    this.sheet = new Sheet(name, this.codes);
    this.sheets.push(this.sheet);
    this.infos.push({ name, style: attributes["table:style-name"] ?? "" });
    this.row = 0;
    this.column = 0;
    this.columnStyles = [];
  }

  private openColumn(attributes: Record<string, string>): void {
    const count = Math.min(Number(attributes["table:number-columns-repeated"] ?? 1), FILLING);
    for (let nth = 0; nth < count; nth++) {
      if ((attributes["table:visibility"] ?? "visible") !== "visible") this.sheet?.hiddenColumns.add(this.column + nth);
      this.columnStyles[this.column + nth] = attributes["table:default-cell-style-name"] ?? "";
    }
    this.column += Number(attributes["table:number-columns-repeated"] ?? 1);
  }

  private openRow(attributes: Record<string, string>): void {
    this.rowAttributes = attributes;
    this.rowRepeated = Number(attributes["table:number-rows-repeated"] ?? 1);
    this.column = 0;
    this.firstOfRow = [];
  }

  text(characters: string): void {
    if (this.inParagraph === 0 || this.ignored > 0 || !this.cell) return;
    const last = this.cell.paragraphs.length - 1;
    this.cell.paragraphs[last] += characters;
  }

  close(): void {
    const name = this.stack.pop();
    if (this.ignored > 0) {
      this.ignored -= 1;
      return;
    }
    if (name === "text:p" || name === "text:h") this.inParagraph = Math.max(0, this.inParagraph - 1);
    else if (name === "table:table-cell" || name === "table:covered-table-cell") this.closeCell();
    else if (name === "table:table-row") this.closeRow();
  }

  private closeCell(): void {
    const { cell } = this;
    this.cell = undefined;
    if (!cell) return;
    const content = contentOf(cell);
    if (content !== undefined) {
      const style = this.styleOf(cell.attributes["table:style-name"] ?? this.columnStyles[this.column] ?? "");
      for (let nth = 0; nth < Math.min(cell.repeated, 16_384); nth++)
        this.firstOfRow.push({ column: this.column + nth, content, style, cell });
    }
    const [columns, rows] = [
      Number(cell.attributes["table:number-columns-spanned"] ?? 1),
      Number(cell.attributes["table:number-rows-spanned"] ?? 1),
    ];
    if (columns > 1 || rows > 1)
      this.sheet?.merged.push({
        top: this.row,
        left: this.column,
        bottom: this.row + rows - 1,
        right: this.column + columns - 1,
      });
    this.column += cell.repeated;
  }

  private closeRow(): void {
    const { sheet, row, rowRepeated, firstOfRow } = this;
    const hidden = (this.rowAttributes["table:visibility"] ?? "visible") !== "visible";
    const times = firstOfRow.length || hidden ? Math.min(rowRepeated, 1_048_576 - row) : 0;
    this.cells += times * firstOfRow.length;
    within("sheetCells", this.cells, this.file);
    for (let nth = 0; nth < times && sheet; nth++) {
      if (hidden && nth < FILLING) sheet.hiddenRows.add(row + nth);
      for (const { column, content, style } of firstOfRow) sheet.set(row + nth, column, content, style);
    }
    this.row += rowRepeated;
  }

  /** Returns the number of a cell style among the format codes of the sheet. */
  private styleOf(name: string): number {
    const known = this.styleNumbers.get(name);
    if (known !== undefined) return known;
    this.formats ??= this.formatsOf();
    const code = this.formats.get(name);
    const number = code === undefined ? 0 : this.codes.push(code) - 1;
    this.styleNumbers.set(name, number);
    return number;
  }
}

/** Returns what a cell holds (OpenDocument 1.3, part 3, 19.387, `office:value-type`). */
function contentOf({ attributes, paragraphs }: OpenCell): CellContent {
  const shown = paragraphs.join("\n");
  const number = () => {
    const value = Number(attributes["office:value"]);
    return attributes["office:value"] !== undefined && Number.isFinite(value) ? value : undefined;
  };
  // Errors have no type of their own in the standard; programs write them as texts beside the formula.
  if (attributes["table:formula"] !== undefined && /^(#[A-Z/0!?]+|Err:\d+)$/.test(shown)) return new CellProblem(shown);
  switch (attributes["office:value-type"]) {
    case "float":
    case "percentage":
    case "currency":
      return number() ?? (attributes["table:formula"] === undefined ? undefined : new CellProblem(NO_RESULT));
    case "date":
      return serialOf(attributes["office:date-value"] ?? "") ?? shown;
    case "time":
      return dayShareOf(attributes["office:time-value"] ?? "") ?? shown;
    case "boolean":
      return attributes["office:boolean-value"] === "true";
    case "string":
      return detached(attributes["office:string-value"] ?? shown);
    default:
      if (attributes["table:formula"] !== undefined && shown === "") return new CellProblem(NO_RESULT);
      return shown === "" ? undefined : detached(shown);
  }
}

function names(spreadsheet: XmlNode | undefined): DefinedName[] {
  return childrenOf(child(spreadsheet, "named-expressions"), "named-range").map((range) => {
    const text = attribute(range, "cell-range-address") ?? "";
    return { name: attribute(range, "name") ?? "", text, address: parseOdfAddress(text) };
  });
}

function tables(spreadsheet: XmlNode | undefined, sheet: (name: string) => Sheet | undefined): SheetTable[] {
  return childrenOf(child(spreadsheet, "database-ranges"), "database-range").flatMap((range) => {
    const name = attribute(range, "name") ?? "";
    const address = parseOdfAddress(attribute(range, "target-range-address") ?? "");
    if (!address || !name || name.startsWith("__Anonymous")) return [];
    const headerRows = attribute(range, "contains-header") === "false" ? 0 : 1;
    const cells = sheet(address.sheet);
    const columns = Array.from({ length: address.right - address.left + 1 }, (_, nth) => {
      const header = headerRows ? cells?.content(address.top, address.left + nth) : undefined;
      return header === undefined || header instanceof CellProblem ? `Column ${nth + 1}` : String(header);
    });
    return [{ name, address, headerRows, totalRows: 0, columns }];
  });
}

/** What a spreadsheet's content has besides the cells, as a tree, and its tables. */
function readContent(pieces: Iterable<string>, styles: XmlNode | undefined, file: string) {
  const where = `${file}, content.xml`;
  const tree = new XmlTree(where, true);
  const styleNodes = () => childrenOfAutomatic(tree.root as XmlNode | undefined);
  const formats = () => formatsByStyle([...(child(styles, "styles")?.children ?? []), ...styleNodes()]);
  const codes = ["General"];
  const reader = new TableReader(formats, codes, file);
  // Rows are read as they come, everything else becomes a tree.
  let depth = 0;
  scanXmlPieces(withinLength(pieces, file), where, {
    open(name, attributes) {
      if (depth > 0 || name === "table:table") depth += 1;
      if (depth > 0) reader.open(name, attributes);
      else tree.open(name, attributes);
    },
    close() {
      if (depth > 0) {
        depth -= 1;
        reader.close();
      } else tree.close();
    },
    text(characters) {
      if (depth > 0) reader.text(characters);
      else tree.text(characters);
    },
  });
  return { root: tree.root as XmlNode | undefined, reader, automatic: styleNodes() };
}

const childrenOfAutomatic = (root: XmlNode | undefined) => child(root, "automatic-styles")?.children ?? [];

/** Refuses a spreadsheet whose parts are encrypted (OpenDocument 1.3, part 2, 4.2). */
function refuseEncrypted(parts: Parts, file: string): void {
  const manifest = parts.get("META-INF/manifest.xml");
  if (manifest && partText(manifest).includes("encryption-data"))
    throw new Failure(
      "not-readable",
      file,
      "The file is protected by a password. Save it without one and bring it in again.",
    );
}

/** Reads the charts on the sheets; one that is damaged is left out with a remark. */
function readCharts(parts: Parts, objects: readonly SheetObject[], file: string, remarks: string[]): SheetChart[] {
  const charts: SheetChart[] = [];
  for (const object of objects) {
    const part = parts.get(`${object.folder}/content.xml`);
    if (!part) continue;
    try {
      const root = readMixed(partText(part), `${file}, ${object.folder}`);
      const chart = readOdfChart(root, object, charts.length + 1, parseOdfAddress);
      if (chart) charts.push(chart);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      remarks.push(`A chart of the sheet “${object.sheet}” could not be read: ${error.message}`);
    }
  }
  return charts;
}

/**
 * Reads a spreadsheet in OpenDocument (.ods, OpenDocument 1.3, part 3). Formulas have their stored results. Throws a
 * Failure `not-readable` for a file that is no spreadsheet or is damaged.
 */
export function readOds(bytes: Uint8Array, file: string): Workbook {
  const parts = unzip(bytes, file);
  const content = parts.pieces("content.xml");
  if (!content)
    throw new Failure(
      "not-readable",
      file,
      "The file is no spreadsheet: it has no content. Choose an .xlsx, .ods or .csv file.",
    );
  refuseEncrypted(parts, file);
  const styles = parts.get("styles.xml");
  const styleRoot = styles && readMixed(partText(styles), `${file}, styles.xml`);
  const { root, reader, automatic } = readContent(partTexts(content), styleRoot, file);
  const spreadsheet = at(root, "body", "spreadsheet");
  if (!spreadsheet)
    throw new Failure("not-readable", file, "The file is no spreadsheet. Choose an .xlsx, .ods or .csv file.");
  const hidden = new Set(
    automatic
      .filter((style) => attribute(child(style, "table-properties"), "display") === "false")
      .map((style) => attribute(style, "name")),
  );
  const remarks: string[] = [];
  const charts = readCharts(parts, reader.objects, file, remarks);
  const byName = new Map(reader.sheets.map((sheet) => [sheet.name, sheet]));
  return {
    file,
    sheets: reader.infos.map(({ name, style }): SheetInfo => ({ name, hidden: hidden.has(style) })),
    names: names(spreadsheet),
    tables: tables(spreadsheet, (name) => byName.get(name)),
    charts,
    date1904: false,
    remarks,
    sheet: readOnce(file, (name) => byName.get(name)),
  };
}
