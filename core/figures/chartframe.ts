import { type ChartElement, type ChartOptions, type Frame, type RichText, must } from "@unitext/core/model";
import { format as numberFormat } from "d3-format";
import { linesOf } from "./categories";
import { type FigureStyle, type Figure, palette, rectangle } from "./figure";

export type Data = Pick<ChartElement, "categories" | "series"> & ChartOptions;
export type Drawer = (data: Data, frame: Frame, style: FigureStyle) => Figure;
export const plain = (text: string): RichText => [{ kind: "plain", level: 0, runs: [{ text }] }];

/**
 * Returns where each value of each series starts and ends when they are stacked: positive values upwards, negative ones
 * downwards; as shares of their sum where the chart asks for it.
 */
export function stacked({
  categories,
  series,
  stack,
}: Pick<Data, "categories" | "series" | "stack">): ([number, number] | null)[][] {
  const count = Math.max(categories.length, ...series.map(({ values }) => values.length));
  const sums = Array.from({ length: count }, (_, at) =>
    series.reduce((sum, { values }) => sum + Math.abs(values[at] ?? 0), 0),
  );
  const tops = Array<number>(count).fill(0);
  const feet = Array<number>(count).fill(0);
  return series.map(({ values }) =>
    Array.from({ length: count }, (_, at) => {
      const value = values[at] ?? null;
      if (value === null) return null;
      const part = stack === "share" ? (sums[at] ? value / sums[at] : 0) : value;
      const from = part >= 0 ? must(tops[at]) : must(feet[at]);
      if (part >= 0) tops[at] = from + part;
      else feet[at] = from + part;
      return [from, from + part];
    }),
  );
}

/**
 * Returns the literal text of a number format: without quotes, escapes, padding, colours and conditions, but with
 * currency signs.
 */
const literal = (part: string) =>
  part
    .replace(/\[\$([^\]-]*)[^\]]*\]/g, "$1")
    .replace(/\[[^\]]*\]/g, "")
    .replace(/"([^"]*)"/g, "$1")
    .replace(/[_*]./g, "")
    .replace(/\\/g, "");

/**
 * Formats a number as spreadsheets do (ECMA-376-1, 18.8.30): sections for positive, negative and zero values, digits
 * that are always shown (0) or only where they count (#), thousands, scaling by thousands, percent, powers of ten, and
 * text around them.
 */
