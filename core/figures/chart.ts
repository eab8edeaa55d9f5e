import type { ChartElement, ChartForm, Frame, RichText } from "@unitext/core/model";
import { scaleBand, scaleLinear, scalePoint } from "d3-scale";
import { arc, line, pie } from "d3-shape";
import { type Figure, type FigureLabel, type FigureStyle, mixed, palette, polygon, rectangle } from "./figure";

type Data = Pick<ChartElement, "categories" | "series">;
type Drawer = (data: Data, frame: Frame, style: FigureStyle) => Figure;

const plain = (text: string): RichText => [{ kind: "plain", level: 0, runs: [{ text }] }];

/** The numbers that an axis from the least to the greatest value shows, 0 among them unless all values lie far from it. */
function domain({ series }: Data, fromZero: boolean): [number, number] {
  const values = series.flatMap(({ values }) => values.filter((value): value is number => value !== null));
  const low = Math.min(...values, Infinity);
  const high = Math.max(...values, -Infinity);
  if (!values.length) return [0, 1];
  const near = fromZero || low <= 0 || high <= 0 || low / high < 0.6;
  const range: [number, number] = near ? [Math.min(0, low), Math.max(0, high)] : [low, high];
  return range[0] === range[1] ? [range[0] - 1, range[1] + 1] : range;
}

/** The key to the series, in a line above the chart; nothing for a single one without a name. */
function legend({ series }: Data, frame: Frame, { colours, size, measure }: FigureStyle): { figure: Figure; height: number } {
  const figure: Figure = { paths: [], labels: [] };
  const named = series.filter(({ name }) => name !== "");
  if (!named.length) return { figure, height: 0 };
  const shades = palette(colours);
  let x = frame.x;
  let y = frame.y;
  series.forEach(({ name }, at) => {
    const width = measure(name, size) + size * 2.2;
    if (x > frame.x && x + width > frame.x + frame.width) {
      x = frame.x;
      y += size * 1.5;
    }
    figure.paths.push({ d: rectangle({ x, y: y + size * 0.35, width: size * 0.8, height: size * 0.8 }), fill: shades[at % shades.length] as string });
    figure.labels.push({ text: plain(name), frame: { x: x + size * 1.1, y, width: Math.min(width, frame.x + frame.width - x - size * 1.1), height: size * 1.4 }, align: "start", anchor: "middle", fill: colours.ink, size });
    x += width;
  });
  return { figure, height: y - frame.y + size * 2 };
}

const ticksOf = (scale: { ticks(count: number): number[]; tickFormat(count: number): (value: number) => string }, room: number, step: number) => {
  const count = Math.max(2, Math.min(8, Math.floor(room / step)));
  const format = scale.tickFormat(count);
  return scale.ticks(count).map((value) => ({ value, text: format(value) }));
};

/** Columns or lines over categories that run along the foot. */
function upright(kind: "column" | "line"): Drawer {
  return (data, frame, style) => {
    const { colours, size, measure } = style;
    const { figure, height } = legend(data, frame, style);
    const shades = palette(colours);
    const y = scaleLinear().domain(domain(data, kind === "column")).nice(6);
    const ticks = ticksOf(y, frame.height - height, size * 2.4);
    const left = frame.x + Math.max(...ticks.map(({ text }) => measure(text, size))) + size * 0.6;
    const width = frame.x + frame.width - left;
    const room = width / data.categories.length;
    const widest = Math.max(...data.categories.map((name) => measure(name, size)));
    const lines = Math.min(3, Math.ceil(widest / Math.max(1, room * 0.94)));
    const every = room < size * 1.6 ? Math.ceil((size * 2.4) / room) : 1;
    const foot = size * 1.3 * (every > 1 ? 1 : lines) + size * 0.5;
    const area = { x: left, y: frame.y + height, width, height: frame.height - height - foot };
    y.range([area.y + area.height, area.y + size * 0.4]);
    for (const { value, text } of ticks) {
      const at = y(value);
      figure.paths.push({ d: polygon([[area.x, at], [area.x + area.width, at]], false), stroke: value === 0 ? colours.muted : mixed(colours.muted, colours.paper, 0.65), width: value === 0 ? 1.2 : 0.6 });
      figure.labels.push({ text: plain(text), frame: { x: frame.x, y: at - size * 0.7, width: left - frame.x - size * 0.4, height: size * 1.4 }, align: "end", anchor: "middle", fill: colours.muted, size });
    }
    data.categories.forEach((name, at) => {
      if (at % every === 0) figure.labels.push({ text: plain(name), frame: { x: area.x + at * room, y: area.y + area.height + size * 0.4, width: room * every, height: foot - size * 0.4 }, align: every > 1 ? "start" : "centre", anchor: "top", fill: colours.muted, size });
    });
    if (kind === "column") {
      const band = scaleBand<number>().domain(data.categories.map((_, at) => at)).range([area.x, area.x + area.width]).paddingInner(0.3).paddingOuter(0.15);
      const inner = scaleBand<number>().domain(data.series.map((_, at) => at)).range([0, band.bandwidth()]).padding(data.series.length > 1 ? 0.08 : 0);
      data.series.forEach(({ values }, nth) => {
        values.forEach((value, at) => {
          if (value === null) return;
          const [a, b] = [y(Math.max(y.domain()[0] as number, 0)), y(value)];
          figure.paths.push({ d: rectangle({ x: (band(at) as number) + (inner(nth) as number), y: Math.min(a, b), width: inner.bandwidth(), height: Math.abs(a - b) }), fill: shades[nth % shades.length] as string });
        });
      });
      return figure;
    }
    const x = scalePoint<number>().domain(data.categories.map((_, at) => at)).range([area.x, area.x + area.width]).padding(0.5);
    data.series.forEach(({ values }, nth) => {
      const path = line<number | null>().defined((value) => value !== null).x((_, at) => x(at) as number).y((value) => y(value as number))(values);
      if (path) figure.paths.push({ d: path, stroke: shades[nth % shades.length] as string, width: 2.4 });
      if (data.categories.length <= 24) {
        values.forEach((value, at) => {
          if (value !== null) figure.paths.push({ d: rectangle({ x: (x(at) as number) - 2.6, y: y(value) - 2.6, width: 5.2, height: 5.2 }, 2.6), fill: shades[nth % shades.length] as string });
        });
      }
    });
    return figure;
  };
}

