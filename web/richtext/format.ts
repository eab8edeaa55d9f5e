import type { Editor } from "@tiptap/core";
import type { ParagraphProperties, RunProperties } from "@unitext/core/model";

/** Run properties to set; null takes one away. */
export type RunPatch = { [name in keyof RunProperties]?: RunProperties[name] | null };

function patched<T extends object>(old: T, patch: { [name in keyof T]?: T[name] | null }): T {
  const entries = Object.entries({ ...old, ...patch }).filter(([, value]) => value !== null && value !== undefined);
  return Object.fromEntries(entries) as T;
}

/**
 * Sets properties of the selected words; where none are selected, of all words of the paragraph. Words keep their other
 * properties.
 */
export function setRunProperties(editor: Editor, patch: RunPatch): void {
  const { state } = editor;
  const { $from, $to, empty } = state.selection;
  const mark = state.schema.marks.properties;
  if (!mark) return;
  const [from, to] = empty ? [$from.start(), $from.end()] : [$from.pos, $to.pos];
  const { tr } = state;
  state.doc.nodesBetween(from, to, (node, at) => {
    if (!node.isText) return;
    const old = (node.marks.find(({ type }) => type === mark)?.attrs.properties ?? {}) as RunProperties;
    const next = patched<RunProperties>(old, patch);
    const [first, last] = [Math.max(from, at), Math.min(to, at + node.nodeSize)];
    tr.removeMark(first, last, mark);
    if (Object.keys(next).length) tr.addMark(first, last, mark.create({ properties: next }));
  });
  // What is typed next looks the same.
  if (from === to) {
    const next = patched<RunProperties>(runPropertiesAt(editor), patch);
    tr.setStoredMarks(Object.keys(next).length ? [mark.create({ properties: next })] : []);
  }
  editor.view.dispatch(tr);
  editor.view.focus();
}

/** Returns the properties of the words at the cursor, or of the first selected ones. */
export function runPropertiesAt({ state }: Editor): RunProperties {
  const { $from, from, to, empty } = state.selection;
  const mark = state.schema.marks.properties;
  let found = (empty ? (state.storedMarks ?? $from.marks()) : []).find(({ type }) => type === mark);
  if (!empty)
    state.doc.nodesBetween(from, to, (node) => {
      found ??= node.isText ? node.marks.find(({ type }) => type === mark) : undefined;
    });
  return (found?.attrs.properties ?? {}) as RunProperties;
}

/** Sets attributes of the selected paragraphs: kind, level, alignment. */
export function setParagraphs(editor: Editor, attributes: Record<string, unknown>): void {
  editor.chain().focus().updateAttributes("paragraph", attributes).run();
}

/** Sets properties of the selected paragraphs, such as spacing and bullet; null takes one away. */
export function setParagraphProperties(
  editor: Editor,
  patch: { [name in keyof ParagraphProperties]?: ParagraphProperties[name] | null },
): void {
  const { state } = editor;
  const { tr } = state;
  state.doc.nodesBetween(state.selection.from, state.selection.to, (node, at) => {
    if (node.type.name !== "paragraph") return true;
    const next = patched<ParagraphProperties>((node.attrs.properties ?? {}) as ParagraphProperties, patch);
    tr.setNodeAttribute(at, "properties", Object.keys(next).length ? next : null);
    return false;
  });
  editor.view.dispatch(tr);
  editor.view.focus();
}

/** Changes the level of the selected paragraphs; the first level is 0, the deepest `most`. */
export function shiftLevel(editor: Editor, by: 1 | -1, most: number): void {
  const { level } = editor.getAttributes("paragraph");
  setParagraphs(editor, { level: Math.min(most, Math.max(0, ((level as number) ?? 0) + by)) });
}
