import type { ChartOfFile } from "../../shared/chartdirection";
import { cutText, type ChartOptions, type ChartType, type Series, must } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { type ColourContext, colourIn } from "./colour";

/** A chart as it is read; `unlike` says what is drawn differently from the file. */

const PLOTS: Record<string, ChartType> = {
  barChart: "column",
  bar3DChart: "column",
  lineChart: "line",
  line3DChart: "line",
  stockChart: "line",
  radarChart: "line",
  pieChart: "pie",
  pie3DChart: "pie",
  ofPieChart: "pie",
  doughnutChart: "doughnut",
  areaChart: "area",
  area3DChart: "area",
  scatterChart: "scatter",
  bubbleChart: "scatter",
  surfaceChart: "area",
  surface3DChart: "area",
};
const LIKE: Record<string, string> = {
  bar3DChart: "its depth",
  line3DChart: "its depth",
  pie3DChart: "its depth",
  area3DChart: "its depth",
  stockChart: "a stock chart, drawn as lines",
  radarChart: "a radar chart, drawn as lines",
  ofPieChart: "its second plot",
  bubbleChart: "the sizes of its bubbles",
  surfaceChart: "a surface, drawn as areas",
  surface3DChart: "a surface, drawn as areas",
};

/** Returns the cached values of a data source (`c:cat`, `c:val`, …; ECMA-376-1, 21.2.2), one for each point. */
function cached(source: XmlElement | undefined): { values: (string | undefined)[]; format: string | undefined } {
  const holder = source?.children.find((part) => /Ref$|Lit$/.test(localName(part)));
  const cache =
    holder &&
    (localName(holder).endsWith("Lit") ? holder : holder.children.find((part) => localName(part).endsWith("Cache")));
  const points = cache && localName(cache) === "multiLvlStrCache" ? child(cache, "lvl") : cache;
  const list = childrenOf(points, "pt");
  const count = Math.min(
    100000,
    Math.max(
      Number(child(cache, "ptCount")?.attributes.val ?? 0) || 0,
      ...list.map(({ attributes }) => Number(attributes.idx) + 1 || 0),
    ),
  );
  const values = Array<string | undefined>(count).fill(undefined);
  for (const point of list) {
    const index = Number(point.attributes.idx);
    if (index >= 0 && index < count) values[index] = child(point, "v")?.text ?? "";
  }
  return { values, format: child(cache, "formatCode")?.text.trim() || undefined };
}

const numberOf = (value: string | undefined): number | null =>
  value === undefined || value.trim() === "" || !Number.isFinite(Number(value)) ? null : Number(value);

