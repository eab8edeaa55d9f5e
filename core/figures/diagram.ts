import { type DiagramType, type Frame, mixed, type Paragraph, type RichText, must } from "@unitext/core/model";
import { arrow, circle, type Figure, type FigureStyle, polygon, rectangle } from "./figure";

/** An item of the list that a diagram is drawn from, with the items below it. */
interface Item {
  text: RichText;
  below: Item[];
}

const bare = (paragraph: Paragraph): Paragraph => ({ kind: "plain", level: 0, runs: paragraph.runs });

/** Returns the list as a tree: each paragraph belongs to the nearest one above it with a lower level. */
function treeOf(text: RichText): Item[] {
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
function flat(item: Item, level = 0): RichText {
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

type Drawer = (items: readonly Item[], frame: Frame, style: FigureStyle) => Figure;

function inset({ x, y, width, height }: Frame, by: number): Frame {
  return { x: x + by, y: y + by, width: Math.max(1, width - 2 * by), height: Math.max(1, height - 2 * by) };
}

/** Draws arrow-shaped bands from left to right, with the items below each under its band. */
const steps: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const gap = size * 0.35;
  const width = (frame.width - gap * (items.length - 1)) / items.length;
  const deep = items.some(({ below }) => below.length > 0);
  const height = deep ? Math.min(frame.height * 0.36, size * 4) : Math.min(frame.height * 0.6, size * 6);
  const top = deep ? frame.y : frame.y + (frame.height - height) / 2;
  const point = Math.min(width * 0.14, size * 0.9);
  items.forEach((item, at) => {
    const x = frame.x + at * (width + gap);
    const notch = at ? point : 0;
    figure.paths.push({
      d: polygon([
        [x, top],
        [x + width - point, top],
        [x + width, top + height / 2],
        [x + width - point, top + height],
        [x, top + height],
        [x + notch, top + height / 2],
      ]),
      fill: mixed(colours.accent, colours.paper, 0.84),
      stroke: colours.accent,
      width: 1,
    });
    figure.labels.push({
      text: item.text,
      frame: inset({ x: x + notch, y: top, width: width - point - notch, height }, size * 0.25),
      align: "centre",
      anchor: "middle",
      fill: colours.ink,
      size,
    });
    if (item.below.length)
      figure.labels.push({
        text: item.below.flatMap((inner) => flat(inner, 1)),
        frame: {
          x: x + size * 0.2,
          y: top + height + size * 0.6,
          width: width - size * 0.4,
          height: frame.height - height - size * 0.6,
        },
        align: "start",
        anchor: "top",
        fill: colours.ink,
        size: size * 0.82,
      });
  });
  return figure;
};

/** Draws boxes on an ellipse, clockwise from the top, with an arrow from each to the next. */
const cycle: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const count = items.length;
  const width = Math.min(frame.width / 3.1, (frame.width * 1.15) / Math.max(2, Math.ceil(count / 2)));
  const height = Math.min(frame.height / 3.6, size * 3.6);
  const radius = { x: (frame.width - width) / 2, y: (frame.height - height) / 2 };
  const centre = { x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 };
  const boxes = items.map((_, at) => {
    const angle = -Math.PI / 2 + (at * 2 * Math.PI) / count;
    return {
      x: centre.x + radius.x * Math.cos(angle) - width / 2,
      y: centre.y + radius.y * Math.sin(angle) - height / 2,
      width,
      height,
    };
  });
  boxes.forEach((box, at) => {
    const item = must(items[at]);
    const next = must(boxes[(at + 1) % count]);
    if (count > 1) {
      const [a, b] = [edge(box, next, size * 0.3), edge(next, box, size * 0.3)];
      const { line, head } = arrow(a, b, size * 0.55);
      figure.paths.push({ d: line, stroke: colours.muted, width: 1.6 }, { d: head, fill: colours.muted });
    }
    figure.paths.push({
      d: rectangle(box, 4),
      fill: mixed(colours.accent, colours.paper, 0.84),
      stroke: colours.accent,
      width: 1,
    });
    figure.labels.push({
      text: flat(item),
      frame: inset(box, size * 0.3),
      align: "centre",
      anchor: "middle",
      fill: colours.ink,
      size: size * 0.9,
    });
  });
  return figure;
};

