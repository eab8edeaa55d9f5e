import { legible } from "@unitext/core/figures";
import type { Fill, Theme } from "@unitext/core/model";
import { rgb } from "d3-color";

/**
 * The default text colour on a dark background; on a light one it is the theme's (OpenDocument 1.3, part 3, 20.393).
 */
export const LIGHT = "#ffffff";
/** The background of a page that sets none. */
export const WHITE = "#ffffff";

/** Returns the mean colour of a fill; undefined for pictures. */
export function backgroundColour(fill: Fill | undefined): string | undefined {
  if (fill?.kind === "solid") return (fill.opacity ?? 1) < 0.5 ? undefined : fill.colour;
  if (fill?.kind === "pattern") return fill.back;
  if (fill?.kind !== "gradient") return undefined;
  if (fill.stops.reduce((sum, { opacity = 1 }) => sum + opacity, 0) / fill.stops.length < 0.5) return undefined;
  const mean = (channel: "r" | "g" | "b") =>
    fill.stops.reduce((sum, stop) => sum + rgb(stop.colour)[channel], 0) / fill.stops.length;
  return rgb(mean("r"), mean("g"), mean("b")).formatHex();
}

/** Whether white contrasts more with a colour than black does. */
export function isDark(colour: string | undefined): boolean {
  return colour !== undefined && legible(rgb(colour).formatHex(), { paper: LIGHT, ink: "#000000" }) === LIGHT;
}

/** Returns a text colour that can be read on a background from a file. */
export function readableColour(colours: Theme["colours"]): Theme["colours"] {
  const [r, g, b] = [1, 3, 5].map((from) => Number.parseInt(colours.paper.slice(from, from + 2), 16) / 255) as [
    number,
    number,
    number,
  ];
  const light = 0.2126 * r + 0.7152 * g + 0.0722 * b > 0.4;
  return light ? colours : { ...colours, ink: "#f4f4f0", muted: "#c9cfcb", link: "#9fd8d6", accent: "#7cc6c4" };
}
