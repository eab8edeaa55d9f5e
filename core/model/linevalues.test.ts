import {
  bindingsOn,
  type ChartElement,
  keptValues,
  lineOf,
  lineText,
  newSlide,
  type Slide,
  withBoundRuns,
} from "./index";

const binding = { source: "gauges.xlsx", range: "Levels!D2", mode: "latest" as const };
const chart: ChartElement = {
  kind: "chart",
  id: "c",
  slot: "chart",
  type: "line",
  categories: ["Jan"],
  series: [{ name: "Quay", values: [4.6] }],
  title: "The quay stood at 4.6 m",
};
const slide: Slide = { ...newSlide("s", "chart"), elements: [chart] };

describe("a value in a line of plain text", () => {
  it("is a run of the line, and comes back from it", () => {
    const values = [{ from: 18, length: 3, binding }];
    const text = lineText("The quay stood at 4.6 m", values);
    expect(text[0]?.runs.map(({ text: words }) => words)).toEqual(["The quay stood at ", "4.6", " m"]);
    expect(lineOf(text)).toEqual({ words: "The quay stood at 4.6 m", values });
  });

  it("is found in titles of charts and captions, where tags of files put it", () => {
    const linked = withBoundRuns(slide, [{ element: "c", text: 0, paragraph: 0, from: 18, shown: "4.6", binding }]);
    expect(linked.elements[0]).toMatchObject({ titleValues: [{ from: 18, length: 3 }] });
    expect(bindingsOn(linked)).toMatchObject([{ element: "c", shown: "4.6", sentence: "The quay stood at 4.6 m" }]);
  });

  it("stays where the words around it are edited, and goes with its own", () => {
    const values = [{ from: 18, length: 3, binding }];
    expect(keptValues("The quay stood at 4.6 m", values, "Quay: 4.6 m")).toEqual([{ from: 6, length: 3, binding }]);
    expect(keptValues("The quay stood at 4.6 m", values, "Quay: 5 m")).toEqual([]);
  });
});
