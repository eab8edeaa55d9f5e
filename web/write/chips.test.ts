/** @jest-environment jsdom */
import { EditorState } from "@codemirror/state";
import { EditorView } from "@codemirror/view";
import { chips, firstPosition } from "./chips";

const TEXT = `---
title: Tides
author: A team
---

# Tides

::slide{#menu arrangement=comparison}

:::notes
Say hello.
:::

\`\`\`
::slide{in code}
\`\`\`
`;

function editor(at?: number): EditorView {
  const state = EditorState.create({ doc: TEXT, extensions: [chips()] });
  const anchor = at ?? firstPosition(state);
  return new EditorView({ parent: document.body, state: state.update({ selection: { anchor } }).state });
}
const labels = (view: EditorView) => [...view.dom.querySelectorAll(".cm-chip")].map((chip) => chip.textContent);

describe("chips", () => {
  it("stand for front matter and directives, in words and without ids, but not inside of code", () => {
    const view = editor();
    expect(labels(view)).toEqual(["About the deck: Tides", "Slide · arrangement: comparison", "Notes", "end"]);
    view.destroy();
  });

  it("open where the cursor is, so that what they stand for can be changed", () => {
    const view = editor(TEXT.indexOf("author"));
    expect(labels(view)).not.toContain("About the deck: Tides");
    expect(view.dom.textContent).toContain("author: A team");
    view.destroy();
  });
});
