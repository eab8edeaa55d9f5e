import { type ChartElement, escapeXml, type Frame, hasSecondAxis, isJoined, must } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { columnName } from "../../shared/cells";
import { length, NS, VERSION } from "../package/names";
import { StyleSheet } from "./stylesheet";

const CHART_NS = {
  ...NS,
  "xmlns:chart": "urn:oasis:names:tc:opendocument:xmlns:chart:1.0",
  "xmlns:number": "urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0",
};
const CLASS = {
  column: "chart:bar",
  bar: "chart:bar",
  line: "chart:line",
  area: "chart:area",
  pie: "chart:circle",
  doughnut: "chart:ring",
  scatter: "chart:scatter",
  combined: "chart:bar",
} as const;
const LEGEND = { top: "top", bottom: "bottom", left: "start", right: "end" } as const;

/**
 * Writes a number format of spreadsheets as a data style (16.29.2): decimals, grouping of thousands, percent, and text
 * around.
 */
function dataStyle(format: string | undefined, styles: StyleSheet): string | undefined {
  if (!format || format === "General") return undefined;
  const [, before = "", grouped = "", decimals = "", percent = "", after = ""] =
    /^((?:"[^"]*"|\\.|[€$£¥ ])*)(#,##)?0?(?:\.([0#]+))?(%?)((?:"[^"]*"|\\.|[€$£¥ ])*)$/.exec(
      format.split(";")[0] ?? "",
    ) ?? [];
  const bare = (words: string) => words.replace(/"([^"]*)"|\\(.)/g, "$1$2");
  const text = (words: string) => (words ? xml("number:text", {}, escapeXml(bare(words))) : "");
  return styles.data(
    percent ? "number:percentage-style" : "number:number-style",
    {},
    text(before) +
      xml("number:number", {
        "number:min-integer-digits": 1,
        "number:decimal-places": decimals.length,
        "number:min-decimal-places": decimals.replace(/#/g, "").length,
        "number:grouping": grouped ? "true" : undefined,
      }) +
      text(percent ? `"%"${after}` : after),
  );
}

