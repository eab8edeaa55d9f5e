import { type ScaleLinear, scaleLinear } from "d3-scale";
import { type Series, isJoined, must } from "@unitext/core/model";
import { addGridline, addLabel } from "./chartlabels";
import { type Figure, circle } from "./figure";
import { line, curveCatmullRom, curveLinear } from "d3-shape";
import { type Drawer, around, shadesOf, domain, ticksOf } from "./chartframe";

/** Draws points by two values. */
export const scatter: Drawer = (data, frame, style) => {
  const { size, measure } = style;
  const { figure, room } = around(data, frame, style);
  const shades = shadesOf(data, style);
  const across = data.series.flatMap(({ values, x }) => values.map((_, at) => x?.[at] ?? at + 1));
  const xAxis = data.xAxis ? { yAxis: data.xAxis } : {};
  const horizontal = domain({ categories: [], series: [{ name: "", values: across }], ...xAxis }, false);
  const y = scaleLinear().domain(domain(data, false)).nice(6);
  const ticks = ticksOf(y, room.height, size * 2.4, data.format);
  const left = room.x + Math.max(...ticks.map(({ text }) => measure(text, size))) + size * 0.6;
  const area = {
    x: left,
    y: room.y,
    width: Math.max(1, room.x + room.width - left - size),
    height: Math.max(1, room.height - size * 1.8 - (data.xAxis?.title ? size * 1.6 : 0)),
  };
  const bottom = area.y + area.height;
  const x = scaleLinear()
    .domain(horizontal)
    .nice(6)
    .range([area.x, area.x + area.width]);
  y.range([bottom, area.y + size * 0.4]);
  for (const { value, text } of ticks) {
    addGridline(figure, style, [area.x, y(value)], [area.x + area.width, y(value)]);
    addLabel(figure, style, text, {
      frame: { x: room.x, y: y(value) - size * 0.7, width: left - room.x - size * 0.4, height: size * 1.4 },
      align: "end",
      anchor: "middle",
    });
  }
  for (const { value, text } of ticksOf(x, area.width, size * 5)) {
    addGridline(figure, style, [x(value), area.y], [x(value), bottom]);
    addLabel(figure, style, text, {
      frame: { x: x(value) - size * 3, y: bottom + size * 0.3, width: size * 6, height: size * 1.4 },
      align: "centre",
      anchor: "top",
    });
  }
  if (data.xAxis?.title)
    addLabel(figure, style, data.xAxis.title, {
      frame: { x: area.x, y: bottom + size * 1.8, width: area.width, height: size * 1.5 },
      align: "centre",
      anchor: "top",
    });
  data.series.forEach((series, nth) => {
    drawPoints(figure, series, must(shades[nth]), x, y);
  });
  return figure;
};

/** Draws the points of a series, joined by a line where the series says so. */
function drawPoints(
  figure: Figure,
  series: Series,
  colour: string,
  x: ScaleLinear<number, number>,
  y: ScaleLinear<number, number>,
): void {
  const places = series.values.map((value, at): [number, number] | null =>
    value === null ? null : [x(series.x?.[at] ?? at + 1), y(value)],
  );
  const path = isJoined(series, "scatter")
    ? line<[number, number] | null>()
        .curve(series.smooth ? curveCatmullRom : curveLinear)
        .defined((place) => place !== null)
        .x((place) => place?.[0] ?? 0)
        .y((place) => place?.[1] ?? 0)(places)
    : undefined;
  if (path) figure.paths.push({ d: path, stroke: colour, width: 1.8 });
  for (const place of places) if (place) figure.paths.push({ d: circle(place[0], place[1], 3.6), fill: colour });
}
