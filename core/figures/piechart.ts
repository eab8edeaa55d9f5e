import { must } from "@unitext/core/model";
import { pie, arc } from "d3-shape";
import { type Drawer, withTitle, formatted, plain } from "./chartframe";
import { type Figure, palette, rectangle, type FigureLabel } from "./figure";

/** Draws shares of a whole, with or without a hole in the middle. Only the first series is drawn. */
export function round(hole: number): Drawer {
  return (data, frame, style) => {
    const { colours, size } = style;
    const { categories, series, title } = data;
    const figure: Figure = { paths: [], labels: [] };
    const room = withTitle(figure, title, frame, style);
    const shades = palette(colours);
    const values = categories.map((_, at) => Math.max(0, series[0]?.values[at] ?? 0));
    const total = values.reduce((sum, value) => sum + value, 0) || 1;
    const r = Math.min(room.height / 2, room.width * 0.24);
    const centre = { x: room.x + r, y: room.y + room.height / 2 };
    const slices = pie<number>()
      .sort(null)
      .value((value) => value)(values);
    const draw = arc<(typeof slices)[number]>()
      .innerRadius(r * hole)
      .outerRadius(r);
    const row = Math.min(size * 1.9, room.height / Math.max(1, categories.length));
    const top = centre.y - (row * categories.length) / 2;
    slices.forEach((slice, at) => {
      const fill = series[0]?.points?.[at] ?? must(shades[at % shades.length]);
      figure.paths.push({
        d: draw(slice) ?? "",
        fill,
        stroke: colours.paper,
        width: 1.5,
        matrix: [1, 0, 0, 1, centre.x, centre.y],
      });
      const left = centre.x + r + size * 2;
      const said =
        data.labels === "value"
          ? formatted(must(values[at]), data.format)
          : `${Math.round((must(values[at]) / total) * 100)} %`;
      figure.paths.push({
        d: rectangle({ x: left, y: top + at * row + (row - size * 0.8) / 2, width: size * 0.8, height: size * 0.8 }),
        fill,
      });
      const label: FigureLabel = {
        text: plain(`${categories[at]} · ${said}`),
        frame: {
          x: left + size * 1.3,
          y: top + at * row,
          width: Math.max(1, room.x + room.width - left - size * 1.3),
          height: row,
        },
        align: "start",
        anchor: "middle",
        fill: colours.ink,
        size,
      };
      figure.labels.push(label);
    });
    return figure;
  };
}
