import type { ChartElement } from "@unitext/core/model";
import { writeSheet } from "../../../shared/workbook";

export type Chart = Pick<
  ChartElement,
  | "type"
  | "categories"
  | "series"
  | "stack"
  | "title"
  | "legend"
  | "labels"
  | "format"
  | "xAxis"
  | "yAxis"
  | "secondaryAxis"
>;
export const isScatter = ({ type }: Chart) => type === "scatter";

/** Returns the columns of the sheet: categories first, or an x column before each series of a scatter chart. */
function columnsOf(chart: Chart): { name: string; values: readonly (string | number | null)[] }[] {
  if (!isScatter(chart))
    return [{ name: "", values: chart.categories }, ...chart.series.map(({ name, values }) => ({ name, values }))];
  return chart.series.flatMap(({ name, values, x }) => [
    { name: "x", values: values.map((_, at) => x?.[at] ?? at + 1) },
    { name, values },
  ]);
}

/** Writes the workbook of a chart: one sheet with its categories and series. */
export function workbook(chart: Chart): Uint8Array {
  const columns = columnsOf(chart);
  const rows = Math.max(0, ...columns.map(({ values }) => values.length));
  return writeSheet(
    Array.from({ length: rows + 1 }, (_, at) => columns.map(({ name, values }) => (at ? values[at - 1] : name))),
  );
}
