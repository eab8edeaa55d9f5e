import { must } from "@unitext/core/model";
import { scaleLinear, scaleBand } from "d3-scale";
import { type Drawer, around, shadesOf, domain, stacked, ticksOf, axisFormat, plain, formatted } from "./chartframe";
import { polygon, mixed, rectangle, legible } from "./figure";

/** Draws horizontal bars, a row for each category. */
export const bar: Drawer = (data, frame, style) => {
  const { colours, size, measure } = style;
  const { figure, room } = around(data, frame, style);
  const shades = shadesOf(data, style);
  const widest = Math.max(0, ...data.categories.map((name) => measure(name, size)));
  const left = room.x + Math.min(room.width * 0.36, widest + size * 0.8);
  const area = {
    x: left,
    y: room.y,
    width: Math.max(1, room.x + room.width - left - size),
    height: Math.max(1, room.height - size * 1.8),
  };
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
  const spans = data.stack ? stacked(data) : undefined;
  for (const { value, text } of ticksOf(x, area.width, size * 5, axisFormat(data))) {
    const at = x(value);
    figure.paths.push({
      d: polygon(
        [
          [at, area.y],
          [at, area.y + area.height],
        ],
        false,
      ),
      stroke: mixed(colours.muted, colours.paper, 0.65),
      width: value === 0 ? 1.2 : 0.6,
    });
    figure.labels.push({
      text: plain(text),
      frame: { x: at - size * 3, y: area.y + area.height + size * 0.3, width: size * 6, height: size * 1.4 },
      align: "centre",
      anchor: "top",
      fill: colours.muted,
      size,
    });
  }
  data.categories.forEach((name, at) => {
    figure.labels.push({
      text: plain(name),
      frame: { x: room.x, y: must(band(at)), width: left - room.x - size * 0.5, height: band.bandwidth() },
      align: "end",
      anchor: "middle",
      fill: colours.ink,
      size,
    });
    data.series.forEach(({ values, points }, nth) => {
      const value = values[at] ?? null;
      const span = spans ? spans[nth]?.[at] : value === null ? null : ([0, value] as const);
      if (!span || value === null) return;
      const [a, b] = [x(span[0]), x(span[1])];
      const top = must(band(at)) + must(inner(data.stack ? 0 : nth));
      const fill = points?.[at] ?? must(shades[nth]);
      figure.paths.push({
        d: rectangle({ x: Math.min(a, b), y: top, width: Math.abs(a - b), height: inner.bandwidth() }),
        fill,
      });
      const { from, ...words } = data.stack
        ? { from: (a + b) / 2 - size * 3, align: "centre" as const, fill: legible(fill, colours) }
        : { from: Math.max(a, b) + size * 0.3, align: "start" as const, fill: colours.ink };
      if (data.labels === "value")
        figure.labels.push({
          ...words,
          text: plain(formatted(value, data.format)),
          frame: { x: from, y: top, width: size * 6, height: inner.bandwidth() },
          anchor: "middle",
          size: size * 0.9,
        });
    });
  });
  return figure;
};
