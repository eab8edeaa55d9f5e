import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import {
  CellProblem,
  cellText,
  compareWorkbooks,
  isoOf,
  NO_RESULT,
  openWorkbook,
  resolveRange,
  takeRange,
  type Workbook,
  writeCsv,
} from "./index";

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

it("a spreadsheet of python3-odf has its charts, with the cells of their categories and series", () => {
  const workbook = open("chart.ods");
  expect(workbook.charts).toMatchObject([
    {
      name: "Levels by month",
      sheet: "Levels",
      type: "bar",
      categories: { sheet: "Levels", top: 0, left: 1, bottom: 0, right: 2 },
      series: [
        { nameAt: { top: 1, left: 0 }, values: { top: 1, left: 1, right: 2 } },
        { nameAt: { top: 2, left: 0 }, values: { top: 2, left: 1, right: 2 } },
      ],
    },
  ]);
  const resolved = resolveRange(workbook, "chart:Levels by month");
  if ("missing" in resolved) throw new Error(resolved.missing);
  expect(takeRange(workbook, resolved, { language: "en" }).map((row) => row.map(({ content }) => content))).toEqual([
    [undefined, "Quay", "Bar"],
    ["January", 4.1, 3.2],
    ["February", 4.25, 3.4],
  ]);
});

const csv = (bytes: Uint8Array, reading?: Parameters<typeof openWorkbook>[2]) =>
  openWorkbook(bytes, "levels.csv", reading);

it("a .csv is read as it is told where what is recognised is wrong", () => {
  // 1,234 may be a thousand or one and a bit; 0xe9 is é in windows-1252 and щ in windows-1251.
  const bytes = Uint8Array.from([..."Place;Level\r\nCaf\u00e9;1,234\r\n"].map((letter) => letter.charCodeAt(0)));
  const guessed = csv(bytes);
  expect(guessed.csv).toMatchObject({ delimiter: ";", decimal: "." });
  expect(guessed.sheet("levels").content(1, 1)).toBe(1234);
  const told = csv(bytes, { encoding: "windows-1251", decimal: "," });
  expect(told.csv).toEqual({ encoding: "windows-1251", delimiter: ";", decimal: "," });
  expect([0, 1].map((column) => told.sheet("levels").content(1, column))).toEqual(["Cafй", 1.234]);
  expect(csv(bytes, { delimiter: "," }).sheet("levels").content(1, 0)).toBe("Caf\u00e9;1");
  expect(() => csv(bytes, { encoding: "utf-8" })).toThrow("not text in utf-8");
});

it("typed rows are written as .csv so that no program takes a text for a formula, and read as they were typed", () => {
  const rows = [
    ["Station", "Level, m"],
    ["=cmd|calc", "-4.6"],
    ['a "b"', "@x"],
  ];
  const text = writeCsv(rows);
  expect(text).toBe('Station,"Level, m"\r\n\'=cmd|calc,-4.6\r\n"a ""b""",\'@x\r\n');
  const sheet = csv(new TextEncoder().encode(text)).sheet("levels");
  expect(rows.map((_, row) => [0, 1].map((column) => sheet.content(row, column)))).toEqual([
    ["Station", "Level, m"],
    ["=cmd|calc", -4.6],
    ['a "b"', "@x"],
  ]);
});

it("two versions differ in the cells, sheets and names that differ", () => {
  const sheet = (text: string) => csv(new TextEncoder().encode(text));
  const changes = compareWorkbooks(
    sheet("Station,March\nQuay,4.6\nBar,3.1\n"),
    sheet("Station,March\nQuay,5.3\nBar,3.1\nNess,2\n"),
    "de",
  );
  expect(changes).toMatchObject({ addedSheets: [], removedSheets: [], count: 3 });
  expect(changes.cells).toEqual([
    { cell: "levels!B2", row: "Quay", from: "4,6", to: "5,3" },
    { cell: "levels!A4", row: "", from: "", to: "Ness" },
    { cell: "levels!B4", row: "Ness", from: "", to: "2" },
  ]);
});
