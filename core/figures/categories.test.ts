import { type ChartType, THEMES, must } from "@unitext/core/model";
import { linesOf, naming, shortened } from "./categories";
import { chart, type Figure, type FigureLabel, legible } from "./index";

// Letters half as wide as they are high: lengths can be told by counting.
const style = {
  colours: THEMES.saltmarsh.colours,
  size: 10,
  measure: (text: string, size: number) => text.length * size * 0.5,
};

describe("words between which lines are broken", () => {
  it.each([
    ["one word", "ebb", 20, 1],
    ["words that fit", "ebb and flood", 65, 1],
    ["words that do not", "ebb and flood", 64, 2],
    ["words that fill three lines", "ebb and flood", 25, 3],
    ["a word that is too wide", "ebb and flood", 24, undefined],
    ["no words", "", 10, 1],
  ])("of %s", (_, text, width, lines) => {
    expect(linesOf(text, width, style)).toBe(lines);
  });
});

describe("names of categories", () => {
  const years = Array.from({ length: 16 }, (_, nth) => String(1995 + nth));
  it.each([
    ["stand upright where they fit", ["Jan", "Feb"], 40, { turn: 0, every: 1, height: 13 }],
    [
      "stand upright in as many lines as the longest needs",
      ["North", "Far North Sea"],
      30,
      { turn: 0, every: 1, height: 39 },
    ],
    // Four letters are 20 points wide: an eighth of a turn needs a line, 13 points, over the root of a half.
    ["are turned by an eighth where a word would be broken", years, 19, { turn: -45, every: 1 }],
    ["are turned by a quarter where even that has no room", years, 17, { turn: -90, every: 1, height: 22 }],
    ["are left out, every second, where lines on end have no room", years, 12, { turn: -90, every: 2, height: 22 }],
    ["are left out, four of five, in very little room", years, 3, { turn: -90, every: 5, height: 22 }],
  ])("%s", (_, names, room, wanted) => {
    expect(naming(names, room, 200, 100, style)).toMatchObject(wanted);
  });

  it("stand on end where the first would reach back beyond the chart", () => {
    expect(naming(["Luxembourg", "Ebb"], 20, 200, 100, style).turn).toBe(-45);
    expect(naming(["Luxembourg", "Ebb"], 20, 200, 30, style).turn).toBe(-90);
  });

  it("take two fifths of the height at most, and their ends are left out then", () => {
    const long = ["Organisation of gauges on the eastern coast", "Ebb"];
    const { height, longest } = naming(long, 14, 100, 0, style);
    expect([height, longest]).toEqual([40, 40]);
    const said = shortened(must(long[0]), longest, style);
    expect(said).toBe("Organis…");
    expect(style.measure(said, style.size)).toBeLessThanOrEqual(longest);
    expect(shortened("Ebb", longest, style)).toBe("Ebb");
  });
});

const frame = { x: 0, y: 0, width: 400, height: 300 };
const draw = (form: ChartType, series: object[], categories: string[], more: object = {}): Figure =>
  chart(
    form,
    { categories, series: series.map((one) => ({ name: "", ...one })), legend: "none", ...more } as never,
    frame,
    style,
  );
const wordsOf = ({ text }: FigureLabel) => text.map(({ runs }) => runs.map((run) => run.text).join("")).join(" ");
const labelled = ({ labels }: Figure, words: string) => must(labels.find((label) => wordsOf(label) === words));
const box = ({ paths }: Figure, colour: string, nth = 0) => {
  const [x = 0, y = 0, width = 0, height = 0] =
    paths.filter(({ fill }) => fill === colour).map(({ d }) => (d.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number))[nth] ??
    [];
  return { x, y, width, height };
};

describe("names under a plot", () => {
  it("end at the middle of their category, and stand below the plot, when they are turned", () => {
    const names = Array.from({ length: 26 }, (_, nth) => `Gauge ${nth + 10}`);
    const figure = draw("column", [{ values: names.map(() => 3), colour: "#111111" }], names);
    for (const [nth, name] of names.entries()) {
      const { turn, frame: place, align } = labelled(figure, name);
      const column = box(figure, "#111111", nth);
      expect(turn?.by).toBe(-90);
      expect(turn?.about[0]).toBeCloseTo(column.x + column.width / 2, 0);
      expect(turn?.about[1]).toBeGreaterThan(column.y + column.height);
      expect([align, Math.round(place.x + place.width)]).toEqual(["end", Math.round(turn?.about[0] ?? 0)]);
    }
  });

  it("stand under their categories from right to left where the axis is turned round", () => {
    const figure = draw("column", [{ values: [1, 2], colour: "#111111" }], ["Jan", "Feb"], {
      xAxis: { reversed: true },
    });
    expect(labelled(figure, "Jan").frame.x).toBeGreaterThan(labelled(figure, "Feb").frame.x);
  });
});

