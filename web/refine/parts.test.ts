import { type ChartElement, type RichText, must } from "@unitext/core/model";
import fc from "fast-check";
import { chartCells, numberOf, withAxis, withCells, without, withoutPlace, withPlace, withSeries } from "./chartdata";
import { fillingCrop, movedCrop, zoomedCrop, zoomOf } from "./crop";
import { fromEditor, toEditor } from "../richtext/richtext";

const frame = { x: 0, y: 0, width: 200, height: 100 };
const asset = { width: 800, height: 800 };

describe("a picture in its frame", () => {
  it("fills it without being stretched, its middle shown", () => {
    // A square in a frame twice as wide as high: a quarter is cut above and below.
    expect(fillingCrop(asset, frame)).toEqual({ left: 0, right: 0, top: 0.25, bottom: 0.25 });
    expect(fillingCrop({ width: 800, height: 200 }, frame)).toEqual({ left: 0.25, right: 0.25, top: 0, bottom: 0 });
  });

  it("is zoomed about its middle, and keeps its shape", () => {
    const crop = zoomedCrop({}, asset, frame, 2);
    expect(crop).toEqual({ left: 0.25, right: 0.25, top: 0.375, bottom: 0.375 });
    expect(zoomOf({ crop }, asset, frame)).toBeCloseTo(2);
    expect(zoomedCrop({ crop }, asset, frame, 1)).toEqual(fillingCrop(asset, frame));
  });

  it("is never moved past its edges, and shows as much of it wherever it is moved", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 6, noNaN: true }),
        fc.array(fc.tuple(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true })), {
          maxLength: 6,
        }),
        (zoom, moves) => {
          let crop = zoomedCrop({}, asset, frame, zoom);
          const wide = 1 - crop.left - crop.right;
          for (const [dx, dy] of moves) {
            crop = movedCrop(crop, dx, dy);
            expect(Math.min(crop.left, crop.right, crop.top, crop.bottom)).toBeGreaterThanOrEqual(-1e-9);
            expect(1 - crop.left - crop.right).toBeCloseTo(wide, 2);
          }
        },
      ),
    );
  });
});

describe("the axes of a chart", () => {
  const chart: ChartElement = {
    kind: "chart",
    id: "c",
    slot: null,
    type: "line",
    categories: ["Jan"],
    series: [{ name: "North", values: [1] }],
  };

  it("take what is typed: words, numbers with a point or a comma, and nothing for what is none", () => {
    const titled = withAxis(withAxis(chart, "yAxis", "title", "Metres"), "yAxis", "max", "2,5");
    expect(titled.yAxis).toEqual({ title: "Metres", max: 2.5 });
    expect(withAxis(titled, "yAxis", "max", "much").yAxis).toEqual({ title: "Metres" });
    expect(withAxis(withAxis(titled, "yAxis", "max", ""), "yAxis", "title", "")).toEqual(chart);
    expect(withAxis(chart, "xAxis", "reversed", "yes").xAxis).toEqual({ reversed: true });
    expect(withAxis(withAxis(chart, "xAxis", "reversed", "yes"), "xAxis", "reversed", "")).toEqual(chart);
    expect(withAxis(chart, "secondaryAxis", "format", "0%").secondaryAxis).toEqual({ format: "0%" });
  });

  it("leave a series without what is taken off it", () => {
    expect(
      withSeries({ ...chart, series: [{ name: "North", values: [1], axis: "secondary" }] }, 0, (series) =>
        without(series, "axis"),
      ),
    ).toEqual(chart);
  });
});

describe("the data of a chart", () => {
  const chart: ChartElement = {
    kind: "chart",
    id: "c",
    slot: null,
    type: "column",
    categories: ["Jan", "Feb"],
    series: [{ name: "North", values: [1, null] }],
  };
  const words = (of: ChartElement) => chartCells(of).map((row) => row.map(({ text }) => text).join("|"));

  it("is a grid of names and numbers", () => {
    expect(words(chart)).toEqual(["|North", "Jan|1", "Feb|"]);
    expect(
      words({ ...chart, type: "scatter", categories: [], series: [{ name: "W", values: [3], x: [2.5] }] }),
    ).toEqual(["|W", "2.5|3"]);
  });

  it("takes numbers with a point or a comma, and nothing for what is none", () => {
    expect(["1.5", "1,5", " 1 000 ", "-2", "", "no"].map(numberOf)).toEqual([1.5, 1.5, 1000, -2, null, null]);
  });

  it("grows with what is pasted", () => {
    const pasted = withCells(chart, [
      { y: 0, x: 2, text: "South" },
      { y: 1, x: 2, text: "4" },
      { y: 3, x: 0, text: "Mar" },
      { y: 3, x: 1, text: "2,5" },
    ]);
    expect(words(pasted)).toEqual(["|North|South", "Jan|1|4", "Feb||", "Mar|2.5|"]);
  });

  it("has rows and series added and taken out, and keeps the last of each", () => {
    expect(words(withPlace(chart, "row", 1))).toEqual(["|North", "Jan|1", "|", "Feb|"]);
    expect(words(withPlace(chart, "column", 1))).toEqual(["|North|", "Jan|1|", "Feb||"]);
    expect(words(must(withoutPlace(chart, "row", 1)))).toEqual(["|North", "Feb|"]);
    expect(withoutPlace(chart, "column", 1)).toBeUndefined();
    // Colours of single points stay with their points.
    const coloured = withSeries(chart, 0, (series) => ({ ...series, points: ["#112233", "#445566"] }));
    expect(withPlace(coloured, "row", 1).series[0]?.points).toEqual(["#112233", null, "#445566"]);
    expect(withoutPlace(coloured, "row", 1)?.series[0]?.points).toEqual(["#445566"]);
    expect(
      withoutPlace({ ...chart, categories: ["Jan"], series: [{ name: "N", values: [1] }] }, "row", 1),
    ).toBeUndefined();
  });
});

it("text in the looks of a file comes back from the editor as it went in", () => {
  const text: RichText = [
    {
      kind: "bullet",
      level: 1,
      properties: { left: 20, first: -10, bullet: { character: "▪" } },
      runs: [
        { text: "plain " },
        { text: "loud", marks: ["strong"], properties: { size: 30, colour: "#b23a30" } },
        { text: " linked", link: "https://example.org", properties: { underline: "double" } },
      ],
    },
  ];
  expect(fromEditor(toEditor(text))).toEqual(text);
});
