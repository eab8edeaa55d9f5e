import { isMirrored } from "@unitext/core/layout";
import { type ChartElement, type ChartOptions, languageDirection } from "@unitext/core/model";

/** What a file says of a chart; `fromRight` is whether its horizontal axis runs from right to left. */
export type ChartOfFile = Pick<ChartElement, "type" | "categories" | "series"> &
  ChartOptions & { unlike?: string; fromRight: boolean };

const OTHER_SIDE = { left: "right", right: "left" } as const;

/** Returns the side of a legend as it is on the page of a chart that is drawn from right to left, or the reverse. */
export const mirroredSide = <S extends string>(side: S): S | "left" | "right" =>
  side === "left" || side === "right" ? OTHER_SIDE[side as "left" | "right"] : side;

const isRound = ({ type }: Pick<ChartElement, "type">) => type === "pie" || type === "doughnut";

/** Whether the horizontal axis of a chart is written from right to left, with the legend on the other side. */
export const runsFromRight = (chart: ChartElement, language: string): boolean =>
  !isRound(chart) && isMirrored(chart, language);

/**
 * Returns a chart of a file as the deck draws it. In a deck that is read from right to left, a horizontal axis that runs
 * from the right is the usual one; one that runs from the left is a direction of its own.
 */
export function inDeckDirection(
  { fromRight, unlike: _, ...chart }: ChartOfFile,
  language: string,
): Omit<ChartOfFile, "unlike" | "fromRight"> & Pick<ChartElement, "direction"> {
  if (languageDirection(language) === "ltr" || isRound(chart)) return chart;
  if (!fromRight) return { ...chart, direction: "ltr" };
  const { xAxis, legend, ...rest } = chart;
  const { reversed, ...axis } = xAxis ?? {};
  const kept = chart.type === "bar" ? xAxis : Object.keys(axis).length ? axis : undefined;
  return {
    ...rest,
    ...(legend === undefined ? {} : { legend: mirroredSide(legend) }),
    ...(kept ? { xAxis: kept } : {}),
  };
}
