import { isJoined, must } from "@unitext/core/model";
import { scaleLinear } from "d3-scale";
import { line, curveCatmullRom, curveLinear } from "d3-shape";
import { type Drawer, around, shadesOf, domain, ticksOf, plain } from "./chartframe";
import { polygon, mixed, circle } from "./figure";

/** Draws points by two values. */
export const scatter: Drawer = (data, frame, style) => {
  const { colours, size, measure } = style;
  const { figure, room } = around(data, frame, style);
  const shades = shadesOf(data, style);
  const across = data.series.flatMap(({ values, x }) => values.map((_, at) => x?.[at] ?? at + 1));
  const horizontal = domain(
    { categories: [], series: [{ name: "", values: across }], ...(data.xAxis ? { yAxis: data.xAxis } : {}) },
    false,
  );
  const y = scaleLinear().domain(domain(data, false)).nice(6);
  const ticks = ticksOf(y, room.height, size * 2.4, data.format);
  const left = room.x + Math.max(...ticks.map(({ text }) => measure(text, size))) + size * 0.6;
  const area = {
    x: left,
    y: room.y,
    width: Math.max(1, room.x + room.width - left - size),
    height: Math.max(1, room.height - size * 1.8 - (data.xAxis?.title ? size * 1.6 : 0)),
  };
  const x = scaleLinear()
    .domain(horizontal)
    .nice(6)
    .range([area.x, area.x + area.width]);
  y.range([area.y + area.height, area.y + size * 0.4]);
  for (const { value, text } of ticks) {
    figure.paths.push({
      d: polygon(
        [
          [area.x, y(value)],
          [area.x + area.width, y(value)],
        ],
        false,
      ),
      stroke: mixed(colours.muted, colours.paper, 0.65),
      width: 0.6,
    });
    figure.labels.push({
      text: plain(text),
      frame: { x: room.x, y: y(value) - size * 0.7, width: left - room.x - size * 0.4, height: size * 1.4 },
      align: "end",
      anchor: "middle",
      fill: colours.muted,
      size,
    });
  }
  for (const { value, text } of ticksOf(x, area.width, size * 5)) {
    figure.paths.push({
      d: polygon(
        [
          [x(value), area.y],
          [x(value), area.y + area.height],
        ],
        false,
      ),
      stroke: mixed(colours.muted, colours.paper, 0.65),
      width: 0.6,
    });
    figure.labels.push({
      text: plain(text),
      frame: { x: x(value) - size * 3, y: area.y + area.height + size * 0.3, width: size * 6, height: size * 1.4 },
      align: "centre",
      anchor: "top",
      fill: colours.muted,
      size,
    });
  }
  if (data.xAxis?.title)
    figure.labels.push({
      text: plain(data.xAxis.title),
      frame: { x: area.x, y: area.y + area.height + size * 1.8, width: area.width, height: size * 1.5 },
      align: "centre",
      anchor: "top",
      fill: colours.muted,
      size,
    });
  data.series.forEach((series, nth) => {
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
    if (path) figure.paths.push({ d: path, stroke: must(shades[nth]), width: 1.8 });
    series.values.forEach((value, at) => {
      if (value !== null)
        figure.paths.push({ d: circle(x(series.x?.[at] ?? at + 1), y(value), 3.6), fill: must(shades[nth]) });
    });
  });
  return figure;
};
