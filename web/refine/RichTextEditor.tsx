import type { RichText } from "@unitext/core/model";
import { EditorContent, useEditor, useEditorState } from "@tiptap/react";
import { type CSSProperties, useEffect, useRef } from "react";
import { extensions, fromEditor, toEditor } from "./richtext";

interface Props {
  text: RichText;
  label: string;
  placeholder: string;
  className?: string;
  style?: CSSProperties;
  autoFocus?: boolean;
  language: string;
  onChange(text: RichText): void;
  onLeave(): void;
}

/** Edits a rich text in place. What is typed is given on after a short pause and when the text is left. */
export function RichTextEditor({ text, label, placeholder, className = "", style, autoFocus = false, language, onChange, onLeave }: Props) {
  const latest = useRef({ onChange, onLeave, written: JSON.stringify(text) });
  latest.current = { ...latest.current, onChange, onLeave };
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  const editor = useEditor({
    extensions: extensions(placeholder, () => latest.current.onLeave()),
    content: toEditor(text),
    injectCSS: false,
    autofocus: autoFocus ? "end" : false,
    editorProps: { attributes: { "aria-label": label, role: "textbox", "aria-multiline": "true", lang: language } },
    onUpdate: () => {
      clearTimeout(wait.current);
      wait.current = setTimeout(give, 400);
    },
    onBlur: () => give(),
  });
  function give() {
    clearTimeout(wait.current);
    if (!editor || editor.isDestroyed) return;
    const now = fromEditor(editor.getJSON());
    const written = JSON.stringify(now);
    if (written === latest.current.written) return;
    latest.current.written = written;
    latest.current.onChange(now);
  }
  useEffect(() => {
    const flush = () => give();
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      give();
    };
  }, [editor]);
  useEffect(() => {
    const written = JSON.stringify(text);
    if (!editor || written === latest.current.written || editor.isFocused) return;
    latest.current.written = written;
    editor.commands.setContent(toEditor(text), { emitUpdate: false });
  }, [text, editor]);
  const state = useEditorState({
    editor,
    selector: ({ editor: now }) => ({ strong: now?.isActive("bold") ?? false, emphasis: now?.isActive("italic") ?? false, strike: now?.isActive("strike") ?? false, code: now?.isActive("code") ?? false, formula: now?.isActive("formula") ?? false, footnote: now?.isActive("footnote") ?? false, link: now?.isActive("link") ?? false, kind: (now?.getAttributes("paragraph").kind as string) ?? "plain", focused: now?.isFocused ?? false }),
  });
  const tool = (name: string, on: boolean, act: () => void) => (
    <button type="button" className={`btn btn-ghost btn-xs ${on ? "bg-base-300" : ""}`} aria-pressed={on} onMouseDown={(event) => event.preventDefault()} onClick={act}>
      {name}
    </button>
  );
  const kind = (value: string) => editor?.chain().focus().updateAttributes("paragraph", { kind: state?.kind === value ? "plain" : value }).run();
  return (
    <div
      className={`rich-text ${className}`}
      style={style}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) give();
      }}
    >
      <div role="toolbar" aria-label={`${label}: form of the text`} className="rich-tools flex flex-wrap gap-0.5">
        {tool("Strong", state?.strong ?? false, () => editor?.chain().focus().toggleBold().run())}
        {tool("Emphasis", state?.emphasis ?? false, () => editor?.chain().focus().toggleItalic().run())}
        {tool("Struck", state?.strike ?? false, () => editor?.chain().focus().toggleStrike().run())}
        {tool("Code", state?.code ?? false, () => editor?.chain().focus().toggleCode().run())}
        {tool("Formula", state?.formula ?? false, () => editor?.chain().focus().toggleMark("formula").run())}
        {tool("Footnote", state?.footnote ?? false, () => {
          const held = editor?.isActive("footnote") ? (editor.getAttributes("footnote").runs as { text: string }[]) : undefined;
          const words = window.prompt("What does the footnote say? Empty for none", held?.map(({ text: part }) => part).join("") ?? "");
          if (words === null) return;
          if (held && !words.trim()) editor?.chain().focus().deleteSelection().run();
          else if (words.trim()) editor?.chain().focus().insertContent({ type: "footnote", attrs: { runs: [{ text: words.trim() }] } }).run();
        })}
        {tool("Points", state?.kind === "bullet", () => kind("bullet"))}
        {tool("Numbers", state?.kind === "number", () => kind("number"))}
        {tool("Link", state?.link ?? false, () => {
          const before = editor?.getAttributes("link").href as string | undefined;
          const address = window.prompt("Where does the link lead? https://…, or empty for none", before ?? "https://");
          if (address === null) return;
          if (address.trim() === "" || address === "https://") editor?.chain().focus().extendMarkRange("link").unsetLink().run();
          else editor?.chain().focus().extendMarkRange("link").setLink({ href: address.trim() }).run();
        })}
      </div>
      <EditorContent editor={editor} />
    </div>
  );
}
