import type { ChartElement, ChartForm, ChartLook, Series } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../archive";
import { type ColourContext, colourIn } from "./colour";

/** A chart as it is read; `unlike` says what of it is drawn otherwise than its file says. */
export type ReadChart = Pick<ChartElement, "form" | "categories" | "series"> & ChartLook & { unlike?: string };

const PLOTS: Record<string, ChartForm> = { barChart: "column", bar3DChart: "column", lineChart: "line", line3DChart: "line", stockChart: "line", radarChart: "line", pieChart: "pie", pie3DChart: "pie", ofPieChart: "pie", doughnutChart: "doughnut", areaChart: "area", area3DChart: "area", scatterChart: "scatter", bubbleChart: "scatter", surfaceChart: "area", surface3DChart: "area" };
const LIKE: Record<string, string> = { bar3DChart: "its depth", line3DChart: "its depth", pie3DChart: "its depth", area3DChart: "its depth", stockChart: "a stock chart, drawn as lines", radarChart: "a radar chart, drawn as lines", ofPieChart: "its second plot", bubbleChart: "the sizes of its bubbles", surfaceChart: "a surface, drawn as areas", surface3DChart: "a surface, drawn as areas" };

/** The cached values of a data source (`c:cat`, `c:val`, …; ECMA-376-1, 21.2.2), a place for each point. */
function cached(source: XmlElement | undefined): { values: (string | undefined)[]; format: string | undefined } {
  const holder = source?.children.find((part) => /Ref$|Lit$/.test(localName(part)));
  const cache = holder && (localName(holder).endsWith("Lit") ? holder : holder.children.find((part) => localName(part).endsWith("Cache")));
  const points = cache && localName(cache) === "multiLvlStrCache" ? child(cache, "lvl") : cache;
  const list = childrenOf(points, "pt");
  const count = Math.min(100000, Math.max(Number(child(cache, "ptCount")?.attributes.val ?? 0) || 0, ...list.map(({ attributes }) => Number(attributes.idx) + 1 || 0)));
  const values = Array<string | undefined>(count).fill(undefined);
  for (const point of list) {
    const index = Number(point.attributes.idx);
    if (index >= 0 && index < count) values[index] = child(point, "v")?.text ?? "";
  }
  return { values, format: child(cache, "formatCode")?.text.trim() || undefined };
}

const numberOf = (value: string | undefined): number | null => (value === undefined || value.trim() === "" || !Number.isFinite(Number(value)) ? null : Number(value));

