import { cutText, type ChartElement, type ChartType, type ChartOptions, type Series } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlNode, attribute } from "../../../shared/xml";

export type ReadChart = Pick<ChartElement, "type" | "categories" | "series"> & ChartOptions & { unlike?: string };
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

/** Reads a chart document (`office:chart`); undefined when it has no values. */
export function readChart(content: XmlNode): ReadChart | undefined {
  const chart = at(content, "body", "chart", "chart");
  const area = child(chart, "plot-area");
  if (!chart || !area) return undefined;
  const named = new Map(
    child(content, "automatic-styles")?.children.map((style) => [attribute(style, "name") ?? "", style]) ?? [],
  );
  const styleOf = (element: XmlNode | undefined) => named.get(attribute(element, "style-name") ?? "");
  const property = (element: XmlNode | undefined, kind: string, name: string) =>
    attribute(child(styleOf(element), `${kind}-properties`), name);
  const classOf = (element: XmlNode) => (attribute(element, "class") ?? "").replace(/^.*:/, "");
  const main = classOf(chart);
  const cells = cellsOf(child(chart, "table"));
  const vertical = property(area, "chart", "vertical") === "true";
  const all = childrenOf(area, "series");
  const kinds = [...new Set(all.map((one) => classOf(one) || main))];
  const known = FORMS[main] ?? "column";
  const type: ChartType =
    kinds.length > 1 && ["column", "line", "area"].includes(known)
      ? "combined"
      : known === "column" && vertical
        ? "bar"
        : known;
  const valuesAt = (address: string | undefined): (CellValue | undefined)[] => {
    const from = placeOf(address?.split(/:/)[0]);
    const to = placeOf(address?.split(/:/)[1]) ?? from;
    if (!from || !to) return [];
    if (from.row === to.row && to.column > from.column) return cells[from.row]?.slice(from.column, to.column + 1) ?? [];
    return cells.slice(from.row, to.row + 1).map((row) => row[from.column]);
  };
  const axis = (dimension: string) => childrenOf(area, "axis").find((one) => attribute(one, "dimension") === dimension);
  const listed = valuesAt(attribute(child(axis("x"), "categories"), "cell-range-address"));
  const [firstAxis, secondAxis] = childrenOf(area, "axis").filter((one) => attribute(one, "dimension") === "y");
  const isSecond = (one: XmlNode) =>
    secondAxis !== undefined &&
    type !== "bar" &&
    type !== "scatter" &&
    attribute(one, "attached-axis") !== undefined &&
    attribute(one, "attached-axis") === attribute(secondAxis, "name") &&
    attribute(secondAxis, "name") !== attribute(firstAxis, "name");
  // A series may be smooth by itself.
  const isCurved = (one: XmlNode) =>
    ["cubic-spline", "b-spline"].includes(
      property(one, "chart", "interpolation") ?? property(area, "chart", "interpolation") ?? "",
    );
  const series = all.map((one): Series => {
    const values = valuesAt(attribute(one, "values-cell-range-address")).map((cell) => cell?.value ?? null);
    const label = placeOf(attribute(one, "label-cell-address"));
    const domain = valuesAt(attribute(child(one, "domain"), "cell-range-address"));
    const own = FORMS[classOf(one)] ?? known;
    const colour = (
      property(
        one,
        "graphic",
        (own === "line" && property(one, "graphic", "stroke") !== "none") ||
          (own === "scatter" && !property(one, "graphic", "fill-color"))
          ? "stroke-color"
          : "fill-color",
      ) ?? ""
    ).toLowerCase();
    // Lines of scatter charts are drawn where their stroke, or else the plot, says so (`chart:lines`, OpenDocument 1.3,
    // part 3; the stroke's effect is common practice).
    const stroke = property(one, "graphic", "stroke");
    const joined =
      own === "line"
        ? stroke === "none"
          ? false
          : undefined
        : own === "scatter" &&
            main !== "bubble" &&
            (stroke === undefined ? property(area, "chart", "lines") === "true" : stroke !== "none")
          ? true
          : undefined;
    const points = ["pie", "doughnut", "column"].includes(own)
      ? pointColours(one, (point) => {
          const fill = (property(point, "graphic", "fill-color") ?? "").toLowerCase();
          return fill === colour && own === "column" ? "" : fill;
        })
      : undefined;
    return {
      name: (label && cells[label.row]?.[label.column]?.text) || "",
      values,
      ...(type === "scatter" && domain.length ? { x: domain.map((cell) => cell?.value ?? null) } : {}),
      ...(type === "combined" && ["column", "line", "area"].includes(own) ? { type: own as "column" } : {}),
      ...(COLOUR.test(colour) && type !== "pie" && type !== "doughnut" ? { colour } : {}),
      ...(points ? { points } : {}),
      ...(joined === undefined ? {} : { joined }),
      ...((own === "line" || joined) && isCurved(one) ? { smooth: true } : {}),
      ...(isSecond(one) ? { axis: "secondary" as const } : {}),
    };
  });
  if (!series.length || series.every(({ values }) => !values.length)) return undefined;
  const longest = Math.max(...series.map(({ values }) => values.length));
  const categories =
    type === "scatter"
      ? []
      : Array.from({ length: Math.max(longest, listed.length) }, (_, at2) => listed[at2]?.text || String(at2 + 1));
  const bound = (element: XmlNode | undefined, name: string) => {
    const value = Number(property(element, "chart", name) ?? Number.NaN);
    return Number.isFinite(value) ? value : undefined;
  };
  const axisOf = (element: XmlNode | undefined): ChartOptions["xAxis"] => {
    const [title, min, max] = [cutText(titleOf(element), 500), bound(element, "minimum"), bound(element, "maximum")];
    const found = {
      ...(title ? { title } : {}),
      ...(min === undefined ? {} : { min }),
      ...(max === undefined ? {} : { max }),
    };
    return Object.keys(found).length ? found : undefined;
  };
  const labelled = (name: string) =>
    all.map((one) => property(one, "chart", name)).find(Boolean) ?? property(area, "chart", name);
  const labels =
    labelled("data-label-number") === "percentage"
      ? "share"
      : labelled("data-label-number") === "value"
        ? "value"
        : labelled("data-label-text") === "true"
          ? "category"
          : undefined;
  const stack =
    property(area, "chart", "percentage") === "true"
      ? "share"
      : property(area, "chart", "stacked") === "true"
        ? "sum"
        : undefined;
  const title = titleOf(chart);
  const legend = child(chart, "legend");
  const format = usualShare(stack, formatOf(named.get(attribute(styleOf(firstAxis), "data-style-name") ?? "")));
  const turned = property(axis("x"), "chart", "reverse-direction") === "true";
  const along = {
    ...axisOf(axis("x")),
    ...(type !== "scatter" && axis("x") && turned !== (type === "bar") ? { reversed: true } : {}),
  };
  const yAxis = axisOf(firstAxis);
  const otherFormat = usualShare(stack, formatOf(named.get(attribute(styleOf(secondAxis), "data-style-name") ?? "")));
  const other = { ...axisOf(secondAxis), ...(otherFormat ? { format: cutText(otherFormat, 100) } : {}) };
  const odd = LIKE[main] ?? (property(area, "chart", "three-dimensional") === "true" ? "its depth" : undefined);
  return {
    type: type,
    categories,
    series,
    ...(stack ? { stack } : {}),
    ...(title ? { title: cutText(title, 1000) } : {}),
    legend: legend ? (LEGEND[attribute(legend, "legend-position") ?? "end"] ?? "right") : "none",
    ...(labels ? { labels } : {}),
    ...(format ? { format: cutText(format, 100) } : {}),
    ...(Object.keys(along).length ? { xAxis: along } : {}),
    ...(yAxis ? { yAxis } : {}),
    ...(series.some(({ axis }) => axis === "secondary") && Object.keys(other).length ? { secondaryAxis: other } : {}),
    ...(odd ? { unlike: odd } : {}),
  };
}
