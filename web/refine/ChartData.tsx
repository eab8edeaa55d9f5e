import { CHART_FORMS, type ChartElement, type ChartForm } from "@unitext/core/model";
import { useState } from "react";
import { chartCells, withCells, withPlace, withoutPlace } from "./chartdata";
import { ChartLooks } from "./ChartLooks";
import { Grid } from "./Grid";
import type { Acts } from "./selection";

const FORMS: Record<ChartForm, string> = {
  column: "Columns",
  bar: "Bars",
  line: "Lines",
  pie: "Pie",
  area: "Areas",
  doughnut: "Ring",
  scatter: "Points",
  combined: "Columns and lines",
};

/** A chart's data in a grid, and how it is shown. */
export function ChartData({ chart, acts, disabled }: { chart: ChartElement; acts: Acts; disabled: boolean }) {
  const [place, setPlace] = useState({ y: 1, x: 1 });
  const set = (change: (chart: ChartElement) => ChartElement | undefined, words: string) =>
    acts.set((element) => (element.kind === "chart" ? (change(element) ?? element) : element), words);
  return (
    <fieldset disabled={disabled} className="mb-4">
      <legend className="mb-2 font-semibold">Chart</legend>
      <label className="mb-2 block">
        Kind
        <select
          className="select select-sm w-full"
          value={chart.form}
          onChange={({ target: { value } }) =>
            set(
              (element) => withForm(element, value as ChartForm),
              `Drew the chart as ${FORMS[value as ChartForm].toLowerCase()}`,
            )
          }
        >
          {CHART_FORMS.map((form) => (
            <option key={form} value={form}>
              {FORMS[form]}
            </option>
          ))}
        </select>
      </label>
      <Grid
        label="Data of the chart"
        cells={chartCells(chart)}
        disabled={disabled}
        onSet={(changes) => set((element) => withCells(element, changes), "Changed the data of a chart")}
        onPlace={(y, x) => setPlace({ y, x })}
      />
      <p className="quiet mt-1 text-xs">Numbers may be pasted from a spreadsheet.</p>
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
          onClick={() => set((element) => withoutPlace(element, "row", place.y), "Took a row out of a chart")}
        >
          Without row {Math.max(1, place.y)}
        </button>
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => set((element) => withoutPlace(element, "column", place.x), "Took a series out of a chart")}
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
      <ChartLooks chart={chart} set={set} />
    </fieldset>
  );
}

function withForm(chart: ChartElement, form: ChartForm): ChartElement {
  if (form === "scatter" && chart.form !== "scatter")
    return {
      ...chart,
      form,
      categories: [],
      series: chart.series.map((series) => ({
        ...series,
        x: series.values.map((_, at) => {
          const said = Number((chart.categories[at] ?? "").replace(",", "."));
          return chart.categories[at] && Number.isFinite(said) ? said : at + 1;
        }),
      })),
    };
  if (form !== "scatter" && chart.form === "scatter")
    return {
      ...chart,
      form,
      categories: (chart.series[0]?.x ?? []).map(String),
      series: chart.series.map(({ x: _, ...series }) => series),
    };
  return {
    ...chart,
    form,
    series:
      form === "combined"
        ? chart.series.map((series, nth) => ({
            ...series,
            form: series.form ?? (nth === chart.series.length - 1 && nth > 0 ? "line" : "column"),
          }))
        : chart.series.map(({ form: _, ...series }) => series),
  };
}
