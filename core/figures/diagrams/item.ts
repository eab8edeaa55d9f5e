import type { Frame, Paragraph, RichText } from "@unitext/core/model";
import type { Figure, FigureStyle } from "../figure";

/** An item of the list that a diagram is drawn from, with the items below it. */
export interface Item {
  text: RichText;
  below: Item[];
}

const bare = (paragraph: Paragraph): Paragraph => ({ kind: "plain", level: 0, runs: paragraph.runs });

/** Returns the list as a tree: each paragraph belongs to the nearest one above it with a lower level. */
export function treeOf(text: RichText): Item[] {
  const roots: Item[] = [];
  const open: { level: number; item: Item }[] = [];
  for (const paragraph of text) {
    const item: Item = { text: [bare(paragraph)], below: [] };
    while (open.length && (open.at(-1)?.level ?? 0) >= paragraph.level) open.pop();
    (open.at(-1)?.item.below ?? roots).push(item);
    open.push({ level: paragraph.level, item });
  }
  return roots;
}

/** Returns an item and everything below it as one text. */
export function flat(item: Item, level = 0): RichText {
  return [
    ...item.text.map(
      (paragraph): Paragraph =>
        level
          ? { ...paragraph, kind: "bullet", level: level - 1 }
          : {
              ...paragraph,
              runs: item.below.length
                ? paragraph.runs.map((run) => ({ ...run, marks: ["strong" as const] }))
                : paragraph.runs,
            },
    ),
    ...item.below.flatMap((inner) => flat(inner, level + 1)),
  ];
}

/** Returns only what is below an item, as a list. */
export const below = (item: Item): RichText => item.below.flatMap((inner) => flat(inner, 1));

/** Draws a list as a diagram of one kind, into a frame in points. */
export type Drawer = (items: readonly Item[], frame: Frame, style: FigureStyle) => Figure;

/** Returns a frame that is smaller by some points on all sides. */
export function inset({ x, y, width, height }: Frame, by: number): Frame {
  return { x: x + by, y: y + by, width: Math.max(1, width - 2 * by), height: Math.max(1, height - 2 * by) };
}
