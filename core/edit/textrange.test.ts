import { type Element, elementTexts, elementWords, plainText, type RichText, run, textOf } from "@unitext/core/model";
import { propertiesOnRange, replaceInElement, replaceRange } from ".";

const TEXT: RichText = [
  { kind: "bullet", level: 0, runs: [run("Tides are "), run("late", ["strong"]), run(" here")] },
  { kind: "bullet", level: 1, runs: [run("by an hour")] },
];
const range = (words: string) => {
  const start = textOf(TEXT).indexOf(words);
  return { start, end: start + words.length };
};

it("properties are on the characters of a range alone", () => {
  const marked = propertiesOnRange(TEXT, range("are late"), { highlight: "#ffff00" });
  expect(marked[0]?.runs).toEqual([
    run("Tides "),
    run("are ", [], undefined, { highlight: "#ffff00" }),
    run("late", ["strong"], undefined, { highlight: "#ffff00" }),
    run(" here"),
  ]);
  expect(marked[1]).toBe(TEXT[1]);
});

it.each([
  ["late", "early", "Tides are early here\nby an hour"],
  ["Tides are late here", "Nothing", "Nothing\nby an hour"],
  ["here\nby an", "by half an", "Tides are late by half an hour"],
])("“%s” is replaced", (words, next, wanted) => {
  expect(textOf(replaceRange(TEXT, range(words), next))).toBe(wanted);
});

it("new words look like those that they replace", () => {
  expect(replaceRange(TEXT, range("late"), "early")[0]?.runs[1]).toEqual(run("early", ["strong"]));
});

it("an empty range changes nothing", () => {
  const text = plainText("as it was");
  expect(replaceRange(text, { start: 3, end: 3 }, "x")).toBe(text);
});

describe("words of an element that are replaced", () => {
  const table: Element = {
    kind: "table",
    id: "t",
    slot: "body",
    rows: [
      [{ text: plainText("Gauge") }, { text: plainText("High water") }],
      [{ text: plainText("North") }, { text: plainText("4.6 m") }],
    ],
    header: 1,
    align: [],
  } as Element;
  const cells = (element: Element | undefined) => element && elementTexts(element).map(textOf);

  it("are those of one cell of a table, or of a caption", () => {
    const at = elementWords(table).indexOf("High");
    expect(cells(replaceInElement(table, { start: at, end: at + 4 }, "Low"))).toEqual([
      "Gauge",
      "Low water",
      "North",
      "4.6 m",
    ]);
    const shape = {
      kind: "shape",
      id: "s",
      slot: null,
      geometry: { width: 1, height: 1, paths: [] },
      text: plainText("To the quay"),
    } as Element;
    expect(cells(replaceInElement(shape, { start: 7, end: 11 }, "bar"))).toEqual(["To the bar"]);
  });

  it("are not in two cells, nor in a description", () => {
    expect(replaceInElement(table, { start: 3, end: 10 }, "x")).toBeUndefined();
    const film = { kind: "media", id: "m", slot: null, source: "a.mp4", type: "video", alt: "The tide" } as Element;
    expect(replaceInElement(film, { start: 0, end: 3 }, "A")).toBeUndefined();
  });
});
