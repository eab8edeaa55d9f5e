import { plainText, type TableElement } from "@unitext/core/model";
import { cellAt, cellBoxes, neighbour, rangeOf, tabbedCells } from "./cells";

const cell = (text: string, more = {}) => ({ text: plainText(text), ...more });
const table: TableElement = {
  kind: "table",
  id: "t",
  slot: null,
  header: 1,
  align: ["start", "end"],
  rows: [
    [cell("a", { columns: 2 }), null],
    [cell("b"), cell("c")],
  ],
};
const grid = { widths: [100, 60], heights: [20, 30] };

describe("cells on the slide", () => {
  it("stand where the layout has put them, and from the right in a language that is read so", () => {
    const boxes = cellBoxes(table, grid, { x: 10, y: 5 }, "en");
    expect(boxes.map(({ x, y, width, height }) => [x, y, width, height])).toEqual([
      [10, 5, 160, 20],
      [10, 25, 100, 30],
      [110, 25, 60, 30],
    ]);
    expect(cellBoxes(table, grid, { x: 10, y: 5 }, "ar").map(({ x }) => x)).toEqual([10, 70, 10]);
  });

  it("follow each other in reading order, and are found under the positions that they cover", () => {
    const boxes = cellBoxes(table, grid, { x: 0, y: 0 }, "en");
    expect(neighbour(boxes, { row: 0, column: 0 }, 1)).toMatchObject({ row: 1, column: 0 });
    expect(neighbour(boxes, { row: 1, column: 1 }, 1)).toBeUndefined();
    expect(cellAt(table, 0, 1)).toEqual({ row: 0, column: 0 });
    expect(cellAt(table, 2, 0)).toBeUndefined();
    expect(rangeOf({ row: 1, column: 1 }, { row: 0, column: 0 })).toEqual({ top: 0, left: 0, bottom: 1, right: 1 });
  });

  it("are read from tab-separated text", () => {
    expect(tabbedCells("a\tb\r\nc\t\r\n")).toEqual([
      ["a", "b"],
      ["c", ""],
    ]);
  });
});
