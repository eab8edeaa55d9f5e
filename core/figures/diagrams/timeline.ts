import { mixed, must, type RichText } from "@unitext/core/model";
import { circle, type Figure, polygon } from "../figure";
import { below, type Drawer, type Item } from "./item";

/** Returns the moment of an item, and what happened then: the words before and after its colon, or item and list below. */
function halves(item: Item): { moment: RichText; event: RichText } {
  const [paragraph] = item.text;
  const [first, ...rest] = paragraph?.runs ?? [];
  const at = first ? first.text.indexOf(":") : -1;
  if (!paragraph || !first || at < 1 || at > 24) return { moment: item.text, event: below(item) };
  const event = [{ ...first, text: first.text.slice(at + 1).trimStart() }, ...rest].filter(({ text }) => text !== "");
  return {
    moment: [{ ...paragraph, runs: [{ ...first, text: first.text.slice(0, at), marks: ["strong"] }] }],
    event: [...(event.length ? [{ ...paragraph, runs: event }] : []), ...below(item)],
  };
}

/** Draws moments on a line, from left to right, with what happened below each. */
export const timeline: Drawer = (items, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const width = frame.width / items.length;
  const parts = items.map(halves);
  const deep = parts.some(({ event }) => event.length > 0);
  const y = frame.y + frame.height * (deep ? 0.36 : 0.6);
  const dot = size * 0.36;
  figure.paths.push({
    d: polygon(
      [
        [frame.x, y],
        [frame.x + frame.width, y],
      ],
      false,
    ),
    stroke: mixed(colours.accent, colours.paper, 0.3),
    width: 3,
  });
  parts.forEach(({ moment, event }, at) => {
    const left = frame.x + at * width;
    figure.paths.push({
      d: circle(left + dot, y, dot),
      fill: must([colours.accent, colours.second][at % 2]),
      stroke: colours.paper,
      width: 2,
    });
    const place = { x: left, width: width - size * 0.6 };
    const top = y - dot - size * 0.4;
    figure.labels.push({
      text: moment,
      frame: { ...place, y: frame.y, height: Math.max(1, top - frame.y) },
      align: "start",
      anchor: "bottom",
      fill: colours.ink,
      size,
    });
    if (event.length)
      figure.labels.push({
        text: event,
        frame: {
          ...place,
          y: y + dot + size * 0.4,
          height: Math.max(1, frame.y + frame.height - y - dot - size * 0.4),
        },
        align: "start",
        anchor: "top",
        fill: colours.ink,
        size: size * 0.85,
      });
  });
  return figure;
};
