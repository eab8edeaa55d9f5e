import { textOf } from "@unitext/core/model";
import { boundNesting } from "./nesting";
import { readText } from "./read";

const read = (text: string) => {
  const { blocks, problems } = readText(text);
  return { blocks: [...blocks], problems };
};
const words = (text: string) =>
  read(text)
    .blocks.flatMap((block) =>
      "text" in block
        ? textOf(block.text)
        : block.kind === "figure" && block.figure.kind === "code"
          ? block.figure.text
          : [],
    )
    .join("\n");

describe("what nests without end", () => {
  it.each([
    ["quotations", `${"> ".repeat(20_000)}end`],
    ["items", `${"- ".repeat(20_000)}end`],
    ["numbered items", `${"1. ".repeat(20_000)}end`],
    ["quotations in items", `${"> - ".repeat(10_000)}end`],
    [
      "items by their indent",
      `${Array.from({ length: 2000 }, (_, level) => `${"  ".repeat(level)}- item`).join("\n")} end`,
    ],
    ["containers", `${":::align{to=centre}\n".repeat(5000)}end\n${":::\n".repeat(5000)}`],
    ["emphasis", `${"*a ".repeat(20_000)}end${" a*".repeat(20_000)}`],
    ["links", `${"[".repeat(20_000)}end${"](https://a.example)".repeat(20_000)}`],
    ["HTML", `${"<div>".repeat(20_000)}end${"</div>".repeat(20_000)}`],
  ])("%s: are read, with their words", (_, text) => {
    expect(words(text)).toMatch(/end/);
  });

  it("is told where it is kept as text, and fifty levels are read", () => {
    expect(read(`- one\n- two\n\n${"> ".repeat(51)}end`).problems).toEqual([
      { line: 4, message: expect.stringContaining("more than 50 levels deep") },
    ]);
    const fifty = `${"> ".repeat(50)}end`;
    expect([read(fifty).problems, words(fifty)]).toEqual([[], "end"]);
  });

  it("leaves breaks, code and indents of code as they are", () => {
    const lines = ["- ".repeat(80).trim(), "```", `${"> ".repeat(80)}code`, `${" ".repeat(400)}x`, "```", "a > b > c"];
    expect(boundNesting(lines)).toEqual({ lines, problems: [] });
  });
});

it("a table with more cells than are taken keeps its words and says so", () => {
  const text = `|${"a|".repeat(1000)}\n|${"-|".repeat(1000)}\n${"| b |\n".repeat(500)}`;
  const { blocks, problems } = read(text);
  expect(blocks).toMatchObject([{ kind: "figure", figure: { kind: "code" } }]);
  expect(problems).toEqual([{ line: 1, message: expect.stringContaining("more than 100,000 cells") }]);
});

it("a long run of spaces is read in one pass", () => {
  const { blocks } = read(`a${" ".repeat(500_000)}b *x*\nc`);
  expect(blocks).toHaveLength(1);
});

it("a long list is one list whatever its length: items, levels and numbers stay", () => {
  const text = Array.from({ length: 1500 }, (_, nth) =>
    nth % 3 ? `      - part ${nth}` : `${nth / 3 + 1}. item ${nth}`,
  ).join("\n");
  const { blocks, problems } = read(text);
  const paragraphs = blocks.flatMap((block) => ("text" in block ? block.text : []));
  expect(problems).toEqual([]);
  expect(paragraphs.map(({ kind, level }) => `${kind} ${level}`)).toEqual(
    Array.from({ length: 1500 }, (_, nth) => (nth % 3 ? "bullet 1" : "number 0")),
  );
  let number = 0;
  const numbers = paragraphs.flatMap(({ kind, start }) => (kind === "number" ? [(number = start ?? number + 1)] : []));
  expect(numbers).toEqual(Array.from({ length: 500 }, (_, nth) => nth + 1));
});
