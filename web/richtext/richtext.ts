import { Carets } from "./carets";
import {
  Footnote,
  joinRuns,
  type Mark,
  MAX_LEVEL,
  type Paragraph,
  type ParagraphProperties,
  paragraphText,
  type RichText,
  Run,
  run,
  RunProperties,
  must,
} from "@unitext/core/model";
import { cssFamily, familyNamed } from "@unitext/core/layout";
import { Extension, type JSONContent, Mark as EditorMark, mergeAttributes, Node } from "@tiptap/core";
import Bold from "@tiptap/extension-bold";
import Code from "@tiptap/extension-code";
import Document from "@tiptap/extension-document";
import HardBreak from "@tiptap/extension-hard-break";
import Italic from "@tiptap/extension-italic";
import Link from "@tiptap/extension-link";
import Strike from "@tiptap/extension-strike";
import Text from "@tiptap/extension-text";
import { Placeholder, UndoRedo } from "@tiptap/extensions";
import { runPropertiesAt, setRunProperties } from "./format";

const MARK_NAMES: Record<string, Mark> = {
  bold: "strong",
  italic: "emphasis",
  strike: "strike",
  code: "code",
  formula: "formula",
};
const EDITOR_NAMES = Object.fromEntries(Object.entries(MARK_NAMES).map(([name, mark]) => [mark, name]));

/** A paragraph with the kind and level of the model. */
const FlatParagraph = Node.create({
  name: "paragraph",
  group: "block",
  content: "inline*",
  addAttributes() {
    return {
      kind: {
        default: "plain",
        parseHTML: (element) =>
          element.getAttribute("data-kind") ??
          (element.closest("ol") ? "number" : element.closest("li") ? "bullet" : "plain"),
        renderHTML: ({ kind }) => ({ "data-kind": kind }),
      },
      level: {
        default: 0,
        parseHTML: (element) => Number(element.getAttribute("data-level") ?? 0),
        renderHTML: ({ level }) => ({ "data-level": level }),
      },
      align: { default: null, rendered: false },
      start: { default: null, rendered: false },
      properties: { default: null, rendered: false },
      step: { default: null, rendered: false },
    };
  },
  parseHTML: () => [{ tag: "p" }, { tag: "div[data-kind]" }, { tag: "h1" }, { tag: "h2" }, { tag: "h3" }],
  renderHTML: ({ HTMLAttributes }) => ["div", mergeAttributes(HTMLAttributes), 0],
});

/** Run properties of a file; colour and underline show while editing. */
const Look = EditorMark.create({
  name: "properties",
  inclusive: true,
  addAttributes: () => ({
    properties: {
      default: {},
      parseHTML: (element) =>
        RunProperties.safeParse(JSON.parse(element.getAttribute("data-properties") ?? "{}")).data ?? {},
      renderHTML: ({ properties }) => ({
        "data-properties": JSON.stringify(properties),
        style: styleOf(properties as RunProperties),
      }),
    },
  }),
  // What a paste from another program shows by elements of HTML.
  parseHTML: () => [
    { tag: "span[data-properties]" },
    { tag: "u", getAttrs: () => ({ properties: { underline: "single" } }) },
    { tag: "sup:not([data-footnote])", getAttrs: () => ({ properties: { rise: 0.33 } }) },
    { tag: "sub", getAttrs: () => ({ properties: { rise: -0.33 } }) },
    { tag: "mark", getAttrs: () => ({ properties: { highlight: "#ffe48a" } }) },
  ],
  renderHTML: ({ HTMLAttributes }) => ["span", mergeAttributes(HTMLAttributes), 0],
});

const facesOf = (font: string): string =>
  familyNamed(font)
    .faces.filter(({ weight, slant }) => weight === 400 && slant === "normal")
    .map(({ id }) => `"${cssFamily(id)}"`)
    .join(",");

