import { columnName } from "../../shared/cells";
import { escapeXml, hasSecondAxis, isJoined, type Series, must } from "@unitext/core/model";
import { xml, XML_HEAD } from "../../../shared/xml";
import { NS } from "../package/names";
import { colourXml } from "./drawing";
import { type Chart, isScatter } from "./workbook";
import { AXES, axesXml, titleXml, val } from "./chartaxes";

const C = "http://schemas.openxmlformats.org/drawingml/2006/chart";

function reference(
  kind: "num" | "str",
  formula: string,
  values: readonly (string | number | null)[],
  format: string | undefined,
): string {
  const points = values.map((value, idx) =>
    value === null ? "" : xml("c:pt", { idx }, `<c:v>${escapeXml(String(value))}</c:v>`),
  );
  return xml(
    `c:${kind}Ref`,
    {},
    `<c:f>${escapeXml(formula)}</c:f>`,
    xml(
      `c:${kind}Cache`,
      {},
      kind === "num" ? `<c:formatCode>${escapeXml(format ?? "General")}</c:formatCode>` : "",
      val("c:ptCount", values.length),
      ...points,
    ),
  );
}

/** A plot of a chart: one element for all series of a type on one value axis (CT_PlotArea). */
interface Plot {
  by: "primary" | "secondary";
  type: "bar" | "column" | "line" | "area" | "pie" | "doughnut" | "scatter";
  series: { series: Series; nth: number }[];
}

function plotsOf({ type, series }: Chart): Plot[] {
  const all = series.map((one, nth) => ({ series: one, nth }));
  const sides = hasSecondAxis({ type, series }) ? (["primary", "secondary"] as const) : (["primary"] as const);
  const forms = type === "combined" ? (["area", "column", "line"] as const) : ([type] as const);
  return sides
    .flatMap((by) =>
      forms.map((own) => ({
        type: own,
        by,
        series: all.filter(
          (one) =>
            (type !== "combined" || (one.series.type ?? "column") === own) &&
            (sides.length === 1 || (one.series.axis ?? "primary") === by),
        ),
      })),
    )
    .filter((plot) => plot.series.length);
}

function seriesXml(
  { series, nth }: Plot["series"][number],
  plot: Plot,
  chart: Chart,
  palette: readonly string[],
): string {
  const count = Math.max(series.values.length, chart.categories.length);
  const column = isScatter(chart) ? nth * 2 + 1 : nth + 1;
  const range = (at: number, length: number) =>
    `Sheet1!$${columnName(at)}$2:$${columnName(at)}$${Math.max(2, length + 1)}`;
  const colour = series.colour ?? must(palette[nth % palette.length]);
  const lined = plot.type === "line";
  const round = plot.type === "pie" || plot.type === "doughnut";
  const joined = plot.type === "line" || plot.type === "scatter" ? isJoined(series, plot.type) : false;
  const signs = plot.type === "scatter" || (lined && !joined);
  const paint = round
    ? ""
    : signs
      ? `${xml("c:spPr", {}, xml("a:ln", { w: 19050 }, joined ? xml("a:solidFill", {}, colourXml(colour)) : "<a:noFill/>"))}<c:marker>${val("c:symbol", "circle")}${val("c:size", 7)}${xml("c:spPr", {}, xml("a:solidFill", {}, colourXml(colour)))}</c:marker>`
      : xml(
          "c:spPr",
          {},
          lined
            ? xml("a:ln", { w: 28575 }, xml("a:solidFill", {}, colourXml(colour)))
            : xml("a:solidFill", {}, colourXml(colour)),
        );
  const standing = ["column", "bar"].includes(plot.type);
  const points = Array.from({ length: round || (standing && series.points) ? count : 0 }, (_, idx) => {
    const fill = series.points?.[idx] ?? (round ? palette[idx % palette.length] : undefined);
    return fill === undefined
      ? ""
      : xml(
          "c:dPt",
          {},
          val("c:idx", idx),
          standing ? val("c:invertIfNegative", 0) : "",
          val("c:bubble3D", 0),
          xml("c:spPr", {}, xml("a:solidFill", {}, colourXml(fill))),
        );
  }).join("");
  const bits = standing ? val("c:invertIfNegative", 0) : "";
  const values = Array.from({ length: count }, (_, at) => series.values[at] ?? null);
  return xml(
    "c:ser",
    {},
    val("c:idx", nth),
    val("c:order", nth),
    xml("c:tx", {}, reference("str", `Sheet1!$${columnName(column)}$1`, [series.name], undefined)),
    paint,
    bits,
    points,
    plot.type === "scatter"
      ? xml(
          "c:xVal",
          {},
          reference(
            "num",
            range(column - 1, count),
            values.map((_, at) => series.x?.[at] ?? at + 1),
            undefined,
          ),
        )
      : xml("c:cat", {}, reference("str", range(0, count), chart.categories, undefined)),
    xml(
      plot.type === "scatter" ? "c:yVal" : "c:val",
      {},
      reference(
        "num",
        range(column, count),
        values,
        plot.by === "secondary" ? chart.secondaryAxis?.format : chart.format,
      ),
    ),
    ["line", "scatter"].includes(plot.type) ? val("c:smooth", series.smooth && joined ? 1 : 0) : "",
  );
}

