import { LINE } from "./decorations";
import { HighlightStyle } from "@codemirror/language";
import { EditorView } from "@codemirror/view";
import { tags } from "@lezer/highlight";

const quietColour = "color-mix(in oklab, var(--color-base-content) 75%, var(--color-base-100))";

export const look = EditorView.theme({
  "&": {
    height: "100%",
    fontSize: "17px",
    backgroundColor: "var(--color-base-100)",
    color: "var(--color-base-content)",
  },
  "&.cm-focused": { outline: "2px solid var(--color-secondary)", outlineOffset: "-2px" },
  ".cm-scroller": { fontFamily: "var(--font-serif)", lineHeight: `${LINE}px`, overflow: "auto" },
  ".cm-content": { padding: "16px 28px 40vh", maxWidth: "46rem", caretColor: "var(--color-primary)" },
  ".cm-cursor": { borderLeftColor: "var(--color-primary)", borderLeftWidth: "2px" },
  ".cm-selectionBackground, &.cm-focused .cm-selectionBackground": {
    backgroundColor: "color-mix(in oklab, var(--color-secondary) 26%, transparent) !important",
  },
  ".cm-over": { boxShadow: "inset 3px 0 var(--color-error)" },
  ".cm-noted": { boxShadow: "inset 3px 0 var(--color-warning)" },
  ".cm-chosen": { backgroundColor: "color-mix(in oklab, var(--color-secondary) 9%, transparent)" },
  ".cm-landing": { boxShadow: "inset 0 3px var(--color-secondary)" },
  ".cm-gutters": { backgroundColor: "var(--color-base-100)", border: "none", color: quietColour },
  ".cm-breaks": { width: "44px" },
  ".cm-break-mark": {
    cursor: "ns-resize",
    userSelect: "none",
    touchAction: "none",
    textAlign: "right",
    padding: "0 8px 0 4px",
    fontFamily: "var(--font-sans)",
    fontSize: "13px",
    borderTop: "2px solid var(--color-primary)",
    color: "var(--color-base-content)",
    whiteSpace: "nowrap",
  },
  ".cm-break-mark:hover": { backgroundColor: "var(--color-base-300)" },
  ".cm-panels": { backgroundColor: "var(--color-base-200)", color: "var(--color-base-content)" },
  ".cm-textfield, .cm-button": {
    backgroundColor: "var(--color-base-100)",
    color: "var(--color-base-content)",
    backgroundImage: "none",
  },
  ".cm-placeholder": { color: "color-mix(in oklab, var(--color-base-content) 75%, var(--color-base-100))" },
});

export const highlight = HighlightStyle.define([
  { tag: tags.heading, fontWeight: "700" },
  { tag: tags.strong, fontWeight: "700" },
  { tag: tags.emphasis, fontStyle: "italic" },
  { tag: tags.strikethrough, textDecoration: "line-through" },
  { tag: tags.monospace, fontFamily: "var(--font-mono)", fontSize: "0.88em" },
  { tag: [tags.link, tags.url], color: "var(--color-primary)" },
  { tag: [tags.processingInstruction, tags.contentSeparator, tags.meta], color: quietColour },
]);
