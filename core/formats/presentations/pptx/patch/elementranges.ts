import { scanXml } from "../../../shared/xml";
import { SHAPE_NAMES } from "../read/inherit";

/** A shape of a slide part as a range of its text; `inner` are the shapes of a group, numbered as they are read. */
export interface ElementRange {
  from: number;
  to: number;
  name: string;
  /** The first non-visual id in it. */
  id: string | undefined;
  inner: ElementRange[];
}

/** A slide part as text, with the ranges of its pieces. */
export interface SlideRanges {
  text: string;
  /** The range of the slide's opening tag. */
  root: [number, number];
  background: [number, number] | undefined;
  /** Where the content of `p:cSld` starts. */
  data: number;
  shapes: ElementRange[];
  /** Where the shape tree ends. */
  treeEnd: number;
  transition: [number, number][];
  timing: [number, number] | undefined;
  /** After the colour map override: where a transition goes. */
  afterMap: number;
  ids: Set<string>;
}

const local = (name: string) => name.slice(name.indexOf(":") + 1);

/** Finds the pieces of a slide part in its text. Throws a Failure when it is not well-formed. */
export function elementRanges(text: string, where: string): SlideRanges {
  const found: SlideRanges = {
    text,
    root: [0, 0],
    background: undefined,
    data: 0,
    shapes: [],
    treeEnd: 0,
    transition: [],
    timing: undefined,
    afterMap: 0,
    ids: new Set(),
  };
  const stack: { name: string; from: number; slice?: ElementRange; timed?: boolean }[] = [];
  const open = (tag: string, attributes: Record<string, string>, from: number, to: number) => {
    const name = local(tag);
    const parent = stack.at(-1);
    const entry: (typeof stack)[number] = { name, from };
    if (stack.length === 0) found.root = [from, to];
    if (stack.length === 1 && name === "cSld") found.data = to;
    if (name === "cNvPr") {
      const { id } = attributes;
      if (id !== undefined) found.ids.add(id);
      for (const { slice } of stack) if (slice && slice.id === undefined) slice.id = id;
    }
    if (SHAPE_NAMES.has(name) && parent) {
      const slice: ElementRange = { from, to, name, id: undefined, inner: [] };
      const holder =
        parent.name === "spTree" && stack.length === 3
          ? found.shapes
          : parent.slice && parent.name === "grpSp"
            ? parent.slice.inner
            : undefined;
      if (holder) {
        holder.push(slice);
        entry.slice = slice;
      }
    }
    if (name === "transition") for (const above of stack) above.timed = true;
    stack.push(entry);
  };
  const close = (closing: number, to: number) => {
    const entry = stack.pop();
    if (!entry) return;
    if (entry.slice) entry.slice.to = to;
    const depth = stack.length;
    if (depth === 2 && entry.name === "spTree") found.treeEnd = closing;
    if (depth === 2 && entry.name === "bg") found.background = [entry.from, to];
    if (depth === 1 && entry.name === "clrMapOvr") found.afterMap = to;
    if (depth === 1 && entry.name === "cSld" && !found.afterMap) found.afterMap = to;
    if (depth === 1 && (entry.name === "transition" || (entry.name === "AlternateContent" && entry.timed)))
      found.transition.push([entry.from, to]);
    if (depth === 1 && entry.name === "timing") found.timing = [entry.from, to];
  };
  scanXml(text, where, { open, close });
  return found;
}

/**
 * Returns the range of a shape by its path, such as `3` or `3.1`; undefined inside alternate content, which is one
 * piece.
 */
export function rangeAt(slices: SlideRanges, path: string): { top: ElementRange; slice: ElementRange } | undefined {
  const [first = "", ...rest] = path.split(".");
  const top = slices.shapes[Number(first)];
  if (!top) return undefined;
  let slice = top;
  for (const step of rest) {
    if (slice.name === "AlternateContent") return { top, slice };
    const next = slice.inner[Number(step)];
    if (!next) return undefined;
    slice = next;
  }
  return { top, slice };
}
