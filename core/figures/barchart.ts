import { type Frame, must } from "@unitext/core/model";
import { type ScaleBand, type ScaleLinear, scaleLinear, scaleBand } from "d3-scale";
import { addGridline, addLabel } from "./chartlabels";
import {
  type Data,
  type Drawer,
  around,
  shadesOf,
  domain,
  stacked,
  ticksOf,
  axisFormat,
  plain,
  formatted,
} from "./chartframe";
import { type Figure, type FigureStyle, rectangle, legible } from "./figure";

/** The scales of a bar chart: rows of categories, bars inside a row, values. */
interface BarScales {
  band: ScaleBand<number>;
  inner: ScaleBand<number>;
  x: ScaleLinear<number, number>;
}

/** Draws horizontal bars, a row for each category. */
export const bar: Drawer = (data, frame, style) => {
  const { colours, size, measure } = style;
  const { figure, room } = around(data, frame, style);
  const widest = Math.max(0, ...data.categories.map((name) => measure(name, size)));
  const left = room.x + Math.min(room.width * 0.36, widest + size * 0.8);
  const area = {
    x: left,
    y: room.y,
    width: Math.max(1, room.x + room.width - left - size),
    height: Math.max(1, room.height - size * 1.8),
  };
  const scales = barScales(data, area);
  for (const { value, text } of ticksOf(scales.x, area.width, size * 5, axisFormat(data))) {
    const x = scales.x(value);
    addGridline(figure, style, [x, area.y], [x, area.y + area.height], { width: value === 0 ? 1.2 : 0.6 });
    addLabel(figure, style, text, {
      frame: { x: x - size * 3, y: area.y + area.height + size * 0.3, width: size * 6, height: size * 1.4 },
      align: "centre",
      anchor: "top",
    });
  }
  data.categories.forEach((name, at) => {
    const y = must(scales.band(at));
    figure.labels.push({
      text: plain(name),
      frame: { x: room.x, y, width: left - room.x - size * 0.5, height: scales.band.bandwidth() },
      align: "end",
      anchor: "middle",
      fill: colours.ink,
      size,
    });
  });
  drawBars(figure, data, scales, style);
  return figure;
};

function barScales(data: Data, area: Frame): BarScales {
  const x = scaleLinear()
    .domain(domain(data, true))
    .range([area.x, area.x + area.width]);
  if (data.yAxis?.max === undefined) x.nice(6);
  const band = scaleBand<number>()
    .domain(data.categories.map((_, at) => at))
    .range(data.xAxis?.reversed ? [area.y + area.height, area.y] : [area.y, area.y + area.height])
    .paddingInner(0.3)
    .paddingOuter(0.15);
  const inner = scaleBand<number>()
    .domain(data.stack ? [0] : data.series.map((_, at) => at))
    .range([0, band.bandwidth()]);
  return { band, inner, x };
}

function drawBars(figure: Figure, data: Data, { band, inner, x }: BarScales, style: FigureStyle): void {
  const { colours, size } = style;
  const shades = shadesOf(data, style);
  const spans = data.stack ? stacked(data) : undefined;
  const height = inner.bandwidth();
  data.categories.forEach((_, at) => {
    data.series.forEach(({ values, points }, nth) => {
      const value = values[at] ?? null;
      const span = spans ? spans[nth]?.[at] : value === null ? null : ([0, value] as const);
      if (!span || value === null) return;
      const [from, to] = [x(span[0]), x(span[1])];
      const y = must(band(at)) + must(inner(data.stack ? 0 : nth));
      const fill = points?.[at] ?? must(shades[nth]);
      figure.paths.push({ d: rectangle({ x: Math.min(from, to), y, width: Math.abs(from - to), height }), fill });
      if (data.labels !== "value") return;
      const label = data.stack
        ? { left: (from + to) / 2 - size * 3, align: "centre" as const, fill: legible(fill, colours) }
        : { left: Math.max(from, to) + size * 0.3, align: "start" as const, fill: colours.ink };
      figure.labels.push({
        align: label.align,
        fill: label.fill,
        text: plain(formatted(value, data.format)),
        frame: { x: label.left, y, width: size * 6, height },
        anchor: "middle",
        size: size * 0.9,
      });
    });
  });
}
