import { joinRuns } from "@unitext/core/model";
import { richText } from "@unitext/core/testing";
import fc from "fast-check";
import { fromEditor, toEditor, untouched } from "./richtext";

describe("rich text in the editor", () => {
  it("comes back as it went in: kinds, levels, marks, links, line breaks, formulas and footnotes", () => {
    fc.assert(
      fc.property(richText, (text) => {
        expect(fromEditor(toEditor(text))).toEqual(
          text.map((paragraph) => ({ ...paragraph, runs: joinRuns(paragraph.runs) })),
        );
      }),
    );
  });

  it("gives what is written into an empty line the looks that the line says, and keeps those at the end of a file's text", () => {
    const blank = {
      kind: "plain" as const,
      level: 0,
      properties: { left: 12, words: { size: 9, colour: "#7a2e57" } },
      runs: [],
    };
    const text = [{ kind: "plain" as const, level: 0, runs: [{ text: "one" }] }, blank];
    expect(fromEditor(toEditor(text))).toEqual(text);
    expect(untouched([...text, { kind: "plain", level: 0, runs: [] }])).toBe(untouched(text));
    const held = toEditor(text);
    const [, typed] = held.content ?? [];
    if (typed) typed.content = [{ type: "text", text: "two" }];
    expect(fromEditor(held)[1]).toEqual({
      kind: "plain",
      level: 0,
      properties: { left: 12 },
      runs: [{ text: "two", properties: { size: 9, colour: "#7a2e57" } }],
    });
  });

  it("keeps a value of linked data in one piece, with its cells", () => {
    const binding = { source: "gauges.xlsx", range: "Levels!B2", mode: "latest" as const };
    const runs = [
      { text: "The quay stood at " },
      { text: "4.6 m", marks: ["strong" as const], binding },
      { text: "." },
    ];
    const text = [{ kind: "plain" as const, level: 0, runs }];
    expect(fromEditor(toEditor(text))).toEqual(text);
    expect(toEditor(text).content?.[0]?.content?.map(({ type }) => type)).toEqual(["text", "value", "text"]);
  });

  it("keeps alignment and breaks, and drops only empty lines at the end", () => {
    const text = [{ kind: "bullet" as const, level: 1, align: "end" as const, runs: [{ text: "one\ntwo" }] }];
    expect(fromEditor(toEditor(text))).toEqual(text);
    expect(fromEditor(toEditor([...text, { kind: "plain", level: 0, runs: [] }]))).toEqual(text);
    expect(fromEditor(toEditor([]))).toEqual([]);
  });
});
