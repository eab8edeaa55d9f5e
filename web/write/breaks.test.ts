import { generate } from "@unitext/core/generate";
import { DEFAULT_RULE, nameOf, ruleOf } from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import fc from "fast-check";
import { movedBreak, withBreak, withoutBreak } from "./breaks";

const names = (text: string, rule = DEFAULT_RULE) => {
  let next = 0;
  return [...generate(readText(text), rule, { newId: () => `n${next++}` })].map(({ slide, lines }) => [
    nameOf(slide).split("\n")[0],
    lines.from,
  ]);
};

describe("breaks in the text", () => {
  it("begin a slide at a line, and are taken away again without a trace", () => {
    const text = "one\n\ntwo\n\nthree\n";
    expect(withBreak(text, 3)).toBe("one\n\n---\n\ntwo\n\nthree\n");
    expect(names(withBreak(text, 3))).toEqual([
      ["one", 1],
      ["two", 5],
    ]);
    expect(withoutBreak(withBreak(text, 3), 5)).toBe(text);
  });

  it("that a rule makes are taken away by joining, and come back when the join goes", () => {
    const text = "## A\n\na\n\n## B\n\nb\n";
    const joined = withoutBreak(text, 5);
    expect(names(joined)).toEqual([["A", 1]]);
    expect(withBreak(joined, 7)).toBe(text);
  });

  it("move to another line, up or down", () => {
    const text = "## A\n\na\n\nmore\n\n## B\n\nb\n";
    expect(names(movedBreak(text, 7, 5)).map(([name]) => name)).toEqual(["A", "more"]);
    const down = "## A\n\na\n\n---\n\nb\n\nc\n";
    expect(names(movedBreak(down, 7, 9))).toEqual([
      ["A", 1],
      ["c", 9],
    ]);
  });

  it("never change the words", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("word", "", "## Head", "- item", "---"), { minLength: 1, maxLength: 12 }),
        fc.nat(11),
        fc.nat(11),
        (lines, from, to) => {
          const text = lines.join("\n");
          const words = (value: string) =>
            value.split("\n").filter((line) => line.trim() && line !== "---" && line !== "::join");
          expect(words(movedBreak(text, (from % lines.length) + 1, (to % lines.length) + 1))).toEqual(words(text));
        },
      ),
    );
  });

  it("join paragraphs that the paragraph rule cut", () => {
    const rule = ruleOf({ kind: "paragraph" });
    expect(names("one\n\ntwo\n", rule)).toHaveLength(2);
    expect(names(withoutBreak("one\n\ntwo\n", 3), rule)).toHaveLength(1);
  });
});
