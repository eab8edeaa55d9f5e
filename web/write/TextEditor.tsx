import { defaultKeymap, history, historyKeymap, indentLess, indentMore } from "@codemirror/commands";
import { markdown, markdownLanguage } from "@codemirror/lang-markdown";
import { syntaxHighlighting } from "@codemirror/language";
import { searchKeymap } from "@codemirror/search";
import { EditorState, Prec } from "@codemirror/state";
import { EditorView, gutter, keymap, placeholder } from "@codemirror/view";
import type { Lines, Problem } from "@unitext/core/text";
import { type Ref, useEffect, useImperativeHandle, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import { keyOf, written } from "../keys/commands";
import { type Placement, slideHeight } from "./Level";
import { styleNonce } from "../shell/nonce";
import { setLayout, setLanding, breakField, landingField, layoutField } from "./decorations";
import { look, highlight } from "./editortheme";

export interface TextEditorHandle {
  /** Replaces the whole text, keeping the scroll position. */
  replace(text: string): void;
  /** The same as if it had been typed. */
  edit(text: string): void;
  /** The present text, and the line of the cursor. */
  now(): { text: string; line: number };
  focus(): void;
  insert(text: string): void;
  goTo(line: number): void;
}

interface Props {
  ref: Ref<TextEditorHandle>;
  first: string;
  readOnly: boolean;
  segments: readonly Lines[];
  /** The lines of the selected slide. */
  chosen: Lines | undefined;
  overLines: readonly number[];
  problems: readonly Problem[];
  onType(text: string): void;
  /** Called when the start of a slide was moved from one line to another. */
  onMoveBreak(from: number, to: number): void;
  /** Where it would land, while it is moved. */
  onLanding(line: number | undefined): void;
  onPasteHtml(html: string): void;
  onKey(command: "beginSlide" | "joinSlide" | "find"): void;
  onScroll(placement: Placement): void;
  onLine(line: number): void;
  onDrop(files: readonly File[]): void;
}

/** The manuscript: plain text with the marks of the text form, each slide's lines as high as the slide beside them. */
export function TextEditor({ ref, first, readOnly, segments, chosen, overLines, problems, ...acts }: Props) {
  const { deck } = useDeck();
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const latest = useRef({ acts, segments });
  latest.current = { acts, segments };
  const pageNow = useRef(deck.page);
  pageNow.current = deck.page;

  /** Follows the pointer from a mark in the margin to the line where the slide should start. */
  const drag = (editor: EditorView, from: number, event: MouseEvent) => {
    event.preventDefault();
    let to = from;
    const { doc } = editor.state;
    // An empty line stands for the next line with text.
    const lineAt = (y: number) => {
      let { number } = doc.lineAt(editor.lineBlockAtHeight(y - editor.documentTop).from);
      while (number < doc.lines && doc.line(number).text.trim() === "") number += 1;
      return number;
    };
    const onMove = ({ clientY }: PointerEvent) => {
      const next = lineAt(clientY);
      if (next === to) return;
      to = next;
      editor.dispatch({ effects: setLanding.of(to) });
      latest.current.acts.onLanding(to);
    };
    const end = (take: boolean) => {
      window.removeEventListener("pointermove", onMove);
      window.removeEventListener("pointerup", onUp);
      window.removeEventListener("keydown", onKey);
      editor.dispatch({ effects: setLanding.of(undefined) });
      latest.current.acts.onLanding(undefined);
      if (take && to !== from) latest.current.acts.onMoveBreak(from, to);
    };
    const onUp = () => end(true);
    const onKey = (key: KeyboardEvent) => key.key === "Escape" && end(false);
    window.addEventListener("pointermove", onMove);
    window.addEventListener("pointerup", onUp);
    window.addEventListener("keydown", onKey);
  };

  const place = () => {
    const editor = view.current;
    if (!editor) return;
    const { doc } = editor.state;
    const pad = editor.documentPadding.top;
    const room = slideHeight(pageNow.current);
    let last = Number.NEGATIVE_INFINITY;
    const tops = latest.current.segments.map(({ from }) => {
      const top = from <= doc.lines ? Math.round(editor.lineBlockAt(doc.line(from).from).top + pad) : 0;
      // Slides that continue each other are below each other.
      last = Math.max(top, last + room);
      return last;
    });
    latest.current.acts.onScroll({ tops, scroll: editor.scrollDOM.scrollTop, height: editor.scrollDOM.clientHeight });
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: the editor is made once; what changes later reaches it through the ref and the effects below.
  useEffect(() => {
    const editor = new EditorView({
      parent: host.current as HTMLDivElement,
      state: EditorState.create({
        doc: first,
        extensions: [
          EditorView.cspNonce.of(styleNonce),
          EditorState.readOnly.of(readOnly),
          history(),
          breakField,
          landingField,
          gutter({
            class: "cm-breaks",
            markers: (view) => view.state.field(breakField),
            domEventHandlers: {
              mousedown(view, line, event) {
                if (readOnly || !(event.target instanceof HTMLElement) || !event.target.closest(".cm-break-mark"))
                  return false;
                drag(view, view.state.doc.lineAt(line.from).number, event as MouseEvent);
                return true;
              },
            },
          }),
          Prec.highest(
            EditorView.domEventHandlers({
              keydown(event) {
                const key = written(event);
                const command = (["beginSlide", "joinSlide", "find"] as const).find((name) => keyOf(name) === key);
                if (command) latest.current.acts.onKey(command);
                return command !== undefined;
              },
            }),
          ),
          keymap.of([
            ...searchKeymap,
            ...historyKeymap,
            { key: "Mod-]", run: indentMore },
            { key: "Mod-[", run: indentLess },
            ...defaultKeymap,
          ]),
          markdown({ base: markdownLanguage, addKeymap: true, extensions: { remove: ["SetextHeading"] } }),
          syntaxHighlighting(highlight),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({
            "aria-label": "Text of the deck",
            tabindex: "0",
            spellcheck: "true",
            lang: deck.language,
          }),
          placeholder("# Title\n\n## First slide\n\n- a point"),
          layoutField,
          look,
          EditorView.updateListener.of((update) => {
            const quietly = update.transactions.some((transaction) => transaction.isUserEvent("deck"));
            if (update.docChanged && !quietly) latest.current.acts.onType(update.state.doc.toString());
            if (update.selectionSet || update.docChanged)
              latest.current.acts.onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
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
              const html = event.clipboardData?.getData("text/html") ?? "";
              // Headings, lists and tables from a web page or document are kept; plain words are inserted as they are.
              if (/<(h[1-6]|ul|ol|table|blockquote|img|sup|math)\b|mso-list/i.test(html)) {
                event.preventDefault();
                latest.current.acts.onPasteHtml(html);
                return true;
              }
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

  // biome-ignore lint/correctness/useExhaustiveDependencies: only the lines of the chosen stretch matter; its object is new at every render.
  useEffect(() => {
    view.current?.dispatch({
      effects: setLayout.of({
        segments,
        chosen,
        over: overLines,
        problems: problems.map(({ line }) => line),
        room: slideHeight(deck.page),
      }),
    });
    requestAnimationFrame(place);
  }, [segments, chosen?.from, chosen?.to, overLines, problems, deck.page]);

  const put = (text: string, userEvent: string) => {
    const editor = view.current;
    if (!editor) return;
    const old = editor.state.doc.toString();
    let start = 0;
    while (start < old.length && start < text.length && old[start] === text[start]) start++;
    let end = 0;
    while (
      end < old.length - start &&
      end < text.length - start &&
      old[old.length - 1 - end] === text[text.length - 1 - end]
    )
      end++;
    editor.dispatch({
      changes: { from: start, to: old.length - end, insert: text.slice(start, text.length - end) },
      userEvent,
    });
  };

  useImperativeHandle(ref, () => ({
    replace: (text) => put(text, "deck"),
    edit: (text) => put(text, "input"),
    now() {
      const state = view.current?.state;
      return {
        text: state?.doc.toString() ?? "",
        line: state ? state.doc.lineAt(state.selection.main.head).number : 1,
      };
    },
    focus: () => view.current?.focus(),
    insert(text) {
      view.current?.dispatch(view.current.state.replaceSelection(text));
      view.current?.focus();
    },
    goTo(line) {
      const editor = view.current;
      if (!editor) return;
      const { from } = editor.state.doc.line(Math.min(line, editor.state.doc.lines));
      editor.dispatch({
        selection: { anchor: from },
        effects: EditorView.scrollIntoView(from, { y: "start", yMargin: 24 }),
      });
      editor.focus();
    },
  }));

  return <div ref={host} className="min-h-0 min-w-0 flex-1 overflow-hidden" data-write />;
}
