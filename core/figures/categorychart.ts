import { type Frame, hasSecondAxis, isJoined, must, type Series } from "@unitext/core/model";
import { type ScaleBand, scaleBand, type ScaleLinear, scaleLinear, type ScalePoint, scalePoint } from "d3-scale";
import { area as areaShape, curveLinear, curveMonotoneX, line } from "d3-shape";
import { naming, shortened } from "./categories";
import {
  around,
  axisFormat,
  type Data,
  domain,
  type Drawer,
  formatted,
  measuredBy,
  plain,
  shadesOf,
  stacked,
  ticksOf,
} from "./chartframe";
import { addGridline, addLabel } from "./chartlabels";
import { type Figure, type FigureStyle, legible, rectangle } from "./figure";

type CategoryType = "column" | "line" | "area";
type AxisName = "primary" | "secondary";
type Span = [from: number, to: number];

/** A value axis with its ticks and the width of their labels. */
interface ValueAxis {
  scale: ScaleLinear<number, number>;
  ticks: { value: number; text: string }[];
  labelWidth: number;
}

/** The order in which series are drawn, whatever order a file names them in. */
const DRAWING_ORDER: readonly CategoryType[] = ["area", "column", "line"];

/**
 * Draws columns, lines and areas over categories on a horizontal axis. In a combined chart each series has its own
 * type, measured on the left or on the secondary axis on the right.
 */
export function categoryChart(type: CategoryType | "combined"): Drawer {
  return (given, frame, style) => {
    const hasSecondary = hasSecondAxis({ type, series: given.series });
    const series = hasSecondary ? given.series : given.series.map(({ axis: _, ...one }) => one);
    return new CategoryChart(type, { ...given, series }, frame, style, hasSecondary).draw();
  };
}

class CategoryChart {
  private readonly figure: Figure;
  /** The frame without title and legend. */
  private readonly inside: Frame;
  /** The area of the plot, in points. */
  private readonly area: Frame;
  private readonly primary: ValueAxis;
  private readonly secondary: ValueAxis | undefined;
  /** The width of a category. */
  private readonly step: number;
  private readonly names: ReturnType<typeof naming>;
  private readonly types: CategoryType[];
  private readonly shades: string[];
  private readonly spans: readonly (readonly (Span | null)[])[];
  private readonly band: ScaleBand<number>;
  private readonly inner: ScaleBand<number>;
  private readonly x: ScalePoint<number>;

  constructor(
    type: CategoryType | "combined",
    private readonly data: Data,
    frame: Frame,
    private readonly style: FigureStyle,
    hasSecondary: boolean,
  ) {
    const { size } = style;
    const { categories, series, xAxis, yAxis, secondaryAxis } = data;
    const { figure, room: inside } = around(data, frame, style);
    [this.figure, this.inside] = [figure, inside];
    this.shades = shadesOf(data, style);
    this.types = series.map((one) => (type === "combined" ? (one.type ?? "column") : type));
    this.primary = this.valueAxis("primary");
    this.secondary = hasSecondary ? this.valueAxis("secondary") : undefined;
    const left = inside.x + this.primary.labelWidth + size * 0.6;
    const right = this.secondary ? this.secondary.labelWidth + size * 0.6 : 0;
    const width = Math.max(1, inside.x + inside.width - left - right);
    this.step = width / Math.max(1, categories.length);
    this.names = naming(categories, this.step, inside.height, left + this.step / 2 - inside.x, style);
    const titleHeight = (text: string | undefined) => (text ? size * 1.6 : 0);
    const above = titleHeight(yAxis?.title || (hasSecondary ? secondaryAxis?.title : undefined));
    const below = this.footHeight + titleHeight(xAxis?.title);
    this.area = { x: left, y: inside.y + above, width, height: Math.max(1, inside.height - above - below) };
    for (const axis of [this.primary, this.secondary])
      axis?.scale.range([this.area.y + this.area.height, this.area.y + size * 0.4]);
    this.spans = this.spansOf();
    const indexes = categories.map((_, at) => at);
    const along: Span = xAxis?.reversed ? [left + width, left] : [left, left + width];
    this.band = scaleBand<number>().domain(indexes).range(along).paddingInner(0.3).paddingOuter(0.15);
    const columns = series.flatMap((_, nth) => (this.types[nth] === "column" ? [nth] : []));
    this.inner = scaleBand<number>()
      .domain(data.stack ? [0] : columns)
      .range([0, this.band.bandwidth()])
      .padding(!data.stack && columns.length > 1 ? 0.08 : 0);
    this.x = scalePoint<number>().domain(indexes).range(along).padding(0.5);
  }

