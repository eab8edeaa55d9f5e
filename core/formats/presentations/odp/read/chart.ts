import type { ChartOfFile } from "../../shared/chartdirection";
import { cutText, type ChartOptions, type ChartType, type Series } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlNode, attribute } from "../../../shared/xml";

const FORMS: Record<string, ChartType> = {
  bar: "column",
  line: "line",
  area: "area",
  circle: "pie",
  ring: "doughnut",
  scatter: "scatter",
  radar: "line",
  "filled-radar": "area",
  stock: "line",
  bubble: "scatter",
};
const LIKE: Record<string, string> = {
  radar: "a radar chart, drawn as lines",
  "filled-radar": "a radar chart, drawn as an area",
  stock: "a stock chart, drawn as lines",
  bubble: "a bubble chart, drawn as points",
};
const LEGEND: Record<string, ChartOptions["legend"]> = {
  top: "top",
  bottom: "bottom",
  start: "left",
  end: "right",
  "top-end": "right",
  "bottom-end": "right",
  "top-start": "left",
  "bottom-start": "left",
};
const COLOUR = /^#[0-9a-f]{6}$/;

interface CellValue {
  text: string;
  value: number | null;
}

const count = (cell: XmlNode, name: string) => Math.min(1000, Math.max(1, Number(attribute(cell, name) ?? 1) || 1));

/** Reads the data of a chart, row by row. */
function cellsOf(table: XmlNode | undefined): CellValue[][] {
  const rows = (holder: XmlNode | undefined): XmlNode[] =>
    (holder?.children ?? []).flatMap((part) =>
      localName(part) === "table-row"
        ? Array.from({ length: count(part, "number-rows-repeated") }, () => part)
        : /^table-(header-)?rows$/.test(localName(part))
          ? rows(part)
          : [],
    );
  return rows(table)
    .slice(0, 20000)
    .map((row) =>
      row.children.flatMap((cell) => {
        if (!/table-cell$/.test(localName(cell))) return [];
        const said = attribute(cell, "value");
        const number = said === undefined ? Number.NaN : Number(said);
        const text = childrenOf(cell, "p")
          .map((paragraph) => wordsIn(paragraph))
          .join(" ");
        return Array.from({ length: count(cell, "number-columns-repeated") }, () => ({
          text,
          value: Number.isFinite(number) ? number : null,
        }));
      }),
    );
}

const wordsIn = (element: XmlNode): string =>
  element.content
    .map((part) => (typeof part === "string" ? part : localName(part) === "s" ? " " : wordsIn(part)))
    .join("");
const titleOf = (holder: XmlNode | undefined) =>
  childrenOf(child(holder, "title"), "p")
    .map((paragraph) => wordsIn(paragraph))
    .join(" ")
    .trim();

/** Reads the column, counted from 0, and row of a range's first cell. */
function placeOf(address: string | undefined): { column: number; row: number } | undefined {
  const [, letters, row] = /\.?\$?([A-Z]{1,3})\$?(\d+)/.exec((address ?? "").replace(/^.*?(?=\.\$?[A-Z])/, "")) ?? [];
  if (!letters) return undefined;
  return {
    column: [...letters].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1,
    row: Number(row) - 1,
  };
}

/** Returns a data style as a number format of spreadsheets. */
function formatOf(style: XmlNode | undefined): string | undefined {
  const number = child(style, "number");
  if (!style || !number) return undefined;
  const decimals = Math.min(10, Number(attribute(number, "decimal-places") ?? 0) || 0);
  const digits = `${attribute(number, "grouping") === "true" ? "#,##0" : "0"}${decimals ? `.${"0".repeat(decimals)}` : ""}`;
  const at = style.children.indexOf(number);
  const said = (parts: readonly XmlNode[]) => parts.map((part) => part.text).join("");
  const quoted = (words: string) => (words ? `"${words.replace(/"/g, "")}"` : "");
  const after = said(style.children.slice(at + 1));
  if (localName(style) === "percentage-style") return `${digits}%${quoted(after.replace("%", ""))}`;
  return `${quoted(said(style.children.slice(0, at)))}${digits}${quoted(after)}`;
}

/** Returns the number format of an axis; undefined for whole percent, which shares have anyway. */
const usualShare = (stack: ChartOptions["stack"], format: string | undefined) =>
  stack === "share" && format === "0%" ? undefined : format;

/** Returns the colours of single points (11.17), one for each; undefined when no point has one. */
function pointColours(series: XmlNode, colourOf: (point: XmlNode) => string): (string | null)[] | undefined {
  const found = childrenOf(series, "data-point").flatMap((point) => {
    const colour = colourOf(point);
    return Array.from({ length: count(point, "repeated") }, () => (COLOUR.test(colour) ? colour : null));
  });
  return found.some((colour) => colour !== null) ? found.slice(0, 2000) : undefined;
}

