import { defaultKeymap, history, historyKeymap, indentLess, indentMore } from "@codemirror/commands";
import { markdownKeymap, markdownLanguage, pasteURLAsLink } from "@codemirror/lang-markdown";
import { Language, syntaxHighlighting } from "@codemirror/language";
import { searchKeymap } from "@codemirror/search";
import { Compartment, EditorState, type Extension, Prec, type TransactionSpec } from "@codemirror/state";
import { EditorView, gutter, keymap, placeholder } from "@codemirror/view";
import type { MarkdownParser } from "@lezer/markdown";
import { keyOf, written } from "../keys/commands";
import { styleNonce } from "../shell/nonce";
import { nextTask } from "../ui/time";
import { chips } from "./chips";
import { breakField, landingField, layoutField } from "./decorations";
import { highlight, look } from "./editortheme";

export type EditorCommand = "beginSlide" | "joinSlide" | "find";
const COMMANDS: readonly EditorCommand[] = ["beginSlide", "joinSlide", "find"];

/** What the editor tells the component around it. */
export interface EditorEvents {
  onType(text: string): void;
  onLine(line: number): void;
  onKey(command: EditorCommand): void;
  onPasteHtml(html: string): void;
  onDrop(files: readonly File[]): void;
  /** Called when lines may have other places on the screen. */
  onPlaces(): void;
  /** Called when a break mark in the margin is pressed; the line counts from 1. */
  onDragBreak(view: EditorView, line: number): void;
}

/**
 * Markdown as the text form has it: a line under a text does not make it a heading. Built from the package's parts
 * because its `markdown()` brings the parsers of HTML, CSS and JavaScript into the page.
 */
const textLanguage = new Language(
  markdownLanguage.data,
  (markdownLanguage.parser as MarkdownParser).configure({ remove: ["SetextHeading"] }),
  [],
  "markdown",
);

const access = new Compartment();
const marked = new Compartment();
const MARKS = [textLanguage, syntaxHighlighting(highlight)];

/** Texts longer than this are set first and read for their marks in a later task, so that the page is not blocked. */
const LONG = 20_000;

/** Changes the text; where much is added, its marks are drawn a moment later. */
export function change(view: EditorView, spec: TransactionSpec, added: number) {
  if (added < LONG) {
    view.dispatch(spec);
    return;
  }
  view.dispatch({ ...spec, effects: marked.reconfigure([]) });
  void nextTask().then(() => view.dispatch({ effects: marked.reconfigure(MARKS) }));
}

function accessOf(readOnly: boolean): Extension {
  return [EditorState.readOnly.of(readOnly), EditorView.editable.of(!readOnly)];
}

/** Allows or refuses typing; the cursor and the scroll position stay. */
export function setReadOnly(view: EditorView, readOnly: boolean) {
  view.dispatch({ effects: access.reconfigure(accessOf(readOnly)) });
}

/** The editor's extensions: the text form's language, keys, break marks, and the events above. */
export function editorExtensions(readOnly: boolean, language: string, events: EditorEvents): Extension[] {
  return [
    EditorView.cspNonce.of(styleNonce),
    access.of(accessOf(readOnly)),
    history(),
    breakField,
    landingField,
    breakGutter(events),
    commandKeys(events),
    keymap.of([
      ...searchKeymap,
      ...historyKeymap,
      { key: "Mod-]", run: indentMore },
      { key: "Mod-[", run: indentLess },
      ...defaultKeymap,
    ]),
    Prec.high(keymap.of(markdownKeymap)),
    pasteURLAsLink,
    marked.of(MARKS),
    EditorView.lineWrapping,
    EditorView.contentAttributes.of({
      "aria-label": "Text of the deck",
      tabindex: "0",
      spellcheck: "true",
      lang: language,
    }),
    placeholder("# Title\n\n## First slide\n\n- a point"),
    layoutField,
    chips(),
    look,
    updates(events),
    dropAndPaste(events),
  ];
}

/** Marks in the margin where slides start; they can be dragged to another line. */
function breakGutter({ onDragBreak }: EditorEvents): Extension {
  return gutter({
    class: "cm-breaks",
    markers: (view) => view.state.field(breakField),
    domEventHandlers: {
      mousedown(view, line, event) {
        if (view.state.readOnly || !(event.target instanceof HTMLElement) || !event.target.closest(".cm-break-mark"))
          return false;
        event.preventDefault();
        onDragBreak(view, view.state.doc.lineAt(line.from).number);
        return true;
      },
    },
  });
}

/** The deck's commands come before the editor's own keys. */
function commandKeys({ onKey }: EditorEvents): Extension {
  return Prec.highest(
    EditorView.domEventHandlers({
      keydown(event) {
        const key = written(event);
        const command = COMMANDS.find((name) => keyOf(name) === key);
        if (command) onKey(command);
        return command !== undefined;
      },
    }),
  );
}

function updates({ onType, onLine, onPlaces }: EditorEvents): Extension {
  return EditorView.updateListener.of((update) => {
    const fromDeck = update.transactions.some((transaction) => transaction.isUserEvent("deck"));
    if (update.docChanged && !fromDeck) onType(update.state.doc.toString());
    if (update.selectionSet || update.docChanged)
      onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
    if (update.geometryChanged || update.viewportChanged) requestAnimationFrame(onPlaces);
  });
}

/** HTML with headings, lists, tables or pictures; other HTML is pasted as plain words. */
const STRUCTURED = /<(h[1-6]|ul|ol|table|blockquote|img|sup|math)\b|mso-list/i;

function dropAndPaste({ onDrop, onPasteHtml }: EditorEvents): Extension {
  const takeFiles = (event: Event, data: DataTransfer | null) => {
    const files = [...(data?.files ?? [])];
    if (!files.length) return false;
    event.preventDefault();
    onDrop(files);
    return true;
  };
  return EditorView.domEventHandlers({
    drop: (event) => takeFiles(event, event.dataTransfer),
    paste(event) {
      const html = event.clipboardData?.getData("text/html") ?? "";
      if (!STRUCTURED.test(html)) return takeFiles(event, event.clipboardData);
      event.preventDefault();
      onPasteHtml(html);
      return true;
    },
  });
}
