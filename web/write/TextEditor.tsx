import { defaultKeymap, history, historyKeymap, indentLess, indentMore } from "@codemirror/commands";
import { markdown, markdownLanguage } from "@codemirror/lang-markdown";
import { HighlightStyle, syntaxHighlighting } from "@codemirror/language";
import { searchKeymap } from "@codemirror/search";
import { EditorState, RangeSetBuilder, StateEffect, StateField } from "@codemirror/state";
import { Decoration, type DecorationSet, EditorView, keymap, placeholder, WidgetType } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import type { Lines, Problem } from "@unitext/core/text";
import { type Ref, useEffect, useImperativeHandle, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import { type Placement, slideHeight } from "./Level";

export interface TextEditorHandle {
  /** Puts another text in the place of the whole, keeping the view where it is. */
  replace(text: string): void;
  insert(text: string): void;
  goTo(line: number): void;
}

interface Props {
  ref: Ref<TextEditorHandle>;
  first: string;
  readOnly: boolean;
  segments: readonly Lines[];
  overLines: readonly number[];
  problems: readonly Problem[];
  onType(text: string): void;
  onScroll(placement: Placement): void;
  onLine(line: number): void;
  onDrop(files: readonly File[]): void;
}

const LINE = 27;
/** Room below the lines of a slide, so that the slide beside them has its height. */
class Room extends WidgetType {
  constructor(readonly height: number) {
    super();
  }
  override eq(other: Room): boolean {
    return other.height === this.height;
  }
  toDOM(): HTMLElement {
    const room = document.createElement("div");
    room.style.height = `${this.height}px`;
    room.setAttribute("aria-hidden", "true");
    return room;
  }
  override get estimatedHeight(): number {
    return this.height;
  }
}

interface Layout {
  segments: readonly Lines[];
  over: readonly number[];
  problems: readonly number[];
  room: number;
}
const setLayout = StateEffect.define<Layout>();

const OVER = Decoration.line({ class: "cm-over" });
const NOTED = Decoration.line({ class: "cm-noted" });

function decorations(state: EditorState, { segments, over, problems, room }: Layout): DecorationSet {
  const { doc } = state;
  const marks: { at: number; order: number; decoration: Decoration }[] = [];
  for (const line of over) if (line <= doc.lines) marks.push({ at: doc.line(line).from, order: 0, decoration: OVER });
  for (const line of problems) if (line <= doc.lines) marks.push({ at: doc.line(line).from, order: 0, decoration: NOTED });
  segments.forEach(({ from }, nth) => {
    const end = Math.min(doc.lines, (segments[nth + 1]?.from ?? doc.lines + 1) - 1);
    const height = room - (end - from + 1) * LINE;
    if (height > 0 && end >= from) marks.push({ at: doc.line(end).to, order: 1, decoration: Decoration.widget({ widget: new Room(height), block: true, side: 1 }) });
  });
  marks.sort((a, b) => a.at - b.at || a.order - b.order);
  const builder = new RangeSetBuilder<Decoration>();
  for (const { at, decoration } of marks) builder.add(at, at, decoration);
  return builder.finish();
}

const layoutField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects) if (effect.is(setLayout)) return decorations(transaction.state, effect.value);
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

const look = EditorView.theme({
  "&": { height: "100%", fontSize: "17px", backgroundColor: "var(--color-base-100)", color: "var(--color-base-content)" },
  "&.cm-focused": { outline: "2px solid var(--color-secondary)", outlineOffset: "-2px" },
  ".cm-scroller": { fontFamily: "var(--font-serif)", lineHeight: `${LINE}px`, overflow: "auto" },
  ".cm-content": { padding: "16px 28px 40vh", maxWidth: "46rem", caretColor: "var(--color-primary)" },
  ".cm-cursor": { borderLeftColor: "var(--color-primary)", borderLeftWidth: "2px" },
  ".cm-selectionBackground, &.cm-focused .cm-selectionBackground": { backgroundColor: "color-mix(in oklab, var(--color-secondary) 26%, transparent) !important" },
  ".cm-over": { boxShadow: "inset 3px 0 var(--color-error)" },
  ".cm-noted": { boxShadow: "inset 3px 0 var(--color-warning)" },
  ".cm-panels": { backgroundColor: "var(--color-base-200)", color: "var(--color-base-content)" },
  ".cm-textfield, .cm-button": { backgroundColor: "var(--color-base-100)", color: "var(--color-base-content)", backgroundImage: "none" },
  ".cm-placeholder": { color: "color-mix(in oklab, var(--color-base-content) 75%, var(--color-base-100))" },
});
const quiet = "color-mix(in oklab, var(--color-base-content) 75%, var(--color-base-100))";
const highlight = HighlightStyle.define([
  { tag: tags.heading, fontWeight: "700" },
  { tag: tags.strong, fontWeight: "700" },
  { tag: tags.emphasis, fontStyle: "italic" },
  { tag: tags.strikethrough, textDecoration: "line-through" },
  { tag: tags.monospace, fontFamily: "var(--font-mono)", fontSize: "0.88em" },
  { tag: [tags.link, tags.url], color: "var(--color-primary)" },
  { tag: [tags.processingInstruction, tags.contentSeparator, tags.meta], color: quiet },
]);

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? "";

