import { type Frame, mixed } from "@unitext/core/model";
import { type Figure, polygon, rectangle } from "../figure";
import { type Drawer, inset, type Item } from "./item";

/** Draws a tree from the top down: each item is centred above those below it. */
export const hierarchy: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const leaves = (item: Item): number =>
    item.below.length ? item.below.reduce((sum, inner) => sum + leaves(inner), 0) : 1;
  const depth = (item: Item): number => 1 + Math.max(0, ...item.below.map(depth));
  const total = items.reduce((sum, item) => sum + leaves(item), 0);
  const rows = Math.max(...items.map(depth));
  const column = frame.width / total;
  const rise = Math.min(size * 1.4, (frame.height / rows) * 0.3);
  const height = Math.min((frame.height - rise * (rows - 1)) / rows, size * 4);
  const width = column * 0.9;
  let leaf = 0;
  const place = (item: Item, row: number): Frame => {
    const first = leaf;
    const below = item.below.map((inner) => place(inner, row + 1));
    if (!below.length) leaf += 1;
    const span = Math.max(1, leaf - first);
    const own = Math.min(width * Math.min(span, 2), span * column * 0.95);
    const box = {
      x: frame.x + (first + span / 2) * column - own / 2,
      y: frame.y + row * (height + rise),
      width: own,
      height,
    };
    for (const inner of below) {
      const middle = box.y + height + rise / 2;
      figure.paths.push({
        d: polygon(
          [
            [box.x + own / 2, box.y + height],
            [box.x + own / 2, middle],
            [inner.x + inner.width / 2, middle],
            [inner.x + inner.width / 2, inner.y],
          ],
          false,
        ),
        stroke: colours.muted,
        width: 1.2,
      });
    }
    figure.paths.push({
      d: rectangle(box, 4),
      fill: row ? mixed(colours.accent, colours.paper, 0.88) : mixed(colours.accent, colours.paper, 0.7),
      stroke: colours.accent,
      width: 1,
    });
    figure.labels.push({
      text: item.text,
      frame: inset(box, size * 0.2),
      align: "centre",
      anchor: "middle",
      fill: colours.ink,
      size: size * 0.9,
    });
    return box;
  };
  for (const item of items) place(item, 0);
  return figure;
};