/** Returns where the line between the centres of two boxes leaves the first, a little outside it. */
function edge(box: Frame, other: Frame, outside: number): [number, number] {
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const [dx, dy] = [other.x + other.width / 2 - cx, other.y + other.height / 2 - cy];
  const length = Math.hypot(dx, dy) || 1;
  const share = Math.min(box.width / 2 / Math.abs(dx || 1e-9), box.height / 2 / Math.abs(dy || 1e-9));
  return [cx + dx * share + (dx / length) * outside, cy + dy * share + (dy / length) * outside];
}

/** Draws a tree from the top down: each item is centred above those below it. */
const hierarchy: Drawer = (items, frame, { colours, size }) => {
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

/** Draws layers of a triangle from the tip down, with their text beside them. */
const pyramid: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const base = Math.min(frame.width * 0.46, frame.height * 1.2);
  const height = frame.height / items.length;
  const tip = frame.x + base / 2;
  const gap = Math.min(3, height * 0.05);
  items.forEach((item, at) => {
    const [top, bottom] = [frame.y + at * height, frame.y + (at + 1) * height - gap];
    const half = (y: number) => ((y - frame.y) / frame.height) * (base / 2);
    figure.paths.push({
      d: polygon([
        [tip - half(top), top],
        [tip + half(top), top],
        [tip + half(bottom), bottom],
        [tip - half(bottom), bottom],
      ]),
      fill: mixed(colours.accent, colours.paper, (at / Math.max(1, items.length)) * 0.8),
    });
    const y = (top + bottom) / 2;
    const left = frame.x + base + size * 0.8;
    figure.paths.push({
      d: polygon(
        [
          [tip + half(y) + size * 0.2, y],
          [left - size * 0.3, y],
        ],
        false,
      ),
      stroke: colours.muted,
      width: 1,
    });
    figure.labels.push({
      text: flat(item),
      frame: { x: left, y: top, width: frame.x + frame.width - left, height: height - gap },
      align: "start",
      anchor: "middle",
      fill: colours.ink,
      size,
    });
  });
  return figure;
};

/** Draws circles that overlap their neighbours, each with its text. */
const relation: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const share = 0.78;
  const r = Math.min(frame.height / 2, frame.width / (2 + 2 * share * (items.length - 1)));
  const width = 2 * r + 2 * r * share * (items.length - 1);
  const left = frame.x + (frame.width - width) / 2;
  const y = frame.y + frame.height / 2;
  items.forEach((item, at) => {
    const x = left + r + at * 2 * r * share;
    figure.paths.push({ d: circle(x, y, r), stroke: at % 2 ? colours.second : colours.accent, width: 2.5 });
    const inner = r * 1.05;
    figure.labels.push({
      text: flat(item),
      frame: {
        x: x - inner / 2 + (items.length > 1 ? (at === 0 ? -r * 0.12 : at === items.length - 1 ? r * 0.12 : 0) : 0),
        y: y - r * 0.62,
        width: inner,
        height: r * 1.24,
      },
      align: "centre",
      anchor: "middle",
      fill: colours.ink,
      size: size * 0.9,
    });
  });
  return figure;
};

const DRAWERS: Record<DiagramType, Drawer> = { steps, cycle, hierarchy, pyramid, relation };

/** Draws a diagram from its list into a frame in points. An empty list draws nothing. */
export function diagram(type: DiagramType, text: RichText, frame: Frame, style: FigureStyle): Figure {
  const items = treeOf(text);
  return items.length ? DRAWERS[type](items, frame, style) : { paths: [], labels: [] };
}
