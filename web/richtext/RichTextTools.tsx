import type { Bound } from "@unitext/core/data";
import { nameOf, slideLink } from "@unitext/core/model";
import { type Editor, useEditorState } from "@tiptap/react";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { ChooseCells } from "../sources/ChooseCells";
import { FootnoteField } from "./FootnoteField";
import { LeadsTo } from "./LeadsTo";

/** The tools of a rich text editor: marks, lists, links and footnotes of what is selected. */
export function RichTextTools({ editor, label }: { editor: Editor; label: string }) {
  const { deck } = useDeck();
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
  /** The words of a link set where none are selected. */
  const wordsOf = (to: string) => {
    const slide = deck.slides.find(({ id }) => id === slideLink(to));
    return (slide && nameOf(slide)) || to.replace(/^(https?:\/\/|mailto:|slide:)/, "");
  };
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
  const [choosing, setChoosing] = useState(false);
  const insertValue = (bound: Bound) => {
    if (bound.kind === "value")
      editor
        ?.chain()
        .focus()
        .insertContent({ type: "value", attrs: { run: bound.run } })
        .run();
  };
  const kind = (value: string) =>
    editor
      ?.chain()
      .focus()
      .updateAttributes("paragraph", { kind: state?.kind === value ? "plain" : value })
      .run();
  return (
    <>
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
        {tool("Value …", false, () => setChoosing(true))}
      </div>
      {choosing && (
        <ChooseCells
          title="A value of a workbook"
          wanted="value"
          act="Insert the value"
          onChosen={insertValue}
          onClose={() => setChoosing(false)}
        />
      )}
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
    </>
  );
}