function plotXml(plot: Plot, chart: Chart, palette: readonly string[]): string {
  const grouping = chart.stack === "share" ? "percentStacked" : chart.stack === "sum" ? "stacked" : undefined;
  const series = plot.series.map((one) => seriesXml(one, plot, chart, palette));
  const labels = xml(
    "c:dLbls",
    {},
    val("c:showLegendKey", 0),
    val("c:showVal", chart.labels === "value" ? 1 : 0),
    val("c:showCatName", chart.labels === "category" ? 1 : 0),
    val("c:showSerName", 0),
    val("c:showPercent", chart.labels === "share" ? 1 : 0),
    val("c:showBubbleSize", 0),
  );
  const axes = AXES[plot.by].map((id) => val("c:axId", id)).join("");
  switch (plot.type) {
    case "column":
    case "bar":
      return xml(
        "c:barChart",
        {},
        val("c:barDir", plot.type === "bar" ? "bar" : "col"),
        val("c:grouping", grouping ?? "clustered"),
        val("c:varyColors", 0),
        ...series,
        labels,
        val("c:gapWidth", 60),
        grouping ? val("c:overlap", 100) : "",
        axes,
      );
    case "line":
      return xml(
        "c:lineChart",
        {},
        val("c:grouping", grouping ?? "standard"),
        val("c:varyColors", 0),
        ...series,
        labels,
        val("c:marker", 1),
        axes,
      );
    case "area":
      return xml(
        "c:areaChart",
        {},
        val("c:grouping", grouping ?? "standard"),
        val("c:varyColors", 0),
        ...series,
        labels,
        axes,
      );
    case "pie":
      return xml("c:pieChart", {}, val("c:varyColors", 1), ...series, labels, val("c:firstSliceAng", 0));
    case "doughnut":
      return xml(
        "c:doughnutChart",
        {},
        val("c:varyColors", 1),
        ...series,
        labels,
        val("c:firstSliceAng", 0),
        val("c:holeSize", 55),
      );
    case "scatter":
      return xml(
        "c:scatterChart",
        {},
        val("c:scatterStyle", "lineMarker"),
        val("c:varyColors", 0),
        ...series,
        labels,
        axes,
      );
  }
}

/**
 * Writes a chart part (`c:chartSpace`, ECMA-376-1, 21.2): its values with their cells in the workbook under the given
 * relationship.
 */
export function chartPart(chart: Chart, palette: readonly string[], workbookId: string): string {
  const legend =
    chart.legend === "none" ||
    (chart.legend === undefined && chart.series.length === 1 && chart.type !== "pie" && chart.type !== "doughnut")
      ? ""
      : xml(
          "c:legend",
          {},
          val("c:legendPos", { top: "t", right: "r", bottom: "b", left: "l", none: "r" }[chart.legend ?? "top"]),
          val("c:overlay", 0),
        );
  return (
    XML_HEAD +
    xml(
      "c:chartSpace",
      { "xmlns:c": C, "xmlns:a": NS.a, "xmlns:r": NS.r },
      val("c:date1904", 0),
      val("c:roundedCorners", 0),
      xml(
        "c:chart",
        {},
        titleXml(chart.title),
        val("c:autoTitleDeleted", chart.title ? 0 : 1),
        xml(
          "c:plotArea",
          {},
          "<c:layout/>",
          ...plotsOf(chart).map((plot) => plotXml(plot, chart, palette)),
          axesXml(chart),
        ),
        legend,
        val("c:plotVisOnly", 1),
        val("c:dispBlanksAs", "gap"),
      ),
      '<c:txPr><a:bodyPr/><a:lstStyle/><a:p><a:pPr><a:defRPr sz="1200"/></a:pPr><a:endParaRPr lang="en"/></a:p></c:txPr>',
      xml("c:externalData", { "r:id": workbookId }, val("c:autoUpdate", 0)),
    )
  );
}
