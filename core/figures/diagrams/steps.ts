import { mixed } from "@unitext/core/model";
import { type Figure, polygon } from "../figure";
import { below, type Drawer, inset } from "./item";

/** Draws arrow-shaped bands from left to right, with the items below each under its band. */
export const steps: Drawer = (items, frame, { colours, size }) => {
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
        text: below(item),
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