/** A chart document with its cells and its automatic styles. */
class ChartDocument {
  private readonly styles: ReadonlyMap<string, XmlNode>;
  readonly cells: (CellValue | undefined)[][];

  constructor(
    content: XmlNode,
    readonly chart: XmlNode,
    readonly area: XmlNode,
  ) {
    this.styles = new Map(
      child(content, "automatic-styles")?.children.map((style) => [attribute(style, "name") ?? "", style]) ?? [],
    );
    this.cells = cellsOf(child(chart, "table"));
  }

  private styleOf(element: XmlNode | undefined): XmlNode | undefined {
    return this.styles.get(attribute(element, "style-name") ?? "");
  }

  /** Returns a property of an element's style. */
  property(element: XmlNode | undefined, kind: "chart" | "graphic", name: string): string | undefined {
    return attribute(child(this.styleOf(element), `${kind}-properties`), name);
  }

  /** Returns the number format of an element's labels. */
  format(element: XmlNode | undefined): string | undefined {
    return formatOf(this.styles.get(attribute(this.styleOf(element), "data-style-name") ?? ""));
  }

  /** Returns the cells of a range in one row or one column. */
  range(address: string | undefined): (CellValue | undefined)[] {
    const from = placeOf(address?.split(/:/)[0]);
    const to = placeOf(address?.split(/:/)[1]) ?? from;
    if (!from || !to) return [];
    if (from.row === to.row && to.column > from.column)
      return this.cells[from.row]?.slice(from.column, to.column + 1) ?? [];
    return this.cells.slice(from.row, to.row + 1).map((row) => row[from.column]);
  }

  /** Returns the axes of a dimension. */
  axes(dimension: "x" | "y"): XmlNode[] {
    return childrenOf(this.area, "axis").filter((axis) => attribute(axis, "dimension") === dimension);
  }

  /** Returns title, bounds and number format of an axis. */
  axisOptions(axis: XmlNode | undefined): NonNullable<ChartOptions["xAxis"]> {
    const bound = (name: string) => {
      const value = Number(this.property(axis, "chart", name) ?? Number.NaN);
      return Number.isFinite(value) ? value : undefined;
    };
    const [title, min, max] = [cutText(titleOf(axis), 500), bound("minimum"), bound("maximum")];
    return {
      ...(title ? { title } : {}),
      ...(min === undefined ? {} : { min }),
      ...(max === undefined ? {} : { max }),
    };
  }
}

const classOf = (element: XmlNode) => (attribute(element, "class") ?? "").replace(/^.*:/, "");

/** Returns the type of a chart of a class; several types of columns, lines and areas are a combined chart. */
function chartTypeOf(document: ChartDocument, main: ChartType): ChartType {
  const { chart, area } = document;
  const kinds = new Set(childrenOf(area, "series").map((series) => classOf(series) || classOf(chart)));
  if (kinds.size > 1 && ["column", "line", "area"].includes(main)) return "combined";
  return main === "column" && document.property(area, "chart", "vertical") === "true" ? "bar" : main;
}

/** Whether a series is measured by the second value axis. */
function isSecondary(document: ChartDocument, series: XmlNode, type: ChartType): boolean {
  const [first, second] = document.axes("y");
  const attached = attribute(series, "attached-axis");
  const name = attribute(second, "name");
  return (
    second !== undefined &&
    type !== "bar" &&
    type !== "scatter" &&
    attached !== undefined &&
    attached === name &&
    name !== attribute(first, "name")
  );
}

/**
 * Whether the points of a series are joined by a line; undefined where that follows from its type. Lines of scatter
 * charts are drawn where their stroke, or else the plot, says so (`chart:lines`, OpenDocument 1.3, part 3; the stroke's
 * effect is common practice).
 */
function joinedIn(document: ChartDocument, series: XmlNode, type: ChartType): boolean | undefined {
  const stroke = document.property(series, "graphic", "stroke");
  if (type === "line") return stroke === "none" ? false : undefined;
  const joins =
    type === "scatter" &&
    classOf(document.chart) !== "bubble" &&
    (stroke === undefined ? document.property(document.area, "chart", "lines") === "true" : stroke !== "none");
  return joins ? true : undefined;
}

function seriesColour(document: ChartDocument, series: XmlNode, type: ChartType): string {
  const property = (name: string) => document.property(series, "graphic", name);
  const isStroke =
    (type === "line" && property("stroke") !== "none") || (type === "scatter" && !property("fill-color"));
  return (property(isStroke ? "stroke-color" : "fill-color") ?? "").toLowerCase();
}

