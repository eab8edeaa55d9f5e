import type { Bound } from "@unitext/core/data";
import { nameOf, slideLink } from "@unitext/core/model";
import { type Editor, useEditorState } from "@tiptap/react";
import {
  Asterisk,
  Bold,
  Code,
  Eraser,
  Italic,
  Link,
  List,
  ListOrdered,
  MoreHorizontal,
  PaintRoller,
  Sheet,
  Sigma,
  Strikethrough,
  Underline,
} from "lucide-react";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { ChooseCells } from "../sources/ChooseCells";
import { FootnoteField } from "./FootnoteField";
import { type MenuActs, MenuButton } from "../ui/Menu";
import { type RunPatch, runPropertiesAt, setRunProperties } from "./format";
import { LeadsTo } from "./LeadsTo";
import { type BaseLook, LookTools } from "./LookTools";
import { ToolButton } from "./ToolButton";

/** Takes away what words set of their look. */
const NO_PROPERTIES: RunPatch = {
  font: null,
  size: null,
  colour: null,
  highlight: null,
  underline: null,
  rise: null,
  caps: null,
  spacing: null,
};

/** The tools of a rich text editor: the look of words and paragraphs on a slide, marks, lists, links and footnotes. */
export function RichTextTools({
  editor,
  label,
  base,
  onMakeAllSo,
}: {
  editor: Editor;
  label: string;
  /** The look of the text on its slide; without it the look of words cannot be changed. */
  base?: BaseLook | undefined;
  /** Gives all texts of this kind the look of this one. */
  onMakeAllSo?: (() => void) | undefined;
}) {
  const { deck } = useDeck();
  const state = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      strong: now.isActive("bold"),
      emphasis: now.isActive("italic"),
      underline: runPropertiesAt(now).underline !== undefined,
      link: now.isActive("link"),
      kind: (now.getAttributes("paragraph").kind as string | undefined) ?? "plain",
    }),
  });
  /** The words of a link set where none are selected. */
  const wordsOf = (to: string) => {
    const slide = deck.slides.find(({ id }) => id === slideLink(to));
    return (slide && nameOf(slide)) || to.replace(/^(https?:\/\/|mailto:|slide:)/, "");
  };
  const [asked, setAsked] = useState<"link" | "footnote">();
  const held = editor.isActive("footnote") ? (editor.getAttributes("footnote").runs as { text: string }[]) : undefined;
  const link = (to: string | undefined) => {
    const chain = editor.chain().extendMarkRange("link");
    if (to === undefined) chain?.unsetLink().run();
    else if (editor.state.selection.empty && !editor.isActive("link"))
      chain?.insertContent({ type: "text", text: wordsOf(to), marks: [{ type: "link", attrs: { href: to } }] }).run();
    else chain?.setLink({ href: to }).run();
  };
  const footnote = (words: string) => {
    if (held && !words) editor.chain().focus().deleteSelection().run();
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
      .updateAttributes("paragraph", { kind: state.kind === value ? "plain" : value })
      .run();
  const ask = (what: "link" | "footnote") => setAsked(asked === what ? undefined : what);
  const more: MenuActs = [
    {
      label: "Strikethrough",
      icon: Strikethrough,
      keys: "Ctrl+Shift+S",
      act: () => editor.chain().focus().toggleStrike().run(),
    },
    { label: "Code", icon: Code, keys: "Ctrl+E", act: () => editor.chain().focus().toggleCode().run() },
    { label: "Formula", icon: Sigma, act: () => editor.chain().focus().toggleMark("formula").run() },
    { label: "Footnote …", icon: Asterisk, act: () => ask("footnote") },
    { label: "Value of a workbook …", icon: Sheet, act: () => setChoosing(true) },
    ...(onMakeAllSo ? [undefined, { label: "Make all of this kind so", icon: PaintRoller, act: onMakeAllSo }] : []),
    ...(base
      ? [undefined, { label: "Look of the design", icon: Eraser, act: () => setRunProperties(editor, NO_PROPERTIES) }]
      : []),
  ];
  return (
    <>
      <div role="toolbar" aria-label={`${label}: form of the text`} className="rich-tools flex flex-wrap gap-0.5">
        {base && <LookTools editor={editor} base={base} />}
        {base && <span className="bg-base-300 mx-0.5 h-5 w-px self-center" />}
        <ToolButton
          label="Bold"
          keys="Ctrl+B"
          icon={Bold}
          pressed={state.strong}
          onPress={() => editor.chain().focus().toggleBold().run()}
        />
        <ToolButton
          label="Italic"
          keys="Ctrl+I"
          icon={Italic}
          pressed={state.emphasis}
          onPress={() => editor.chain().focus().toggleItalic().run()}
        />
        <ToolButton
          label="Underline"
          keys="Ctrl+U"
          icon={Underline}
          pressed={state.underline}
          onPress={() => setRunProperties(editor, { underline: state.underline ? null : "single" })}
        />
        <ToolButton label="Points" icon={List} pressed={state.kind === "bullet"} onPress={() => kind("bullet")} />
        <ToolButton
          label="Numbers"
          icon={ListOrdered}
          pressed={state.kind === "number"}
          onPress={() => kind("number")}
        />
        <ToolButton label="Link" icon={Link} pressed={state.link} onPress={() => ask("link")} />
        <MenuButton label="More forms of the text" className="btn btn-ghost btn-xs h-7 px-1" acts={more}>
          <MoreHorizontal size={16} aria-hidden="true" />
        </MenuButton>
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
            <LeadsTo to={editor.getAttributes("link").href as string | undefined} onSet={link} />
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