export function formatted(value: number, format: string | undefined): string {
  if (!format || format === "General")
    return numberFormat(Math.abs(value) >= 1000 ? ",~f" : "~r")(Number(value.toPrecision(10)));
  const sections = format.match(/(?:"[^"]*"|\\.|[^;"\\])+/g) ?? [format];
  const nth = value < 0 && sections.length > 1 ? 1 : value === 0 && sections.length > 2 ? 2 : 0;
  const section = must(sections[nth]).replace(/\[(?!\$)[^\]]*\]/g, "");
  const found =
    /^((?:"[^"]*"|\[[^\]]*\]|\\.|[_*].|[^#0?"\\])*)([#0?][#0?,]*(?:\.[#0?]*)?,*(?:E[+-][0#]+)?)([\s\S]*)$/.exec(
      section,
    );
  if (!found) return literal(section);
  const [, before = "", digits = "", after = ""] = found;
  const scaled = (/,+$/.exec(digits)?.[0].length ?? 0) * 3;
  const places = /\.([#0?]*)/.exec(digits)?.[1] ?? "";
  const shown = (Math.abs(value) * (section.includes("%") ? 100 : 1)) / 10 ** scaled;
  const power = /E([+-])(0*)/.exec(digits);
  const fixed = power
    ? shown.toExponential(places.length)
    : numberFormat(`${/[#0?],[#0?]/.test(digits) ? "," : ""}.${places.length}f`)(shown);
  const [whole = "", exponent = ""] = fixed.split("e");
  const kept = places.replace(/[#?]+$/, "").length;
  const [units = "", decimals = ""] = whole.split(".");
  const written = decimals.slice(0, kept) + decimals.slice(kept).replace(/0+$/, "");
  const number = `${/^[#,]+(?:\.|$)/.test(digits.replace(/E.*/, "")) && units === "0" && written ? "" : units}${written ? `.${written}` : ""}`;
  const raised = power
    ? `E${Number(exponent) < 0 ? "-" : power[1] === "+" ? "+" : ""}${String(Math.abs(Number(exponent))).padStart(power[2]?.length ?? 1, "0")}`
    : "";
  return `${value < 0 && nth === 0 && /[1-9]/.test(number) ? "−" : ""}${literal(before)}${number}${raised}${literal(after)}`;
}

/**
 * Returns the range of an axis from the smallest to the greatest value; it includes 0 unless all values are far from
 * it.
 */
export function domain(data: Data, fromZero: boolean): [number, number] {
  const { series, stack, yAxis } = data;
  const values = stack
    ? stacked(data).flatMap((row) => row.flatMap((span) => (span ? span : [])))
    : series.flatMap(({ values }) => values.filter((value): value is number => value !== null));
  const low = yAxis?.min ?? Math.min(...values, Infinity);
  const high = yAxis?.max ?? Math.max(...values, -Infinity);
  if (yAxis?.min !== undefined || yAxis?.max !== undefined)
    return [
      Number.isFinite(low) && low < high ? (yAxis.min ?? Math.min(0, low)) : high - 1,
      Number.isFinite(high) ? high : low + 1,
    ];
  if (!values.length) return [0, 1];
  const near = fromZero || low <= 0 || high <= 0 || low / high < 0.6;
  const range: [number, number] = near ? [Math.min(0, low), Math.max(0, high)] : [low, high];
  return range[0] === range[1] ? [range[0] - 1, range[1] + 1] : range;
}

/** Returns a chart's data as one of its two value axes measures it. */
export function measuredBy(data: Data, by: "primary" | "secondary"): Data {
  const { yAxis, secondaryAxis, format, ...rest } = data;
  const axis = by === "primary" ? yAxis : secondaryAxis;
  const shown = by === "primary" ? format : secondaryAxis?.format;
  return {
    ...rest,
    series: data.series.filter((series) => (series.axis === "secondary") === (by === "secondary")),
    ...(axis ? { yAxis: axis } : {}),
    ...(shown ? { format: shown } : {}),
  };
}

export const shadesOf = ({ series }: Data, style: FigureStyle) => {
  const shades = palette(style.colours);
  return series.map(({ colour }, at) => colour ?? must(shades[at % shades.length]));
};

/** Puts a chart's title above it, in as many lines as it needs. Returns the rest of the frame. */
export function withTitle(
  figure: Figure,
  title: string | undefined,
  frame: Frame,
  { colours, size: usual, measure }: FigureStyle,
): Frame {
  if (!title) return frame;
  const size = usual * 1.15;
  const height =
    Math.min(
      frame.height / 3,
      (linesOf(title, frame.width, { size, measure }) ?? Math.ceil(measure(title, size) / frame.width)) * size * 1.3,
    ) +
    size * 0.2;
  figure.labels.push({
    text: plain(title),
    frame: { ...frame, height },
    align: "centre",
    anchor: "top",
    fill: colours.ink,
    size,
  });
  return { ...frame, y: frame.y + height + size * 0.3, height: frame.height - height - size * 0.3 };
}

/** Lays out what surrounds the plot: the title above, the legend on its side. `room` is the rest of the frame. */
export function around(
  data: Data,
  frame: Frame,
  style: FigureStyle,
  names = data.series.map(({ name }) => name),
  fills = shadesOf(data, style),
): { figure: Figure; room: Frame } {
  const { colours, size, measure } = style;
  const figure: Figure = { paths: [], labels: [] };
  const room = withTitle(figure, data.title, frame, style);
  const place = data.legend ?? "top";
  const named = names.some((name) => name !== "");
  if (place === "none" || !named || (data.legend === undefined && names.length === 1 && data.title === names[0]))
    return { figure, room };
  const entry = (name: string, at: number, x: number, y: number, width: number) => {
    figure.paths.push({
      d: rectangle({ x, y: y + size * 0.35, width: size * 0.8, height: size * 0.8 }),
      fill: must(fills[at % fills.length]),
    });
    figure.labels.push({
      text: plain(name),
      frame: { x: x + size * 1.1, y, width: Math.max(1, width - size * 1.1), height: size * 1.4 },
      align: "start",
      anchor: "middle",
      fill: colours.ink,
      size,
    });
  };
  if (place === "left" || place === "right") {
    const width = Math.min(room.width * 0.34, Math.max(...names.map((name) => measure(name, size))) + size * 2);
    const top = room.y + Math.max(0, (room.height - names.length * size * 1.5) / 2);
    const left = place === "left" ? room.x : room.x + room.width - width + size * 0.6;
    for (const [at, name] of names.entries()) entry(name, at, left, top + at * size * 1.5, width - size * 0.6);
    return { figure, room: { ...room, x: place === "left" ? room.x + width : room.x, width: room.width - width } };
  }
  const lines: { name: string; at: number; x: number; width: number }[][] = [[]];
  let x = 0;
  names.forEach((name, at) => {
    const width = measure(name, size) + size * 2.2;
    if (x > 0 && x + width > room.width) {
      lines.push([]);
      x = 0;
    }
    lines.at(-1)?.push({ name, at, x, width: Math.min(width, room.width - x) });
    x += width;
  });
  const height = (lines.length - 1) * size * 1.5 + size * 2;
  const top = place === "top" ? room.y : room.y + room.height - height + size * 0.6;
  lines.forEach((line, row) => {
    for (const item of line) entry(item.name, item.at, room.x + item.x, top + row * size * 1.5, item.width);
  });
  return { figure, room: { ...room, y: place === "top" ? room.y + height : room.y, height: room.height - height } };
}

export const ticksOf = (
  scale: { ticks(count: number): number[]; tickFormat(count: number): (value: number) => string },
  room: number,
  step: number,
  format?: string,
) => {
  const count = Math.max(2, Math.min(8, Math.floor(room / step)));
  const usual = scale.tickFormat(count);
  return scale
    .ticks(count)
    .map((value) => ({ value, text: format && format !== "General" ? formatted(value, format) : usual(value) }));
};
export const axisFormat = ({ stack, format }: Data) => (stack === "share" ? "0%" : format);
