import { languageDirection, type RichText } from "@unitext/core/model";
import { mergeTextsWithBoth } from "@unitext/core/edit";
import { type Editor, useEditor } from "@tiptap/react";
import { useEffect, useLayoutEffect, useRef } from "react";
import { type Caret, CARETS } from "./carets";
import { extensions, fromEditor, toEditor, untouched } from "./richtext";

export interface RichTextProps {
  text: RichText;
  label: string;
  placeholder: string;
  autoFocus?: boolean;
  language: string;
  onChange(text: RichText): void;
  onLeave(): void;
  /** The carets of others who write in the same text. */
  carets?: readonly Caret[];
  /** Told where the caret is; null when the editor is left. */
  onCaret?: (at: number | null) => void;
}

/** How long typing pauses before the text is passed on, in milliseconds. */
const PAUSE = 400;

/**
 * Shows another content in an editor by replacing the part that differs, so that the caret stays at its words. It is no
 * step of the person's own that the editor would undo.
 */
function showInEditor(editor: Editor, content: ReturnType<typeof toEditor>): void {
  const { state, schema, view } = editor;
  const next = schema.nodeFromJSON(content);
  const start = state.doc.content.findDiffStart(next.content);
  const end = state.doc.content.findDiffEnd(next.content);
  if (start === null || !end) return;
  // Where a text repeats itself the two ends may lie before the start.
  const over = Math.max(0, start - Math.min(end.a, end.b));
  view.dispatch(
    state.tr
      .replace(start, end.a + over, next.slice(start, end.b + over))
      .setMeta("addToHistory", false)
      .setMeta("preventUpdate", true),
  );
}

/** An editor of a rich text, and `give`, which passes on at once what was typed. */
export function useRichTextEditor({
  text,
  label,
  placeholder,
  autoFocus = false,
  language,
  onChange,
  onLeave,
  carets,
  onCaret,
}: RichTextProps) {
  const latest = useRef({ onChange, onLeave, onCaret, written: "" });
  latest.current = { written: latest.current.written || untouched(text), onChange, onLeave, onCaret };
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  const editor = useEditor({
    extensions: extensions(placeholder, () => latest.current.onLeave()),
    content: toEditor(text),
    injectCSS: false,
    editorProps: {
      attributes: {
        "aria-label": label,
        role: "textbox",
        "aria-multiline": "true",
        lang: language,
        dir: languageDirection(language),
      },
    },
    onUpdate: () => {
      clearTimeout(wait.current);
      wait.current = setTimeout(give, PAUSE);
    },
    onSelectionUpdate: ({ editor: { state, isFocused } }) => {
      if (isFocused) latest.current.onCaret?.(state.selection.head);
    },
    onFocus: ({ editor: { state } }) => latest.current.onCaret?.(state.selection.head),
    onBlur: () => {
      give();
      latest.current.onCaret?.(null);
    },
  });
  // The editor's own autofocus comes a frame late, and would lose what is typed until then.
  useLayoutEffect(() => {
    if (!autoFocus) return;
    editor.commands.setTextSelection(editor.state.doc.content.size);
    editor.view.focus();
  }, [editor, autoFocus]);
  function give() {
    clearTimeout(wait.current);
    if (!editor || editor.isDestroyed) return;
    const now = fromEditor(editor.getJSON());
    const written = JSON.stringify(now);
    if (written === latest.current.written) return;
    latest.current.written = written;
    latest.current.onChange(now);
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was typed is given when this editor ends; the function reads its latest values itself.
  useEffect(() => {
    const flush = () => give();
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      give();
    };
  }, [editor]);
  useEffect(() => {
    const written = untouched(text);
    if (!editor || written === latest.current.written) return;
    // What is typed and not passed on yet is put together with what came from elsewhere.
    const base = JSON.parse(latest.current.written) as RichText;
    const next = mergeTextsWithBoth(base, fromEditor(editor.getJSON()), text);
    latest.current.written = written;
    showInEditor(editor, toEditor(next));
  }, [text, editor]);
  useEffect(() => {
    if (editor && carets) editor.view.dispatch(editor.state.tr.setMeta(CARETS, carets));
  }, [editor, carets]);
  return { editor, give };
}
