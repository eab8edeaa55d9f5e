import { CHART_TYPES, type ChartElement, type ChartType } from "@unitext/core/model";
import { Table2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { chartCells, withCells, withPlace, withoutPlace } from "./chartdata";
import { ChartOptionFields } from "./ChartOptions";
import { Grid } from "./Grid";
import type { Acts } from "./selection";

/** The sheet is loaded when it is asked for. */
const ChartSheet = lazy(() => import("./ChartSheet").then((module) => ({ default: module.ChartSheet })));

const CHART_TYPE_NAMES: Record<ChartType, string> = {
  column: "Columns",
  bar: "Bars",
  line: "Lines",
  pie: "Pie",
  area: "Areas",
  doughnut: "Doughnut",
  scatter: "Points",
  combined: "Columns and lines",
};

/** A chart's data in a grid, and how it is shown. */
export function ChartData({ chart, acts, disabled }: { chart: ChartElement; acts: Acts; disabled: boolean }) {
  const [place, setPlace] = useState({ y: 1, x: 1 });
  const [sheet, setSheet] = useState(false);
  const set = (change: (chart: ChartElement) => ChartElement | undefined, words: string) =>
    acts.set((element) => (element.kind === "chart" ? (change(element) ?? element) : element), words);
  return (
    <fieldset disabled={disabled} className="mb-4">
      <legend className="mb-2 font-semibold">Chart</legend>
      <label className="mb-2 block">
        Kind
        <select
          className="select select-sm w-full"
          value={chart.type}
          onChange={({ target: { value } }) =>
            set(
              (element) => withType(element, value as ChartType),
              `Drew the chart as ${CHART_TYPE_NAMES[value as ChartType].toLowerCase()}`,
            )
          }
        >
          {CHART_TYPES.map((type) => (
            <option key={type} value={type}>
              {CHART_TYPE_NAMES[type]}
            </option>
          ))}
        </select>
      </label>
      {!chart.binding && (
        <button
          type="button"
          title="Opens the numbers of the chart as a sheet, to type or paste into"
          className="btn btn-sm mb-2 w-full"
          onClick={() => setSheet(true)}
        >
          <Table2 size={16} aria-hidden="true" /> Change the data in a sheet …
        </button>
      )}
      {sheet && (
        <Suspense>
          <ChartSheet
            chart={chart}
            onSet={(next) => set(() => next, "Changed the data of a chart")}
            onClose={() => setSheet(false)}
          />
        </Suspense>
      )}
      <Grid
        label="Data of the chart"
        cells={chartCells(chart)}
        disabled={disabled || chart.binding !== undefined}
        onSet={(changes) => set((element) => withCells(element, changes), "Changed the data of a chart")}
        onPlace={(y, x) => setPlace({ y, x })}
      />
      <p className="quiet mt-1 text-xs">
        {chart.binding
          ? `The data follow ${chart.binding.source}. Unlink the chart to change them here.`
          : "Numbers may be pasted from a spreadsheet."}
      </p>
      <div className="mt-2 grid grid-cols-2 gap-1">
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => set((element) => withPlace(element, "row", place.y), "Added a row to a chart")}
        >
          Row below
        </button>
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => set((element) => withPlace(element, "column", place.x), "Added a series to a chart")}
        >
          Series after
        </button>
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => set((element) => withoutPlace(element, "row", place.y), "Deleted a row of a chart")}
        >
          Without row {Math.max(1, place.y)}
        </button>
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => set((element) => withoutPlace(element, "column", place.x), "Deleted a series of a chart")}
        >
          Without series {Math.max(1, place.x)}
        </button>
      </div>
      <label className="mt-3 block">
        Title of the chart
        <input
          key={chart.title}
          className="input input-sm w-full"
          defaultValue={chart.title ?? ""}
          maxLength={1000}
          onBlur={({ target: { value } }) =>
            value !== (chart.title ?? "") &&
            set(
              ({ title: _, ...element }) => (value ? { ...element, title: value } : element),
              "Changed the title of a chart",
            )
          }
        />
      </label>
      <ChartOptionFields chart={chart} set={set} />
    </fieldset>
  );
}

function withType(chart: ChartElement, type: ChartType): ChartElement {
  if (type === "scatter" && chart.type !== "scatter")
    return {
      ...chart,
      type: type,
      categories: [],
      series: chart.series.map((series) => ({
        ...series,
        x: series.values.map((_, at) => {
          const said = Number((chart.categories[at] ?? "").replace(",", "."));
          return chart.categories[at] && Number.isFinite(said) ? said : at + 1;
        }),
      })),
    };
  if (type !== "scatter" && chart.type === "scatter")
    return {
      ...chart,
      type: type,
      categories: (chart.series[0]?.x ?? []).map(String),
      series: chart.series.map(({ x: _, ...series }) => series),
    };
  return {
    ...chart,
    type: type,
    series:
      type === "combined"
        ? chart.series.map((series, nth) => ({
            ...series,
            type: series.type ?? (nth === chart.series.length - 1 && nth > 0 ? "line" : "column"),
          }))
        : chart.series.map(({ type: _, ...series }) => series),
  };
}
