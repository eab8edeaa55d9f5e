import { EditorContent } from "@tiptap/react";
import type { CSSProperties } from "react";
import type { BaseLook } from "./LookTools";
import { RichTextTools } from "./RichTextTools";
import { type RichTextProps, useRichTextEditor } from "./useRichTextEditor";

export interface EditorProps extends RichTextProps {
  className?: string;
  style?: CSSProperties;
  /** The look of the text on its slide, which can then be changed word by word. */
  base?: BaseLook;
  onMakeAllSo?: () => void;
}

/** Edits a rich text in place. Typed text is passed on after a short pause and when the editor loses focus. */
export default function LoadedEditor({ className = "", style, base, onMakeAllSo, ...props }: EditorProps) {
  const { editor, give } = useRichTextEditor(props);
  const { label } = props;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: listens for the focus leaving the editor and its tools.
    <div
      className={`rich-text ${className}`}
      style={style}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) give();
      }}
    >
      <RichTextTools editor={editor} label={label} base={base} onMakeAllSo={onMakeAllSo} />
      <EditorContent editor={editor} />
    </div>
  );
}
