import { mirroredSide } from "../../shared/chartdirection";
import { type Series, escapeXml, hasSecondAxis, isJoined, must, columnName } from "@unitext/core/model";
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

const solid = (colour: string) => xml("a:solidFill", {}, colourXml(colour));
const isRound = ({ type }: Plot) => type === "pie" || type === "doughnut";
const isColumns = ({ type }: Plot) => type === "column" || type === "bar";

/** Writes line, fill and markers of a series. */
function seriesPaint(plot: Plot, joined: boolean, colour: string): string {
  if (isRound(plot)) return "";
  if (plot.type === "scatter" || (plot.type === "line" && !joined)) {
    const line = xml("a:ln", { w: 19050 }, joined ? solid(colour) : "<a:noFill/>");
    const marker = val("c:symbol", "circle") + val("c:size", 7) + xml("c:spPr", {}, solid(colour));
    return xml("c:spPr", {}, line) + xml("c:marker", {}, marker);
  }
  return xml("c:spPr", {}, plot.type === "line" ? xml("a:ln", { w: 28575 }, solid(colour)) : solid(colour));
}

/** Writes the colours of single slices or columns. */
function pointsXml(series: Series, plot: Plot, count: number, palette: readonly string[]): string {
  if (!isRound(plot) && !(isColumns(plot) && series.points)) return "";
  const point = (nth: number) => {
    const fill = series.points?.[nth] ?? (isRound(plot) ? palette[nth % palette.length] : undefined);
    if (fill === undefined) return "";
    const inverts = isColumns(plot) ? val("c:invertIfNegative", 0) : "";
    return xml("c:dPt", {}, val("c:idx", nth), inverts, val("c:bubble3D", 0), xml("c:spPr", {}, solid(fill)));
  };
  return Array.from({ length: count }, (_, nth) => point(nth)).join("");
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
  const joined = plot.type === "line" || plot.type === "scatter" ? isJoined(series, plot.type) : false;
  const values = Array.from({ length: count }, (_, at) => series.values[at] ?? null);
  const across = values.map((_, at) => series.x?.[at] ?? at + 1);
  const format = plot.by === "secondary" ? chart.secondaryAxis?.format : chart.format;
  const isPoints = plot.type === "scatter";
  return xml(
    "c:ser",
    {},
    val("c:idx", nth),
    val("c:order", nth),
    xml("c:tx", {}, reference("str", `Sheet1!$${columnName(column)}$1`, [series.name], undefined)),
    seriesPaint(plot, joined, colour),
    isColumns(plot) ? val("c:invertIfNegative", 0) : "",
    pointsXml(series, plot, count, palette),
    isPoints
      ? xml("c:xVal", {}, reference("num", range(column - 1, count), across, undefined))
      : xml("c:cat", {}, reference("str", range(0, count), chart.categories, undefined)),
    xml(isPoints ? "c:yVal" : "c:val", {}, reference("num", range(column, count), values, format)),
    plot.type === "line" || isPoints ? val("c:smooth", series.smooth && joined ? 1 : 0) : "",
  );
}

function labelsXml({ labels }: Chart): string {
  return xml(
    "c:dLbls",
    {},
    val("c:showLegendKey", 0),
    val("c:showVal", labels === "value" ? 1 : 0),
    val("c:showCatName", labels === "category" ? 1 : 0),
    val("c:showSerName", 0),
    val("c:showPercent", labels === "share" ? 1 : 0),
    val("c:showBubbleSize", 0),
  );
}

function plotXml(plot: Plot, chart: Chart, palette: readonly string[]): string {
  const stacking = chart.stack === "share" ? "percentStacked" : chart.stack === "sum" ? "stacked" : undefined;
  const grouping = (usual: string) => val("c:grouping", stacking ?? usual);
  const content = plot.series.map((one) => seriesXml(one, plot, chart, palette)).join("") + labelsXml(chart);
  const axes = AXES[plot.by].map((id) => val("c:axId", id)).join("");
  const plain = val("c:varyColors", 0) + content;
  const round = val("c:varyColors", 1) + content + val("c:firstSliceAng", 0);
  switch (plot.type) {
    case "column":
    case "bar": {
      const direction = val("c:barDir", plot.type === "bar" ? "bar" : "col");
      const gaps = val("c:gapWidth", 60) + (stacking ? val("c:overlap", 100) : "");
      return xml("c:barChart", {}, direction, grouping("clustered"), plain, gaps, axes);
    }
    case "line":
      return xml("c:lineChart", {}, grouping("standard"), plain, val("c:marker", 1), axes);
    case "area":
      return xml("c:areaChart", {}, grouping("standard"), plain, axes);
    case "pie":
      return xml("c:pieChart", {}, round);
    case "doughnut":
      return xml("c:doughnutChart", {}, round, val("c:holeSize", 55));
    case "scatter":
      return xml("c:scatterChart", {}, val("c:scatterStyle", "lineMarker"), plain, axes);
  }
}

const LEGEND_SIDES = { top: "t", right: "r", bottom: "b", left: "l", none: "r" } as const;

/**
 * Writes a chart part (`c:chartSpace`, ECMA-376-1, 21.2): its values with their cells in the workbook under the given
 * relationship. `fromRight` is whether its horizontal axis runs from right to left.
 */
export function chartPart(
  chart: Chart,
  palette: readonly string[],
  workbookId: string,
  { fromRight }: { fromRight: boolean },
): string {
  const side = chart.legend ?? "top";
  const legend =
    chart.legend === "none" ||
    (chart.legend === undefined && chart.series.length === 1 && chart.type !== "pie" && chart.type !== "doughnut")
      ? ""
      : xml(
          "c:legend",
          {},
          val("c:legendPos", LEGEND_SIDES[fromRight ? mirroredSide(side) : side]),
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
          axesXml(chart, fromRight),
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
