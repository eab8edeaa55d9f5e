import { must, plainText, type TableElement, textOf } from "@unitext/core/model";
import fc from "fast-check";
import {
  deleteColumn,
  deleteRow,
  fillCells,
  insertColumn,
  insertRow,
  mergeCells,
  moveColumn,
  moveColumnEdge,
  moveRow,
  rewordCell,
  setRowHeight,
  splitCell,
} from "./index";

describe("rows and columns of a table", () => {
  const cell = (text: string, more = {}) => ({ text: plainText(text), ...more });
  const table: TableElement = {
    kind: "table",
    id: "t",
    slot: null,
    header: 1,
    align: ["start", "end", "end"],
    widths: [100, 50, 50],
    heights: [20, 30, 40],
    rows: [
      [cell("a", { columns: 2 }), null, cell("c")],
      [cell("d"), cell("e", { rows: 2 }), cell("f")],
      [cell("g"), null, cell("i")],
    ],
  };
  const words = ({ rows }: TableElement) =>
    rows.map((row) =>
      row
        .map((one) =>
          one ? textOf(one.text) + (one.columns ? `>${one.columns}` : "") + (one.rows ? `v${one.rows}` : "") : "-",
        )
        .join(" "),
    );

  it("come in between, and cells that reach over the place reach further", () => {
    expect(words(insertRow(table, 2))).toEqual(["a>2 - c", "d ev3 f", " - ", "g - i"]);
    expect(insertRow(table, 2).heights).toEqual([20, 30, 30, 40]);
    expect(insertRow(table, 0).header).toBe(2);
    expect(words(insertRow(table, 3))).toEqual(["a>2 - c", "d ev2 f", "g - i", "  "]);
    // What is written in a new cell looks as beside it.
    const look = { size: 9, colour: "#7a2e57" };
    const styled: TableElement = {
      ...table,
      rows: table.rows.map((row) =>
        row.map(
          (one) =>
            one && {
              ...one,
              text: one.text.map((paragraph) => ({
                ...paragraph,
                align: "end" as const,
                runs: paragraph.runs.map((run) => ({ ...run, properties: look })),
              })),
            },
        ),
      ),
    };
    const row = insertRow(styled, 3);
    expect(row.rows[3]?.[0]?.text).toEqual([
      { kind: "plain", level: 0, align: "end", properties: { words: look }, runs: [] },
    ]);
    expect(insertRow(row, 4).rows[4]?.[0]).toEqual(row.rows[3]?.[0]);
    const wider = insertColumn(table, 1);
    expect(words(wider)).toEqual(["a>3 - - c", "d  ev2 f", "g  - i"]);
    expect(wider.widths).toEqual([75, 50, 37.5, 37.5]);
    expect([wider.align, wider.header, wider.heights]).toEqual([["start", "start", "end", "end"], 1, [20, 30, 40]]);
  });

  it("go, and cells that reached over them reach less far", () => {
    expect(words(must(deleteRow(table, 1)))).toEqual(["a>2 - c", "g e i"]);
    expect(words(must(deleteRow(table, 0)))).toEqual(["d ev2 f", "g - i"]);
    expect(deleteRow(table, 0)?.header).toBe(0);
    expect(words(must(deleteColumn(table, 0)))).toEqual(["a c", "ev2 f", "- i"]);
    expect(words(must(deleteColumn(table, 2)))).toEqual(["a>2 -", "d ev2", "g -"]);
    expect(deleteRow({ ...table, rows: [[cell("only")]] }, 0)).toBeUndefined();
  });

  // Whatever is done, each place belongs to one cell: the rule of CT_Table (ECMA-376-1, 21.1.3) and of OpenDocument, 9.1.
  it("leave a table whole whatever is done to it", () => {
    const whole = ({ rows, align, widths, heights }: TableElement) => {
      const taken = new Set<string>();
      for (const [y, row] of rows.entries())
        for (const [x, one] of row.entries()) {
          expect(one === null).toBe(taken.has(`${y}/${x}`));
          for (let dy = 0; dy < (one?.rows ?? 1); dy++)
            for (let dx = 0; dx < (one?.columns ?? 1); dx++) {
              expect(y + dy < rows.length && x + dx < row.length).toBe(true);
              taken.add(`${y + dy}/${x + dx}`);
            }
        }
      expect([align.length, widths?.length, heights?.length]).toEqual([rows[0]?.length, rows[0]?.length, rows.length]);
    };
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(7), fc.nat(20), fc.nat(20)), { maxLength: 12 }), (acts) => {
        let now = table;
        for (const [kind, place, other] of acts) {
          const [tall, wide] = [now.rows.length, now.rows[0]?.length ?? 1];
          const [y, x, down, right] = [place % tall, other % wide, other % tall, place % wide];
          const range = {
            top: Math.min(y, down),
            bottom: Math.max(y, down),
            left: Math.min(x, right),
            right: Math.max(x, right),
          };
          const next = [
            () => insertRow(now, place % (tall + 1)),
            () => insertColumn(now, place % (wide + 1)),
            () => deleteRow(now, y),
            () => deleteColumn(now, x),
            () => mergeCells(now, range),
            () => splitCell(now, y, x),
            () => moveRow(now, y, down),
            () => moveColumn(now, x, right),
          ][kind];
          now = next?.() ?? now;
          whole(now);
        }
      }),
    );
  });

  it("merge into one cell with all their words, which can be taken apart", () => {
    const merged = mergeCells(table, { top: 0, left: 1, bottom: 1, right: 2 });
    // The merged cells above and below reach into the range, so the range grows to hold them.
    expect(words(merged)).toEqual(["a\nc\nd\ne\nf\ng\ni>3v3 - -", "- - -", "- - -"]);
    expect(words(splitCell(merged, 0, 0))).toEqual(["a\nc\nd\ne\nf\ng\ni  ", "  ", "  "]);
    expect(splitCell(table, 0, 2)).toBe(table);
  });

  it("move with their heights, widths and alignment, unless that would tear a cell", () => {
    const plain: TableElement = {
      ...table,
      rows: [
        [cell("a"), cell("b"), cell("c")],
        [cell("d"), cell("e"), cell("f")],
        [cell("g"), cell("h"), cell("i")],
      ],
    };
    const down = must(moveRow(plain, 0, 2));
    expect([words(down), down.heights]).toEqual([
      ["d e f", "g h i", "a b c"],
      [30, 40, 20],
    ]);
    const left = must(moveColumn(plain, 1, 0));
    expect([words(left), left.widths, left.align]).toEqual([
      ["b a c", "e d f", "h g i"],
      [50, 100, 50],
      ["end", "start", "end"],
    ]);
    expect(moveRow(table, 1, 2)).toBeUndefined();
    expect(moveColumn(table, 1, 0)).toBeUndefined();
  });

  it("change their sizes by their edges, and no column gets too narrow to see", () => {
    expect(moveColumnEdge(table, [100, 50, 50], 0, 10).widths).toEqual([110, 40, 50]);
    expect(moveColumnEdge(table, [100, 50, 50], 0, 100).widths).toEqual([126, 24, 50]);
    const { widths: _, ...themed } = table;
    expect(moveColumnEdge(themed, [100, 50, 50], 1, -10)).toMatchObject({ shares: [100, 40, 60] });
    expect(setRowHeight(table, [20, 30, 40], 1, 44.444).heights).toEqual([20, 44.44, 40]);
  });

  it("take pasted texts, with rows and columns added where they reach beyond the table", () => {
    const filled = fillCells(table, 2, 2, [
      ["x", "y"],
      ["z", "w"],
    ]);
    expect(words(filled)).toEqual(["a>2 - c ", "d ev2 f ", "g - x y", "  z w"]);
    expect(filled.align).toHaveLength(4);
    // Words that are put in place of others look like them.
    const bold = { text: [{ kind: "plain" as const, level: 0, runs: [{ text: "old", marks: ["strong" as const] }] }] };
    expect(rewordCell(bold, "new").text[0]?.runs).toEqual([{ text: "new", marks: ["strong"] }]);
  });
});
