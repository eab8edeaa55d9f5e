import { mixed } from "@unitext/core/model";
import { type Figure, polygon } from "../figure";
import { type Drawer, flat } from "./item";

/** Draws layers of a triangle from the tip down, with their text beside them. */
export const pyramid: Drawer = (items, frame, { colours, size }) => {
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
