import type { SheetAddress } from "@unitext/core/model";
import { attribute, at, child, childrenOf, type XmlNode } from "../../formats/shared/xml";
import type { SheetChart } from "../workbook";

/** An object in a frame on a sheet: the folder of its parts, and the name of its frame. */
export interface SheetObject {
  sheet: string;
  name: string;
  folder: string;
}

/** The classes of chart (OpenDocument 1.3, part 3, 19.15), as charts on slides call them. */
const TYPES: Readonly<Record<string, string>> = {
  "chart:bar": "column",
  "chart:line": "line",
  "chart:area": "area",
  "chart:circle": "pie",
  "chart:ring": "doughnut",
  "chart:scatter": "scatter",
};

const wordsOf = (node: XmlNode | undefined): string =>
  node ? node.content.map((part) => (typeof part === "string" ? part : wordsOf(part))).join("") : "";

/** Whether a chart style has bars that lie (`chart:vertical`, part 3, 20.74). */
const isVertical = (automatic: XmlNode | undefined, style: string | undefined) =>
  childrenOf(automatic, "style").some(
    (one) => attribute(one, "name") === style && attribute(child(one, "chart-properties"), "vertical") === "true",
  );

/**
 * Reads the chart of an object on a sheet; undefined when it draws no series of cells. `parse` reads an address as
 * OpenDocument writes it.
 */
export function readOdfChart(
  root: XmlNode | undefined,
  { sheet, name }: SheetObject,
  nth: number,
  parse: (text: string) => SheetAddress | undefined,
): SheetChart | undefined {
  const chart = at(root, "body", "chart", "chart");
  const plot = child(chart, "plot-area");
  const type = TYPES[attribute(chart, "class") ?? ""];
  if (!chart || !plot || !type) return undefined;
  // Several ranges with spaces between are parts of one; the first of them is taken.
  const addressOf = (node: XmlNode | undefined, key: string) =>
    parse((attribute(node, key) ?? "").split(/ (?=[$'])/)[0] ?? "");
  const series = childrenOf(plot, "series").flatMap((one) => {
    const values = addressOf(one, "values-cell-range-address");
    return values ? [{ name: "", nameAt: addressOf(one, "label-cell-address"), values }] : [];
  });
  if (!series.length) return undefined;
  const axes = childrenOf(plot, "axis");
  const named = axes.map((axis) => child(axis, "categories")).find((one) => one !== undefined);
  const domain = childrenOf(plot, "series").flatMap((one) => childrenOf(one, "domain"))[0];
  const automatic = child(root, "automatic-styles");
  const lying = isVertical(automatic, attribute(plot, "style-name"));
  return {
    name: wordsOf(child(chart, "title")).trim() || name || `Chart ${nth}`,
    sheet,
    type: type === "column" && lying ? "bar" : type,
    categories: addressOf(named, "cell-range-address") ?? addressOf(domain, "cell-range-address"),
    series,
  };
}
