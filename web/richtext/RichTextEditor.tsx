import { paragraphText } from "@unitext/core/model";
import { lazy, Suspense } from "react";
import type { EditorProps } from "./LoadedEditor";

/** Loads the script of the editor before it is needed. */
export const loadEditor = () => import("./LoadedEditor");
const LoadedEditor = lazy(loadEditor);

/**
 * Edits a rich text in place. Typed text is passed on after a short pause and when the editor loses focus. The editor's
 * script is loaded with the first one; until then the words are shown.
 */
export function RichTextEditor(props: EditorProps) {
  const { text, className = "", style } = props;
  return (
    <Suspense
      fallback={
        <div className={`rich-text ${className}`} style={style} aria-busy="true">
          {text.map((paragraph, nth) => (
            <p key={nth} className="whitespace-pre-wrap">
              {paragraphText(paragraph)}
            </p>
          ))}
        </div>
      }
    >
      <LoadedEditor {...props} />
    </Suspense>
  );
}
