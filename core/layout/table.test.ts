import { emptyDeck, metadataOf, newSlide, plainText, run, type TableElement, THEMES, must } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { boxesOf, layoutSlide, leavesOf, tableAppearance } from "./index";

const fonts = shippedFonts();
const words = fc.array(fc.stringMatching(/^[a-zA-Z0-9.,]{1,9}$/), { maxLength: 6 }).map((list) => list.join(" "));

/** Tables of one to eight rows and one to five columns, some of whose cells reach over their neighbours. */
const table: fc.Arbitrary<TableElement> = fc
  .record({
    high: fc.integer({ min: 1, max: 8 }),
    wide: fc.integer({ min: 1, max: 5 }),
    header: fc.integer({ min: 0, max: 2 }),
    sides: fc.array(fc.constantFrom("start" as const, "centre" as const, "end" as const), {
      minLength: 5,
      maxLength: 5,
    }),
  })
  .chain(({ high, wide, header, sides }) =>
    fc.array(fc.array(words, { minLength: wide, maxLength: wide }), { minLength: high, maxLength: high }).map(
      (rows): TableElement => ({
        kind: "table",
        id: "t",
        slot: "table",
        header: Math.min(header, high),
        align: sides.slice(0, wide),
        rows: rows.map((row) => row.map((text) => ({ text: plainText(text) }))),
      }),
    ),
  );
const head = (theme: keyof typeof THEMES) => metadataOf({ ...emptyDeck("d", "D"), theme: THEMES[theme] });
const laid = (element: TableElement, theme: keyof typeof THEMES = "saltmarsh") => {
  const slide = { ...newSlide("s", "table"), elements: [element] };
  const context = { metadata: head(theme), number: 1, fonts };
  const box = boxesOf(slide, context).get("t");
  if (!box) throw new Error("the table has no box");
  const boxes = layoutSlide(slide, context).nodes.flatMap((node) =>
    node.kind === "rect" && node.x === box.x && node.y >= box.y - 0.01 ? [node] : [],
  );
  const rules = boxes.filter(({ height }) => height <= 2);
  const fills = boxes.filter(({ height }) => height > 2);
  return { box, rules, fills, nodes: layoutSlide(slide, context).nodes };
};
const setting = (theme: keyof typeof THEMES = "saltmarsh") => ({ fonts, theme: THEMES[theme], language: "en" });

