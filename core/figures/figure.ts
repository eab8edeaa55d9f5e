import { contrast, type Fill, type Frame, mixed, type RichText, type ThemeColours } from "@unitext/core/model";

/** A filled or stroked outline: SVG path data in points of the page, or in units of its own that `matrix` brings there. */
export interface FigurePath {
  d: string;
  fill?: string;
  stroke?: string;
  width?: number;
  /** Lengths of dashes and gaps in points. */
  dash?: readonly number[];
  fillOpacity?: number;
  strokeOpacity?: number;
  /** Replaces `fill`: a gradient or a pattern over the given frame. */
  paint?: { fill: Extract<Fill, { kind: "gradient" | "pattern" }>; frame: Frame };
  matrix?: readonly [number, number, number, number, number, number];
  /** The width of its soft edge in points, and the box in which it is visible, before `matrix`. */
  blur?: { by: number; frame: Frame };
}

/** Text of a figure and its frame; the layout chooses the size. */
export interface FigureLabel {
  text: RichText;
  frame: Frame;
  align: "start" | "centre" | "end";
  anchor: "top" | "middle" | "bottom";
  fill: string;
  /** The largest size in points. */
  size: number;
  /** Degrees by which it is turned clockwise after it was set, and the centre of the turn. */
  turn?: { by: number; about: readonly [number, number] };
}

/** A drawing: outlines behind, text in front. */
export interface Figure {
  paths: FigurePath[];
  labels: FigureLabel[];
}

/** What figures take from theme and page: colours, and the initial text size in points. */
export interface FigureStyle {
  colours: ThemeColours;
  size: number;
  /** Returns the width of a text in points at a size. */
  measure: (text: string, size: number) => number;
}

/** Returns colours for things side by side, distinct in hue and lightness. */
export function palette({ accent, second, muted, paper, ink }: ThemeColours): string[] {
  return [accent, second, mixed(accent, paper, 0.5), mixed(second, paper, 0.5), muted, mixed(ink, paper, 0.25)];
}

const n = (value: number) => String(Math.round(value * 100) / 100);

/** Returns the path of a rectangle, with rounded corners where `radius` is positive. All lengths in points. */
export function rectangle({ x, y, width, height }: Frame, radius = 0): string {
  if (!radius) return `M${n(x)} ${n(y)}h${n(width)}v${n(height)}h${n(-width)}Z`;
  const r = Math.min(radius, width / 2, height / 2);
  const arc = (dx: number, dy: number) => `a${n(r)} ${n(r)} 0 0 1 ${n(dx)} ${n(dy)}`;
  return `M${n(x + r)} ${n(y)}h${n(width - 2 * r)}${arc(r, r)}v${n(height - 2 * r)}${arc(-r, r)}h${n(2 * r - width)}${arc(-r, -r)}v${n(2 * r - height)}${arc(r, -r)}Z`;
}

/** Returns the path through points. */
export function polygon(points: readonly (readonly [number, number])[], closed = true): string {
  return points.map(([x, y], at) => `${at ? "L" : "M"}${n(x)} ${n(y)}`).join("") + (closed ? "Z" : "");
}

/** Returns the path of a circle around (x, y). */
export function circle(x: number, y: number, r: number): string {
  return `M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 1 1 ${n(2 * r)} 0a${n(r)} ${n(r)} 0 1 1 ${n(-2 * r)} 0Z`;
}

/** Returns a straight arrow: its line and its head. */
export function arrow(
  from: readonly [number, number],
  to: readonly [number, number],
  head: number,
): { line: string; head: string } {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const back = (turn: number): [number, number] => [
    to[0] - head * Math.cos(angle + turn),
    to[1] - head * Math.sin(angle + turn),
  ];
  const neck: [number, number] = [to[0] - head * 0.7 * Math.cos(angle), to[1] - head * 0.7 * Math.sin(angle)];
  return { line: polygon([from, neck], false), head: polygon([to, back(0.45), back(-0.45)]) };
}

/** Returns paper or ink, whichever contrasts more with a colour (WCAG 2.2, "contrast ratio"). */
export const legible = (under: string, { paper, ink }: Pick<ThemeColours, "paper" | "ink">): string =>
  contrast(paper, under) > contrast(ink, under) ? paper : ink;