/** Bars from left to right, a row a category. */
const bar: Drawer = (data, frame, style) => {
  const { colours, size, measure } = style;
  const { figure, height } = legend(data, frame, style);
  const shades = palette(colours);
  const widest = Math.max(...data.categories.map((name) => measure(name, size)));
  const left = frame.x + Math.min(frame.width * 0.36, widest + size * 0.8);
  const area = { x: left, y: frame.y + height, width: frame.x + frame.width - left - size, height: frame.height - height - size * 1.8 };
  const x = scaleLinear().domain(domain(data, true)).nice(6).range([area.x, area.x + area.width]);
  const band = scaleBand<number>().domain(data.categories.map((_, at) => at)).range([area.y, area.y + area.height]).paddingInner(0.3).paddingOuter(0.15);
  const inner = scaleBand<number>().domain(data.series.map((_, at) => at)).range([0, band.bandwidth()]);
  for (const { value, text } of ticksOf(x, area.width, size * 5)) {
    const at = x(value);
    figure.paths.push({ d: polygon([[at, area.y], [at, area.y + area.height]], false), stroke: mixed(colours.muted, colours.paper, 0.65), width: value === 0 ? 1.2 : 0.6 });
    figure.labels.push({ text: plain(text), frame: { x: at - size * 3, y: area.y + area.height + size * 0.3, width: size * 6, height: size * 1.4 }, align: "centre", anchor: "top", fill: colours.muted, size });
  }
  data.categories.forEach((name, at) => {
    figure.labels.push({ text: plain(name), frame: { x: frame.x, y: band(at) as number, width: left - frame.x - size * 0.5, height: band.bandwidth() }, align: "end", anchor: "middle", fill: colours.ink, size });
    data.series.forEach(({ values }, nth) => {
      const value = values[at] ?? null;
      if (value === null) return;
      const [a, b] = [x(0), x(value)];
      figure.paths.push({ d: rectangle({ x: Math.min(a, b), y: (band(at) as number) + (inner(nth) as number), width: Math.abs(a - b), height: inner.bandwidth() }), fill: shades[nth % shades.length] as string });
    });
  });
  return figure;
};

/** Shares of a whole; the first series alone is drawn. */
const pieChart: Drawer = ({ categories, series }, frame, { colours, size }) => {
  const figure: Figure = { paths: [], labels: [] };
  const shades = palette(colours);
  const values = categories.map((_, at) => Math.max(0, series[0]?.values[at] ?? 0));
  const total = values.reduce((sum, value) => sum + value, 0) || 1;
  const r = Math.min(frame.height / 2, frame.width * 0.24);
  const centre = { x: frame.x + r, y: frame.y + frame.height / 2 };
  const slices = pie<number>().sort(null).value((value) => value)(values);
  const draw = arc<(typeof slices)[number]>().innerRadius(0).outerRadius(r);
  const row = Math.min(size * 1.9, frame.height / categories.length);
  const top = centre.y - (row * categories.length) / 2;
  slices.forEach((slice, at) => {
    const fill = shades[at % shades.length] as string;
    figure.paths.push({ d: draw(slice) ?? "", fill, stroke: colours.paper, width: 1.5, matrix: [1, 0, 0, 1, centre.x, centre.y] });
    const left = centre.x + r + size * 2;
    figure.paths.push({ d: rectangle({ x: left, y: top + at * row + (row - size * 0.8) / 2, width: size * 0.8, height: size * 0.8 }), fill });
    const label: FigureLabel = { text: plain(`${categories[at]} · ${Math.round(((values[at] as number) / total) * 100)} %`), frame: { x: left + size * 1.3, y: top + at * row, width: frame.x + frame.width - left - size * 1.3, height: row }, align: "start", anchor: "middle", fill: colours.ink, size };
    figure.labels.push(label);
  });
  return figure;
};

const DRAWERS: Record<ChartForm, Drawer> = { column: upright("column"), line: upright("line"), bar, pie: pieChart };

/** Draws a chart into a frame in points, with its axes and its key. */
export function chart(form: ChartForm, data: Data, frame: Frame, style: FigureStyle): Figure {
  return DRAWERS[form](data, frame, style);
}
