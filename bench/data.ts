import {
  bindCells,
  checkBindings,
  openWorkbook,
  resolveRange,
  slideWithBound,
  takeRange,
  type Workbook,
} from "@unitext/core/data";
import { columnName, type Deck, emptyDeck } from "@unitext/core/model";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import Papa from "papaparse";
import { SaxesParser } from "saxes";
import { best, type Row, row } from "./core";
import { seeded } from "./material";

const [ROWS, COLUMNS] = [100_000, 20];
const LANGUAGE = { language: "en" };

/** Numbers with a name before each row and each column, row by row. */
function* grid(): Generator<(string | number)[]> {
  const random = seeded(19);
  yield ["Station", ...Array.from({ length: COLUMNS - 1 }, (_, nth) => `Gauge ${nth + 1}`)];
  for (let nth = 1; nth < ROWS; nth++)
    yield [`Reading ${nth}`, ...Array.from({ length: COLUMNS - 1 }, () => Math.round(random() * 10000) / 1000)];
}

const escaped = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;");

/** A workbook of 100,000 rows and 20 columns with a defined name. */
export function largeXlsx(): Uint8Array {
  const rows: string[] = [];
  let at = 0;
  for (const values of grid()) {
    at += 1;
    const cells = values.map((value, column) =>
      typeof value === "number"
        ? `<c r="${columnName(column)}${at}" s="0"><v>${value}</v></c>`
        : `<c r="${columnName(column)}${at}" t="inlineStr"><is><t>${escaped(value)}</t></is></c>`,
    );
    rows.push(`<row r="${at}">${cells.join("")}</row>`);
  }
  const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  const office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const packages = "http://schemas.openxmlformats.org/package/2006";
  const parts = {
    "[Content_Types].xml": `<Types xmlns="${packages}/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>`,
    "_rels/.rels": `<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    "xl/workbook.xml": `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Levels" sheetId="1" r:id="r1"/></sheets><definedNames><definedName name="Block">Levels!$A$1:$F$30</definedName></definedNames></workbook>`,
    "xl/_rels/workbook.xml.rels": `<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    "xl/worksheets/sheet1.xml": `<worksheet xmlns="${main}"><sheetData>${rows.join("")}</sheetData></worksheet>`,
  };
  return zipSync(Object.fromEntries(Object.entries(parts).map(([path, text]) => [path, strToU8(text)])), { level: 4 });
}

/** The same in OpenDocument. */
export function largeOds(): Uint8Array {
  const rows: string[] = [];
  for (const values of grid())
    rows.push(
      `<table:table-row>${values
        .map((value) =>
          typeof value === "number"
            ? `<table:table-cell office:value-type="float" office:value="${value}"><text:p>${value}</text:p></table:table-cell>`
            : `<table:table-cell office:value-type="string"><text:p>${escaped(value)}</text:p></table:table-cell>`,
        )
        .join("")}</table:table-row>`,
    );
  const names = ["office", "table", "text"].map(
    (name) => `xmlns:${name}="urn:oasis:names:tc:opendocument:xmlns:${name}:1.0"`,
  );
  const content = `<office:document-content ${names.join(" ")}><office:body><office:spreadsheet><table:table table:name="Levels">${rows.join("")}</table:table><table:named-expressions><table:named-range table:name="Block" table:cell-range-address="$Levels.$A$1:.$F$30"/></table:named-expressions></office:spreadsheet></office:body></office:document-content>`;
  return zipSync({ "content.xml": strToU8(content) }, { level: 4 });
}

const largeCsv = (): Uint8Array => strToU8([...grid()].map((values) => values.join(",")).join("\n"));

const bareParse = (bytes: Uint8Array, part: string) => () => {
  const parser = new SaxesParser();
  let cells = 0;
  parser.on("opentag", () => {
    cells += 1;
  });
  parser.write(strFromU8(unzipSync(bytes, { filter: ({ name }) => name === part })[part] ?? new Uint8Array())).close();
  return cells;
};

/** Reads a workbook and the bound cells of a name in it. */
export function readBlock(bytes: Uint8Array, file: string): Workbook {
  const workbook = openWorkbook(bytes, file);
  const resolved = resolveRange(workbook, file.endsWith(".csv") ? "A1:F30" : "Block");
  if ("missing" in resolved) throw new Error(resolved.missing);
  takeRange(workbook, resolved, LANGUAGE);
  return workbook;
}

/** A deck of 100 slides with 20 values of a workbook each. */
export function boundDeck(workbook: Workbook): Deck {
  let serial = 0;
  const newId = () => `n${++serial}`;
  const source = { workbook, version: "one" };
  const slides = Array.from({ length: 100 }, (_, nth) => {
    const bound = Array.from({ length: 20 }, (_, column) =>
      bindCells(
        source,
        {
          source: "large.xlsx",
          range: `Levels!${columnName(1 + (column % (COLUMNS - 1)))}${nth * 30 + 2 + column}`,
          mode: "latest",
        },
        { language: "en", newId },
      ),
    );
    const [first] = bound;
    if (!first) throw new Error("nothing is bound");
    const runs = bound.flatMap((one) => (one.kind === "value" ? [one.run, { text: " " }] : []));
    return { ...slideWithBound(first, newId), notes: [{ kind: "plain" as const, level: 0, runs }] };
  });
  return { ...emptyDeck("d", "Bound"), slides };
}

/** Reads workbooks of 100,000 rows, against bare parsing; compares 2,000 bindings with a new version. */
export async function data(): Promise<Row[]> {
  const rows: Row[] = [];
  const xlsx = largeXlsx();
  const reading = await best(() => readBlock(xlsx, "large.xlsx"), 3);
  rows.push(
    row(
      "read a name of a .xlsx of 100,000 rows and 20 columns / bare unzip and SAX parse",
      reading / (await best(bareParse(xlsx, "xl/worksheets/sheet1.xml"), 3)),
      2.5,
    ),
  );
  const deck = boundDeck(readBlock(xlsx, "large.xlsx"));
  const comparing = await best(() => {
    const workbook = readBlock(xlsx, "large.xlsx");
    return checkBindings(deck, { source: () => ({ workbook, version: "two" }), language: "en" });
  }, 2);
  rows.push(row("find what is stale for 2,000 bindings over a new version / reading it", comparing / reading, 1.3));
  const ods = largeOds();
  rows.push(
    row(
      "read a name of a .ods of the same size / bare unzip and SAX parse",
      (await best(() => readBlock(ods, "large.ods"), 3)) / (await best(bareParse(ods, "content.xml"), 3)),
      2.5,
    ),
  );
  const csv = largeCsv();
  rows.push(
    row(
      "read a .csv of the same size / papaparse alone",
      (await best(() => readBlock(csv, "large.csv"), 3)) / (await best(() => Papa.parse(strFromU8(csv)), 3)),
      3,
    ),
  );
  return rows;
}