describe("how the theme draws a table, said for files", () => {
  it("is what is drawn: the fills of rows and the lines under them, in the colours of the theme", () => {
    fc.assert(
      fc.property(
        table,
        fc.constantFrom(
          "saltmarsh" as const,
          "foreshore" as const,
          "nightwatch" as const,
          "chalk" as const,
          "lighthouse" as const,
        ),
        (element, theme) => {
          const { box, rules, fills } = laid(element, theme);
          const look = tableAppearance(element, box.width, box.size, setting(theme));
          expect(look.widths.reduce((sum, width) => sum + width, 0)).toBeCloseTo(box.width, 3);
          let below = box.y;
          const ends = look.heights.map((height) => (below += height));
          const rows = element.rows.map((_, row) => ({ ...look.appearanceOf(row, row), end: must(ends[row]) }));
          const ruled = rows.flatMap(({ borders, end }) => (borders?.bottom ? [{ ...borders.bottom, end }] : []));
          expect(rules.map(({ y, height }) => y + height)).toEqual(ruled.map(({ end }) => expect.closeTo(end, 3)));
          expect(rules.map(({ fill, height }) => [fill, height])).toEqual(
            ruled.map(({ colour, width }) => [colour, width]),
          );
          const filled = rows.flatMap(({ fill }) => (fill?.kind === "solid" ? [fill.colour] : []));
          expect(fills.map(({ fill }) => fill)).toEqual(filled);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("draws no rule through a cell that reaches over several rows", () => {
    const cell = (text: string, more: object = {}) => ({ text: plainText(text), ...more });
    const element: TableElement = {
      kind: "table",
      id: "t",
      slot: "table",
      header: 1,
      align: ["start", "start"],
      rows: [
        [cell("Gauge"), cell("Level")],
        [cell("Quay", { rows: 2 }), cell("2.4")],
        [null, cell("2.1")],
      ],
    };
    const { box, nodes } = laid(element, "foreshore");
    const rules = nodes.flatMap((node) => (node.kind === "rect" && node.y > box.y && node.height <= 2 ? [node] : []));
    const inside = rules.filter(({ width }) => width < box.width - 1);
    expect(inside).toHaveLength(1);
    expect(inside[0]?.x).toBeGreaterThan(box.x + 10);
  });

  it("gives no column less than its longest word needs, as long as there is room", () => {
    fc.assert(
      fc.property(table, (element) => {
        const size = 10;
        const look = tableAppearance(element, 2000, size, setting());
        const { widths } = look;
        const [left, , right] = look.appearanceOf(0, 0).insets ?? [0, 0, 0, 0];
        const face = fonts.face("atkinson-hyperlegible-next-latin-400-normal");
        element.rows.forEach((row, y) => {
          if (y < element.header) return;
          row.forEach((cell, x) => {
            for (const word of cell?.text[0]?.runs[0]?.text.split(" ") ?? [])
              expect(must(widths[x]) + 0.01).toBeGreaterThanOrEqual(
                face.word(word, false, "en").width * size + left + right,
              );
          });
        });
      }),
      { numRuns: 40 },
    );
  });

  it("makes a row higher where its words take more lines, and no other", () => {
    const rows = (long: string) =>
      [
        ["Month", "Said"],
        ["January", "short"],
        ["February", long],
        ["March", "short"],
      ].map((row) => row.map((text) => ({ text: plainText(text) })));
    const heights = (long: string) =>
      tableAppearance({ rows: rows(long), header: 1, align: ["start", "start"] }, 240, 12, setting()).heights;
    const [usual, higher] = [
      heights("short"),
      heights("a sentence that goes on over several lines of a narrow column of the table"),
    ];
    expect(new Set(usual.map((height) => height.toFixed(3))).size).toBe(1);
    expect([higher[0], higher[1], higher[3]]).toEqual(
      [usual[0], usual[1], usual[3]].map((height) => expect.closeTo(must(height), 3)),
    );
    expect(must(higher[2])).toBeGreaterThan(2 * must(usual[2]));
  });

  it("gives the last of several rows what a cell over them needs more", () => {
    const cell = (text: string, more = {}) => ({ text: plainText(text), ...more });
    const element = {
      rows: [
        [cell("one\ntwo\nthree\nfour", { rows: 2 }), cell("a")],
        [null, cell("b")],
        [cell("c"), cell("d")],
      ],
      header: 0,
      align: ["start" as const, "start" as const],
    };
    const { heights } = tableAppearance(element, 400, 12, setting());
    expect(must(heights[1])).toBeGreaterThan(must(heights[0]));
    expect(must(heights[0]) + must(heights[1])).toBeGreaterThanOrEqual(4 * 12 * 1.25);
    expect(heights[2]).toBeCloseTo(must(heights[0]), 3);
  });

  it("sets headings in bold, which takes the room of bold letters", () => {
    const element = (header: number) => ({
      rows: [[{ text: plainText("Mmmmmmmmmmmm") }, { text: plainText("x") }]],
      header,
      align: ["start" as const, "start" as const],
    });
    const width = (header: number) => must(tableAppearance(element(header), 200, 12, setting()).widths[0]);
    expect(width(1)).toBeGreaterThan(width(0));
    const { nodes } = laid({ kind: "table", id: "t", slot: "table", ...element(1) });
    const faces = leavesOf(nodes).flatMap((node) =>
      node.kind === "text" && node.element === "t"
        ? node.lines.flatMap((line) => line.runs.map(({ face }) => face))
        : [],
    );
    expect(faces.every((face) => face.includes("-700-"))).toBe(true);
  });

  it("is the same for a table with formulas or code in its cells as without, but for the room that they take", () => {
    const element = {
      rows: [
        [{ text: [{ kind: "plain" as const, level: 0, runs: [run("mean()", ["code"])] }] }, { text: plainText("x") }],
      ],
      header: 0,
      align: ["start" as const, "start" as const],
    };
    const look = tableAppearance(element, 300, 12, setting());
    expect(look.widths.reduce((sum, width) => sum + width, 0)).toBeCloseTo(300, 3);
    expect(look.heights).toHaveLength(1);
  });
});
