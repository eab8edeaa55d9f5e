import { findCells, openWorkbook } from "./index";

const workbook = (text: string) => openWorkbook(new TextEncoder().encode(text), "gauges.csv");
const GAUGES = "Station,January,March\nQuay,4.1,4.6\nBar,3.2,4.6\nFerry steps,2.9,1234.5\n";

describe("cells that were copied from a spreadsheet", () => {
  // Spreadsheets put cells on the clipboard as they show them, in the language of the computer (common practice, no source).
  it.each([
    [
      "as plain numbers",
      [
        ["Station", "January"],
        ["Quay", "4.1"],
        ["Bar", "3.2"],
      ],
      "gauges!A1:B3",
    ],
    [
      "with a decimal comma",
      [
        ["Quay", "4,1", "4,6"],
        ["Bar", "3,2", "4,6"],
      ],
      "gauges!A2:C3",
    ],
    [
      "with grouped digits",
      [
        ["Bar", "3.2", "4.6"],
        ["Ferry steps", "2.9", "1,234.5"],
      ],
      "gauges!A3:C4",
    ],
    [
      "as numbers alone",
      [
        ["4.1", "4.6"],
        ["3.2", "4.6"],
      ],
      "gauges!B2:C3",
    ],
  ])("are found where they come from, %s", (_, rows, range) => {
    expect(findCells(workbook(GAUGES), rows, ["en-GB", "de"])).toBe(range);
  });

  it.each([
    [
      "one of them differs",
      [
        ["Quay", "4.1"],
        ["Bar", "3.3"],
      ],
    ],
    ["they are few", [["Quay", "4.1"]]],
    ["rows are of different length", [["Quay", "4.1", "4.6"], ["Bar"]]],
    [
      "they are empty",
      [
        ["", ""],
        ["", ""],
      ],
    ],
    ["the block is larger than the sheet", Array.from({ length: 9 }, () => ["Quay", "4.1"])],
  ])("are not found when %s", (_, rows) => {
    expect(findCells(workbook(GAUGES), rows, ["en"])).toBeUndefined();
  });

  it("are not linked when two places have the same", () => {
    const twice = "a,1,,a,1\nb,2,,b,2\n";
    expect(
      findCells(
        workbook(twice),
        [
          ["a", "1"],
          ["b", "2"],
        ],
        ["en"],
      ),
    ).toBeUndefined();
  });
});
