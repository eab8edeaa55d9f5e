import { plainText, type RichText, run, textOf } from "@unitext/core/model";
import { propertiesOnRange, replaceRange } from ".";

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
