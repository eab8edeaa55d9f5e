import { joinRuns } from "@unitext/core/model";
import { richText } from "@unitext/core/testing";
import fc from "fast-check";
import { fromEditor, toEditor } from "./richtext";

describe("rich text in the editor", () => {
  it("comes back as it went in: kinds, levels, marks, links, line breaks, formulas and footnotes", () => {
    fc.assert(
      fc.property(richText, (text) => {
        expect(fromEditor(toEditor(text))).toEqual(text.map((paragraph) => ({ ...paragraph, runs: joinRuns(paragraph.runs) })));
      }),
    );
  });

  it("keeps alignment and breaks, and drops only empty lines at the end", () => {
    const text = [{ kind: "bullet" as const, level: 1, align: "end" as const, runs: [{ text: "one\ntwo" }] }];
    expect(fromEditor(toEditor(text))).toEqual(text);
    expect(fromEditor(toEditor([...text, { kind: "plain", level: 0, runs: [] }]))).toEqual(text);
    expect(fromEditor(toEditor([]))).toEqual([]);
  });
});
