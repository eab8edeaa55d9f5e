import { EditorState } from "@codemirror/state";
import { EditorView } from "@codemirror/view";
import { must } from "@unitext/core/model";
import type { Lines, Problem } from "@unitext/core/text";
import { type Ref, type RefObject, useEffect, useImperativeHandle, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import { dragBreak } from "./breakdrag";
import { firstPosition } from "./chips";
import { setLayout } from "./decorations";
import { change, type EditorCommand, editorExtensions, setReadOnly } from "./editorextensions";
import { type Placement, slideHeight } from "./Level";

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
  onKey(command: EditorCommand): void;
  onScroll(placement: Placement): void;
  onLine(line: number): void;
  onDrop(files: readonly File[]): void;
}

/** The manuscript: plain text with the marks of the text form, each slide's lines as high as the slide beside them. */
export function TextEditor({ ref, first, readOnly, segments, chosen, overLines, problems, ...acts }: Props) {
  const { deck } = useDeck();
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const room = slideHeight(deck.page);
  /** The text before the editor is there. */
  const opening = useRef(first);
  const layout = { segments, chosen, over: overLines, problems: problems.map(({ line }) => line), room };
  const latest = useRef({ acts, segments, room, layout, readOnly });
  latest.current = { acts, segments, room, layout, readOnly };

  const place = () => {
    const editor = view.current;
    if (editor) latest.current.acts.onScroll(placementOf(editor, latest.current.segments, latest.current.room));
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: the editor is made once; what changes later reaches it through the ref and the effect below.
  useEffect(() => {
    const tell = () => latest.current.acts;
    const extensions = editorExtensions(readOnly, deck.language, {
      onType: (text) => tell().onType(text),
      onLine: (line) => tell().onLine(line),
      onKey: (command) => tell().onKey(command),
      onPasteHtml: (html) => tell().onPasteHtml(html),
      onDrop: (files) => tell().onDrop(files),
      onPlaces: place,
      onDragBreak: (editor, line) =>
        dragBreak(editor, line, {
          onLanding: (to) => tell().onLanding(to),
          onMove: (from, to) => tell().onMoveBreak(from, to),
        }),
    });
    const made = EditorState.create({ doc: opening.current, extensions });
    const state = made.update({ selection: { anchor: firstPosition(made) } }).state;
    // Drawn in a task of its own: with a long text both together would block the page.
    const soon = setTimeout(() => {
      const editor = new EditorView({ parent: must(host.current ?? undefined), state });
      view.current = editor;
      if (opening.current !== first) changeText(editor, opening.current, "deck");
      if (latest.current.readOnly !== readOnly) setReadOnly(editor, latest.current.readOnly);
      editor.dispatch({ effects: setLayout.of(latest.current.layout) });
      editor.scrollDOM.addEventListener("scroll", place, { passive: true });
      editor.focus();
      requestAnimationFrame(place);
    });
    return () => {
      clearTimeout(soon);
      view.current?.destroy();
      view.current = undefined;
    };
  }, []);

  // biome-ignore lint/correctness/useExhaustiveDependencies: only the lines of the chosen stretch matter; its object is new at every render.
  useEffect(() => {
    view.current?.dispatch({ effects: setLayout.of(latest.current.layout) });
    requestAnimationFrame(place);
  }, [segments, chosen?.from, chosen?.to, overLines, problems, room]);

  useEffect(() => {
    if (view.current) setReadOnly(view.current, readOnly);
  }, [readOnly]);

  useImperativeHandle(ref, () => handleOf(() => view.current, opening));

  return (
    <div
      ref={host}
      className="min-h-0 min-w-0 flex-1 overflow-hidden max-md:in-data-[shown=slides]:hidden"
      data-write
    />
  );
}

/** Returns the heights at which the slides' lines begin, and how far the editor is scrolled, in CSS pixels. */
function placementOf(editor: EditorView, segments: readonly Lines[], room: number): Placement {
  const { doc } = editor.state;
  const pad = editor.documentPadding.top;
  let last = Number.NEGATIVE_INFINITY;
  const tops = segments.map(({ from }) => {
    const top = from <= doc.lines ? Math.round(editor.lineBlockAt(doc.line(from).from).top + pad) : 0;
    // Slides that continue each other are below each other.
    last = Math.max(top, last + room);
    return last;
  });
  return { tops, scroll: editor.scrollDOM.scrollTop, height: editor.scrollDOM.clientHeight };
}

/** Changes the text of an editor to another, in one replacement that leaves equal ends alone. */
function changeText(editor: EditorView, text: string, userEvent: string) {
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
  const insert = text.slice(start, text.length - end);
  change(editor, { changes: { from: start, to: old.length - end, insert }, userEvent }, insert.length);
}

/** What the component around an editor can ask of it. Until it is drawn, `opening` is its text. */
function handleOf(view: () => EditorView | undefined, opening: RefObject<string>): TextEditorHandle {
  const setText = (text: string, userEvent: string) => {
    const editor = view();
    if (editor) changeText(editor, text, userEvent);
    else opening.current = text;
  };
  return {
    replace: (text) => setText(text, "deck"),
    edit: (text) => setText(text, "input"),
    now() {
      const state = view()?.state;
      return {
        text: state?.doc.toString() ?? opening.current,
        line: state ? state.doc.lineAt(state.selection.main.head).number : 1,
      };
    },
    focus: () => view()?.focus(),
    insert(text) {
      const editor = view();
      editor?.dispatch({ ...editor.state.replaceSelection(text), scrollIntoView: true });
      editor?.focus();
    },
    goTo(line) {
      const editor = view();
      if (!editor) return;
      const { from } = editor.state.doc.line(Math.min(line, editor.state.doc.lines));
      editor.dispatch({
        selection: { anchor: from },
        effects: EditorView.scrollIntoView(from, { y: "start", yMargin: 24 }),
      });
      editor.focus();
    },
  };
}