describe("labels of values", () => {
  const middle = ({ frame: place }: FigureLabel) => [place.x + place.width / 2, place.y + place.height / 2];
  it.each(["column", "bar"] as const)(
    "are centred in the pieces of a stack of %ss, in a colour that contrasts with them",
    (form) => {
      const figure = draw(
        form,
        [
          { values: [3.37], colour: "#102030" },
          { values: [5.21], colour: "#f0e8d8" },
        ],
        ["Jan"],
        { stack: "sum", labels: "value", format: "0.00" },
      );
      for (const [words, colour, letters] of [
        ["3.37", "#102030", style.colours.paper],
        ["5.21", "#f0e8d8", style.colours.ink],
      ] as const) {
        const piece = box(figure, colour);
        const [x = 0, y = 0] = middle(labelled(figure, words));
        expect(Math.abs(x - piece.x - piece.width / 2)).toBeLessThan(1);
        expect(Math.abs(y - piece.y - piece.height / 2)).toBeLessThan(1);
        expect(labelled(figure, words)).toMatchObject({ fill: letters, anchor: "middle" });
      }
    },
  );

  it("stand above columns, and below those of values below nothing", () => {
    const figure = draw("column", [{ values: [3.37, -2.21], colour: "#102030" }], ["Jan", "Feb"], {
      labels: "value",
      format: "0.00",
    });
    const [up, down] = [box(figure, "#102030"), box(figure, "#102030", 1)];
    const [above, below] = [labelled(figure, "3.37"), labelled(figure, "−2.21")];
    expect([above.anchor, below.anchor]).toEqual(["bottom", "top"]);
    expect(above.frame.y + above.frame.height).toBeLessThanOrEqual(up.y + 1);
    expect(below.frame.y).toBeGreaterThanOrEqual(down.y + down.height - 1);
  });

  // WCAG 2.2, contrast ratio: 21:1 for black on white; #767676 is the lightest grey with 4.5:1 on white (Understanding 1.4.3).
  it.each([
    ["#000000", "#ffffff"],
    ["#ffffff", "#000000"],
    ["#666666", "#ffffff"],
    ["#808080", "#000000"],
  ])("on %s are %s of black and white", (under, letters) => {
    expect(legible(under, { paper: "#ffffff", ink: "#000000" })).toBe(letters);
  });
});

describe("what is drawn over what", () => {
  it("is lines over columns over areas, whichever is named first", () => {
    const figure = draw(
      "combined",
      [
        { values: [1, 2], type: "line", colour: "#111111" },
        { values: [2, 1], type: "column", colour: "#222222" },
        { values: [3, 3], type: "area", colour: "#333333" },
      ],
      ["Jan", "Feb"],
    );
    const first = (colour: string) =>
      figure.paths.findIndex(({ fill, stroke }) => fill === colour || stroke === colour);
    expect(first("#333333")).toBeLessThan(first("#222222"));
    expect(first("#222222")).toBeLessThan(first("#111111"));
  });

  it("is a line only where points are joined", () => {
    const lines = (form: ChartType, joined?: boolean) =>
      draw(
        form,
        [{ values: [1, 2, 3], x: [1, 2, 3], colour: "#111111", ...(joined === undefined ? {} : { joined }) }],
        ["a", "b", "c"],
      ).paths.filter(({ stroke }) => stroke === "#111111").length;
    expect([lines("line"), lines("line", false), lines("scatter"), lines("scatter", true)]).toEqual([1, 0, 0, 1]);
    const signs = draw(
      "line",
      [{ values: Array(40).fill(1), colour: "#111111", joined: false }],
      Array.from({ length: 40 }, (_, nth) => String(nth)),
    );
    expect(signs.paths.filter(({ fill }) => fill === "#111111")).toHaveLength(40);
  });
});

describe("a title", () => {
  it("has as many lines as it needs, and the plot begins under it", () => {
    const top = (title: string) =>
      Math.min(
        ...draw("column", [{ values: [1, 2], colour: "#111111" }], ["Jan", "Feb"], { title })
          .paths.filter(({ fill }) => fill === "#111111")
          .map(({ d }) => Number(/^M[-\d.]+ ([-\d.]+)/.exec(d)?.[1])),
      );
    const long =
      "Levels at all gauges of the bay and of the river that runs into it, by month, in metres above the mean of many years";
    const lines = must(linesOf(long, frame.width, { ...style, size: style.size * 1.15 }));
    expect(lines).toBe(2);
    expect(top(long) - top("Levels")).toBeCloseTo(style.size * 1.15 * 1.3, 0);
    expect(
      labelled(draw("pie", [{ values: [1, 2] }], ["Jan", "Feb"], { title: long }), long).frame.height,
    ).toBeGreaterThan(style.size * 1.15 * 2 * 1.3 - 1);
  });
});
