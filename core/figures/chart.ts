import type { ChartType, Frame } from "@unitext/core/model";
import type { Figure, FigureStyle } from "./figure";
import type { Drawer, Data } from "./chartframe";
import { bar } from "./barchart";
import { categoryChart } from "./categorychart";
import { round } from "./piechart";
import { scatter } from "./scatterchart";

const DRAWERS: Record<ChartType, Drawer> = {
  column: categoryChart("column"),
  line: categoryChart("line"),
  area: categoryChart("area"),
  combined: categoryChart("combined"),
  bar,
  pie: round(0),
  doughnut: round(0.55),
  scatter,
};

/** Draws a chart into a frame in points, with its axes and legend. */
export function chart(type: ChartType, data: Data, frame: Frame, style: FigureStyle): Figure {
  return DRAWERS[type](data, frame, style);
}
