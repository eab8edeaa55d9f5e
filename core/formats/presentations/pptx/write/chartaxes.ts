import { escapeXml, hasSecondAxis } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import type { Chart } from "./workbook";

export const val = (name: string, value: string | number) => xml(name, { val: value });
const words = (text: string) =>
  `<c:tx><c:rich><a:bodyPr/><a:lstStyle/><a:p><a:r><a:rPr lang="en"/><a:t>${escapeXml(text)}</a:t></a:r></a:p></c:rich></c:tx>`;
export const titleXml = (text: string | undefined) =>
  text ? xml("c:title", {}, words(text), val("c:overlay", 0)) : "";
export const AXES = { primary: ["111111111", "222222222"], secondary: ["333333333", "444444444"] } as const;

const GRID =
  '<c:majorGridlines><c:spPr><a:ln w="6350"><a:solidFill><a:srgbClr val="D0D3D1"/></a:solidFill></a:ln></c:spPr></c:majorGridlines>';

function scaling(axis: Chart["xAxis"], isReversed = false): string {
  return xml(
    "c:scaling",
    {},
    val("c:orientation", isReversed ? "maxMin" : "minMax"),
    axis?.max === undefined ? "" : val("c:max", axis.max),
    axis?.min === undefined ? "" : val("c:min", axis.min),
  );
}

/** Writes ticks and where another axis crosses this one: at zero, or at its end. */
const crossing = (other: string, where: "autoZero" | "max" = "autoZero") =>
  val("c:majorTickMark", "none") +
  val("c:minorTickMark", "none") +
  val("c:tickLblPos", "nextTo") +
  val("c:crossAx", other) +
  val("c:crosses", where);

const numberFormat = ({ stack }: Chart, format: string | undefined) =>
  xml("c:numFmt", {
    formatCode: stack === "share" ? "0%" : (format ?? "General"),
    sourceLinked: stack === "share" ? 0 : 1,
  });

interface ValueAxis {
  id: string;
  side: "b" | "l" | "r";
  options: Chart["xAxis"];
  format: string | undefined;
  crosses: string;
  between: "between" | "midCat";
  hasGrid?: boolean;
  fromRight?: boolean;
}

const valueAxis = (chart: Chart, { id, side, options, format, crosses, between, hasGrid, fromRight }: ValueAxis) =>
  xml(
    "c:valAx",
    {},
    val("c:axId", id),
    scaling(options, fromRight),
    val("c:delete", 0),
    val("c:axPos", side),
    hasGrid ? GRID : "",
    titleXml(options?.title),
    numberFormat(chart, format),
    crosses,
    val("c:crossBetween", between),
  );

interface CategoryAxis {
  id: string;
  side: "b" | "l" | "r";
  title?: string | undefined;
  isReversed: boolean;
  isHidden: boolean;
  crosses: string;
}

const categoryAxis = ({ id, side, title, isReversed, isHidden, crosses }: CategoryAxis) =>
  xml(
    "c:catAx",
    {},
    val("c:axId", id),
    scaling(undefined, isReversed),
    val("c:delete", isHidden ? 1 : 0),
    val("c:axPos", side),
    titleXml(title),
    crosses,
    val("c:auto", 1),
    val("c:lblAlgn", "ctr"),
    val("c:lblOffset", 100),
    val("c:noMultiLvlLbl", 0),
  );

/**
 * Writes the axes of a chart: none for pies, else a pair, and a second pair for a secondary axis. Where the horizontal
 * axis runs from the right, the vertical ones change sides.
 */
export function axesXml(chart: Chart, fromRight: boolean): string {
  const { type, xAxis, yAxis, secondaryAxis, format } = chart;
  if (type === "pie" || type === "doughnut") return "";
  const [x, y] = AXES.primary;
  const isBar = type === "bar";
  const isReversed = xAxis?.reversed === true;
  // Bars start at the bottom in the standard and at the top here.
  const isTurned = isBar !== isReversed;
  const [near, far] = fromRight ? (["r", "l"] as const) : (["l", "r"] as const);
  const first =
    type === "scatter"
      ? valueAxis(chart, {
          id: x,
          side: "b",
          options: xAxis,
          format,
          crosses: crossing(y),
          between: "midCat",
          fromRight,
        })
      : categoryAxis({
          id: x,
          side: isBar ? near : "b",
          title: xAxis?.title,
          isReversed: isTurned !== (fromRight && !isBar),
          isHidden: false,
          crosses: crossing(y),
        });
  const second = valueAxis(chart, {
    id: y,
    side: isBar ? "b" : near,
    fromRight: fromRight && isBar,
    options: yAxis,
    format,
    crosses: crossing(x, isTurned ? "max" : "autoZero"),
    between: "between",
    hasGrid: true,
  });
  if (!hasSecondAxis(chart)) return first + second;
  // The secondary pair: its category axis is hidden, its value axis is on the right (21.2.2.43).
  const [below, beside] = AXES.secondary;
  const values = valueAxis(chart, {
    id: beside,
    side: far,
    options: secondaryAxis,
    format: secondaryAxis?.format,
    crosses: crossing(below, "max"),
    between: "between",
  });
  const hidden = categoryAxis({
    id: below,
    side: "b",
    isReversed: isReversed !== fromRight,
    isHidden: true,
    crosses: crossing(beside),
  });
  return first + second + values + hidden;
}
