import { type Fill, mixed, type ThemeColours } from "@unitext/core/model";

/** The share of the accent in a tint: it is seen from the last row, and leaves the ink its contrast. */
const TINT = 0.18;

const tintOf = ({ paper, accent }: ThemeColours): string => mixed(paper, accent, TINT);

/** A fill for the background of a slide, in the colours of the deck's theme. The layout keeps text readable on it. */
export interface BackgroundFill {
  label: string;
  fill: (colours: ThemeColours) => Fill;
}

const blend = (form: "linear" | "radial", angle: number, from: string, to: string): Fill => ({
  kind: "gradient",
  form,
  angle,
  stops: [
    { at: 0, colour: from },
    { at: 1, colour: to },
  ],
});

export const BACKGROUND_FILLS = {
  tint: { label: "Tint", fill: (colours) => ({ kind: "solid", colour: tintOf(colours) }) },
  down: { label: "Downwards", fill: (colours) => blend("linear", 90, colours.paper, tintOf(colours)) },
  across: { label: "Across", fill: (colours) => blend("linear", 0, tintOf(colours), colours.paper) },
  middle: { label: "From the middle", fill: (colours) => blend("radial", 0, colours.paper, tintOf(colours)) },
  dots: {
    label: "Dots",
    fill: (colours) => ({ kind: "pattern", pattern: "dots", fore: tintOf(colours), back: colours.paper }),
  },
  grid: {
    label: "Grid",
    fill: (colours) => ({ kind: "pattern", pattern: "grid", fore: tintOf(colours), back: colours.paper }),
  },
} as const satisfies Record<string, BackgroundFill>;

export type BackgroundFillName = keyof typeof BACKGROUND_FILLS;
