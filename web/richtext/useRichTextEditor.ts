import { languageDirection, type RichText } from "@unitext/core/model";
import { useEditor } from "@tiptap/react";
import { useEffect, useLayoutEffect, useRef } from "react";
import { extensions, fromEditor, toEditor, untouched } from "./richtext";

export interface RichTextProps {
  text: RichText;
  label: string;
  placeholder: string;
  autoFocus?: boolean;
  language: string;
  onChange(text: RichText): void;
  onLeave(): void;
}

/** How long typing pauses before the text is passed on, in milliseconds. */
const PAUSE = 400;

/** An editor of a rich text, and `give`, which passes on at once what was typed. */
export function useRichTextEditor({
  text,
  label,
  placeholder,
  autoFocus = false,
  language,
  onChange,
  onLeave,
}: RichTextProps) {
  const latest = useRef({ onChange, onLeave, written: "" });
  latest.current = { written: latest.current.written || untouched(text), onChange, onLeave };
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
    onBlur: () => give(),
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
    if (!editor || written === latest.current.written || editor.isFocused) return;
    latest.current.written = written;
    editor.commands.setContent(toEditor(text), { emitUpdate: false });
  }, [text, editor]);
  return { editor, give };
}