  draw(): Figure {
    this.axisTitles();
    this.valueLabels();
    this.categoryNames();
    const order = this.data.series
      .map((series, nth) => ({ series, nth, rank: DRAWING_ORDER.indexOf(must(this.types[nth])) }))
      .sort((a, b) => a.rank - b.rank);
    for (const { series, nth } of order) {
      if (this.types[nth] === "column") this.columns(series, nth);
      else this.lineOrArea(series, nth);
    }
    return this.figure;
  }

  /** The height of the category names below the plot. */
  private get footHeight(): number {
    return this.names.height + this.style.size * 0.5;
  }

  private valueAxis(name: AxisName): ValueAxis {
    const { size, measure } = this.style;
    const data = measuredBy(this.data, name);
    const fromZero = this.types.some(
      (type, nth) => type !== "line" && (this.data.series[nth]?.axis === "secondary") === (name === "secondary"),
    );
    const scale = scaleLinear().domain(domain(data, fromZero));
    if (data.yAxis?.max === undefined) scale.nice(6);
    const ticks = ticksOf(scale, this.inside.height, size * 2.4, axisFormat(data));
    return { scale, ticks, labelWidth: Math.max(...ticks.map(({ text }) => measure(text, size))) };
  }

  private scaleOf({ axis }: Pick<Series, "axis">): ValueAxis["scale"] {
    return (axis === "secondary" && this.secondary ? this.secondary : this.primary).scale;
  }

  /** Returns from where to where each value of each series is drawn; null where it is missing. */
  private spansOf(): (Span | null)[][] {
    const { data } = this;
    const stacks = data.stack && {
      primary: stacked(measuredBy(data, "primary")),
      secondary: stacked(measuredBy(data, "secondary")),
    };
    return data.series.map((series) => {
      const stack = stacks?.[series.axis ?? "primary"].shift();
      if (stack) return data.categories.map((_, at) => stack[at] ?? null);
      const [low, high] = this.scaleOf(series).domain() as Span;
      const floor = Math.max(low, Math.min(high, 0));
      return data.categories.map((_, at): Span | null => {
        const value = series.values[at] ?? null;
        return value === null ? null : [floor, value];
      });
    });
  }

  private axisTitles(): void {
    const { figure, style, area, inside } = this;
    const { size } = style;
    const { xAxis, yAxis, secondaryAxis } = this.data;
    const top = { y: inside.y - size * 0.2, height: size * 1.4 };
    const right = this.secondary ? this.secondary.labelWidth + size * 0.6 : 0;
    if (this.secondary && secondaryAxis?.title)
      addLabel(figure, style, secondaryAxis.title, {
        frame: { ...top, x: area.x, width: area.width + right },
        align: "end",
        anchor: "top",
        size: size * 0.9,
      });
    if (yAxis?.title)
      addLabel(figure, style, yAxis.title, {
        frame: { ...top, x: inside.x, width: area.width },
        align: "start",
        anchor: "top",
        size: size * 0.9,
      });
    if (xAxis?.title)
      addLabel(figure, style, xAxis.title, {
        frame: { x: area.x, y: area.y + area.height + this.footHeight, width: area.width, height: size * 1.5 },
        align: "centre",
        anchor: "top",
      });
  }

  /** Draws the labels of both value axes, and the grid of the primary one. */
  private valueLabels(): void {
    const { figure, style, area, primary, secondary } = this;
    const { size, measure } = style;
    if (secondary)
      for (const { value, text } of secondary.ticks)
        addLabel(figure, style, text, {
          frame: {
            x: area.x + area.width + size * 0.4,
            y: secondary.scale(value) - size * 0.7,
            width: secondary.labelWidth + size * 1.6,
            height: size * 1.4,
          },
          align: "start",
          anchor: "middle",
        });
    for (const { value, text } of primary.ticks) {
      const y = primary.scale(value);
      const isZero = value === 0;
      const line = { width: isZero ? 1.2 : 0.6, strong: isZero };
      addGridline(figure, style, [area.x, y], [area.x + area.width, y], line);
      const width = measure(text, size) + size;
      addLabel(figure, style, text, {
        frame: { x: area.x - size * 0.4 - width, y: y - size * 0.7, width, height: size * 1.4 },
        align: "end",
        anchor: "middle",
      });
    }
  }