/** Writes a chart as a document of its own (OpenDocument 1.3, 11), with its data in a table inside. */
export function chartContent(
  chart: ChartElement,
  { width, height }: Pick<Frame, "width" | "height">,
  palette: readonly string[],
  size: number,
): string {
  const styles = new StyleSheet("c");
  const { type, categories, series, stack, title, legend, labels, format, xAxis, yAxis, secondaryAxis } = chart;
  const round = type === "pie" || type === "doughnut";
  const scatter = type === "scatter";
  const rows = Math.max(categories.length, ...series.map(({ values }) => values.length));
  const text = { "text-properties": { "fo:font-size": length(size) } };
  const data = dataStyle(format ?? (stack === "share" ? "0%" : undefined), styles);
  const hasSecond = hasSecondAxis(chart);
  const columnOf = (nth: number) => (scatter ? nth * 2 + 1 : nth + 1);
  const range = (column: number) => `local-table.$${columnName(column)}$2:.$${columnName(column)}$${rows + 1}`;
  const shown = legend ?? (series.length === 1 && !round ? "none" : "top");
  const heading = (words: string | undefined, larger = 1) =>
    words
      ? xml(
          "chart:title",
          {
            "chart:style-name": styles.style("chart", { "text-properties": { "fo:font-size": length(size * larger) } }),
          },
          xml("text:p", {}, escapeXml(words)),
        )
      : "";

  const plot = styles.style("chart", {
    "chart-properties": {
      "chart:vertical": type === "bar" ? "true" : undefined,
      "chart:stacked": stack === "sum" ? "true" : undefined,
      "chart:percentage": stack === "share" ? "true" : undefined,
      "chart:symbol-type": scatter ? "automatic" : undefined,
      "chart:treat-empty-cells": "leave-gap",
      "chart:interpolation": series.length > 0 && series.every(({ smooth }) => smooth) ? "cubic-spline" : undefined,
      "chart:auto-position": "true",
    },
  });
  const axis = (
    dimension: "x" | "y",
    given: ChartElement["xAxis"],
    which: "primary" | "secondary" = "primary",
    shownAs = data,
  ) =>
    xml(
      "chart:axis",
      {
        "chart:dimension": dimension,
        "chart:name": `${which}-${dimension}`,
        "chart:style-name": styles.style(
          "chart",
          {
            "chart-properties": {
              "chart:display-label": "true",
              "chart:minimum": given?.min,
              "chart:maximum": given?.max,
              "chart:reverse-direction":
                dimension === "x" && (type === "bar") !== (given?.reversed === true) ? "true" : undefined,
              "chart:link-data-style-to-source": "false",
            },
            "graphic-properties": { "svg:stroke-color": "#8a918e" },
            ...text,
          },
          {},
          dimension === "y" && shownAs ? { "style:data-style-name": shownAs } : {},
        ),
      },
      heading(given?.title),
      dimension === "x" && !scatter ? xml("chart:categories", { "table:cell-range-address": range(0) }) : "",
      dimension === "y" && which === "primary"
        ? xml("chart:grid", {
            "chart:class": "major",
            "chart:style-name": styles.style("chart", { "graphic-properties": { "svg:stroke-color": "#d0d3d1" } }),
          })
        : "",
    );
  const label =
    labels === "value"
      ? { "chart:data-label-number": "value" }
      : labels === "share"
        ? { "chart:data-label-number": "percentage" }
        : labels === "category"
          ? { "chart:data-label-text": "true" }
          : {};
  const drawn = series.map(
    ({ name: _, type: own, colour, values, points: single, axis, smooth, joined: asked }, nth) => {
      const paint = colour ?? must(palette[nth % palette.length]);
      const kind = type === "combined" ? CLASS[own ?? "column"] : CLASS[type];
      const lined = kind === "chart:line";
      const joined = (lined || scatter) && isJoined({ joined: asked }, lined ? "line" : "scatter");
      const signs = scatter || (lined && !joined);
      const style = styles.style("chart", {
        "chart-properties": {
          "chart:symbol-type": signs ? "named-symbol" : lined ? "none" : undefined,
          "chart:symbol-name": signs ? "circle" : undefined,
          "chart:interpolation": joined && smooth ? "cubic-spline" : undefined,
          ...label,
        },
        "graphic-properties": signs
          ? {
              ...(joined
                ? { "draw:stroke": "solid", "svg:stroke-width": "1.5pt", "svg:stroke-color": paint }
                : { "draw:stroke": "none" }),
              "draw:fill": "solid",
              "draw:fill-color": paint,
            }
          : lined
            ? { "draw:stroke": "solid", "svg:stroke-width": "2.25pt", "svg:stroke-color": paint }
            : { "draw:stroke": "none", "draw:fill": "solid", "draw:fill-color": paint },
        ...text,
      });
      const pointed = round || (single && ["chart:bar"].includes(kind));
      const pointFill = (at: number) => single?.[at] ?? (round ? palette[at % palette.length] : undefined);
      const points = pointed
        ? values.map((__, at) =>
            xml(
              "chart:data-point",
              pointFill(at)
                ? {
                    "chart:style-name": styles.style("chart", {
                      "graphic-properties": { "draw:fill": "solid", "draw:fill-color": pointFill(at) },
                    }),
                  }
                : {},
            ),
          )
        : [xml("chart:data-point", { "chart:repeated": Math.max(1, values.length) })];
      return xml(
        "chart:series",
        {
          "chart:class": kind,
          "chart:values-cell-range-address": range(columnOf(nth)),
          "chart:label-cell-address": `local-table.$${columnName(columnOf(nth))}$1`,
          "chart:style-name": style,
          "chart:attached-axis":
            hasSecond && axis === "secondary" ? "secondary-y" : hasSecond ? "primary-y" : undefined,
        },
        scatter ? xml("chart:domain", { "table:cell-range-address": range(columnOf(nth) - 1) }) : "",
        ...points,
      );
    },
  );

  const word = (value: string) =>
    xml("table:table-cell", { "office:value-type": "string" }, xml("text:p", {}, escapeXml(value)));
  const number = (value: number | null | undefined) =>
    value === null || value === undefined
      ? "<table:table-cell/>"
      : xml(
          "table:table-cell",
          { "office:value-type": "float", "office:value": value },
          xml("text:p", {}, String(value)),
        );
  const head = scatter
    ? series.flatMap(({ name }) => [word("x"), word(name)])
    : [word(""), ...series.map(({ name }) => word(name))];
  const body = Array.from({ length: rows }, (_, at) =>
    xml(
      "table:table-row",
      {},
      ...(scatter
        ? series.flatMap(({ values, x }) => [number(x?.[at] ?? at + 1), number(values[at])])
        : [word(categories[at] ?? ""), ...series.map(({ values }) => number(values[at]))]),
    ),
  );
  const table = xml(
    "table:table",
    { "table:name": "local-table" },
    xml("table:table-columns", {}, xml("table:table-column", { "table:number-columns-repeated": head.length })),
    xml("table:table-header-rows", {}, xml("table:table-row", {}, ...head)),
    xml("table:table-rows", {}, ...body),
  );
  const whole = xml(
    "chart:chart",
    {
      "chart:class": CLASS[type],
      "svg:width": length(width),
      "svg:height": length(height),
      "chart:style-name": styles.style("chart", {
        "graphic-properties": { "draw:stroke": "none", "draw:fill": "none" },
      }),
    },
    heading(title, 1.2),
    shown === "none"
      ? ""
      : xml("chart:legend", {
          "chart:legend-position": LEGEND[shown],
          "chart:style-name": styles.style("chart", text),
        }),
    xml(
      "chart:plot-area",
      { "chart:style-name": plot, "chart:data-source-has-labels": "both" },
      axis("x", xAxis),
      axis("y", yAxis),
      hasSecond
        ? axis(
            "y",
            secondaryAxis,
            "secondary",
            dataStyle(secondaryAxis?.format ?? (stack === "share" ? "0%" : undefined), styles),
          )
        : "",
      ...drawn,
    ),
    table,
  );
  return xml(
    "office:document-content",
    { ...CHART_NS, "office:version": VERSION },
    xml("office:automatic-styles", {}, styles.xml()),
    xml("office:body", {}, xml("office:chart", {}, whole)),
  );
}
