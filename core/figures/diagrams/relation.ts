import type { Frame } from "@unitext/core/model";
import { circle, type Figure, palette } from "../figure";
import { type Drawer, flat } from "./item";

/** The distance of the centres of two neighbours, in radii: of two or three circles, and of more in a row. */
const APART = 1.3;
const APART_IN_ROW = 1.6;

interface Circle {
  x: number;
  y: number;
  r: number;
}

/** Three circles that all overlap: one above, two below. */
function triad({ x, y, width, height }: Frame): Circle[] {
  const rise = APART * Math.sin(Math.PI / 3);
  const r = Math.min(height / (2 + rise), width / (2 + APART));
  const middle = x + width / 2;
  const top = y + (height - r * (2 + rise)) / 2 + r;
  return [
    { x: middle, y: top, r },
    { x: middle - (APART * r) / 2, y: top + rise * r, r },
    { x: middle + (APART * r) / 2, y: top + rise * r, r },
  ];
}

function row({ x, y, width, height }: Frame, count: number): Circle[] {
  const apart = count > 2 ? APART_IN_ROW : APART;
  const r = Math.min(height / 2, width / (2 + apart * (count - 1)));
  const left = x + (width - r * (2 + apart * (count - 1))) / 2 + r;
  return Array.from({ length: count }, (_, at) => ({ x: left + at * apart * r, y: y + height / 2, r }));
}

/** Draws overlapping sets: translucent circles, with their words where they do not overlap. */
export const relation: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const circles = items.length === 3 ? triad(frame) : row(frame, items.length);
  const middle = {
    x: circles.reduce((sum, one) => sum + one.x, 0) / circles.length,
    y: circles.reduce((sum, one) => sum + one.y, 0) / circles.length,
  };
  const fills = palette(colours);
  circles.forEach(({ x, y, r }, at) => {
    const fill = fills[at % fills.length] ?? colours.accent;
    figure.paths.push({ d: circle(x, y, r), fill, fillOpacity: 0.16, stroke: fill, width: 2 });
    const away = Math.hypot(x - middle.x, y - middle.y) || 1;
    const shift = away > 1 ? r * (items.length === 3 ? 0.3 : 0.22) : 0;
    const [cx, cy] = [x + ((x - middle.x) / away) * shift, y + ((y - middle.y) / away) * shift];
    const [wide, high] = [r * (items.length > 3 && at > 0 && at < items.length - 1 ? 1.1 : 1.3), r * 0.95];
    const item = items[at];
    if (!item) return;
    figure.labels.push({
      text: flat(item),
      frame: { x: cx - wide / 2, y: cy - high / 2, width: wide, height: high },
      align: "centre",
      anchor: "middle",
      fill: colours.ink,
      size: size * 0.95,
    });
  });
  return figure;
};
