import { z } from "zod";
import { lineOf, lineText, LineValues } from "../linevalues";
import { plainText } from "../richtext";
import { Colour } from "../units";
import { Direction } from "../direction";
import { type ElementDescriptor, placed } from "./base";

export const CHART_TYPES = ["column", "bar", "line", "pie", "area", "doughnut", "scatter", "combined"] as const;
export const ChartType = z.enum(CHART_TYPES);
export type ChartType = z.infer<typeof ChartType>;

/**
 * A series of values. In a scatter chart, `x` holds the horizontal values; in a combined chart, `type` says how the
 * series is drawn. `points` are colours of single columns or slices. Lines join the points of a line chart unless
 * `joined` is false, and of a scatter chart where it is true; `smooth` lines are curved. A series on the secondary axis
 * is measured on the right.
 */
export const Series = z.object({
  name: z.string(),
  values: z.array(z.number().nullable()),
  x: z.array(z.number().nullable()).optional(),
  type: z.enum(["column", "line", "area"]).optional(),
  colour: Colour.optional(),
  points: z.array(Colour.nullable()).max(2000).optional(),
  joined: z.boolean().optional(),
  smooth: z.boolean().optional(),
  axis: z.literal("secondary").optional(),
});
export type Series = z.infer<typeof Series>;

/** An axis. A `reversed` category axis runs from right to left; in bar charts it runs from bottom to top. */
export const Axis = z.object({
  title: z.string().max(500).optional(),
  min: z.number().optional(),
  max: z.number().optional(),
  reversed: z.boolean().optional(),
});

/**
 * How a chart shows its data: stacking, title, legend, labels, number format (as in spreadsheets) and axes. The
 * secondary axis, on the right, has a number format of its own.
 */
export const ChartOptions = z.object({
  stack: z.enum(["sum", "share"]).optional(),
  title: z.string().max(1000).optional(),
  titleValues: LineValues.optional(),
  legend: z.enum(["top", "right", "bottom", "left", "none"]).optional(),
  labels: z.enum(["value", "share", "category"]).optional(),
  format: z.string().max(100).optional(),
  xAxis: Axis.optional(),
  yAxis: Axis.optional(),
  secondaryAxis: Axis.extend({ format: z.string().max(100).optional() }).optional(),
});
export type ChartOptions = z.infer<typeof ChartOptions>;

/** A chart of one or more series over categories. A missing value is null. */
export const ChartElement = z.object({
  kind: z.literal("chart"),
  ...placed,
  direction: Direction.optional(),
  type: ChartType,
  categories: z.array(z.string()),
  series: z.array(Series).min(1),
  ...ChartOptions.shape,
});
export type ChartElement = z.infer<typeof ChartElement>;

export const chartKind: ElementDescriptor<ChartElement> = {
  label: "chart",
  count: "charts",
  texts: ({ categories, series, title }) => [
    ...(title ? [plainText(title)] : []),
    ...categories.map(plainText),
    ...series.map(({ name }) => plainText(name)),
  ],
  mapTexts: (element, change) => {
    if (!element.title) return element;
    const text = lineText(element.title, element.titleValues);
    const next = change(text);
    if (next === text) return element;
    const { title: _, titleValues: __, ...rest } = element;
    const { words, values } = lineOf(next);
    return { ...rest, title: words, ...(values.length ? { titleValues: values } : {}) };
  },
};
