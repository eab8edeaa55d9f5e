import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { CellProblem, cellText, isoOf, NO_RESULT, openWorkbook, resolveRange, type Workbook } from "./index";

/** What python3-openpyxl reads in a workbook, or python3-odf wrote into it, by sheet: row, column and value. */
type Expected = Record<string, [row: number, column: number, value: string | number | boolean | { date: string }][]>;

let folder: string;
let written: Record<string, Expected>;
const open = (name: string): Workbook => openWorkbook(readFileSync(join(folder, name)), name);

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "unitext-workbooks-"));
  const script = join(import.meta.dirname, "../testing/workbooks/make.py");
  written = JSON.parse(execFileSync("/usr/bin/python3", [script, folder], { encoding: "utf8", maxBuffer: 1 << 28 }));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Seconds since 1970 of a date without a zone, rounded as cells hold it. */
const seconds = (iso: string) => Math.round(Date.parse(`${iso.length === 10 ? `${iso}T00:00:00` : iso}Z`) / 1000);

describe("30 workbooks of python3-xlsxwriter, python3-openpyxl and python3-odf", () => {
  it("hold the values and types that those programs read or wrote", () => {
    expect(Object.keys(written)).toHaveLength(30);
    let cells = 0;
    for (const [name, sheets] of Object.entries(written)) {
      const workbook = open(name);
      expect(workbook.sheets.map((sheet) => sheet.name)).toEqual(Object.keys(sheets));
      for (const [sheetName, expected] of Object.entries(sheets)) {
        const sheet = workbook.sheet(sheetName);
        for (const [row, column, value] of expected) {
          const content = sheet.content(row, column);
          const where = `${name} ${sheetName} ${row}/${column}`;
          cells += 1;
          if (typeof value === "object")
            expect([where, seconds(isoOf(content as number, workbook.date1904))]).toEqual([where, seconds(value.date)]);
          else if (content instanceof CellProblem) expect([where, content.code]).toEqual([where, value]);
          else expect([where, content]).toEqual([where, value]);
        }
      }
    }
    expect(cells).toBeGreaterThan(4000);
  });
});

describe("a workbook of python3-xlsxwriter", () => {
  it("has its sheets, names, tables and charts", () => {
    const workbook = open("features.xlsx");
    expect(workbook.sheets).toEqual([
      { name: "Tide levels", hidden: false },
      { name: "Surveys", hidden: false },
      { name: "Workings", hidden: true },
    ]);
    expect(workbook.names.map(({ name, scope, address }) => [name, scope, address?.sheet])).toEqual([
      ["Highest", undefined, "Tide levels"],
      ["Local", "Surveys", "Surveys"],
      ["Lost", undefined, undefined],
    ]);
    expect(workbook.tables).toEqual([
      {
        name: "Dunes",
        address: { sheet: "Surveys", top: 1, left: 1, bottom: 5, right: 3 },
        headerRows: 1,
        totalRows: 1,
        columns: ["Line", "Height", "Cover"],
      },
    ]);
    expect(workbook.charts).toMatchObject([{ name: "Quay", sheet: "Tide levels", type: "bar" }]);
  });

  it("shows texts by their formats, stored results of formulas, errors, merged and hidden cells", () => {
    const workbook = open("features.xlsx");
    const sheet = workbook.sheet("Tide levels");
    expect(cellText(sheet, 1, 2, "en")).toBe("4.3");
    expect(cellText(sheet, 1, 2, "de")).toBe("4,3");
    expect(cellText(workbook.sheet("Surveys"), 2, 3, "en")).toBe("50%");
    expect(sheet.content(1, 4)).toBe(12.95);
    expect(sheet.content(2, 4)).toEqual(new CellProblem("#DIV/0!"));
    expect(sheet.merged).toEqual([{ top: 5, left: 0, bottom: 6, right: 1 }]);
    expect([...sheet.hiddenRows]).toEqual([2]);
    expect([...sheet.hiddenColumns]).toEqual([2]);
  });

  it("finds ranges by address, name, table, column and sheet, and says what leads nowhere", () => {
    const workbook = open("features.xlsx");
    const found = (range: string) => resolveRange(workbook, range);
    expect(found("'tide LEVELS'!$A$1:D3")).toMatchObject({
      kind: "address",
      address: { sheet: "Tide levels", bottom: 2 },
    });
    expect(found("Highest")).toMatchObject({ kind: "name", address: { top: 1, left: 3, bottom: 1, right: 3 } });
    expect(found("dunes")).toMatchObject({ kind: "table", headerRows: 1, address: { top: 1, bottom: 4 } });
    expect(found("Dunes[Height]")).toMatchObject({ address: { top: 2, bottom: 4, left: 2, right: 2 } });
    expect(found("Surveys!B:C")).toMatchObject({ address: { top: 0, bottom: 5, left: 1, right: 2 } });
    expect(found("chart:Quay")).toMatchObject({ kind: "chart" });
    expect(found("Lost")).toEqual({ missing: "The name “Lost” leads to no cells of the workbook (#REF!)." });
    expect(found("Dunes[Depth]")).toEqual({ missing: "The table “Dunes” has no column “Depth”." });
    expect(found("Gone!A1")).toEqual({ missing: "The workbook has no sheet “Gone”." });
    expect(found("A1")).toMatchObject({ missing: expect.stringContaining("names no sheet") });
  });
});

it("a formula without a stored result is an error and never a guess", () => {
  const sheet = open("no-results.xlsx").sheet("Sheet");
  expect(sheet.content(0, 0)).toEqual(new CellProblem(NO_RESULT));
  expect(sheet.content(1, 0)).toBe(2);
});

it("a spreadsheet of python3-odf has its formats, repeated cells and named ranges", () => {
  const workbook = open("features.ods");
  const sheet = workbook.sheet("Levels");
  expect([0, 1, 2, 3, 4, 5].map((column) => cellText(sheet, 0, column, "de"))).toEqual([
    "1.234,6",
    "09.03.2026",
    "7",
    "7",
    "7",
    "",
  ]);
  expect(sheet.size).toEqual({ rows: 1, columns: 5 });
  expect(resolveRange(workbook, "Top")).toMatchObject({ kind: "name", address: { left: 0, right: 1 } });
});