/** The manuscript: plain text with the marks of the text form, each slide's lines as high as the slide beside them. */
export function TextEditor({ ref, first, readOnly, segments, overLines, problems, ...acts }: Props) {
  const { deck } = useDeck();
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const latest = useRef({ acts, segments });
  latest.current = { acts, segments };

  const place = () => {
    const editor = view.current;
    if (!editor) return;
    const { doc } = editor.state;
    const pad = editor.documentPadding.top;
    const tops = latest.current.segments.map(({ from }) => (from <= doc.lines ? Math.round(editor.lineBlockAt(doc.line(from).from).top + pad) : 0));
    latest.current.acts.onScroll({ tops, scroll: editor.scrollDOM.scrollTop, height: editor.scrollDOM.clientHeight });
  };

  useEffect(() => {
    const editor = new EditorView({
      parent: host.current as HTMLDivElement,
      state: EditorState.create({
        doc: first,
        extensions: [
          EditorView.cspNonce.of(nonce),
          EditorState.readOnly.of(readOnly),
          history(),
          keymap.of([...searchKeymap, ...historyKeymap, { key: "Mod-]", run: indentMore }, { key: "Mod-[", run: indentLess }, ...defaultKeymap]),
          markdown({ base: markdownLanguage, addKeymap: true, extensions: { remove: ["SetextHeading"] } }),
          syntaxHighlighting(highlight),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ "aria-label": "Text of the deck", tabindex: "0", spellcheck: "true", lang: deck.language }),
          placeholder("# Title\n\n## First slide\n\n- a point"),
          layoutField,
          look,
          EditorView.updateListener.of((update) => {
            const quietly = update.transactions.some((transaction) => transaction.isUserEvent("deck"));
            if (update.docChanged && !quietly) latest.current.acts.onType(update.state.doc.toString());
            if (update.selectionSet || update.docChanged) latest.current.acts.onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
            if (update.geometryChanged || update.viewportChanged) requestAnimationFrame(place);
          }),
          EditorView.domEventHandlers({
            drop(event) {
              const files = [...(event.dataTransfer?.files ?? [])];
              if (!files.length) return false;
              event.preventDefault();
              latest.current.acts.onDrop(files);
              return true;
            },
            paste(event) {
              const files = [...(event.clipboardData?.files ?? [])];
              if (!files.length) return false;
              event.preventDefault();
              latest.current.acts.onDrop(files);
              return true;
            },
          }),
        ],
      }),
    });
    view.current = editor;
    const onScroll = () => place();
    editor.scrollDOM.addEventListener("scroll", onScroll, { passive: true });
    editor.focus();
    return () => editor.destroy();
  }, []);

  useEffect(() => {
    view.current?.dispatch({ effects: setLayout.of({ segments, over: overLines, problems: problems.map(({ line }) => line), room: slideHeight(deck.page) }) });
    requestAnimationFrame(place);
  }, [segments, overLines, problems, deck.page]);

  useImperativeHandle(ref, () => ({
    replace(text) {
      const editor = view.current;
      if (!editor) return;
      const old = editor.state.doc.toString();
      let start = 0;
      while (start < old.length && start < text.length && old[start] === text[start]) start++;
      let end = 0;
      while (end < old.length - start && end < text.length - start && old[old.length - 1 - end] === text[text.length - 1 - end]) end++;
      editor.dispatch({ changes: { from: start, to: old.length - end, insert: text.slice(start, text.length - end) }, userEvent: "deck" });
    },
    insert(text) {
      view.current?.dispatch(view.current.state.replaceSelection(text));
      view.current?.focus();
    },
    goTo(line) {
      const editor = view.current;
      if (!editor) return;
      const { from } = editor.state.doc.line(Math.min(line, editor.state.doc.lines));
      editor.dispatch({ selection: { anchor: from }, effects: EditorView.scrollIntoView(from, { y: "start", yMargin: 24 }) });
      editor.focus();
    },
  }));

  return <div ref={host} className="min-h-0 min-w-0 flex-1 overflow-hidden" data-write />;
}
