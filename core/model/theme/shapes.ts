import type { ShapeElement } from "../elements/shape";
import type { Fill, Stroke } from "../look";

const solid = (colour: string, opacity?: number): Fill => ({
  kind: "solid",
  colour,
  ...(opacity === undefined ? {} : { opacity }),
});

/** The shapes of a decoration. Ids are given when all are there. */
type Drawn = Omit<ShapeElement, "id"> & { id: "" };

const shape = (
  geometry: ShapeElement["geometry"],
  [x, y, width, height]: readonly [number, number, number, number],
  look: { fill?: Fill; stroke?: Stroke },
): Drawn => ({ kind: "shape", id: "", slot: null, frame: { x, y, width, height }, geometry, text: [], ...look });

/** Draws a filled rectangle. */
export function box(x: number, y: number, width: number, height: number, colour: string): Drawn {
  return shape({ preset: "rect" }, [x, y, width, height], { fill: solid(colour) });
}

/** Draws a rectangle with round corners of a radius. */
export function card(x: number, y: number, width: number, height: number, radius: number, colour: string): Drawn {
  const adjust = { adj: Math.round((radius / Math.min(width, height)) * 100_000) };
  return shape({ preset: "roundRect", adjust }, [x, y, width, height], { fill: solid(colour) });
}

/** Draws the outline of a rectangle, with the line inside it. */
export function border(x: number, y: number, width: number, height: number, line: number, colour: string): Drawn {
  return shape({ preset: "rect" }, [x + line / 2, y + line / 2, width - line, height - line], {
    stroke: { colour, width: line },
  });
}

/** Draws a filled circle about a centre. */
export function disc(x: number, y: number, radius: number, colour: string): Drawn {
  return shape({ preset: "ellipse" }, [x - radius, y - radius, radius * 2, radius * 2], { fill: solid(colour) });
}

/** Draws a circle about a centre. */
export function ring(x: number, y: number, radius: number, line: number, colour: string): Drawn {
  return shape({ preset: "ellipse" }, [x - radius, y - radius, radius * 2, radius * 2], {
    stroke: { colour, width: line },
  });
}

/** Draws a disc that fades from a colour at its middle to nothing at its edge. */
export function glow(x: number, y: number, radius: number, colour: string, edge: string, opacity: number): Drawn {
  return shape({ preset: "ellipse" }, [x - radius, y - radius, radius * 2, radius * 2], {
    fill: {
      kind: "gradient",
      form: "radial",
      angle: 0,
      stops: [
        { at: 0, colour, opacity },
        { at: 1, colour: edge, opacity: 0 },
      ],
    },
  });
}

type Point = readonly [x: number, y: number];
const n = (value: number) => Math.round(value * 100) / 100;

function boxOf(points: readonly Point[]): readonly [number, number, number, number] {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return [left, top, Math.max(Math.max(...xs) - left, 0.01), Math.max(Math.max(...ys) - top, 0.01)];
}

/** Draws a filled polygon. */
export function polygon(points: readonly Point[], colour: string): Drawn {
  const frame = boxOf(points);
  const d = `M${points.map(([x, y]) => `${n(x - frame[0])} ${n(y - frame[1])}`).join("L")}Z`;
  return shape({ width: frame[2], height: frame[3], paths: [{ d, fill: true, stroke: false }] }, frame, {
    fill: solid(colour),
  });
}

/** Draws straight lines as one shape. */
export function lines(pairs: readonly (readonly [from: Point, to: Point])[], line: number, colour: string): Drawn {
  const frame = boxOf(pairs.flat());
  const at = ([x, y]: Point) => `${n(x - frame[0])} ${n(y - frame[1])}`;
  const d = pairs.map(([from, to]) => `M${at(from)}L${at(to)}`).join("");
  return shape({ width: frame[2], height: frame[3], paths: [{ d, fill: false, stroke: true }] }, frame, {
    stroke: { colour, width: line },
  });
}

/**
 * Returns a smooth curve through points as path data (Catmull and Rom 1974, as Bézier curves), relative to a corner.
 */
function curve(points: readonly Point[], [left, top]: Point, closed: boolean): string {
  const count = points.length;
  const point = (index: number): Point =>
    (closed ? points[(index + count) % count] : points[Math.min(Math.max(index, 0), count - 1)]) as Point;
  const at = (x: number, y: number) => `${n(x - left)} ${n(y - top)}`;
  const pieces = Array.from({ length: closed ? count : count - 1 }, (_, index) => {
    const [[x0, y0], [x1, y1], [x2, y2], [x3, y3]] = [
      point(index - 1),
      point(index),
      point(index + 1),
      point(index + 2),
    ];
    return `C${at(x1 + (x2 - x0) / 6, y1 + (y2 - y0) / 6)} ${at(x2 - (x3 - x1) / 6, y2 - (y3 - y1) / 6)} ${at(x2, y2)}`;
  });
  const [x, y] = point(0);
  return `M${at(x, y)}${pieces.join("")}${closed ? "Z" : ""}`;
}

/** Draws a smooth line through points; a closed one returns to the first. */
export function curved(points: readonly Point[], closed: boolean, line: number, colour: string): Drawn {
  const frame = boxOf(points);
  const d = curve(points, [frame[0], frame[1]], closed);
  return shape({ width: frame[2], height: frame[3], paths: [{ d, fill: false, stroke: true }] }, frame, {
    stroke: { colour, width: line },
  });
}

/** Draws a smooth closed area through points. */
export function blob(points: readonly Point[], colour: string): Drawn {
  const frame = boxOf(points);
  const d = curve(points, [frame[0], frame[1]], true);
  return shape({ width: frame[2], height: frame[3], paths: [{ d, fill: true, stroke: false }] }, frame, {
    fill: solid(colour),
  });
}

/** Draws the area below a smooth line, down to `bottom`. The line goes from left to right. */
export function ground(points: readonly Point[], bottom: number, colour: string): Drawn {
  const [first, last] = [points[0] as Point, points.at(-1) as Point];
  const frame = boxOf([...points, [first[0], bottom], [last[0], bottom]]);
  const d = `${curve(points, [frame[0], frame[1]], false)}L${n(last[0] - frame[0])} ${n(bottom - frame[1])}L${n(first[0] - frame[0])} ${n(bottom - frame[1])}Z`;
  return shape({ width: frame[2], height: frame[3], paths: [{ d, fill: true, stroke: false }] }, frame, {
    fill: solid(colour),
  });
}

/** Returns points along a wave: `turns` half waves over a width, about a height. */
export function wave(width: number, y: number, high: number, turns: number, shift = 0): Point[] {
  const count = turns * 2 + 1;
  return Array.from({ length: count }, (_, at) => [
    (width * at) / (count - 1),
    y + high * Math.sin(((at + shift) * Math.PI) / 2),
  ]);
}
