import {
  type Element,
  newSlide,
  type Slide,
  type TableElement,
  must,
  emptyDeck,
  plainText,
  textOf,
} from "@unitext/core/model";
import fc from "fast-check";
import {
  alignElements,
  apply,
  groupElements,
  placed,
  reorderElements,
  distributeElements,
  batch,
  ungroupElements,
  insertColumn,
  deleteColumn,
  deleteRow,
  insertRow,
  expandToGroups,
} from "./index";

const page = { width: 960, height: 540 };
const at = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });
const box = (id: string, more: Partial<Element> = {}): Element =>
  ({ kind: "text", id, slot: null, frame: at(0, 0, 10, 10), text: plainText(id), ...more }) as Element;

describe("frames", () => {
  it("line up by the page alone, and by what is around them together", () => {
    expect(alignElements([at(10, 10, 100, 40)], "centre", page)).toEqual([at(430, 10, 100, 40)]);
    expect(alignElements([at(10, 10, 100, 40)], "bottom", page)).toEqual([at(10, 500, 100, 40)]);
    const two = [at(10, 10, 100, 40), at(200, 90, 40, 20)];
    expect(alignElements(two, "left", page).map(({ x }) => x)).toEqual([10, 10]);
    expect(alignElements(two, "right", page).map(({ x }) => x)).toEqual([140, 200]);
    expect(alignElements(two, "middle", page).map(({ y }) => y)).toEqual([40, 50]);
    expect(alignElements(two, "top", page).map(({ y }) => y)).toEqual([10, 10]);
  });

  it("stand with the same space between them, the outer two where they were", () => {
    expect(distributeElements([at(0, 0, 10, 10), at(90, 0, 10, 10), at(12, 0, 20, 10)], "x").map(({ x }) => x)).toEqual(
      [0, 90, 40],
    );
    expect(distributeElements([at(0, 0, 10, 10), at(0, 50, 10, 10)], "y").map(({ y }) => y)).toEqual([0, 50]);
  });

  it("are written in hundredths of points, and a whole turn is none", () => {
    expect(placed(box("a", { rotation: 20 }), at(1.23456, 2, 0, 5), 360)).toEqual(
      box("a", { frame: at(1.23, 2, 1, 5) }),
    );
    expect(placed(box("a"), at(0, 0, 10, 10), 12.345).rotation).toBe(12.35);
  });
});

describe("the order of drawing", () => {
  const slide: Slide = { ...newSlide("s", "blank"), elements: ["a", "b", "c", "d"].map((id) => box(id)) };
  const order = (ids: string[], depth: Parameters<typeof reorderElements>[2]) => {
    const changes = reorderElements(slide, ids, depth);
    const deck = { ...emptyDeck("d", "D"), slides: [slide] };
    return changes.length
      ? apply(deck, batch(changes))
          .deck.slides[0]?.elements.map(({ id }) => id)
          .join("")
      : "same";
  };
  it("brings elements to the front, the back, or a step, and keeps their own order", () => {
    expect(order(["a", "c"], "front")).toBe("bdac");
    expect(order(["d", "b"], "back")).toBe("bdac");
    expect(order(["a", "b"], "forward")).toBe("cabd");
    expect(order(["c", "d"], "backward")).toBe("acdb");
    expect(order(["d"], "front")).toBe("same");
  });
  it("is undone in one step", () => {
    const deck = { ...emptyDeck("d", "D"), slides: [slide] };
    const { deck: changed, inverse } = apply(deck, batch(reorderElements(slide, ["a"], "front")));
    expect(apply(changed, inverse).deck).toEqual(deck);
  });
});

describe("groups", () => {
  it("are made inside those that are shared, selected whole, and taken apart from outside in", () => {
    const [a, b] = groupElements([box("a", { groups: ["o", "x"] }), box("b", { groups: ["o"] })], "n") as [
      Element,
      Element,
    ];
    expect([a.groups, b.groups]).toEqual([
      ["o", "n", "x"],
      ["o", "n"],
    ]);
    expect(ungroupElements([a, box("c", { groups: ["z"] })]).map(({ groups }) => groups)).toEqual([
      ["n", "x"],
      undefined,
    ]);
    const slide = { ...newSlide("s", "blank"), elements: [a, box("c"), b] };
    expect(expandToGroups(slide, ["a"])).toEqual(["a", "b"]);
    expect(expandToGroups(slide, ["c"])).toEqual(["c"]);
  });
});

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
      fc.property(fc.array(fc.tuple(fc.nat(3), fc.nat(20)), { maxLength: 12 }), (acts) => {
        let now = table;
        for (const [kind, place] of acts) {
          const [tall, wide] = [now.rows.length, now.rows[0]?.length ?? 1];
          now =
            kind === 0
              ? insertRow(now, place % (tall + 1))
              : kind === 1
                ? insertColumn(now, place % (wide + 1))
                : ((kind === 2 ? deleteRow(now, place % tall) : deleteColumn(now, place % wide)) ?? now);
          whole(now);
        }
      }),
    );
  });
});
