import { cutText, type ChartElement, type ChartType, type ChartOptions, type Series, must } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { type ColourContext, colourIn } from "./colour";

/** A chart as it is read; `unlike` says what is drawn differently from the file. */
export type ReadChart = Pick<ChartElement, "type" | "categories" | "series"> & ChartOptions & { unlike?: string };

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

/** Reads a chart part (`c:chartSpace`); undefined when it has no known plot or no values. */
export function readChart(space: XmlElement, colours: ColourContext): ReadChart | undefined {
  const chart = child(space, "chart");
  const area = child(chart, "plotArea");
  const plots = (area?.children ?? []).filter((part) => localName(part) in PLOTS);
  const [first] = plots;
  if (!first) return undefined;
  const formOf = (plot: XmlElement): ChartType =>
    PLOTS[localName(plot)] === "column" && child(plot, "barDir")?.attributes.val === "bar"
      ? "bar"
      : must(PLOTS[localName(plot)]);
  const kinds = [...new Set(plots.map(formOf))];
  const type: ChartType =
    kinds.length > 1 && kinds.every((kind) => ["column", "line", "area", "bar"].includes(kind))
      ? "combined"
      : must(kinds[0]);
  const parts = area?.children ?? [];
  const values = parts.filter((part) => localName(part) === "valAx");
  const valueAxis = (plot: XmlElement) =>
    values.find((axis) =>
      childrenOf(plot, "axId").some(({ attributes }) => attributes.val === child(axis, "axId")?.attributes.val),
    );
  const measured = plots.flatMap((plot) => valueAxis(plot) ?? []);
  // Of two value axes the left one is the primary, whichever comes first.
  const main =
    type === "scatter"
      ? undefined
      : (measured.find((axis) => "lb".includes(child(axis, "axPos")?.attributes.val ?? "-")) ??
        measured[0] ??
        values[0]);
  const second = type === "scatter" || type === "bar" ? undefined : measured.find((axis) => axis !== main);
  let categories: string[] = [];
  let [format, otherFormat]: (string | undefined)[] = [];
  const all = plots.flatMap((plot) => childrenOf(plot, "ser").map((ser) => ({ plot, ser })));
  const series = inOrder(all, ({ ser }) => Number(child(ser, "order")?.attributes.val ?? Number.NaN)).map(
    ({ plot, ser }): Series => {
      const own = formOf(plot);
      const scattered = own === "scatter";
      const cat = cached(child(ser, scattered ? "xVal" : "cat"));
      const val = cached(child(ser, scattered ? "yVal" : "val"));
      const by = second && valueAxis(plot) === second;
      if (by) otherFormat ??= val.format;
      else format ??= val.format;
      if (!scattered && cat.values.length > categories.length)
        categories = cat.values.map((value) => categoryText(value, cat.format));
      // Series of points have the colour of their markers.
      const colour =
        colourIn(at(ser, "spPr", "solidFill"), colours) ??
        colourIn(at(ser, "spPr", "ln", "solidFill"), colours) ??
        colourIn(at(ser, "marker", "spPr", "solidFill"), colours);
      const name = child(ser, "tx");
      const said = cached(name).values[0] ?? child(name, "v")?.text ?? "";
      // Points by two values are joined unless their line is removed (21.2.2.204).
      const lined = !at(ser, "spPr", "ln", "noFill");
      const style = child(plot, "scatterStyle")?.attributes.val ?? "lineMarker";
      const joined =
        own === "line"
          ? lined
            ? undefined
            : false
          : scattered && localName(plot) !== "bubbleChart" && lined && !["none", "marker"].includes(style)
            ? true
            : undefined;
      const points = ["pie", "doughnut", "column", "bar"].includes(own)
        ? pointColours(ser, val.values.length, colours)
        : undefined;
      return {
        name: said,
        values: val.values.map(numberOf),
        ...(scattered && cat.values.length ? { x: cat.values.map(numberOf) } : {}),
        ...(type === "combined" && own !== "bar" ? { type: own as "column" | "line" | "area" } : {}),
        ...(colour && type !== "pie" && type !== "doughnut" ? { colour: colour.colour } : {}),
        ...(points ? { points } : {}),
        ...(joined === undefined ? {} : { joined }),
        ...((own === "line" || joined) && isOn(child(ser, "smooth")) ? { smooth: true } : {}),
        ...(by ? { axis: "secondary" as const } : {}),
      };
    },
  );
  if (!series.length || series.every(({ values }) => !values.length)) return undefined;
  const longest = Math.max(...series.map(({ values }) => values.length));
  if (type !== "scatter") while (categories.length < longest) categories.push(String(categories.length + 1));
  const grouping = child(first, "grouping")?.attributes.val;
  const stack = grouping === "percentStacked" ? "share" : grouping === "stacked" ? "sum" : undefined;
  const title = child(chart, "title");
  const heading = words(title) || (title && series.length === 1 ? (series[0]?.name ?? "") : "");
  const key = child(chart, "legend");
  const legend =
    ({ t: "top", b: "bottom", l: "left", r: "right", tr: "right" } as const)[
      (child(key, "legendPos")?.attributes.val ?? "r") as "t"
    ] ?? "right";
  const labels = child(first, "dLbls") ?? child(child(first, "ser"), "dLbls");
  const shows = (name: string) => isOn(child(labels, name));
  const axisOf = (found: XmlElement | undefined) => {
    const bound = (name: string) => {
      const value = numberOf(at(found, "scaling", name)?.attributes.val);
      return value === null ? undefined : value;
    };
    const said = words(child(found, "title"));
    const [min, max] = [bound("min"), bound("max")];
    const all = {
      ...(said ? { title: cutText(said, 500) } : {}),
      ...(min === undefined ? {} : { min }),
      ...(max === undefined ? {} : { max }),
    };
    return Object.keys(all).length ? all : undefined;
  };
  const onSide = (sides: string) => values.find((part) => sides.includes(child(part, "axPos")?.attributes.val ?? "-"));
  const [across, up] =
    type === "scatter"
      ? [onSide("bt"), onSide("lr")]
      : [parts.find((part) => ["catAx", "dateAx", "serAx"].includes(localName(part))), main];
  // Bars start at the bottom unless their axis is reversed (21.2.2.130); ours start at the top.
  const turned = child(child(across, "scaling"), "orientation")?.attributes.val === "maxMin";
  const reversed = across !== undefined && type !== "scatter" && turned !== (type === "bar") ? { reversed: true } : {};
  const [along, y] = [{ ...axisOf(across), ...reversed }, axisOf(up)];
  // A number format other than the source's is that of the labels, or of the axis where it is more specific.
  const own = (one: XmlElement | undefined) =>
    one && !["1", "true"].includes(one.attributes.sourceLinked ?? "0") ? one.attributes.formatCode : undefined;
  const [onAxis, onLabels] = [own(child(up, "numFmt")), shows("showVal") ? own(child(labels, "numFmt")) : undefined];
  const told = onAxis && onAxis !== "General" ? onAxis : (onLabels ?? onAxis);
  const otherShown = own(child(second, "numFmt")) ?? otherFormat;
  const other = {
    ...axisOf(second),
    ...(otherShown && otherShown !== "General" ? { format: cutText(otherShown, 100) } : {}),
  };
  const shown = stack === "share" ? format : (told ?? format);
  const odd = plots.map((plot) => LIKE[localName(plot)]).find(Boolean);
  return {
    type: type,
    categories,
    series,
    ...(stack ? { stack } : {}),
    ...(heading ? { title: cutText(heading, 1000) } : {}),
    legend: key ? legend : "none",
    ...(labels && shows("showPercent") ? { labels: "share" } : labels && shows("showVal") ? { labels: "value" } : {}),
    ...(shown && shown !== "General" ? { format: cutText(shown, 100) } : {}),
    ...(Object.keys(along).length ? { xAxis: along } : {}),
    ...(y ? { yAxis: y } : {}),
    ...(second && Object.keys(other).length ? { secondaryAxis: other } : {}),
    ...(odd ? { unlike: odd } : {}),
  };
}
