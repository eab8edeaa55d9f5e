import { escapeXml, hasSecondAxis } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import type { Chart } from "./workbook";

export const val = (name: string, value: string | number) => xml(name, { val: value });
const words = (text: string) =>
  `<c:tx><c:rich><a:bodyPr/><a:lstStyle/><a:p><a:r><a:rPr lang="en"/><a:t>${escapeXml(text)}</a:t></a:r></a:p></c:rich></c:tx>`;
export const titleXml = (text: string | undefined) =>
  text ? xml("c:title", {}, words(text), val("c:overlay", 0)) : "";
export const AXES = { primary: ["111111111", "222222222"], secondary: ["333333333", "444444444"] } as const;

export function axesXml(chart: Chart): string {
  const { type, xAxis, yAxis, format } = chart;
  const [lower, upper] = AXES.primary;
  if (type === "pie" || type === "doughnut") return "";
  const lying = type === "bar";
  // Bars start at the bottom in the standard and at the top here.
  const turned = lying !== (xAxis?.reversed === true);
  const scaling = (axis: Chart["xAxis"], back = false) =>
    xml(
      "c:scaling",
      {},
      val("c:orientation", back ? "maxMin" : "minMax"),
      axis?.max === undefined ? "" : val("c:max", axis.max),
      axis?.min === undefined ? "" : val("c:min", axis.min),
    );
  const grid =
    '<c:majorGridlines><c:spPr><a:ln w="6350"><a:solidFill><a:srgbClr val="D0D3D1"/></a:solidFill></a:ln></c:spPr></c:majorGridlines>';
  const tail = (cross: string) =>
    val("c:majorTickMark", "none") +
    val("c:minorTickMark", "none") +
    val("c:tickLblPos", "nextTo") +
    val("c:crossAx", cross) +
    val("c:crosses", "autoZero");
  const number = xml("c:numFmt", {
    formatCode: chart.stack === "share" ? "0%" : (format ?? "General"),
    sourceLinked: chart.stack === "share" ? 0 : 1,
  });
  const first =
    type === "scatter"
      ? xml(
          "c:valAx",
          {},
          val("c:axId", lower),
          scaling(xAxis),
          val("c:delete", 0),
          val("c:axPos", "b"),
          titleXml(xAxis?.title),
          number,
          tail(upper),
          val("c:crossBetween", "midCat"),
        )
      : xml(
          "c:catAx",
          {},
          val("c:axId", lower),
          scaling(undefined, turned),
          val("c:delete", 0),
          val("c:axPos", lying ? "l" : "b"),
          titleXml(xAxis?.title),
          tail(upper),
          val("c:auto", 1),
          val("c:lblAlgn", "ctr"),
          val("c:lblOffset", 100),
          val("c:noMultiLvlLbl", 0),
        );
  const second = xml(
    "c:valAx",
    {},
    val("c:axId", upper),
    scaling(yAxis),
    val("c:delete", 0),
    val("c:axPos", lying ? "b" : "l"),
    grid,
    titleXml(yAxis?.title),
    number,
    turned ? tail(lower).replace('<c:crosses val="autoZero"/>', '<c:crosses val="max"/>') : tail(lower),
    val("c:crossBetween", "between"),
  );
  if (!hasSecondAxis(chart)) return first + second;
  // The secondary pair: its category axis is hidden, its value axis is on the right (21.2.2.43).
  const [below, beside] = AXES.secondary;
  const values = xml(
    "c:valAx",
    {},
    val("c:axId", beside),
    scaling(chart.secondaryAxis),
    val("c:delete", 0),
    val("c:axPos", "r"),
    titleXml(chart.secondaryAxis?.title),
    xml("c:numFmt", {
      formatCode: chart.stack === "share" ? "0%" : (chart.secondaryAxis?.format ?? "General"),
      sourceLinked: chart.stack === "share" ? 0 : 1,
    }),
    tail(below).replace('<c:crosses val="autoZero"/>', '<c:crosses val="max"/>'),
    val("c:crossBetween", "between"),
  );
  const categories = xml(
    "c:catAx",
    {},
    val("c:axId", below),
    scaling(undefined, xAxis?.reversed),
    val("c:delete", 1),
    val("c:axPos", "b"),
    tail(beside),
    val("c:auto", 1),
    val("c:lblAlgn", "ctr"),
    val("c:lblOffset", 100),
    val("c:noMultiLvlLbl", 0),
  );
  return first + second + values + categories;
}