  private categoryNames(): void {
    const { figure, style, area, step, data } = this;
    const { turn, every, height, longest } = this.names;
    const { size, measure } = style;
    const count = data.categories.length;
    const y = area.y + area.height + size * 0.4;
    data.categories.forEach((name, at) => {
      if (at % every) return;
      const middle = area.x + ((data.xAxis?.reversed ? count - at - 1 : at) + 0.5) * step;
      if (!turn) {
        const frame = { x: middle - step / 2, y, width: step, height };
        addLabel(figure, style, name, { frame, align: "centre", anchor: "top" });
        return;
      }
      // Turned names end at their tick.
      const text = shortened(name, longest, style);
      const width = measure(text, size) + 1;
      addLabel(figure, style, text, {
        frame: { x: middle - width, y: y - size * 0.65, width, height: size * 1.3 },
        align: "end",
        anchor: "middle",
        turn: { by: turn, about: [middle, y] },
      });
    });
  }

  /** Labels a value where the chart asks for it: above, in the middle of or below the point (x, y). */
  private valueLabel(
    { axis }: Pick<Series, "axis">,
    value: number,
    x: number,
    y: number,
    { anchor, fill }: { anchor: "top" | "middle" | "bottom"; fill: string },
  ): void {
    const { data, step } = this;
    const { size } = this.style;
    if (data.labels !== "value") return;
    const format = axis === "secondary" ? data.secondaryAxis?.format : data.format;
    const top = y - size * { top: -0.1, middle: 0.65, bottom: 1.4 }[anchor];
    this.figure.labels.push({
      anchor,
      fill,
      text: plain(formatted(value, format)),
      frame: { x: x - step, y: top, width: step * 2, height: size * 1.3 },
      align: "centre",
      size: size * 0.9,
    });
  }

  private columns(series: Series, nth: number): void {
    const { data, figure, band, inner } = this;
    const { colours } = this.style;
    const y = this.scaleOf(series);
    must(this.spans[nth]).forEach((span, at) => {
      if (!span) return;
      const [from, to] = [y(span[0]), y(span[1])];
      const fill = series.points?.[at] ?? must(this.shades[nth]);
      const column = {
        x: must(band(at)) + must(inner(data.stack ? 0 : nth)),
        y: Math.min(from, to),
        width: inner.bandwidth(),
        height: Math.abs(from - to),
      };
      figure.paths.push({ d: rectangle(column), fill });
      const value = must(series.values[at]);
      const middle = column.x + column.width / 2;
      // A label is beyond the end of a column, or in the middle of a stacked piece in a contrasting colour.
      if (data.stack)
        this.valueLabel(series, value, middle, column.y + column.height / 2, {
          anchor: "middle",
          fill: legible(fill, colours),
        });
      else this.valueLabel(series, value, middle, to, { anchor: value < 0 ? "top" : "bottom", fill: colours.ink });
    });
  }

  private lineOrArea(series: Series, nth: number): void {
    const { data, figure, x } = this;
    const y = this.scaleOf(series);
    const isLine = this.types[nth] === "line";
    const fill = must(this.shades[nth]);
    const spans = must(this.spans[nth]);
    const defined = (span: Span | null) => span !== null;
    if (!isLine) {
      const d = areaShape<Span | null>()
        .defined(defined)
        .x((_, at) => must(x(at)))
        .y0((span) => y(span?.[0] ?? 0))
        .y1((span) => y(span?.[1] ?? 0))([...spans]);
      if (d) figure.paths.push({ d, fill, fillOpacity: data.stack ? 1 : 0.55 });
    }
    const path = line<Span | null>()
      .curve(series.smooth ? curveMonotoneX : curveLinear)
      .defined(defined)
      .x((_, at) => must(x(at)))
      .y((span) => y(span?.[1] ?? 0))([...spans]);
    const joined = !isLine || isJoined(series, "line");
    if (path && joined) figure.paths.push({ d: path, stroke: fill, width: isLine ? 2.4 : 1.4 });
    spans.forEach((span, at) => {
      if (!span) return;
      const [px, py] = [must(x(at)), y(span[1])];
      if (isLine && (!joined || data.categories.length <= 24))
        figure.paths.push({ d: rectangle({ x: px - 2.6, y: py - 2.6, width: 5.2, height: 5.2 }, 2.6), fill });
      const label = { anchor: "bottom" as const, fill: this.style.colours.ink };
      this.valueLabel(series, must(series.values[at]), px, py, label);
    });
  }
}
