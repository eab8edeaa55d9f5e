import { mixed, must, plainText } from "@unitext/core/model";
import { circle, type Figure, polygon } from "../figure";
import { type Drawer, flat } from "./item";

/** How many turns of the ring are tried, to find one that leaves every item room at its side. */
const TURNS = 24;

/** Returns the angles of items on a ring, clockwise, so turned that none is near the top or the bottom. */
function anglesOf(count: number): number[] {
  const turned = Array.from({ length: TURNS }, (_, nth) => {
    const from = -Math.PI / 2 + (nth / TURNS) * ((2 * Math.PI) / count);
    return Array.from({ length: count }, (__, at) => from + (at * 2 * Math.PI) / count);
  });
  const room = (angles: readonly number[]) => Math.min(...angles.map((angle) => Math.abs(Math.cos(angle))));
  return turned.reduce((best, next) => (room(next) > room(best) + 1e-6 ? next : best));
}

/** Draws numbered circles on a round ring with arrows from each to the next, clockwise, and the words beside them. */
export const cycle: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const count = items.length;
  const angles = anglesOf(count);
  const most = Math.min(frame.height / 2, frame.width * 0.22);
  const node = Math.min(size * 1.05, most * 0.34, count > 1 ? most * Math.sin(Math.PI / count) * 0.6 : most);
  const radius = most - node;
  const [cx, cy] = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  const centres = angles.map((angle) => ({ x: cx + radius * Math.cos(angle), y: cy + radius * Math.sin(angle) }));

  // Arcs between the circles, each with the head of an arrow where it ends.
  const gap = (node + size * 0.28) / radius;
  if (count > 1)
    for (const [at, angle] of angles.entries()) {
      const [from, to] = [angle + gap, angle + (2 * Math.PI) / count - gap];
      const on = (turn: number, r = radius) => [cx + r * Math.cos(turn), cy + r * Math.sin(turn)] as const;
      const head = (size * 0.5) / radius;
      const [a, b] = [on(from), on(to - head)];
      const large = to - from > Math.PI ? 1 : 0;
      const f = (value: number) => value.toFixed(2);
      figure.paths.push(
        {
          d: `M${f(a[0])} ${f(a[1])}A${f(radius)} ${f(radius)} 0 ${large} 1 ${f(b[0])} ${f(b[1])}`,
          stroke: colours.muted,
          width: 2,
        },
        {
          d: polygon([on(to), on(to - head, radius + size * 0.26), on(to - head, radius - size * 0.26)]),
          fill: colours.muted,
        },
      );
      figure.labels.push({
        text: plainText(String(at + 1)),
        frame: {
          x: must(centres[at]).x - node,
          y: must(centres[at]).y - node,
          width: 2 * node,
          height: 2 * node,
        },
        align: "centre",
        anchor: "middle",
        fill: colours.ink,
        size: Math.min(size * 0.9, node * 1.2),
      });
    }
  for (const { x, y } of centres)
    figure.paths.push({
      d: circle(x, y, node),
      fill: mixed(colours.accent, colours.paper, 0.78),
      stroke: colours.accent,
      width: 1.5,
    });

  // The words of each item are at its side of the ring, as high as its neighbours there leave room.
  items.forEach((item, at) => {
    const { x, y } = must(centres[at]);
    const right = x >= cx;
    const side = centres.filter((other) => other.x >= cx === right).map((other) => other.y);
    const apart = Math.min(...side.filter((other) => Math.abs(other - y) > 1).map((other) => Math.abs(other - y)));
    const height = Math.min(apart, 2 * Math.min(y - frame.y, frame.y + frame.height - y));
    const nearest = Math.max(0, Math.abs(y - cy) - height / 2);
    const reach = Math.max(Math.abs(x - cx) + node, Math.sqrt(Math.max(0, radius ** 2 - nearest ** 2))) + size * 0.5;
    const width = Math.max(1, frame.width / 2 - reach);
    if (reach - Math.abs(x - cx) - node > size)
      figure.paths.push({
        d: polygon(
          [
            [x + (right ? node : -node), y],
            [cx + (right ? reach : -reach) - (right ? 1 : -1) * size * 0.25, y],
          ],
          false,
        ),
        stroke: colours.muted,
        width: 1,
      });
    figure.labels.push({
      text: flat(item),
      frame: { x: right ? cx + reach : cx - reach - width, y: y - height / 2, width, height },
      align: right ? "start" : "end",
      anchor: "middle",
      fill: colours.ink,
      size,
    });
  });
  return figure;
};
