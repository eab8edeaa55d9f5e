import {
  type ChartElement,
  type ChartType,
  type ChartOptions,
  isJoined,
  type Series,
  keptValues,
} from "@unitext/core/model";
import { type ReactNode, useId } from "react";
import { withAxis, withSeries, without } from "./chartdata";

const KEYS = { top: "above", right: "on the right", bottom: "below", left: "on the left", none: "none" } as const;
const LABELS = { value: "their values", share: "their shares", category: "their names" } as const;
const STACKS = { sum: "on each other", share: "as shares of the whole" } as const;
const OWN_FORMS = { column: "columns", line: "a line", area: "an area" } as const;
const FORMATS = ["0", "0.0", "0.00", "#,##0", "0%"];
const ROUND: readonly ChartType[] = ["pie", "doughnut"];

interface Props {
  chart: ChartElement;
  set: (change: (chart: ChartElement) => ChartElement, words: string) => void;
}

function Choice<T extends string>({
  label,
  value,
  none,
  of,
  onSet,
}: {
  label: string;
  value: T | undefined;
  none?: string;
  of: Record<T, string>;
  onSet: (value: T | undefined) => void;
}) {
  const id = useId();
  return (
    <p className="mb-1 flex items-center justify-between gap-2">
      <label htmlFor={id}>{label}</label>
      <select
        id={id}
        className="select select-xs w-40"
        value={value ?? ""}
        onChange={({ target }) => onSet((target.value || undefined) as T | undefined)}
      >
        {none !== undefined && <option value="">{none}</option>}
        {(Object.entries(of) as [T, string][]).map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </p>
  );
}

/** A text or number field that is applied when it loses focus or Enter is pressed. */
function Field({
  label,
  value,
  list,
  number,
  onSet,
}: {
  label: string;
  value: string;
  list?: string;
  number?: boolean;
  onSet: (value: string) => void;
}) {
  const id = useId();
  return (
    <p className="mb-1 flex items-center justify-between gap-2">
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        key={value}
        className={`input input-xs w-40 ${number ? "text-right tabular-nums" : ""}`}
        defaultValue={value}
        maxLength={500}
        list={list}
        inputMode={number ? "decimal" : undefined}
        onKeyDown={({ key, currentTarget }) => key === "Enter" && currentTarget.blur()}
        onBlur={({ target }) => target.value.trim() !== value && onSet(target.value.trim())}
      />
    </p>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <fieldset className="mt-2">
    <legend className="quiet mb-1 text-sm">{title}</legend>
    {children}
  </fieldset>
);

function AxisFields({ chart, set, axis, title }: Props & { axis: "xAxis" | "yAxis" | "secondaryAxis"; title: string }) {
  const { [axis]: held } = chart;
  const ends = axis !== "xAxis" || chart.type === "scatter";
  const put = (name: "title" | "min" | "max" | "format", words: string) => (text: string) =>
    set((element) => withAxis(element, axis, name, text), words);
  return (
    <Part title={title}>
      <Field label="Title" value={held?.title ?? ""} onSet={put("title", "Changed an axis title")} />
      {ends && (
        <Field
          label="From"
          number
          value={held?.min === undefined ? "" : String(held.min)}
          onSet={put("min", "Set the minimum of an axis")}
        />
      )}
      {ends && (
        <Field
          label="To"
          number
          value={held?.max === undefined ? "" : String(held.max)}
          onSet={put("max", "Set the maximum of an axis")}
        />
      )}
      {axis === "secondaryAxis" && (
        <Field
          label="Number format"
          list="chart-formats"
          value={chart.secondaryAxis?.format ?? ""}
          onSet={put("format", "Changed the number format")}
        />
      )}
      {axis === "xAxis" && chart.type !== "scatter" && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={held?.reversed ?? false}
            onChange={({ target }) =>
              set(
                (element) => withAxis(element, axis, "reversed", target.checked ? "yes" : ""),
                target.checked ? "Reversed an axis" : "Reset the direction of an axis",
              )
            }
          />
          Reverse order
        </label>
      )}
    </Part>
  );
}

function SeriesFields({ chart, set, series, nth }: Props & { series: Series; nth: number }) {
  const put = (change: (series: Series) => Series, words: string) =>
    set((element) => withSeries(element, nth, change), words);
  const own = chart.type === "combined" ? (series.type ?? "column") : chart.type;
  return (
    <Part title={series.name || `Series ${nth + 1}`}>
      {chart.type === "combined" && (
        <Choice
          label="Chart type"
          value={own as keyof typeof OWN_FORMS}
          of={OWN_FORMS}
          onSet={(type) => type && put((one) => ({ ...one, type: type }), "Changed the chart type of a series")}
        />
      )}
      {["column", "line", "area", "combined"].includes(chart.type) && (
        <Choice
          label="Axis"
          value={series.axis}
          none="on the left"
          of={{ secondary: "on the right" }}
          onSet={(by) =>
            put(
              (one) => (by ? { ...one, axis: by } : without(one, "axis")),
              by ? "Moved a series to the secondary axis" : "Moved a series to the primary axis",
            )
          }
        />
      )}
      {(own === "line" || own === "scatter") && (
        <label className="mb-1 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={isJoined(series, own)}
            onChange={({ target }) =>
              put(
                (one) =>
                  target.checked === (own === "line") ? without(one, "joined") : { ...one, joined: target.checked },
                target.checked ? "Joined the points of a series" : "Removed the line of a series",
              )
            }
          />
          Points joined
        </label>
      )}
      {(own === "line" || own === "scatter") && isJoined(series, own) && (
        <label className="mb-1 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={series.smooth ?? false}
            onChange={({ target }) =>
              put(
                (one) => (target.checked ? { ...one, smooth: true } : without(one, "smooth")),
                target.checked ? "Curved a line" : "Changed a smooth line to a straight one",
              )
            }
          />
          Curved
        </label>
      )}
      <label className="mb-1 flex items-center justify-between gap-2">
        Colour
        <span className="flex items-center gap-1">
          <input
            type="color"
            className="h-6 w-10"
            aria-label={`Colour of ${series.name || `series ${nth + 1}`}`}
            value={series.colour ?? "#888888"}
            onChange={({ target }) => put((one) => ({ ...one, colour: target.value }), "Coloured a series")}
          />
          {(series.colour || series.points) && (
            <button
              type="button"
              className="btn btn-xs"
              onClick={() =>
                put((one) => without(without(one, "colour"), "points"), "Coloured a series as the theme does")
              }
            >
              Theme
            </button>
          )}
        </span>
      </label>
    </Part>
  );
}

/** Returns a chart with another title; values of workbooks in it stay where their words do. */
function withTitle(chart: ChartElement, title: string): ChartElement {
  const { title: before = "", titleValues, ...rest } = chart;
  const values = keptValues(before, titleValues, title);
  return { ...rest, ...(title ? { title } : {}), ...(values.length ? { titleValues: values } : {}) };
}

/** How a chart shows its data: title, legend, labels, numbers, axes, and each series. */
export function ChartOptionFields({ chart, set }: Props) {
  const round = ROUND.includes(chart.type);
  const look =
    <K extends keyof ChartOptions>(name: K, words: string) =>
    (value: ChartOptions[K] | undefined) =>
      set(
        (element) => (value === undefined || value === "" ? without(element, name) : { ...element, [name]: value }),
        words,
      );
  return (
    <details className="mt-3">
      <summary className="cursor-pointer">How it is shown</summary>
      <datalist id="chart-formats">
        {FORMATS.map((format) => (
          <option key={format} value={format} />
        ))}
      </datalist>
      <div className="pt-2">
        <Field
          label="Title of the chart"
          value={chart.title ?? ""}
          onSet={(title) => set((element) => withTitle(element, title), "Changed the title of a chart")}
        />
        {!round && (
          <Choice
            label="Legend"
            value={chart.legend}
            none="where it fits"
            of={KEYS}
            onSet={look("legend", "Moved the legend of a chart")}
          />
        )}
        <Choice
          label="Data labels"
          value={chart.labels}
          none="nothing"
          of={LABELS}
          onSet={look("labels", "Changed the data labels of a chart")}
        />
        {["column", "bar", "area", "line", "combined"].includes(chart.type) && (
          <Choice
            label="Stacking"
            value={chart.stack}
            none="beside each other"
            of={STACKS}
            onSet={look("stack", "Changed the stacking of a chart")}
          />
        )}
        <Field
          label="Number format"
          list="chart-formats"
          value={chart.format ?? ""}
          onSet={look("format", "Changed the number format")}
        />
        {!round && (
          <AxisFields
            chart={chart}
            set={set}
            axis="xAxis"
            title={chart.type === "scatter" ? "Axis along the foot" : "Axis of the names"}
          />
        )}
        {!round && <AxisFields chart={chart} set={set} axis="yAxis" title="Axis of the values" />}
        {chart.series.some(({ axis }) => axis === "secondary") && (
          <AxisFields chart={chart} set={set} axis="secondaryAxis" title="Secondary axis (right)" />
        )}
        {!round &&
          chart.series.map((series, nth) => (
            <SeriesFields key={nth} chart={chart} set={set} series={series} nth={nth} />
          ))}
      </div>
    </details>
  );
}
