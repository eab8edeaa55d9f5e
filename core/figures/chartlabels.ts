import { mixed } from "@unitext/core/model";
import { polygon, type Figure, type FigureLabel, type FigureStyle } from "./figure";
import { plain } from "./chartframe";

/** Adds a label in the colour of axes. `size` is that of the chart's text unless given. */
export function addLabel(
  figure: Figure,
  { colours, size }: FigureStyle,
  text: string,
  label: Omit<FigureLabel, "text" | "fill" | "size"> & { size?: number },
): void {
  figure.labels.push({ size, ...label, text: plain(text), fill: colours.muted });
}

/** Adds a line of the grid, in points; a strong one has the colour of labels. */
export function addGridline(
  figure: Figure,
  { colours }: FigureStyle,
  from: [number, number],
  to: [number, number],
  { width = 0.6, strong = false }: { width?: number; strong?: boolean } = {},
): void {
  figure.paths.push({
    d: polygon([from, to], false),
    stroke: strong ? colours.muted : mixed(colours.muted, colours.paper, 0.65),
    width,
  });
}
