import { type CellRange, parseCells, within } from "@unitext/core/model";
import { scanXml, scanXmlPieces } from "../../formats/shared/xml";
import { CellProblem, detached, NO_RESULT, Sheet, withinLength } from "../workbook";

const CODE_0 = 48;
const CODE_9 = 57;

/** Returns row and column of a cell's address, such as `AB12`. */
function placeOf(reference: string): [row: number, column: number] {
  let at = 0;
  let column = 0;
  for (; at < reference.length; at++) {
    const code = reference.charCodeAt(at);
    if (code >= CODE_0 && code <= CODE_9) break;
    column = column * 26 + (code & 31);
  }
  let row = 0;
  for (; at < reference.length; at++) row = row * 10 + reference.charCodeAt(at) - CODE_0;
  return [row - 1, column - 1];
}

/** Reads the cells of a sheet part while it is scanned (ECMA-376-1, 18.3.1). */
class SheetReader {
  private row = -1;
  private column = -1;
  private type = "n";
  private style = 0;
  private hasFormula = false;
  private hasValue = false;
  private value = "";
  /** The element whose characters are collected: the value or the text of an inline string. */
  private collecting = false;
  private inPhonetic = false;
  private cells = 0;

  constructor(
    private readonly sheet: Sheet,
    private readonly strings: readonly string[],
    private readonly file: string,
  ) {}

  private readonly stack: string[] = [];

  open(name: string, attributes: Record<string, string>): void {
    const colon = name.indexOf(":");
    const local = colon < 0 ? name : name.slice(colon + 1);
    this.stack.push(local);
    switch (local) {
      case "c":
        this.openCell(attributes);
        break;
      case "v":
        this.hasValue = true;
        this.collecting = true;
        break;
      case "t":
        this.collecting = this.type === "inlineStr" && !this.inPhonetic;
        break;
      case "f":
        this.hasFormula = true;
        break;
      case "rPh":
        this.inPhonetic = true;
        break;
      case "row":
        this.row = attributes.r ? Number(attributes.r) - 1 : this.row + 1;
        this.column = -1;
        if (attributes.hidden === "1" || attributes.hidden === "true") this.sheet.hiddenRows.add(this.row);
        break;
      default:
        this.openOther(local, attributes);
    }
  }

  private openCell({ r, t = "n", s }: Record<string, string>): void {
    if (r) [this.row, this.column] = placeOf(r);
    else this.column += 1;
    this.type = t;
    this.style = s ? Number(s) : 0;
    this.hasFormula = false;
    this.hasValue = t === "inlineStr";
    this.value = "";
    this.cells += 1;
    if (this.cells % 4096 === 0) within("sheetCells", this.cells, this.file);
  }

  private openOther(local: string, attributes: Record<string, string>): void {
    if (local === "mergeCell") {
      const range: CellRange | undefined = parseCells(attributes.ref ?? "");
      if (range) this.sheet.merged.push(range);
    } else if (local === "col" && (attributes.hidden === "1" || attributes.hidden === "true")) {
      const to = Math.min(Number(attributes.max), 16_384);
      for (let at = Number(attributes.min) - 1; at < to; at++) this.sheet.hiddenColumns.add(at);
    }
  }

  text(characters: string): void {
    if (this.collecting) this.value += characters;
  }

  close(): void {
    const local = this.stack.pop();
    if (local === "v" || local === "t") this.collecting = false;
    else if (local === "rPh") this.inPhonetic = false;
    else if (local === "c") this.closeCell();
  }

  private closeCell(): void {
    const { row, column, value } = this;
    if (!this.hasValue) {
      if (this.hasFormula) this.sheet.set(row, column, new CellProblem(NO_RESULT), this.style);
      return;
    }
    switch (this.type) {
      case "s":
        this.sheet.set(row, column, this.strings[Number(value)] ?? "", this.style);
        break;
      case "str":
      case "inlineStr":
        this.sheet.set(row, column, detached(value), this.style);
        break;
      case "b":
        this.sheet.set(row, column, value.trim() === "1" || value.trim() === "true", this.style);
        break;
      case "e":
        this.sheet.set(row, column, new CellProblem(value), this.style);
        break;
      case "d":
        this.sheet.set(row, column, value, this.style);
        break;
      default: {
        const number = value.trim() === "" ? Number.NaN : Number(value);
        if (Number.isFinite(number)) this.sheet.set(row, column, number, this.style);
        else if (this.hasFormula && value.trim() === "")
          this.sheet.set(row, column, new CellProblem(NO_RESULT), this.style);
      }
    }
  }
}

/** Reads a sheet part, given as pieces of text. Throws a Failure `not-readable` for damaged XML and `too-large` for more cells than are taken. */
export function readSheet(
  pieces: Iterable<string>,
  {
    name,
    strings,
    formats,
    file,
  }: { name: string; strings: readonly string[]; formats: readonly string[]; file: string },
): Sheet {
  const sheet = new Sheet(name, formats);
  const reader = new SheetReader(sheet, strings, file);
  scanXmlPieces(withinLength(pieces, file), `${file}, sheet ${name}`, {
    open: (tag, attributes) => reader.open(tag, attributes),
    close: () => reader.close(),
    text: (characters) => reader.text(characters),
  });
  return sheet;
}

/** Reads the shared strings (ECMA-376-1, 18.4.9): the text of each, without formatting and phonetic hints. */
export function readSharedStrings(text: string, file: string): string[] {
  const strings: string[] = [];
  const stack: string[] = [];
  let current = "";
  let collecting = false;
  let phonetic = 0;
  scanXml(text, `${file}, shared strings`, {
    open(tag) {
      const local = tag.slice(tag.indexOf(":") + 1);
      stack.push(local);
      if (local === "si") current = "";
      else if (local === "rPh") phonetic += 1;
      else if (local === "t") collecting = phonetic === 0;
    },
    close() {
      const local = stack.pop();
      if (local === "si") strings.push(detached(current));
      else if (local === "rPh") phonetic -= 1;
      else if (local === "t") collecting = false;
    },
    text(characters) {
      if (collecting) current += characters;
    },
  });
  return strings;
}
