import {
  type ChartElement,
  type ChartType,
  type ChartOptions,
  type Frame,
  hasSecondAxis,
  isJoined,
  type RichText,
  must,
} from "@unitext/core/model";
import { format as numberFormat } from "d3-format";
import { scaleBand, scaleLinear, scalePoint } from "d3-scale";
import { arc, area as areaShape, curveCatmullRom, curveLinear, curveMonotoneX, line, pie } from "d3-shape";
import { linesOf, naming, shortened } from "./categories";
import {
  circle,
  type Figure,
  type FigureLabel,
  type FigureStyle,
  legible,
  mixed,
  palette,
  polygon,
  rectangle,
} from "./figure";

type Data = Pick<ChartElement, "categories" | "series"> & ChartOptions;
type Drawer = (data: Data, frame: Frame, style: FigureStyle) => Figure;

const plain = (text: string): RichText => [{ kind: "plain", level: 0, runs: [{ text }] }];

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
function domain(data: Data, fromZero: boolean): [number, number] {
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
function measuredBy(data: Data, by: "primary" | "secondary"): Data {
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

const shadesOf = ({ series }: Data, style: FigureStyle) => {
  const shades = palette(style.colours);
  return series.map(({ colour }, at) => colour ?? must(shades[at % shades.length]));
};

/** Puts a chart's title above it, in as many lines as it needs. Returns the rest of the frame. */
function withTitle(
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
function around(
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

const ticksOf = (
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

const axisFormat = ({ stack, format }: Data) => (stack === "share" ? "0%" : format);

/**
 * Draws columns, lines and areas over categories on a horizontal axis. In a combined chart each series has its own
 * type, measured on the left or on the secondary axis on the right.
 */
function categoryChart(kind: "column" | "line" | "area" | "combined"): Drawer {
  return (given, frame, style) => {
    const twice = hasSecondAxis({ type: kind, series: given.series });
    const data: Data = twice ? given : { ...given, series: given.series.map(({ axis: _, ...series }) => series) };
    const { colours, size, measure } = style;
    const { figure, room: inside } = around(data, frame, style);
    const shades = shadesOf(data, style);
    const forms = data.series.map(({ type }) => (kind === "combined" ? (type ?? "column") : kind));
    const scaleFor = (by: "primary" | "secondary") => {
      const own = measuredBy(data, by);
      const scale = scaleLinear().domain(
        domain(
          own,
          forms.some(
            (type, nth) => type !== "line" && (data.series[nth]?.axis === "secondary") === (by === "secondary"),
          ),
        ),
      );
      if (own.yAxis?.max === undefined) scale.nice(6);
      return { scale, own, ticks: ticksOf(scale, inside.height, size * 2.4, axisFormat(own)) };
    };
    const { scale: first, ticks } = scaleFor("primary");
    const other = twice ? scaleFor("secondary") : undefined;
    const said = (text: string | undefined) => (text ? size * 1.6 : 0);
    const left = inside.x + Math.max(...ticks.map(({ text }) => measure(text, size))) + size * 0.6;
    const right = other ? Math.max(...other.ticks.map(({ text }) => measure(text, size))) + size * 0.6 : 0;
    const width = Math.max(1, inside.x + inside.width - left - right);
    const count = Math.max(1, data.categories.length);
    const room = width / count;
    const {
      turn,
      every,
      height: high,
      longest,
    } = naming(data.categories, room, inside.height, left + room / 2 - inside.x, style);
    const foot = high + size * 0.5;
    const above = said(data.yAxis?.title || (twice ? data.secondaryAxis?.title : undefined));
    const area = {
      x: left,
      y: inside.y + above,
      width,
      height: Math.max(1, inside.height - foot - above - said(data.xAxis?.title)),
    };
    const scales = data.series.map(({ axis }) => (axis === "secondary" && other ? other.scale : first));
    for (const scale of [first, other?.scale]) scale?.range([area.y + area.height, area.y + size * 0.4]);
    if (other && data.secondaryAxis?.title)
      figure.labels.push({
        text: plain(data.secondaryAxis.title),
        frame: { x: area.x, y: inside.y - size * 0.2, width: width + right, height: size * 1.4 },
        align: "end",
        anchor: "top",
        fill: colours.muted,
        size: size * 0.9,
      });
    for (const { value, text } of other?.ticks ?? [])
      figure.labels.push({
        text: plain(text),
        frame: {
          x: area.x + width + size * 0.4,
          y: must(other?.scale(value)) - size * 0.7,
          width: right + size,
          height: size * 1.4,
        },
        align: "start",
        anchor: "middle",
        fill: colours.muted,
        size,
      });
    if (data.yAxis?.title)
      figure.labels.push({
        text: plain(data.yAxis.title),
        frame: { x: inside.x, y: inside.y - size * 0.2, width: area.width, height: size * 1.4 },
        align: "start",
        anchor: "top",
        fill: colours.muted,
        size: size * 0.9,
      });
    if (data.xAxis?.title)
      figure.labels.push({
        text: plain(data.xAxis.title),
        frame: { x: area.x, y: area.y + area.height + foot, width, height: size * 1.5 },
        align: "centre",
        anchor: "top",
        fill: colours.muted,
        size,
      });
    for (const { value, text } of ticks) {
      const at = first(value);
      figure.paths.push({
        d: polygon(
          [
            [area.x, at],
            [area.x + area.width, at],
          ],
          false,
        ),
        stroke: value === 0 ? colours.muted : mixed(colours.muted, colours.paper, 0.65),
        width: value === 0 ? 1.2 : 0.6,
      });
      figure.labels.push({
        text: plain(text),
        frame: {
          x: left - size * 0.4 - measure(text, size) - size,
          y: at - size * 0.7,
          width: measure(text, size) + size,
          height: size * 1.4,
        },
        align: "end",
        anchor: "middle",
        fill: colours.muted,
        size,
      });
    }
    const along: [number, number] = data.xAxis?.reversed
      ? [area.x + area.width, area.x]
      : [area.x, area.x + area.width];
    data.categories.forEach((name, at) => {
      if (at % every) return;
      const middle = area.x + ((data.xAxis?.reversed ? count - at - 1 : at) + 0.5) * room;
      const top = area.y + area.height + size * 0.4;
      const words = {
        align: turn ? ("end" as const) : ("centre" as const),
        anchor: turn ? ("middle" as const) : ("top" as const),
        fill: colours.muted,
        size,
      };
      if (!turn) {
        figure.labels.push({
          ...words,
          text: plain(name),
          frame: { x: middle - room / 2, y: top, width: room, height: high },
        });
        return;
      }
      // Turned names end at their tick.
      const said = shortened(name, longest, style);
      const wide = measure(said, size) + 1;
      figure.labels.push({
        ...words,
        text: plain(said),
        frame: { x: middle - wide, y: top - size * 0.65, width: wide, height: size * 1.3 },
        turn: { by: turn, about: [middle, top] },
      });
    });
    // A label goes beyond the end of a point or column, or into the middle of a stacked piece in a contrasting colour.
    const label = (
      nth: number,
      value: number,
      x: number,
      y: number,
      where: { anchor: "top" | "middle" | "bottom"; fill: string } = { anchor: "bottom", fill: colours.ink },
    ) => {
      const format = data.series[nth]?.axis === "secondary" ? data.secondaryAxis?.format : data.format;
      const top = y - size * { top: -0.1, middle: 0.65, bottom: 1.4 }[where.anchor];
      if (data.labels === "value")
        figure.labels.push({
          ...where,
          text: plain(formatted(value, format)),
          frame: { x: x - room, y: top, width: room * 2, height: size * 1.3 },
          align: "centre",
          size: size * 0.9,
        });
    };
    const floors = scales.map((y) => Math.max(must(y.domain()[0]), Math.min(must(y.domain()[1]), 0)));
    const piles = data.stack
      ? { primary: stacked(measuredBy(data, "primary")), secondary: stacked(measuredBy(data, "secondary")) }
      : undefined;
    const spans = data.series.map(({ axis }) => piles?.[axis ?? "primary"].shift());
    const band = scaleBand<number>()
      .domain(data.categories.map((_, at) => at))
      .range(along)
      .paddingInner(0.3)
      .paddingOuter(0.15);
    const columns = data.series.flatMap((_, nth) => (forms[nth] === "column" ? [nth] : []));
    const inner = scaleBand<number>()
      .domain(data.stack ? [0] : columns)
      .range([0, band.bandwidth()])
      .padding(!data.stack && columns.length > 1 ? 0.08 : 0);
    const x = scalePoint<number>()
      .domain(data.categories.map((_, at) => at))
      .range(along)
      .padding(0.5);
    // Lines are drawn over columns, and columns over areas, in whatever order a file names them.
    const order = ["area", "column", "line"];
    const drawn = data.series
      .map((one, nth) => ({ ...one, nth }))
      .sort((a, b) => order.indexOf(forms[a.nth] as string) - order.indexOf(forms[b.nth] as string));
    drawn.forEach(({ values, points: own, smooth, joined, nth }) => {
      const fill = must(shades[nth]);
      const y = must(scales[nth]);
      const span = (at: number): [number, number] | null =>
        spans[nth]
          ? (spans[nth]?.[at] ?? null)
          : values[at] === null || values[at] === undefined
            ? null
            : [must(floors[nth]), values[at]];
      const points = data.categories.map((_, at) => span(at));
      if (forms[nth] === "column") {
        points.forEach((value, at) => {
          if (!value) return;
          const [a, b] = [y(value[0]), y(value[1])];
          const place = {
            x: must(band(at)) + must(inner(data.stack ? 0 : nth)),
            y: Math.min(a, b),
            width: inner.bandwidth(),
            height: Math.abs(a - b),
          };
          figure.paths.push({ d: rectangle(place), fill: own?.[at] ?? fill });
          const middle = place.x + place.width / 2;
          if (data.stack)
            label(nth, must(values[at]), middle, place.y + place.height / 2, {
              anchor: "middle",
              fill: legible(own?.[at] ?? fill, colours),
            });
          else
            label(nth, must(values[at]), middle, b, {
              anchor: must(values[at]) < 0 ? "top" : "bottom",
              fill: colours.ink,
            });
        });
        return;
      }
      const defined = (value: [number, number] | null) => value !== null;
      if (forms[nth] === "area") {
        const d = areaShape<[number, number] | null>()
          .defined(defined)
          .x((_, at) => must(x(at)))
          .y0((value) => y(value?.[0] ?? 0))
          .y1((value) => y(value?.[1] ?? 0))(points);
        if (d) figure.paths.push({ d, fill, fillOpacity: data.stack ? 1 : 0.55 });
      }
      const path = line<[number, number] | null>()
        .curve(smooth ? curveMonotoneX : curveLinear)
        .defined(defined)
        .x((_, at) => must(x(at)))
        .y((value) => y(value?.[1] ?? 0))(points);
      const unjoined = forms[nth] === "line" && !isJoined({ joined }, "line");
      if (path && !unjoined) figure.paths.push({ d: path, stroke: fill, width: forms[nth] === "area" ? 1.4 : 2.4 });
      points.forEach((value, at) => {
        if (!value) return;
        if (forms[nth] === "line" && (unjoined || data.categories.length <= 24))
          figure.paths.push({
            d: rectangle({ x: must(x(at)) - 2.6, y: y(value[1]) - 2.6, width: 5.2, height: 5.2 }, 2.6),
            fill,
          });
        label(nth, must(values[at]), must(x(at)), y(value[1]));
      });
    });
    return figure;
  };
}

/** Draws points by two values. */
const scatter: Drawer = (data, frame, style) => {
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

/** Draws horizontal bars, a row for each category. */
const bar: Drawer = (data, frame, style) => {
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

/** Draws shares of a whole, with or without a hole in the middle. Only the first series is drawn. */
function round(hole: number): Drawer {
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

const DRAWERS: Record<ChartType, Drawer> = {
  column: categoryChart("column"),
  line: categoryChart("line"),
  area: categoryChart("area"),
  combined: categoryChart("combined"),
  bar,
  pie: round(0),
  doughnut: round(0.55),
  scatter,
};

/** Draws a chart into a frame in points, with its axes and legend. */
export function chart(type: ChartType, data: Data, frame: Frame, style: FigureStyle): Figure {
  return DRAWERS[type](data, frame, style);
}
