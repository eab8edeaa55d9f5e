import { type ChartType, THEMES, must } from "@unitext/core/model";
import { chart, type Figure, type FigurePath, formatted, stacked } from "./index";

const style = {
  colours: THEMES.saltmarsh.colours,
  size: 12,
  measure: (text: string, size: number) => text.length * size * 0.5,
};
const frame = { x: 20, y: 10, width: 400, height: 240 };
const CATEGORIES = ["Jan", "Feb", "Mar"];
const [NORTH, SOUTH] = ["#111111", "#222222"];
const series = (values: (number | null)[], colour: string, name = "", more: object = {}) => ({
  name,
  values,
  colour,
  ...more,
});
const draw = (form: ChartType, list: ReturnType<typeof series>[], more: object = {}): Figure =>
  chart(form, { categories: CATEGORIES, series: list, legend: "none", ...more } as never, frame, style);
const numbersOf = (d: string) => (d.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
/** Rectangles of a colour, as `M x y h w v h …`. */
const boxes = ({ paths }: Figure, colour: string) =>
  paths
    .filter(({ fill, d }) => fill === colour && /^M[-\d.]+ [-\d.]+h/.test(d))
    .map(({ d }) => {
      const [x = 0, y = 0, width = 0, height = 0] = numbersOf(d);
      return { x, y, width, height, bottom: y + height };
    });
const words = ({ labels }: Figure) =>
  labels.map(({ text }) => text.map(({ runs }) => runs.map((run) => run.text).join("")).join(" "));
const close = (value: number, wanted: number, by = 0.06) => expect(Math.abs(value - wanted)).toBeLessThanOrEqual(by);

describe("columns and bars", () => {
  it("are as long as their values, from one line", () => {
    const [one, two, four] = boxes(draw("column", [series([1, 2, 4], NORTH)]), NORTH) as [
      ReturnType<typeof boxes>[0],
      ReturnType<typeof boxes>[0],
      ReturnType<typeof boxes>[0],
    ];
    close(two.height, 2 * one.height);
    close(four.height, 4 * one.height, 0.1);
    close(one.bottom, four.bottom);
    close(two.x - one.x, four.x - two.x);
    const bars = boxes(draw("bar", [series([1, 2, 4], NORTH)]), NORTH);
    close(bars[1]?.width ?? 0, 2 * (bars[0]?.width ?? 0));
    close(bars[2]?.width ?? 0, 4 * (bars[0]?.width ?? 0), 0.1);
    expect(new Set(bars.map(({ x }) => Math.round(x))).size).toBe(1);
  });

  it("hang below the line where their values are below nothing", () => {
    const [up, down] = boxes(draw("column", [series([3, -3, null], NORTH)]), NORTH) as [
      ReturnType<typeof boxes>[0],
      ReturnType<typeof boxes>[0],
    ];
    close(up.height, down.height);
    close(up.bottom, down.y);
  });

  it("stand on each other in a stack, and fill the whole as shares", () => {
    const stack = draw("column", [series([1, 2, 3], NORTH), series([2, 2, 1], SOUTH)], { stack: "sum" });
    for (const [nth, lower] of boxes(stack, NORTH).entries()) close(boxes(stack, SOUTH)[nth]?.bottom ?? 0, lower.y);
    const shares = draw("column", [series([1, 2, 3], NORTH), series([3, 2, 1], SOUTH)], { stack: "share" });
    const heights = boxes(shares, NORTH).map(({ height }, nth) => height + (boxes(shares, SOUTH)[nth]?.height ?? 0));
    close(heights[0] ?? 0, heights[1] ?? 1, 0.1);
    close((boxes(shares, NORTH)[0]?.height ?? 0) / (heights[0] ?? 1), 0.25, 0.005);
    expect(words(shares)).toContain("100%");
  });

  it("give the sums on which they stand", () => {
    // 1 of 4 is a quarter; a missing value has no place.
    expect(
      stacked({
        categories: ["a", "b"],
        series: [
          { name: "", values: [1, null] },
          { name: "", values: [3, 2] },
        ],
        stack: "share",
      }),
    ).toEqual([
      [[0, 0.25], null],
      [
        [0.25, 1],
        [0, 1],
      ],
    ]);
  });
});

describe("a second axis", () => {
  it("measures its series by numbers of its own, on the right, and leaves the first as it was", () => {
    const both = draw(
      "combined",
      [
        series([1, 2, 4], NORTH, "", { type: "column" }),
        series([100, 200, 400], SOUTH, "", { type: "column", axis: "secondary" }),
      ],
      { secondaryAxis: { title: "Visitors", format: "0" } },
    );
    const [left, right] = [boxes(both, NORTH), boxes(both, SOUTH)];
    // A hundred times as much on a scale a hundred times as long is as high.
    for (const [nth, { height }] of left.entries()) close(right[nth]?.height ?? 0, height, 0.1);
    expect(words(both)).toEqual(expect.arrayContaining(["4.0", "400", "Visitors"]));
    const places = new Map(both.labels.map(({ text, frame: at }) => [text[0]?.runs[0]?.text ?? "", at.x]));
    expect(must(places.get("400"))).toBeGreaterThan(Math.max(...right.map(({ x, width }) => x + width)));
    expect(must(places.get("4.0"))).toBeLessThan(Math.min(...left.map(({ x }) => x)));
  });

  it("has stacks of its own", () => {
    const both = draw(
      "column",
      [series([1, 1, 1], NORTH), series([1, 1, 1], SOUTH), series([50, 50, 50], "#333333", "", { axis: "secondary" })],
      { stack: "sum" },
    );
    close(boxes(both, SOUTH)[0]?.bottom ?? 0, boxes(both, NORTH)[0]?.y ?? 1);
    close(boxes(both, "#333333")[0]?.bottom ?? 0, boxes(both, NORTH)[0]?.bottom ?? 1);
  });
});

describe("colours of single points and the way along", () => {
  it("paint one column or slice", () => {
    const figure = draw("column", [series([1, 2, 3], NORTH, "", { points: [null, "#abcdef", null] })]);
    expect([boxes(figure, NORTH).length, boxes(figure, "#abcdef").length]).toEqual([2, 1]);
    expect(
      draw("pie", [series([1, 2, 3], NORTH, "", { points: ["#aa0000", "#00aa00", "#0000aa"] })]).paths.flatMap(
        ({ fill }) => fill ?? [],
      ),
    ).toEqual(expect.arrayContaining(["#aa0000", "#00aa00", "#0000aa"]));
  });

  it("turns round with a reversed axis", () => {
    const [plain, turned] = [false, true].map((reversed) =>
      boxes(draw("column", [series([1, 2, 4], NORTH)], { xAxis: { reversed } }), NORTH),
    );
    expect(turned?.map(({ height }) => Math.round(height))).toEqual(plain?.map(({ height }) => Math.round(height)));
    for (const [nth, { x }] of turned?.entries() ?? []) close(x, plain?.[2 - nth]?.x ?? 0, 0.1);
    const bars = boxes(draw("bar", [series([1, 2, 4], NORTH)], { xAxis: { reversed: true } }), NORTH);
    expect((bars[0]?.y ?? 0) > (bars[2]?.y ?? 0)).toBe(true);
  });
});

describe("lines, areas and points", () => {
  it("are curved through their values where they are smooth, and never beyond them", () => {
    const figure = draw("line", [series([1, 3, 2], NORTH, "", { smooth: true })]);
    const [path] = figure.paths.filter(({ stroke }) => stroke === NORTH);
    expect(path?.d).toContain("C");
    const ys = numbersOf(path?.d ?? "").filter((_, nth) => nth % 2 === 1);
    const dots = figure.paths.filter(({ fill }) => fill === NORTH).map(({ d }) => numbersOf(d)[1] ?? 0);
    expect(Math.min(...ys)).toBeGreaterThanOrEqual(Math.min(...dots) - 0.1);
  });
  const stroke = ({ paths }: Figure, colour: string): FigurePath[] => paths.filter((path) => path.stroke === colour);

  it("go through their values, and leave a gap where one is missing", () => {
    const [path] = stroke(draw("line", [series([1, 3, 2], NORTH)]), NORTH);
    const [, y1 = 0, , y2 = 0, , y3 = 0] = numbersOf(path?.d ?? "");
    close((y1 - y2) / (y1 - y3), 2, 0.02);
    expect((stroke(draw("line", [series([1, null, 2], NORTH)]), NORTH)[0]?.d.match(/M/g) ?? []).length).toBe(2);
  });

  it("stand where both of their values lie", () => {
    const figure = chart(
      "scatter",
      {
        categories: [],
        series: [{ name: "", values: [1, 2, 3], x: [0, 1, 4], colour: NORTH }],
        legend: "none",
      } as never,
      frame,
      style,
    );
    const middles = figure.paths
      .filter(({ fill }) => fill === NORTH)
      .map(({ d }) => numbersOf(d))
      .filter((list) => list.length > 3)
      .map(([x = 0, y = 0]) => ({ x, y }));
    expect(middles).toHaveLength(3);
    const [a, b, c] = middles as [{ x: number; y: number }, { x: number; y: number }, { x: number; y: number }];
    close((c.x - a.x) / (b.x - a.x), 4, 0.05);
    close((c.y - a.y) / (b.y - a.y), 2, 0.05);
  });
});

describe("pies and rings", () => {
  const slices = (form: "pie" | "doughnut") =>
    draw(form, [series([3, 1, 0], NORTH)]).paths.filter(({ matrix }) => matrix);

  it("give each value its share of the turn, from the top and clockwise", () => {
    const [first, second] = slices("pie");
    // Three quarters end at nine o'clock, where the last quarter begins.
    const r = Math.abs(numbersOf(first?.d ?? "")[1] ?? 0);
    expect(first?.d).toContain("1,1,");
    const [x = 0, y = 0] = numbersOf(second?.d ?? "");
    close(x, -r, 0.01);
    close(y, 0, 0.01);
  });

  it("leave the middle of a ring free", () => {
    const radii = (path: FigurePath | undefined) =>
      [...(path?.d ?? "").matchAll(/A([\d.]+),/g)].map(([, r]) => Number(r));
    expect(new Set(radii(slices("doughnut")[0])).size).toBe(2);
    expect(new Set(radii(slices("pie")[0])).size).toBe(1);
  });

  it("say their shares, or their values, beside them", () => {
    expect(words(draw("pie", [series([3, 1, 0], NORTH)]))).toEqual(
      expect.arrayContaining(["Jan · 75 %", "Feb · 25 %"]),
    );
    expect(words(draw("pie", [series([3, 1, 0], NORTH)], { labels: "value", format: "0.0" }))).toContain("Jan · 3.0");
  });
});

describe("axes, keys and titles", () => {
  it("show what they are asked to", () => {
    const figure = draw("column", [series([1, 2, 4], NORTH, "North"), series([2, 2, 2], SOUTH, "South")], {
      title: "Levels",
      legend: "right",
      xAxis: { title: "Month" },
      yAxis: { title: "Metres", min: -2, max: 8 },
      format: '0.0" m"',
    });
    expect(words(figure)).toEqual(
      expect.arrayContaining(["Levels", "North", "South", "Month", "Metres", ...CATEGORIES, "8.0 m"]),
    );
    // The foot of the axis is at −2: a column of 1 begins at nothing, not there. (The first of that colour is in the key.)
    const [one, two] = boxes(figure, NORTH).slice(-3) as [ReturnType<typeof boxes>[0], ReturnType<typeof boxes>[0]];
    close(two.height, 2 * one.height, 0.1);
  });

  it("stay inside their frame", () => {
    for (const form of ["column", "bar", "line", "area", "pie", "doughnut"] as const) {
      const { paths, labels } = draw(form, [series([1, 2, 4], NORTH, "North")], { title: "Levels", legend: "bottom" });
      for (const { d, matrix } of paths)
        if (!matrix && /^M[-\d.]+ [-\d.]+h/.test(d))
          for (const { x, y, width, height } of boxes({ paths: [{ d, fill: "x" }], labels: [] }, "x"))
            expect(
              x >= frame.x - 1 &&
                y >= frame.y - 1 &&
                x + width <= frame.x + frame.width + 1 &&
                y + height <= frame.y + frame.height + 1,
            ).toBe(true);
      for (const { frame: place } of labels) expect(place.y).toBeGreaterThanOrEqual(frame.y - style.size);
    }
  });
});

// ECMA-376-1, 18.8.30 (number formats): what each code shows, worked by hand.
describe("number formats", () => {
  it.each([
    [1234.5, "0", "1235"],
    [1234.5, "0.00", "1234.50"],
    [1234.5, "#,##0.00", "1,234.50"],
    [1234.5, "0.##", "1234.5"],
    [1234, "0.##", "1234"],
    [0.25, "#.00", ".25"],
    [0.256, "0%", "26%"],
    [0.256, "0.0%", "25.6%"],
    [1234567, "0,", "1235"],
    [1234567, '0.0,,"M"', "1.2M"],
    [12345, "0.00E+00", "1.23E+04"],
    [0.00012, "0.0E-00", "1.2E-04"],
    [-3, "0.0", "−3.0"],
    [-3, "0.0;(0.0)", "(3.0)"],
    [-3, '0;[Red]"minus "0', "minus 3"],
    [0, '0;-0;"none"', "none"],
    [2.5, "[$€-407] 0.00", "€ 2.50"],
    [2.5, '0.0" m"', "2.5 m"],
    [7, "\\#0", "#7"],
    [7, "General", "7"],
    [1500, undefined, "1,500"],
  ] as const)("%s as %s is %s", (value, format, wanted) => {
    expect(formatted(value, format)).toBe(wanted);
  });
});