/** Returns the look of words as CSS. Sizes are in the points of the slide, where the editor is on one. */
const styleOf = ({ font, size, colour, underline, highlight, caps, rise }: RunProperties): string =>
  [
    font ? `font-family:${facesOf(font)}` : "",
    size ? `font-size:calc(${size} * var(--point))` : "",
    colour ? `color:${colour}` : "",
    underline ? "text-decoration:underline" : "",
    highlight ? `background:${highlight}` : "",
    caps === "small" ? "font-variant:small-caps" : caps ? "text-transform:uppercase" : "",
    rise ? `vertical-align:${rise > 0 ? "super" : "sub"};font-size:.66em` : "",
  ]
    .filter(Boolean)
    .join(";");

/** Inline TeX, which is set on the slide. */
const Formula = EditorMark.create({
  name: "formula",
  excludes: "bold italic strike code properties",
  parseHTML: () => [{ tag: "code[data-formula]", priority: 60 }],
  renderHTML: ({ HTMLAttributes }) => ["code", mergeAttributes(HTMLAttributes, { "data-formula": "" }), 0],
});

/** A footnote reference; its text is its title, and is edited by selecting it. */
const FootnoteNode = Node.create({
  name: "footnote",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({
    runs: {
      default: [],
      parseHTML: (element) => Footnote.safeParse(JSON.parse(element.getAttribute("data-footnote") ?? "[]")).data ?? [],
      renderHTML: ({ runs }) => ({
        "data-footnote": JSON.stringify(runs),
        title: paragraphText({ kind: "plain", level: 0, runs: runs as Run[] }),
      }),
    },
  }),
  parseHTML: () => [{ tag: "sup[data-footnote]" }],
  renderHTML: ({ HTMLAttributes }) => ["sup", mergeAttributes(HTMLAttributes), "*"],
});

/** A value of linked data: it is shown as one piece, and changes only with its source. */
const ValueNode = Node.create({
  name: "value",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({
    run: {
      default: null,
      parseHTML: (element) => Run.safeParse(JSON.parse(element.getAttribute("data-value") ?? "null")).data ?? null,
      renderHTML: ({ run: item }) => ({
        "data-value": JSON.stringify(item),
        title: `${(item as Run).binding?.source}, ${(item as Run).binding?.range}`,
        class: "linked-value",
      }),
    },
  }),
  parseHTML: () => [{ tag: "span[data-value]", priority: 60 }],
  renderHTML: ({ HTMLAttributes, node }) => [
    "span",
    mergeAttributes(HTMLAttributes),
    (node.attrs.run as Run | null)?.text ?? "",
  ],
});

/** Ctrl+U underlines the selected words, or takes that away. */
const UnderlineKey = Extension.create({
  name: "underlineKey",
  addKeyboardShortcuts() {
    return {
      "Mod-u": () => {
        setRunProperties(this.editor, { underline: runPropertiesAt(this.editor).underline ? null : "single" });
        return true;
      },
    };
  },
});

/** Tab and Shift+Tab change the level of list items; Enter in an empty item ends the list; Escape leaves the text. */
const ListKeys = Extension.create<{ leave: () => void }>({
  name: "listKeys",
  addOptions: () => ({ leave: () => undefined }),
  addKeyboardShortcuts() {
    const shift = (by: number) => () => {
      const { kind, level } = this.editor.getAttributes("paragraph");
      if (kind === "plain") return false;
      this.editor.commands.updateAttributes("paragraph", {
        level: Math.min(MAX_LEVEL, Math.max(0, (level as number) + by)),
      });
      return true;
    };
    const plain = () => {
      const { kind, level } = this.editor.getAttributes("paragraph");
      const { empty, $from } = this.editor.state.selection;
      if (!empty || kind === "plain" || $from.parentOffset > 0) return false;
      return this.editor.commands.updateAttributes(
        "paragraph",
        (level as number) > 0 ? { level: (level as number) - 1 } : { kind: "plain" },
      );
    };
    return {
      Tab: shift(1),
      "Shift-Tab": shift(-1),
      Backspace: plain,
      Enter: () => (this.editor.state.selection.$from.parent.content.size === 0 ? plain() : false),
      Escape: () => {
        this.options.leave();
        return true;
      },
    };
  },
});

/**
 * Returns the editor's extensions: marks, paragraphs with kinds and levels, footnotes. `leave` is called on Escape.
 */
