import { mirroredSide } from "../../shared/chartdirection";
import {
  type ChartElement,
  escapeXml,
  type Frame,
  hasSecondAxis,
  isJoined,
  must,
  columnName,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
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

/** The parts of a chart document that are written with the same styles. */
class ChartWriter {
  readonly styles = new StyleSheet("c");
  private readonly isRound: boolean;
  private readonly isScatter: boolean;
  private readonly hasSecondary: boolean;
  private readonly rows: number;
  private readonly text: { "text-properties": { "fo:font-size": string } };

  constructor(
    private readonly chart: ChartElement,
    private readonly palette: readonly string[],
    private readonly size: number,
    private readonly fromRight: boolean,
  ) {
    const { type, categories, series } = chart;
    this.isRound = type === "pie" || type === "doughnut";
    this.isScatter = type === "scatter";
    this.hasSecondary = hasSecondAxis(chart);
    this.rows = Math.max(categories.length, ...series.map(({ values }) => values.length));
    this.text = { "text-properties": { "fo:font-size": length(size) } };
  }

  xml(width: number, height: number): string {
    const { type, title, legend, series } = this.chart;
    const side = legend ?? (series.length === 1 && !this.isRound ? "none" : "top");
    const background = { "graphic-properties": { "draw:stroke": "none", "draw:fill": "none" } };
    return xml(
      "chart:chart",
      {
        "chart:class": CLASS[type],
        "svg:width": length(width),
        "svg:height": length(height),
        "chart:style-name": this.styles.style("chart", background),
      },
      this.heading(title, 1.2),
      side === "none"
        ? ""
        : xml("chart:legend", {
            "chart:legend-position": LEGEND[this.fromRight ? mirroredSide(side) : side],
            "chart:style-name": this.styles.style("chart", this.text),
          }),
      this.plotArea(),
      this.table(),
    );
  }

  private heading(words: string | undefined, larger = 1): string {
    if (!words) return "";
    const style = { "text-properties": { "fo:font-size": length(this.size * larger) } };
    return xml(
      "chart:title",
      { "chart:style-name": this.styles.style("chart", style) },
      xml("text:p", {}, escapeXml(words)),
    );
  }

  private plotArea(): string {
    const { type, series, stack, format, xAxis, yAxis, secondaryAxis } = this.chart;
    const style = this.styles.style("chart", {
      "chart-properties": {
        "chart:vertical": type === "bar" ? "true" : undefined,
        "chart:stacked": stack === "sum" ? "true" : undefined,
        "chart:percentage": stack === "share" ? "true" : undefined,
        "chart:symbol-type": this.isScatter ? "automatic" : undefined,
        "chart:treat-empty-cells": "leave-gap",
        "chart:interpolation": series.length > 0 && series.every(({ smooth }) => smooth) ? "cubic-spline" : undefined,
        "chart:auto-position": "true",
      },
    });
    const numbers = (given: string | undefined) =>
      dataStyle(given ?? (stack === "share" ? "0%" : undefined), this.styles);
    return xml(
      "chart:plot-area",
      { "chart:style-name": style, "chart:data-source-has-labels": "both" },
      this.axis("x", xAxis, "primary", undefined),
      this.axis("y", yAxis, "primary", numbers(format)),
      this.hasSecondary ? this.axis("y", secondaryAxis, "secondary", numbers(secondaryAxis?.format)) : "",
      ...series.map((one, nth) => this.series(one, nth)),
    );
  }

  private axis(
    dimension: "x" | "y",
    given: ChartElement["xAxis"],
    which: "primary" | "secondary",
    numbers: string | undefined,
  ): string {
    const isBar = this.chart.type === "bar";
    const isHorizontal = (dimension === "y") === isBar;
    const turned = dimension === "x" && isBar !== (given?.reversed === true);
    const reversed = turned !== (isHorizontal && this.fromRight);
    const style = this.styles.style(
      "chart",
      {
        "chart-properties": {
          "chart:display-label": "true",
          "chart:minimum": given?.min,
          "chart:maximum": given?.max,
          "chart:reverse-direction": reversed ? "true" : undefined,
          "chart:link-data-style-to-source": "false",
        },
        "graphic-properties": { "svg:stroke-color": "#8a918e" },
        ...this.text,
      },
      {},
      numbers ? { "style:data-style-name": numbers } : {},
    );
    const grid = { "graphic-properties": { "svg:stroke-color": "#d0d3d1" } };
    return xml(
      "chart:axis",
      { "chart:dimension": dimension, "chart:name": `${which}-${dimension}`, "chart:style-name": style },
      this.heading(given?.title),
      dimension === "x" && !this.isScatter
        ? xml("chart:categories", { "table:cell-range-address": this.range(0) })
        : "",
      dimension === "y" && which === "primary"
        ? xml("chart:grid", { "chart:class": "major", "chart:style-name": this.styles.style("chart", grid) })
        : "",
    );
  }

  /** Returns the column of the data table with the values of a series. */
  private columnOf(nth: number): number {
    return this.isScatter ? nth * 2 + 1 : nth + 1;
  }

  private range(column: number): string {
    return `local-table.$${columnName(column)}$2:.$${columnName(column)}$${this.rows + 1}`;
  }

  private series(one: ChartElement["series"][number], nth: number): string {
    const column = this.columnOf(nth);
    const kind = this.chart.type === "combined" ? CLASS[one.type ?? "column"] : CLASS[this.chart.type];
    const colour = one.colour ?? must(this.palette[nth % this.palette.length]);
    const attached = one.axis === "secondary" ? "secondary-y" : "primary-y";
    return xml(
      "chart:series",
      {
        "chart:class": kind,
        "chart:values-cell-range-address": this.range(column),
        "chart:label-cell-address": `local-table.$${columnName(column)}$1`,
        "chart:style-name": this.seriesStyle(one, kind, colour),
        "chart:attached-axis": this.hasSecondary ? attached : undefined,
      },
      this.isScatter ? xml("chart:domain", { "table:cell-range-address": this.range(column - 1) }) : "",
      ...this.points(one, kind),
    );
  }

  private seriesStyle(one: ChartElement["series"][number], kind: string, colour: string): string {
    const isLine = kind === "chart:line";
    const joined = (isLine || this.isScatter) && isJoined(one, isLine ? "line" : "scatter");
    const hasSymbols = this.isScatter || (isLine && !joined);
    const stroke = (width: string) => ({
      "draw:stroke": "solid",
      "svg:stroke-width": width,
      "svg:stroke-color": colour,
    });
    const fill = { "draw:fill": "solid", "draw:fill-color": colour };
    const none = { "draw:stroke": "none" };
    return this.styles.style("chart", {
      "chart-properties": {
        "chart:symbol-type": hasSymbols ? "named-symbol" : isLine ? "none" : undefined,
        "chart:symbol-name": hasSymbols ? "circle" : undefined,
        "chart:interpolation": joined && one.smooth ? "cubic-spline" : undefined,
        ...LABELS[this.chart.labels ?? "none"],
      },
      "graphic-properties": hasSymbols
        ? { ...(joined ? stroke("1.5pt") : none), ...fill }
        : isLine
          ? stroke("2.25pt")
          : { ...none, ...fill },
      ...this.text,
    });
  }

  private points({ values, points }: ChartElement["series"][number], kind: string): string[] {
    if (!this.isRound && !(points && kind === "chart:bar"))
      return [xml("chart:data-point", { "chart:repeated": Math.max(1, values.length) })];
    return values.map((_, nth) => {
      const fill = points?.[nth] ?? (this.isRound ? this.palette[nth % this.palette.length] : undefined);
      const style = { "graphic-properties": { "draw:fill": "solid", "draw:fill-color": fill } };
      return xml("chart:data-point", fill ? { "chart:style-name": this.styles.style("chart", style) } : {});
    });
  }

  /** Returns the table with the data of the chart; a scatter chart has two columns for each series. */
  private table(): string {
    const { categories, series } = this.chart;
    const head = this.isScatter
      ? series.flatMap(({ name }) => [textCell("x"), textCell(name)])
      : [textCell(""), ...series.map(({ name }) => textCell(name))];
    const row = (nth: number) =>
      this.isScatter
        ? series.flatMap(({ values, x }) => [numberCell(x?.[nth] ?? nth + 1), numberCell(values[nth])])
        : [textCell(categories[nth] ?? ""), ...series.map(({ values }) => numberCell(values[nth]))];
    return xml(
      "table:table",
      { "table:name": "local-table" },
      xml("table:table-columns", {}, xml("table:table-column", { "table:number-columns-repeated": head.length })),
      xml("table:table-header-rows", {}, xml("table:table-row", {}, ...head)),
      xml(
        "table:table-rows",
        {},
        ...Array.from({ length: this.rows }, (_, nth) => xml("table:table-row", {}, ...row(nth))),
      ),
    );
  }
}

const LABELS = {
  none: {},
  value: { "chart:data-label-number": "value" },
  share: { "chart:data-label-number": "percentage" },
  category: { "chart:data-label-text": "true" },
};

const textCell = (value: string) =>
  xml("table:table-cell", { "office:value-type": "string" }, xml("text:p", {}, escapeXml(value)));

const numberCell = (value: number | null | undefined) =>
  value === null || value === undefined
    ? "<table:table-cell/>"
    : xml(
        "table:table-cell",
        { "office:value-type": "float", "office:value": value },
        xml("text:p", {}, String(value)),
      );

/**
 * Writes a chart as a document of its own (OpenDocument 1.3, 11), with its data in a table inside. `size` is that of its
 * text in points.
 */
export function chartContent(
  chart: ChartElement,
  { width, height }: Pick<Frame, "width" | "height">,
  palette: readonly string[],
  size: number,
  { fromRight }: { fromRight: boolean },
): string {
  const writer = new ChartWriter(chart, palette, size, fromRight);
  const whole = writer.xml(width, height);
  return xml(
    "office:document-content",
    { ...CHART_NS, "office:version": VERSION },
    xml("office:automatic-styles", {}, writer.styles.xml()),
    xml("office:body", {}, xml("office:chart", {}, whole)),
  );
}
