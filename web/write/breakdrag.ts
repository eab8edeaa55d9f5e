import type { EditorView } from "@codemirror/view";
import { setLanding } from "./decorations";

/**
 * Follows the pointer from a mark in the margin to the line where the slide should start. `onLanding` gets the line
 * under the pointer, and undefined at the end; `onMove` gets the line where the mark was let go. Escape cancels.
 */
export function dragBreak(
  editor: EditorView,
  from: number,
  { onLanding, onMove }: { onLanding: (line: number | undefined) => void; onMove: (from: number, to: number) => void },
): void {
  let to = from;
  const onPointerMove = ({ clientY }: PointerEvent) => {
    const next = lineAt(editor, clientY);
    if (next === to) return;
    to = next;
    editor.dispatch({ effects: setLanding.of(to) });
    onLanding(to);
  };
  const end = (take: boolean) => {
    window.removeEventListener("pointermove", onPointerMove);
    window.removeEventListener("pointerup", onPointerUp);
    window.removeEventListener("keydown", onKeyDown);
    editor.dispatch({ effects: setLanding.of(undefined) });
    onLanding(undefined);
    if (take && to !== from) onMove(from, to);
  };
  const onPointerUp = () => end(true);
  const onKeyDown = ({ key }: KeyboardEvent) => key === "Escape" && end(false);
  window.addEventListener("pointermove", onPointerMove);
  window.addEventListener("pointerup", onPointerUp);
  window.addEventListener("keydown", onKeyDown);
}

/** Returns the line at a height in the window; an empty line stands for the next line with text. */
function lineAt(editor: EditorView, y: number): number {
  const { doc } = editor.state;
  let { number } = doc.lineAt(editor.lineBlockAtHeight(y - editor.documentTop).from);
  while (number < doc.lines && doc.line(number).text.trim() === "") number += 1;
  return number;
}