function readSeries(document: ChartDocument, one: XmlNode, type: ChartType, main: ChartType): Series {
  const { area } = document;
  const values = document.range(attribute(one, "values-cell-range-address")).map((cell) => cell?.value ?? null);
  const label = placeOf(attribute(one, "label-cell-address"));
  const domain = document.range(attribute(child(one, "domain"), "cell-range-address"));
  const own = FORMS[classOf(one)] ?? main;
  const colour = seriesColour(document, one, own);
  const joined = joinedIn(document, one, own);
  const points = ["pie", "doughnut", "column"].includes(own)
    ? pointColours(one, (point) => {
        const fill = (document.property(point, "graphic", "fill-color") ?? "").toLowerCase();
        return fill === colour && own === "column" ? "" : fill;
      })
    : undefined;
  // A series may be smooth by itself.
  const interpolation =
    document.property(one, "chart", "interpolation") ?? document.property(area, "chart", "interpolation") ?? "";
  const isSmooth = ["cubic-spline", "b-spline"].includes(interpolation);
  return {
    name: (label && document.cells[label.row]?.[label.column]?.text) || "",
    values,
    ...(type === "scatter" && domain.length ? { x: domain.map((cell) => cell?.value ?? null) } : {}),
    ...(type === "combined" && ["column", "line", "area"].includes(own) ? { type: own as "column" } : {}),
    ...(COLOUR.test(colour) && type !== "pie" && type !== "doughnut" ? { colour } : {}),
    ...(points ? { points } : {}),
    ...(joined === undefined ? {} : { joined }),
    ...((own === "line" || joined) && isSmooth ? { smooth: true } : {}),
    ...(isSecondary(document, one, type) ? { axis: "secondary" as const } : {}),
  };
}

/** Returns what labels show, by the first series that says so, else by the plot. */
function labelsOf(document: ChartDocument): ChartOptions["labels"] {
  const { area } = document;
  const shown = (name: string) =>
    childrenOf(area, "series")
      .map((one) => document.property(one, "chart", name))
      .find(Boolean) ?? document.property(area, "chart", name);
  const number = shown("data-label-number");
  if (number === "percentage") return "share";
  if (number === "value") return "value";
  return shown("data-label-text") === "true" ? "category" : undefined;
}

/** Reads a chart document (`office:chart`); undefined when it has no values. */
export function readChart(content: XmlNode): ChartOfFile | undefined {
  const chart = at(content, "body", "chart", "chart");
  const area = child(chart, "plot-area");
  if (!chart || !area) return undefined;
  const document = new ChartDocument(content, chart, area);
  const main = FORMS[classOf(chart)] ?? "column";
  const type = chartTypeOf(document, main);
  const series = childrenOf(area, "series").map((one) => readSeries(document, one, type, main));
  if (!series.length || series.every(({ values }) => !values.length)) return undefined;

  const [x] = document.axes("x");
  const [first, second] = document.axes("y");
  const listed = document.range(attribute(child(x, "categories"), "cell-range-address"));
  const longest = Math.max(listed.length, ...series.map(({ values }) => values.length));
  const categories =
    type === "scatter" ? [] : Array.from({ length: longest }, (_, nth) => listed[nth]?.text || String(nth + 1));
  const plot = (name: string) => document.property(area, "chart", name) === "true";
  const stack = plot("percentage") ? "share" : plot("stacked") ? "sum" : undefined;
  const labels = labelsOf(document);
  const title = titleOf(chart);
  const legend = child(chart, "legend");
  const format = usualShare(stack, document.format(first));
  const secondaryFormat = usualShare(stack, document.format(second));
  const isReversed = document.property(x, "chart", "reverse-direction") === "true";
  const reversed = type !== "scatter" && x !== undefined && isReversed !== (type === "bar");
  const horizontal = type === "bar" ? first : x;
  const fromRight = document.property(horizontal, "chart", "reverse-direction") === "true";
  const xAxis = { ...document.axisOptions(x), ...(reversed ? { reversed: true } : {}) };
  const yAxis = document.axisOptions(first);
  const secondaryAxis = {
    ...document.axisOptions(second),
    ...(secondaryFormat ? { format: cutText(secondaryFormat, 100) } : {}),
  };
  const usesSecondary = series.some(({ axis }) => axis === "secondary");
  const unlike = LIKE[classOf(chart)] ?? (plot("three-dimensional") ? "its depth" : undefined);
  return {
    type,
    fromRight,
    categories,
    series,
    ...(stack ? { stack } : {}),
    ...(title ? { title: cutText(title, 1000) } : {}),
    legend: legend ? (LEGEND[attribute(legend, "legend-position") ?? "end"] ?? "right") : "none",
    ...(labels ? { labels } : {}),
    ...(format ? { format: cutText(format, 100) } : {}),
    ...(Object.keys(xAxis).length ? { xAxis } : {}),
    ...(Object.keys(yAxis).length ? { yAxis } : {}),
    ...(usesSecondary && Object.keys(secondaryAxis).length ? { secondaryAxis } : {}),
    ...(unlike ? { unlike } : {}),
  };
}
