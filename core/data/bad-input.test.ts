import { strToU8, zipSync } from "fflate";
import { type CellProblem, openWorkbook, resolveRange } from "./index";

const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
const office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const packages = "http://schemas.openxmlformats.org/package/2006";

/** A workbook with one sheet of the given rows, and more in its workbook part or beside it. */
function xlsx(
  sheet: string,
  { workbook = "", parts = {}, sheets }: { workbook?: string; parts?: Record<string, string>; sheets?: string } = {},
) {
  const all = {
    "_rels/.rels": `<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    "xl/workbook.xml": `<workbook xmlns="${main}" xmlns:r="${office}"><sheets>${sheets ?? '<sheet name="Levels" sheetId="1" r:id="r1"/>'}</sheets>${workbook}</workbook>`,
    "xl/_rels/workbook.xml.rels": `<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="r2" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    "xl/worksheets/sheet1.xml": `<worksheet xmlns="${main}"><sheetData>${sheet}</sheetData></worksheet>`,
    ...parts,
  };
  return zipSync(Object.fromEntries(Object.entries(all).map(([path, text]) => [path, strToU8(text)])));
}
const row = '<row r="1"><c r="A1"><v>1</v></c></row>';
const text = (value: string) => new TextEncoder().encode(value);
const contents = (bytes: Uint8Array, name = "x.xlsx") => {
  const workbook = openWorkbook(bytes, name);
  return workbook.sheet(workbook.sheets[0]?.name ?? "");
};

describe("a file that is no workbook", () => {
  it.each([
    [
      "protected by a password",
      new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]),
      "x.xlsx",
      /protected by a password/,
    ],
    ["empty", new Uint8Array(), "x.xlsx", /empty/],
    ["cut off", xlsx(row).slice(0, 300), "x.xlsx", /damaged|cut off/],
    ["another archive", zipSync({ "a.txt": strToU8("a") }), "x.xlsx", /no workbook/],
    ["another archive for .ods", zipSync({ "a.txt": strToU8("a") }), "x.ods", /no spreadsheet/],
    [
      "a text document for .ods",
      zipSync({
        "content.xml": strToU8("<o:document-content xmlns:o='x'><o:body><o:text/></o:body></o:document-content>"),
      }),
      "x.ods",
      /no spreadsheet/,
    ],
    ["of another kind", text("x"), "x.txt", /no workbook/],
    [
      "not text",
      new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 0x0d, 0x49, 0x48, 0x44, 0x52, 0, 0]),
      "x.csv",
      /./,
    ],
  ])("%s is refused with a sentence", (_, bytes, name, words) => {
    expect(() => contents(bytes, name)).toThrow(words);
  });

  it("damaged in one sheet is refused when that sheet is read", () => {
    expect(() => contents(xlsx("<row><c r='A1'><v>1</v></row>"))).toThrow(/not well-formed/);
  });

  it("with a document type, which could grow without end, is refused", () => {
    const bomb = `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "c">]><worksheet xmlns="${main}"/>`;
    expect(() => contents(xlsx("", { parts: { "xl/worksheets/sheet1.xml": bomb } }))).toThrow(/document type/);
  });
});

describe("odd workbooks are read as far as they say something", () => {
  it("macros are left alone", () => {
    expect(contents(xlsx(row, { parts: { "xl/vbaProject.bin": "x" } }), "x.xlsm").content(0, 0)).toBe(1);
  });

  it("errors, formulas without results and links to other workbooks are problems of their cells", () => {
    const sheet = contents(
      xlsx(
        '<row r="1"><c r="A1" t="e"><v>#REF!</v></c><c r="B1"><f>[1]Other!A1</f></c><c r="C1"><f>C1</f><v/></c><c r="D1"><f>1+1</f><v>2</v></c></row>',
      ),
    );
    const codes = [0, 1, 2].map((column) => (sheet.content(0, column) as CellProblem).code);
    expect(codes).toEqual(["#REF!", "no result", "no result"]);
    expect(sheet.content(0, 3)).toBe(2);
  });

  it("names that lead nowhere or into another workbook are listed and cannot be bound", () => {
    const names =
      '<definedNames><definedName name="Lost">#REF!</definedName><definedName name="Far">[1]Other!$A$1</definedName></definedNames>';
    const workbook = openWorkbook(xlsx(row, { workbook: names }), "x.xlsx");
    expect(workbook.names.map(({ name, address }) => [name, address])).toEqual([
      ["Lost", undefined],
      ["Far", undefined],
    ]);
    expect(resolveRange(workbook, "Far")).toEqual({
      missing: "The name “Far” leads to no cells of the workbook ([1]Other!$A$1).",
    });
  });

  it("two sheets whose names differ in case are both found by their exact names", () => {
    const sheets = '<sheet name="Levels" sheetId="1" r:id="r1"/><sheet name="LEVELS" sheetId="2" r:id="r2"/>';
    const workbook = openWorkbook(xlsx(row, { sheets }), "x.xlsx");
    expect(
      ["Levels!A1", "LEVELS!A1"].map(
        (range) => (resolveRange(workbook, range) as { address: { sheet: string } }).address.sheet,
      ),
    ).toEqual(["Levels", "LEVELS"]);
  });

  it("the last row and column, an empty sheet and the longest cell are read", () => {
    const long = "x".repeat(32_767);
    const sheet = contents(xlsx(`<row r="1048576"><c r="XFD1048576" t="inlineStr"><is><t>${long}</t></is></c></row>`));
    expect(sheet.content(1_048_575, 16_383)).toBe(long);
    expect(sheet.size).toEqual({ rows: 1_048_576, columns: 16_384 });
    expect(contents(xlsx("")).size).toEqual({ rows: 0, columns: 0 });
    expect(resolveRange(openWorkbook(xlsx(""), "x.xlsx"), "Levels!A:C")).toMatchObject({
      address: { top: 0, bottom: 0 },
    });
  });

  it("uneven rows of a .csv are said, and what looks like a formula is a text", () => {
    const workbook = openWorkbook(text('Name,Level\nQuay,=1+1\nBar\n"=cmd|calc",5\n'), "x.csv");
    const sheet = workbook.sheet("x");
    expect([sheet.content(1, 1), sheet.content(3, 0), sheet.content(3, 1)]).toEqual(["=1+1", "=cmd|calc", 5]);
    expect(workbook.remarks).toEqual([
      "Some rows have fewer values than others; the cells that they leave out are empty.",
    ]);
  });

  it("delimiter, decimal comma, encoding and percent of a .csv are recognised", () => {
    const bytes = new Uint8Array([
      ...text("Stra"),
      0xdf,
      ...text("e;Pegel;Anteil\nM"),
      0xfc,
      ...text("hle;4,61;12 %\nTor;1.234,5;7 %\n"),
    ]);
    const workbook = openWorkbook(bytes, "x.csv");
    const sheet = workbook.sheet("x");
    expect([sheet.content(0, 0), sheet.content(1, 0)]).toEqual(["Straße", "Mühle"]);
    expect([sheet.content(1, 1), sheet.content(2, 1), sheet.content(1, 2)]).toEqual([4.61, 1234.5, 0.12]);
  });
});
