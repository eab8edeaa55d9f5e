import { must } from "@unitext/core/model";
import { at, child, type XmlNode, attribute } from "../../../shared/xml";

/** Names of elements of a chart document that are not drawn (OpenDocument 1.3, part 3, 11). */
const NAMED: Record<string, string> = {
  "regression-curve": "the trend lines",
  "error-indicator": "the bars of error",
  "mean-value": "the lines of its means",
  "data-label": "the labels of single points",
  "symbol-image": "the signs of its points",
  equation: "the trend lines",
};

/** Properties of its styles (part 3, 20.3 to 20.69) that are not drawn, with the values that have no effect. */
const PROPERTIES: Record<string, { words: string; usual: string[] }> = {
  logarithmic: { words: "the logarithmic scale", usual: ["false"] },
  "pie-offset": { words: "the exploded slices", usual: ["0"] },
  "interval-major": { words: "the steps of an axis", usual: [] },
  "error-category": { words: "the bars of error", usual: ["none"] },
  "mean-value": { words: "the lines of its means", usual: ["false"] },
};

/** Names the features of a chart document that are not drawn, each once, for the report. */
export function unsupportedChartFeatures(content: XmlNode): string[] {
  const found = new Set<string>();
  const look = (element: XmlNode): void => {
    if (element.local === "table") return;
    if (NAMED[element.local]) found.add(must(NAMED[element.local]));
    if (element.local === "grid" && attribute(element, "class") === "minor") found.add("the fine grid");
    for (const inner of element.children) look(inner);
  };
  const chart = at(content, "body", "chart", "chart");
  if (chart) look(chart);
  const styles = child(content, "automatic-styles")?.children ?? [];
  const values = (child(chart, "plot-area")?.children ?? [])
    .filter((axis) => axis.local === "axis" && attribute(axis, "dimension") === "y")
    .map((axis) => attribute(axis, "style-name"));
  for (const style of styles) {
    const properties = child(style, "chart-properties");
    if (attribute(properties, "reverse-direction") === "true" && values.includes(attribute(style, "name")))
      found.add("the direction of its values");
    for (const [name, { words, usual }] of Object.entries(PROPERTIES)) {
      const value = attribute(properties, name);
      if (value !== undefined && !usual.includes(value)) found.add(words);
    }
  }
  return [...found];
}