/** Returns a category that is a date in days since 1899-12-30 (ECMA-376-1, 18.17.4.1) as a date; others unchanged. */
function categoryText(value: string | undefined, format: string | undefined): string {
  if (value === undefined) return "";
  const days = Number(value);
  if (
    !format ||
    !/[ymd]/i.test(format.replace(/"[^"]*"|\[[^\]]*\]/g, "")) ||
    /General/i.test(format) ||
    !Number.isFinite(days)
  )
    return value;
  return new Date(Date.UTC(1899, 11, 30) + days * 86_400_000).toISOString().slice(0, 10);
}

const words = (title: XmlElement | undefined): string => {
  const rich = at(title, "tx", "rich");
  if (rich)
    return childrenOf(rich, "p")
      .map((paragraph) =>
        childrenOf(paragraph, "r")
          .map((part) => child(part, "t")?.text ?? "")
          .join(""),
      )
      .join(" ")
      .trim();
  return cached(child(title, "tx")).values.filter(Boolean).join(" ");
};

const isOn = (flag: XmlElement | undefined) => flag !== undefined && ["1", "true"].includes(flag.attributes.val ?? "1");

/**
 * Returns series by their order (`c:order`, ECMA-376-1, 21.2.2.128), which spans all plots of a chart; in document
 * order where some have none or the same.
 */
export function inOrder<T>(series: readonly T[], orderOf: (one: T) => number): T[] {
  const orders = series.map(orderOf);
  if (orders.some((order) => !Number.isFinite(order)) || new Set(orders).size < orders.length) return [...series];
  return series
    .map((one, nth) => ({ one, order: must(orders[nth]) }))
    .sort((a, b) => a.order - b.order)
    .map(({ one }) => one);
}

/** Returns the colours of single points (`c:dPt`; 21.2.2.52), one for each; undefined when no point has one. */
function pointColours(ser: XmlElement, count: number, colours: ColourContext): (string | null)[] | undefined {
  const found = Array<string | null>(Math.min(2000, count)).fill(null);
  for (const point of childrenOf(ser, "dPt")) {
    const index = Number(child(point, "idx")?.attributes.val);
    const colour = colourIn(at(point, "spPr", "solidFill"), colours)?.colour;
    if (colour && index in found) found[index] = colour;
  }
  return found.some((colour) => colour !== null) ? found : undefined;
}

const typeOfPlot = (plot: XmlElement): ChartType =>
  PLOTS[localName(plot)] === "column" && child(plot, "barDir")?.attributes.val === "bar"
    ? "bar"
    : must(PLOTS[localName(plot)]);

/** Returns the type of a chart with these plots; several types of columns, lines and areas are a combined chart. */
function chartTypeOf(plots: readonly XmlElement[]): ChartType {
  const types = [...new Set(plots.map(typeOfPlot))];
  return types.length > 1 && types.every((one) => ["column", "line", "area", "bar"].includes(one))
    ? "combined"
    : must(types[0]);
}

interface Axes {
  /** The axis of the categories, or of the first values of points. */
  x: XmlElement | undefined;
  y: XmlElement | undefined;
  secondary: XmlElement | undefined;
  isSecondary(plot: XmlElement): boolean;
}

function axesOf(area: XmlElement | undefined, plots: readonly XmlElement[], type: ChartType): Axes {
  const parts = area?.children ?? [];
  const values = parts.filter((part) => localName(part) === "valAx");
  const valueAxis = (plot: XmlElement) =>
    values.find((axis) =>
      childrenOf(plot, "axId").some(({ attributes }) => attributes.val === child(axis, "axId")?.attributes.val),
    );
  const onSide = (sides: string, among = values) =>
    among.find((axis) => sides.includes(child(axis, "axPos")?.attributes.val ?? "-"));
  if (type === "scatter") return { x: onSide("bt"), y: onSide("lr"), secondary: undefined, isSecondary: () => false };
  const used = plots.flatMap((plot) => valueAxis(plot) ?? []);
  // Of two value axes the left one is the primary, whichever comes first.
  const y = onSide("lb", used) ?? used[0] ?? values[0];
  const secondary = type === "bar" ? undefined : used.find((axis) => axis !== y);
  return {
    x: parts.find((part) => ["catAx", "dateAx", "serAx"].includes(localName(part))),
    y,
    secondary,
    isSecondary: (plot) => secondary !== undefined && valueAxis(plot) === secondary,
  };
}

/** Whether the points of a series are joined by a line (21.2.2.204); undefined where that follows from its type. */
function joinedIn(plot: XmlElement, ser: XmlElement, type: ChartType): boolean | undefined {
  const hasLine = !at(ser, "spPr", "ln", "noFill");
  if (type === "line") return hasLine ? undefined : false;
  const style = child(plot, "scatterStyle")?.attributes.val ?? "lineMarker";
  const joins =
    type === "scatter" && localName(plot) !== "bubbleChart" && hasLine && !["none", "marker"].includes(style);
  return joins ? true : undefined;
}

interface ReadSeries {
  series: Series[];
  categories: string[];
  /** The number formats of the values of each axis. */
  format: string | undefined;
  secondaryFormat: string | undefined;
}

function readSeries(
  plots: readonly XmlElement[],
  type: ChartType,
  { isSecondary }: Axes,
  colours: ColourContext,
): ReadSeries {
  let categories: string[] = [];
  let [format, secondaryFormat]: (string | undefined)[] = [];
  const all = plots.flatMap((plot) => childrenOf(plot, "ser").map((ser) => ({ plot, ser })));
  const series = inOrder(all, ({ ser }) => Number(child(ser, "order")?.attributes.val ?? Number.NaN)).map(
    ({ plot, ser }): Series => {
      const own = typeOfPlot(plot);
      const cat = cached(child(ser, own === "scatter" ? "xVal" : "cat"));
      const val = cached(child(ser, own === "scatter" ? "yVal" : "val"));
      const secondary = isSecondary(plot);
      if (secondary) secondaryFormat ??= val.format;
      else format ??= val.format;
      if (own !== "scatter" && cat.values.length > categories.length)
        categories = cat.values.map((value) => categoryText(value, cat.format));
      const colour = seriesColour(ser, colours);
      const joined = joinedIn(plot, ser, own);
      const points = ["pie", "doughnut", "column", "bar"].includes(own)
        ? pointColours(ser, val.values.length, colours)
        : undefined;
      const name = child(ser, "tx");
      return {
        name: cached(name).values[0] ?? child(name, "v")?.text ?? "",
        values: val.values.map(numberOf),
        ...(own === "scatter" && cat.values.length ? { x: cat.values.map(numberOf) } : {}),
        ...(type === "combined" && own !== "bar" ? { type: own as "column" | "line" | "area" } : {}),
        ...(colour && type !== "pie" && type !== "doughnut" ? { colour } : {}),
        ...(points ? { points } : {}),
        ...(joined === undefined ? {} : { joined }),
        ...((own === "line" || joined) && isOn(child(ser, "smooth")) ? { smooth: true } : {}),
        ...(secondary ? { axis: "secondary" as const } : {}),
      };
    },
  );
  return { series, categories, format, secondaryFormat };
}

/** Returns the colour of a series; a series of points has that of its markers. */
function seriesColour(ser: XmlElement, colours: ColourContext): string | undefined {
  const found =
    colourIn(at(ser, "spPr", "solidFill"), colours) ??
    colourIn(at(ser, "spPr", "ln", "solidFill"), colours) ??
    colourIn(at(ser, "marker", "spPr", "solidFill"), colours);
  return found?.colour;
}

/** Returns the title and bounds of an axis. */
function axisOptions(axis: XmlElement | undefined): NonNullable<ChartOptions["xAxis"]> {
  const bound = (name: string) => numberOf(at(axis, "scaling", name)?.attributes.val) ?? undefined;
  const title = words(child(axis, "title"));
  const [min, max] = [bound("min"), bound("max")];
  return {
    ...(title ? { title: cutText(title, 500) } : {}),
    ...(min === undefined ? {} : { min }),
    ...(max === undefined ? {} : { max }),
  };
}

/** Returns the number format of an axis or of labels; undefined when they follow the cells. */
const ownFormat = (holder: XmlElement | undefined) => {
  const format = child(holder, "numFmt");
  return format && !["1", "true"].includes(format.attributes.sourceLinked ?? "0")
    ? format.attributes.formatCode
    : undefined;
};

const LEGEND = { t: "top", b: "bottom", l: "left", r: "right", tr: "right" } as const;

/** Reads a chart part (`c:chartSpace`); undefined when it has no known plot or no values. */
export function readChart(space: XmlElement, colours: ColourContext): ChartOfFile | undefined {
  const chart = child(space, "chart");
  const area = child(chart, "plotArea");
  const plots = (area?.children ?? []).filter((part) => localName(part) in PLOTS);
  const [first] = plots;
  if (!first) return undefined;
  const type = chartTypeOf(plots);
  const axes = axesOf(area, plots, type);
  const { series, categories, format, secondaryFormat } = readSeries(plots, type, axes, colours);
  if (!series.length || series.every(({ values }) => !values.length)) return undefined;
  const longest = Math.max(...series.map(({ values }) => values.length));
  if (type !== "scatter") while (categories.length < longest) categories.push(String(categories.length + 1));

  const grouping = child(first, "grouping")?.attributes.val;
  const stack = grouping === "percentStacked" ? "share" : grouping === "stacked" ? "sum" : undefined;
  const title = child(chart, "title");
  const heading = words(title) || (title && series.length === 1 ? (series[0]?.name ?? "") : "");
  const legend = child(chart, "legend");
  const side = LEGEND[(child(legend, "legendPos")?.attributes.val ?? "r") as keyof typeof LEGEND] ?? "right";
  const labels = child(first, "dLbls") ?? child(child(first, "ser"), "dLbls");
  const shows = (name: string) => labels !== undefined && isOn(child(labels, name));

  // Bars start at the bottom unless their axis is reversed (21.2.2.130); ours start at the top.
  const isReversed = child(child(axes.x, "scaling"), "orientation")?.attributes.val === "maxMin";
  const reversed = axes.x !== undefined && type !== "scatter" && isReversed !== (type === "bar");
  const horizontal = type === "bar" ? axes.y : axes.x;
  const fromRight = child(child(horizontal, "scaling"), "orientation")?.attributes.val === "maxMin";
  const xAxis = { ...axisOptions(axes.x), ...(reversed ? { reversed: true } : {}) };
  const yAxis = axisOptions(axes.y);
  const secondaryShown = ownFormat(axes.secondary) ?? secondaryFormat;
  const secondaryAxis = {
    ...axisOptions(axes.secondary),
    ...(secondaryShown && secondaryShown !== "General" ? { format: cutText(secondaryShown, 100) } : {}),
  };
  // A number format other than the source's is that of the labels, or of the axis where it is more specific.
  const [onAxis, onLabels] = [ownFormat(axes.y), shows("showVal") ? ownFormat(labels) : undefined];
  const stated = onAxis && onAxis !== "General" ? onAxis : (onLabels ?? onAxis);
  const shown = stack === "share" ? format : (stated ?? format);
  const unlike = plots.map((plot) => LIKE[localName(plot)]).find(Boolean);
  return {
    type,
    fromRight,
    categories,
    series,
    ...(stack ? { stack } : {}),
    ...(heading ? { title: cutText(heading, 1000) } : {}),
    legend: legend ? side : "none",
    ...(shows("showPercent") ? { labels: "share" } : shows("showVal") ? { labels: "value" } : {}),
    ...(shown && shown !== "General" ? { format: cutText(shown, 100) } : {}),
    ...(Object.keys(xAxis).length ? { xAxis } : {}),
    ...(Object.keys(yAxis).length ? { yAxis } : {}),
    ...(axes.secondary && Object.keys(secondaryAxis).length ? { secondaryAxis } : {}),
    ...(unlike ? { unlike } : {}),
  };
}
