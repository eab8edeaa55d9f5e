import { defaultKeymap, history, historyKeymap, indentLess, indentMore } from "@codemirror/commands";
import { markdown, markdownLanguage } from "@codemirror/lang-markdown";
import { HighlightStyle, syntaxHighlighting } from "@codemirror/language";
import { searchKeymap } from "@codemirror/search";
import { EditorState, Prec, type RangeSet, RangeSetBuilder, StateEffect, StateField } from "@codemirror/state";
import {
  Decoration,
  type DecorationSet,
  EditorView,
  gutter,
  GutterMarker,
  keymap,
  placeholder,
  WidgetType,
} from "@codemirror/view";
import { tags } from "@lezer/highlight";
import type { Lines, Problem } from "@unitext/core/text";
import { type Ref, useEffect, useImperativeHandle, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import { keyOf, written } from "../keys/commands";
import { type Placement, slideHeight } from "./Level";
import { styleNonce } from "../shell/nonce";

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

const LINE = 27;
/** Space below the lines of a slide, so that the slide beside them has its height. */
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
  chosen: Lines | undefined;
  over: readonly number[];
  problems: readonly number[];
  room: number;
}
const setLayout = StateEffect.define<Layout>();
const setLanding = StateEffect.define<number | undefined>();

/** The slides that start at a line, with the number of the first. */
interface Beginning {
  from: number;
  first: number;
  count: number;
}
function beginnings(segments: readonly Lines[]): Beginning[] {
  const list: Beginning[] = [];
  segments.forEach(({ from }, nth) => {
    const last = list.at(-1);
    if (last && last.from >= from) last.count += 1;
    else list.push({ from, first: nth + 1, count: 1 });
  });
  return list;
}

/** The mark in the margin where slides start; it can be dragged. */
class BreakMark extends GutterMarker {
  constructor(readonly beginning: Beginning) {
    super();
  }
  override eq(other: BreakMark): boolean {
    return other.beginning.first === this.beginning.first && other.beginning.count === this.beginning.count;
  }
  override toDOM(): HTMLElement {
    const { first, count } = this.beginning;
    const mark = document.createElement("div");
    mark.className = "cm-break-mark";
    mark.textContent = count > 1 ? `${first}–${first + count - 1}` : String(first);
    mark.title = `Slide ${first} starts here. Drag to another line to move its start.`;
    return mark;
  }
}
const breakField = StateField.define<RangeSet<GutterMarker>>({
  create: () => new RangeSetBuilder<GutterMarker>().finish(),
  update(value, transaction) {
    for (const effect of transaction.effects) {
      if (!effect.is(setLayout)) continue;
      const builder = new RangeSetBuilder<GutterMarker>();
      for (const beginning of beginnings(effect.value.segments))
        if (beginning.from <= transaction.state.doc.lines)
          builder.add(
            transaction.state.doc.line(beginning.from).from,
            transaction.state.doc.line(beginning.from).from,
            new BreakMark(beginning),
          );
      return builder.finish();
    }
    return value.map(transaction.changes);
  },
});
const LANDING = Decoration.line({ class: "cm-landing" });
const landingField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setLanding))
        return effect.value === undefined
          ? Decoration.none
          : Decoration.set(LANDING.range(transaction.state.doc.line(effect.value).from));
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

const OVER = Decoration.line({ class: "cm-over" });
const NOTED = Decoration.line({ class: "cm-noted" });
const CHOSEN = Decoration.line({ class: "cm-chosen" });

function decorations(state: EditorState, { segments, chosen, over, problems, room }: Layout): DecorationSet {
  const { doc } = state;
  const marks: { at: number; order: number; decoration: Decoration }[] = [];
  for (const line of over) if (line <= doc.lines) marks.push({ at: doc.line(line).from, order: 0, decoration: OVER });
  for (const line of problems)
    if (line <= doc.lines) marks.push({ at: doc.line(line).from, order: 0, decoration: NOTED });
  if (chosen)
    for (let line = chosen.from; line <= Math.min(chosen.to, doc.lines, chosen.from + 400); line++)
      marks.push({ at: doc.line(line).from, order: 0, decoration: CHOSEN });
  const begin = beginnings(segments);
  begin.forEach(({ from, count }, nth) => {
    const end = Math.min(doc.lines, (begin[nth + 1]?.from ?? doc.lines + 1) - 1);
    const height = room * count - (end - from + 1) * LINE;
    if (height > 0 && end >= from)
      marks.push({
        at: doc.line(end).to,
        order: 1,
        decoration: Decoration.widget({ widget: new Room(height), block: true, side: 1 }),
      });
  });
  marks.sort((a, b) => a.at - b.at || a.order - b.order);
  const builder = new RangeSetBuilder<Decoration>();
  for (const { at, decoration } of marks) builder.add(at, at, decoration);
  return builder.finish();
}

const layoutField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setLayout)) return decorations(transaction.state, effect.value);
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

const quietColour = "color-mix(in oklab, var(--color-base-content) 75%, var(--color-base-100))";
const look = EditorView.theme({
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
const highlight = HighlightStyle.define([
  { tag: tags.heading, fontWeight: "700" },
  { tag: tags.strong, fontWeight: "700" },
  { tag: tags.emphasis, fontStyle: "italic" },
  { tag: tags.strikethrough, textDecoration: "line-through" },
  { tag: tags.monospace, fontFamily: "var(--font-mono)", fontSize: "0.88em" },
  { tag: [tags.link, tags.url], color: "var(--color-primary)" },
  { tag: [tags.processingInstruction, tags.contentSeparator, tags.meta], color: quietColour },
]);

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
