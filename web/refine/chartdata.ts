import { type ChartElement, type Series, must } from "@unitext/core/model";
import type { GridCell } from "./Grid";

/** Reads a typed number, with a point or a comma; null for anything else. */
export function numberOf(text: string): number | null {
  const bare = text.trim().replace(/\s/g, "");
  const value = Number(/^-?\d+,\d+$/.test(bare) ? bare.replace(",", ".") : bare);
  return bare === "" || !Number.isFinite(value) ? null : value;
}

const say = (value: number | null | undefined) => (value === null || value === undefined ? "" : String(value));
const rowsOf = ({ categories, series }: ChartElement) =>
  Math.max(categories.length, ...series.map(({ values }) => values.length));

/**
 * Returns a chart's data as cells: a row of names, then a row for each category, or for each point of a scatter chart.
 */
export function chartCells(chart: ChartElement): GridCell[][] {
  const { categories, series, type } = chart;
  return [
    [{ text: "", head: true }, ...series.map(({ name }) => ({ text: name, head: true }))],
    ...Array.from({ length: rowsOf(chart) }, (_, at) => [
      {
        text: type === "scatter" ? say(series[0]?.x?.[at] ?? at + 1) : (categories[at] ?? ""),
        head: type !== "scatter",
        number: type === "scatter",
      },
      ...series.map(({ values }) => ({ text: say(values[at]), number: true })),
    ]),
  ];
}

const filled = <T>(list: readonly T[], length: number, value: T): T[] =>
  Array.from({ length }, (_, at) => (at < list.length ? (list[at] as T) : value));

/** Returns a chart with other cell contents; missing rows and series are added. */
export function withCells(
  chart: ChartElement,
  changes: readonly { y: number; x: number; text: string }[],
): ChartElement {
  const scatter = chart.type === "scatter";
  const tall = Math.max(rowsOf(chart), ...changes.map(({ y }) => y));
  const wide = Math.max(chart.series.length, ...changes.map(({ x }) => x));
  const categories = scatter ? [] : filled(chart.categories, tall, "");
  const series: Series[] = Array.from({ length: wide }, (_, nth) => {
    const known = chart.series[nth];
    return {
      ...known,
      name: known?.name ?? "",
      values: filled(known?.values ?? [], tall, null),
      ...(scatter
        ? { x: Array.from({ length: tall }, (__, at) => known?.x?.[at] ?? chart.series[0]?.x?.[at] ?? at + 1) }
        : {}),
    };
  });
  for (const { y, x, text } of changes) {
    const own = series[x - 1];
    if (y === 0) {
      if (own) own.name = text.trim();
    } else if (x === 0) {
      if (!scatter) categories[y - 1] = text.trim();
      else for (const one of series) must(one.x)[y - 1] = numberOf(text);
    } else if (own) own.values[y - 1] = numberOf(text);
  }
  return { ...chart, categories, series };
}

/** Returns an object without one of its fields. */
export function without<T extends object, K extends keyof T>(given: T, name: K): T {
  const { [name]: _, ...rest } = given;
  return rest as T;
}

/** Returns a chart with one of its series changed. */
export const withSeries = (chart: ChartElement, nth: number, change: (series: Series) => Series): ChartElement => ({
  ...chart,
  series: chart.series.map((series, at) => (at === nth ? change(series) : series)),
});

/** Returns a chart with a typed property of an axis; an empty or invalid one is removed. */
export function withAxis(
  chart: ChartElement,
  axis: "xAxis" | "yAxis" | "secondaryAxis",
  name: "title" | "min" | "max" | "format" | "reversed",
  text: string,
): ChartElement {
  const value =
    name === "min" || name === "max"
      ? (numberOf(text) ?? undefined)
      : name === "reversed"
        ? text !== "" || undefined
        : text || undefined;
  const { [name as "title"]: _, ...rest } = chart[axis] ?? {};
  const next = value === undefined ? rest : { ...rest, [name]: value };
  return Object.keys(next).length ? { ...chart, [axis]: next } : without(chart, axis);
}

/** Returns a chart with an empty row or series inserted into its grid. */
export function withPlace(chart: ChartElement, kind: "row" | "column", place: number): ChartElement {
  if (kind === "column")
    return {
      ...chart,
      series: chart.series.toSpliced(Math.max(0, place), 0, {
        name: "",
        values: Array.from({ length: rowsOf(chart) }, () => null),
        ...(chart.series[0]?.x ? { x: chart.series[0].x } : {}),
      }),
    };
  const at = Math.max(0, place);
  return {
    ...chart,
    categories: chart.type === "scatter" ? [] : filled(chart.categories, rowsOf(chart), "").toSpliced(at, 0, ""),
    series: chart.series.map((series) => ({
      ...series,
      values: filled(series.values, rowsOf(chart), null).toSpliced(at, 0, null),
      ...(series.x ? { x: series.x.toSpliced(at, 0, null) } : {}),
      ...(series.points ? { points: series.points.toSpliced(at, 0, null) } : {}),
    })),
  };
}

/** Returns a chart without a row or series; undefined for the last one. */
export function withoutPlace(chart: ChartElement, kind: "row" | "column", place: number): ChartElement | undefined {
  const at = Math.max(0, place - 1);
  if (kind === "column")
    return chart.series.length < 2 ? undefined : { ...chart, series: chart.series.toSpliced(at, 1) };
  if (rowsOf(chart) < 2) return undefined;
  return {
    ...chart,
    categories: chart.categories.toSpliced(at, 1),
    series: chart.series.map((series) => ({
      ...series,
      values: series.values.toSpliced(at, 1),
      ...(series.x ? { x: series.x.toSpliced(at, 1) } : {}),
      ...(series.points ? { points: series.points.toSpliced(at, 1) } : {}),
    })),
  };
}