/** A category that is a date counted in days since 1899-12-30 (ECMA-376-1, 18.17.4.1), as its date; others as they are. */
function categoryText(value: string | undefined, format: string | undefined): string {
  if (value === undefined) return "";
  const days = Number(value);
  if (!format || !/[ymd]/i.test(format.replace(/"[^"]*"|\[[^\]]*\]/g, "")) || /General/i.test(format) || !Number.isFinite(days)) return value;
  return new Date(Date.UTC(1899, 11, 30) + days * 86_400_000).toISOString().slice(0, 10);
}

const words = (title: XmlElement | undefined): string => {
  const rich = at(title, "tx", "rich");
  if (rich) return childrenOf(rich, "p").map((paragraph) => childrenOf(paragraph, "r").map((part) => child(part, "t")?.text ?? "").join("")).join(" ").trim();
  return cached(child(title, "tx")).values.filter(Boolean).join(" ");
};

/** A chart part (`c:chartSpace`) as a chart; undefined where it holds no plot that is known or no values. */
export function readChart(space: XmlElement, colours: ColourContext): ReadChart | undefined {
  const chart = child(space, "chart");
  const area = child(chart, "plotArea");
  const plots = (area?.children ?? []).filter((part) => localName(part) in PLOTS);
  const [first] = plots;
  if (!first) return undefined;
  const formOf = (plot: XmlElement): ChartForm => (PLOTS[localName(plot)] === "column" && child(plot, "barDir")?.attributes.val === "bar" ? "bar" : (PLOTS[localName(plot)] as ChartForm));
  const kinds = [...new Set(plots.map(formOf))];
  const form: ChartForm = kinds.length > 1 && kinds.every((kind) => ["column", "line", "area", "bar"].includes(kind)) ? "combined" : (kinds[0] as ChartForm);
  let categories: string[] = [];
  let format: string | undefined;
  const series = plots.flatMap((plot) =>
    childrenOf(plot, "ser").map((ser): Series => {
      const own = formOf(plot);
      const scattered = own === "scatter";
      const cat = cached(child(ser, scattered ? "xVal" : "cat"));
      const val = cached(child(ser, scattered ? "yVal" : "val"));
      format ??= val.format;
      if (!scattered && cat.values.length > categories.length) categories = cat.values.map((value) => categoryText(value, cat.format));
      const colour = colourIn(at(ser, "spPr", "solidFill"), colours) ?? colourIn(at(ser, "spPr", "ln", "solidFill"), colours);
      const name = child(ser, "tx");
      const said = cached(name).values[0] ?? child(name, "v")?.text ?? "";
      return {
        name: said,
        values: val.values.map(numberOf),
        ...(scattered && cat.values.length ? { x: cat.values.map(numberOf) } : {}),
        ...(form === "combined" && own !== "bar" ? { form: own as "column" | "line" | "area" } : {}),
        ...(colour && form !== "pie" && form !== "doughnut" ? { colour: colour.colour } : {}),
      };
    }),
  );
  if (!series.length || series.every(({ values }) => !values.length)) return undefined;
  const longest = Math.max(...series.map(({ values }) => values.length));
  if (form !== "scatter") while (categories.length < longest) categories.push(String(categories.length + 1));
  const grouping = child(first, "grouping")?.attributes.val;
  const stack = grouping === "percentStacked" ? "share" : grouping === "stacked" ? "sum" : undefined;
  const title = child(chart, "title");
  const own = words(title) || (title && series.length === 1 ? (series[0]?.name ?? "") : "");
  const key = child(chart, "legend");
  const legend = ({ t: "top", b: "bottom", l: "left", r: "right", tr: "right" } as const)[(child(key, "legendPos")?.attributes.val ?? "r") as "t"] ?? "right";
  const labels = child(first, "dLbls") ?? child(child(first, "ser"), "dLbls");
  const shows = (name: string) => ["1", "true"].includes(child(labels, name)?.attributes.val ?? "");
  const axisOf = (found: XmlElement | undefined) => {
    const bound = (name: string) => {
      const value = numberOf(at(found, "scaling", name)?.attributes.val);
      return value === null ? undefined : value;
    };
    const said = words(child(found, "title"));
    const [least, most] = [bound("min"), bound("max")];
    const all = { ...(said ? { title: said.slice(0, 500) } : {}), ...(least === undefined ? {} : { least }), ...(most === undefined ? {} : { most }) };
    return Object.keys(all).length ? all : undefined;
  };
  const parts = area?.children ?? [];
  const values = parts.filter((part) => localName(part) === "valAx");
  const onSide = (sides: string) => values.find((part) => sides.includes(child(part, "axPos")?.attributes.val ?? "-"));
  const [across, up] = form === "scatter" ? [onSide("bt"), onSide("lr")] : [parts.find((part) => ["catAx", "dateAx", "serAx"].includes(localName(part))), values[0]];
  const [x, y] = [axisOf(across), axisOf(up)];
  // A format that is not the source's is that of the axis, or of the labels.
  const told = [child(up, "numFmt"), child(labels, "numFmt")].find((one) => one && !["1", "true"].includes(one.attributes.sourceLinked ?? "0"))?.attributes.formatCode;
  const shown = stack === "share" ? format : (told ?? format);
  const odd = plots.map((plot) => LIKE[localName(plot)]).find(Boolean);
  return {
    form,
    categories,
    series,
    ...(stack ? { stack } : {}),
    ...(own ? { title: own.slice(0, 1000) } : {}),
    legend: key ? legend : "none",
    ...(labels && shows("showPercent") ? { labels: "share" } : labels && shows("showVal") ? { labels: "value" } : {}),
    ...(shown && shown !== "General" ? { format: shown.slice(0, 100) } : {}),
    ...(x ? { xAxis: x } : {}),
    ...(y ? { yAxis: y } : {}),
    ...(odd ? { unlike: odd } : {}),
  };
}
