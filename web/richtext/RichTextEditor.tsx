import { nameOf, type RichText, slideLink } from "@unitext/core/model";
import { EditorContent, useEditor, useEditorState } from "@tiptap/react";
import { type CSSProperties, useEffect, useLayoutEffect, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { LeadsTo } from "./LeadsTo";
import { extensions, fromEditor, toEditor, untouched } from "./richtext";

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

/** Edits a footnote; an empty one is removed. */
function FootnoteField({ words, onSet }: { words: string; onSet: (words: string) => void }) {
  const [text, setText] = useState(words);
  return (
    <label className="block">
      What the footnote says
      <input
        ref={(field) => field?.focus()}
        className="input input-sm w-full"
        value={text}
        onChange={({ target }) => setText(target.value)}
        onKeyDown={(event) => event.key === "Enter" && onSet(text.trim())}
      />
      <button
        type="button"
        className="btn btn-xs btn-primary mt-1 mr-1"
        disabled={text.trim() === words}
        onClick={() => onSet(text.trim())}
      >
        {words && !text.trim() ? "Remove" : "Set the footnote"}
      </button>
    </label>
  );
}

/** Edits a rich text in place. Typed text is passed on after a short pause and when the editor loses focus. */
export function RichTextEditor({
  text,
  label,
  placeholder,
  className = "",
  style,
  autoFocus = false,
  language,
  onChange,
  onLeave,
}: Props) {
  const latest = useRef({ onChange, onLeave, written: "" });
  latest.current = { written: latest.current.written || untouched(text), onChange, onLeave };
  const { deck } = useDeck();
  /** The words of a link set where none are selected. */
  const wordsOf = (to: string) => {
    const slide = deck.slides.find(({ id }) => id === slideLink(to));
    return (slide && nameOf(slide)) || to.replace(/^(https?:\/\/|mailto:|slide:)/, "");
  };
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  const editor = useEditor({
    extensions: extensions(placeholder, () => latest.current.onLeave()),
    content: toEditor(text),
    injectCSS: false,
    editorProps: { attributes: { "aria-label": label, role: "textbox", "aria-multiline": "true", lang: language } },
    onUpdate: () => {
      clearTimeout(wait.current);
      wait.current = setTimeout(give, 400);
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
  const state = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      strong: now?.isActive("bold") ?? false,
      emphasis: now?.isActive("italic") ?? false,
      strike: now?.isActive("strike") ?? false,
      code: now?.isActive("code") ?? false,
      formula: now?.isActive("formula") ?? false,
      footnote: now?.isActive("footnote") ?? false,
      link: now?.isActive("link") ?? false,
      kind: (now?.getAttributes("paragraph").kind as string) ?? "plain",
      focused: now?.isFocused ?? false,
    }),
  });
  const tool = (name: string, on: boolean, act: () => void) => (
    <button
      type="button"
      className={`btn btn-ghost btn-xs ${on ? "bg-base-300" : ""}`}
      aria-pressed={on}
      onMouseDown={(event) => event.preventDefault()}
      onClick={act}
    >
      {name}
    </button>
  );
  const [asked, setAsked] = useState<"link" | "footnote">();
  const held = editor?.isActive("footnote") ? (editor.getAttributes("footnote").runs as { text: string }[]) : undefined;
  const link = (to: string | undefined) => {
    const chain = editor?.chain().extendMarkRange("link");
    if (to === undefined) chain?.unsetLink().run();
    else if (editor?.state.selection.empty && !editor.isActive("link"))
      chain?.insertContent({ type: "text", text: wordsOf(to), marks: [{ type: "link", attrs: { href: to } }] }).run();
    else chain?.setLink({ href: to }).run();
  };
  const footnote = (words: string) => {
    if (held && !words) editor?.chain().focus().deleteSelection().run();
    else if (words)
      editor
        ?.chain()
        .focus()
        .insertContent({ type: "footnote", attrs: { runs: [{ text: words }] } })
        .run();
    setAsked(undefined);
  };
  const kind = (value: string) =>
    editor
      ?.chain()
      .focus()
      .updateAttributes("paragraph", { kind: state?.kind === value ? "plain" : value })
      .run();
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: hears that the focus leaves the editor and its tools.
    <div
      className={`rich-text ${className}`}
      style={style}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) give();
      }}
    >
      <div role="toolbar" aria-label={`${label}: form of the text`} className="rich-tools flex flex-wrap gap-0.5">
        {tool("Bold", state?.strong ?? false, () => editor?.chain().focus().toggleBold().run())}
        {tool("Italic", state?.emphasis ?? false, () => editor?.chain().focus().toggleItalic().run())}
        {tool("Strikethrough", state?.strike ?? false, () => editor?.chain().focus().toggleStrike().run())}
        {tool("Code", state?.code ?? false, () => editor?.chain().focus().toggleCode().run())}
        {tool("Formula", state?.formula ?? false, () => editor?.chain().focus().toggleMark("formula").run())}
        {tool("Footnote", state?.footnote ?? false, () => setAsked(asked === "footnote" ? undefined : "footnote"))}
        {tool("Points", state?.kind === "bullet", () => kind("bullet"))}
        {tool("Numbers", state?.kind === "number", () => kind("number"))}
        {tool("Link", state?.link ?? false, () => setAsked(asked === "link" ? undefined : "link"))}
      </div>
      {asked && (
        <div
          role="group"
          aria-label={asked === "link" ? "Link of the selected words" : "Footnote at this place"}
          className="rich-asked hairline bg-base-100 text-base-content border p-2 text-sm"
        >
          {asked === "link" ? (
            <LeadsTo to={editor?.getAttributes("link").href as string | undefined} onSet={link} />
          ) : (
            <FootnoteField words={held?.map(({ text: part }) => part).join("") ?? ""} onSet={footnote} />
          )}
          <button type="button" className="btn btn-xs mt-1" onClick={() => setAsked(undefined)}>
            Done
          </button>
        </div>
      )}
      <EditorContent editor={editor} />
    </div>
  );
}