export function extensions(placeholder: string, leave: () => void) {
  return [
    Document,
    Text,
    FlatParagraph,
    HardBreak,
    Bold,
    Italic,
    Strike,
    Code.configure({}).extend({ excludes: "" }),
    Formula,
    Look,
    FootnoteNode,
    ValueNode,
    Link.configure({
      openOnClick: false,
      autolink: false,
      protocols: ["mailto", "slide", "deck"],
      isAllowedUri: (url) => /^(https?:|mailto:|slide:|deck:)/i.test(url),
    }),
    UndoRedo,
    Placeholder.configure({ placeholder }),
    ListKeys.configure({ leave }),
    UnderlineKey,
    Carets,
  ];
}

/** Converts the model's text to the editor's. */
export function toEditor(text: RichText): JSONContent {
  const paragraphs = text.length ? text : [{ kind: "plain" as const, level: 0, runs: [] }];
  return {
    type: "doc",
    content: paragraphs.map(({ kind, level, align, start, properties: standing, step, runs }) => ({
      type: "paragraph",
      attrs: {
        kind,
        level,
        align: align ?? null,
        start: start ?? null,
        properties: standing ?? null,
        step: step ?? null,
      },
      content: runs.flatMap((item): JSONContent[] => {
        const { text: words, marks = [], link, properties, footnote, binding } = item;
        if (footnote) return [{ type: "footnote", attrs: { runs: footnote } }];
        if (binding) return [{ type: "value", attrs: { run: item } }];
        const held = [
          ...marks.map((mark) => ({ type: must(EDITOR_NAMES[mark]) })),
          ...(link ? [{ type: "link", attrs: { href: link } }] : []),
          ...(properties ? [{ type: "properties", attrs: { properties } }] : []),
        ];
        return words
          .split("\n")
          .flatMap((line, nth): JSONContent[] => [
            ...(nth ? [{ type: "hardBreak" }] : []),
            ...(line ? [{ type: "text", text: line, marks: held }] : []),
          ]);
      }),
    })),
  };
}

/** Converts the editor's text to the model's. */
export function fromEditor(content: JSONContent): RichText {
  const text = (content.content ?? []).map(({ attrs, content: inline = [] }): Paragraph => {
    const runs = inline.map((node): Run => {
      if (node.type === "footnote") return { text: "", footnote: (node.attrs?.runs ?? []) as Footnote };
      if (node.type === "value") return (node.attrs?.run as Run | null) ?? { text: "" };
      const marks = (node.marks ?? []).flatMap(({ type }) => MARK_NAMES[type] ?? []);
      const link = node.marks?.find(({ type }) => type === "link")?.attrs?.href as string | undefined;
      const look = node.marks?.find(({ type }) => type === "properties")?.attrs?.properties as
        | RunProperties
        | undefined;
      return run(node.type === "hardBreak" ? "\n" : (node.text ?? ""), marks, link, look);
    });
    // Text typed into an empty line gets the line's properties; text with properties of its own keeps them.
    const { words, ...stands } = (attrs?.properties ?? {}) as ParagraphProperties;
    const look = runs.length ? stands : (attrs?.properties as ParagraphProperties | undefined);
    if (words && runs.length) for (const item of runs) item.properties ??= words;
    return {
      kind: attrs?.kind ?? "plain",
      level: attrs?.level ?? 0,
      ...(attrs?.align ? { align: attrs.align } : {}),
      ...(attrs?.start && attrs.kind === "number" ? { start: attrs.start } : {}),
      ...(look && Object.keys(look).length ? { properties: look } : {}),
      ...(attrs?.step ? { step: attrs.step } : {}),
      runs: joinRuns(runs),
    };
  });
  // Empty lines at the end are left over from typing, unless a file set their properties.
  for (
    let last = text.at(-1);
    last && last.runs.length === 0 && last.kind === "plain" && !last.properties;
    last = text.at(-1)
  )
    text.pop();
  return text;
}

/** Returns a text as it would come out of the editor untouched, for comparison. */
export const untouched = (text: RichText): string => JSON.stringify(fromEditor(toEditor(text)));
