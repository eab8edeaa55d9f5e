import { parseAddress, type SheetAddress } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../../formats/shared/xml";
import type { SheetChart } from "../workbook";

/** The kinds of chart in a plot area (ECMA-376-1, 21.2.2), as charts on slides call them. */
const TYPES: Readonly<Record<string, string>> = {
  barChart: "column",
  bar3DChart: "column",
  lineChart: "line",
  line3DChart: "line",
  pieChart: "pie",
  pie3DChart: "pie",
  areaChart: "area",
  area3DChart: "area",
  doughnutChart: "doughnut",
  scatterChart: "scatter",
};

const addressIn = (element: XmlElement | undefined): SheetAddress | undefined => {
  const reference = child(
    child(element, "numRef") ?? child(element, "strRef") ?? child(element, "multiLvlStrRef"),
    "f",
  );
  return reference ? parseAddress(reference.text) : undefined;
};

function textIn(element: XmlElement | undefined): string {
  if (!element) return "";
  return localName(element) === "t" || localName(element) === "v"
    ? element.text
    : element.children.map(textIn).join("");
}

/** Reads a chart part; undefined when it draws no series of cells. */
export function readChart(space: XmlElement, sheet: string, nth: number): SheetChart | undefined {
  const chart = child(space, "chart");
  const plot = child(chart, "plotArea");
  const group = plot?.children.find((element) => localName(element) in TYPES);
  if (!group) return undefined;
  const kind = TYPES[localName(group)] ?? "column";
  const bars = at(group, "barDir")?.attributes.val === "bar";
  const series = (plot?.children ?? [])
    .filter((element) => localName(element) in TYPES)
    .flatMap((element) => childrenOf(element, "ser"));
  const read = series.flatMap((one) => {
    const values = addressIn(child(one, "val") ?? child(one, "yVal"));
    const nameAt = addressIn(child(one, "tx"));
    return values ? [{ name: textIn(at(one, "tx", "strRef", "strCache") ?? at(one, "tx", "v")), nameAt, values }] : [];
  });
  if (!read.length) return undefined;
  const [first] = series;
  return {
    name: textIn(at(chart, "title", "tx", "rich")) || `Chart ${nth}`,
    sheet,
    type: kind === "column" && bars ? "bar" : kind,
    categories: addressIn(child(first, "cat") ?? child(first, "xVal")),
    series: read,
  };
}
