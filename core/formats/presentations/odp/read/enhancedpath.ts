import { must } from "@unitext/core/model";

/** Returns the value of a token that is not a number: an equation or a modifier. */
type ReadValue = (token: string) => number;

/** Returns a number of path data, to three decimals. */
export const n = (value: number) => String(Math.round(value * 1000) / 1000);

/** The number of values of each command. */
const COUNT: Record<string, number> = {
  M: 2,
  L: 2,
  C: 6,
  Q: 4,
  T: 6,
  U: 6,
  A: 8,
  B: 8,
  W: 8,
  V: 8,
  X: 2,
  Y: 2,
  G: 4,
  Z: 0,
  N: 0,
  F: 0,
  S: 0,
};

/** The most commands that are drawn. */
const MOST = 20000;

/** A part of an outline, with whether it is filled and stroked. */
export interface OutlinePart {
  d: string;
  fill: boolean;
  stroke: boolean;
}

const newPart = (): OutlinePart => ({ d: "", fill: true, stroke: true });

/** Turns the commands of an enhanced path into SVG path data. */
class PathPen {
  readonly parts: OutlinePart[] = [];
  private part = newPart();
  private x = 0;
  private y = 0;
  /** Whether the next quarter of an ellipse leaves in the direction that its command names. */
  private isDirect = true;

  /** Begins a command, and carries it out when it has no values. */
  command(command: string): void {
    this.isDirect = true;
    if (command === "Z") this.part.d += this.part.d ? "Z" : "";
    else if (command === "N") this.end();
    else if (command === "F") this.part.fill = false;
    else if (command === "S") this.part.stroke = false;
  }

  /** Carries out a command with values. */
  draw(command: string, values: readonly number[]): void {
    const [a, b, c, d, e, f] = values as [number, number, number, number, number, number];
    if (command === "M" || command === "L" || command === "C" || command === "Q") this.go(command, ...values);
    else if (command === "T" || command === "U") this.angledArc(command === "U", a, b, c, d, e, f);
    else if (command === "A" || command === "B") this.boxedArc(values, command === "B", false);
    else if (command === "W" || command === "V") this.boxedArc(values, command === "V", true);
    else if (command === "X" || command === "Y") this.quarter(command, a, b);
    else if (command === "G") {
      const [from, sweep] = [(c * Math.PI) / 180, (d * Math.PI) / 180];
      this.arc(this.x - a * Math.cos(from), this.y - b * Math.sin(from), a, b, from, sweep);
    }
  }

  /** Ends the part of the outline. */
  end(): void {
    if (this.part.d) this.parts.push(this.part);
    this.part = newPart();
  }

  private go(command: string, ...values: number[]): void {
    this.part.d += `${command}${values.map(n).join(" ")}`;
    [this.x, this.y] = values.slice(-2) as [number, number];
  }

  private begin(isMove: boolean, x: number, y: number): void {
    this.go(isMove || this.part.d === "" ? "M" : "L", x, y);
  }

  /** Draws an arc of an ellipse from an angle over a sweep, in radians, clockwise when the sweep is positive. */
  private arc(cx: number, cy: number, rx: number, ry: number, from: number, sweep: number): void {
    const steps = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI * 0.75)));
    for (let step = 1; step <= steps; step++) {
      const angle = from + (sweep * step) / steps;
      const [x, y] = [cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)];
      this.part.d += `A${n(Math.abs(rx))} ${n(Math.abs(ry))} 0 0 ${sweep > 0 ? 1 : 0} ${n(x)} ${n(y)}`;
      [this.x, this.y] = [x, y];
    }
  }

  /** Draws an arc between two angles in degrees; equal angles are the whole ellipse. */
  private angledArc(isMove: boolean, cx: number, cy: number, rx: number, ry: number, start: number, end: number): void {
    const [from, to] = [(start * Math.PI) / 180, (end * Math.PI) / 180];
    this.begin(isMove, cx + rx * Math.cos(from), cy + ry * Math.sin(from));
    const sweep = to - from;
    const isWhole = Math.abs(sweep) < 1e-9 || Math.abs(sweep) > 2 * Math.PI;
    this.arc(cx, cy, rx, ry, from, isWhole ? 2 * Math.PI : sweep);
  }

  /** Draws the arc of the ellipse in a box, between the directions of two points. */
  private boxedArc(values: readonly number[], isMove: boolean, clockwise: boolean): void {
    const [x1, y1, x2, y2, x3, y3, x4, y4] = values as [number, number, number, number, number, number, number, number];
    const [cx, cy] = [(x1 + x2) / 2, (y1 + y2) / 2];
    const [rx, ry] = [Math.abs(x2 - x1) / 2 || 1e-6, Math.abs(y2 - y1) / 2 || 1e-6];
    const angle = (x: number, y: number) => Math.atan2((y - cy) / ry, (x - cx) / rx);
    const [from, to] = [angle(x3, y3), angle(x4, y4)];
    const whole = 2 * Math.PI;
    const turn = (((to - from) % whole) + whole) % whole || whole;
    this.begin(isMove, cx + rx * Math.cos(from), cy + ry * Math.sin(from));
    this.arc(cx, cy, rx, ry, from, clockwise ? turn : turn === whole ? -turn : turn - whole);
  }

  /** Draws a quarter of an ellipse that leaves along the x axis (X) or the y axis (Y), in turn. */
  private quarter(command: "X" | "Y", x: number, y: number): void {
    const [dx, dy] = [x - this.x, y - this.y];
    const alongX = (command === "X") === this.isDirect;
    const clockwise = dx * dy > 0 === alongX;
    this.part.d += `A${n(Math.abs(dx))} ${n(Math.abs(dy))} 0 0 ${clockwise ? 1 : 0} ${n(x)} ${n(y)}`;
    [this.x, this.y] = [x, y];
    this.isDirect = !this.isDirect;
  }
}

/** Returns the commands of an enhanced path (OpenDocument 1.3, part 3, 19.145) as SVG path data. */
export function enhancedPath(path: string, read: ReadValue): OutlinePart[] {
  const tokens = path.match(/[A-Z]|[?$]\w+|-?[\d.]+(?:[eE][-+]?\d+)?|[a-z]+/g) ?? [];
  const pen = new PathPen();
  let command = "";
  for (let at = 0, drawn = 0; at < tokens.length && drawn < MOST; drawn++) {
    if (/^[A-Z]$/.test(must(tokens[at]))) {
      command = must(tokens[at++]);
      pen.command(command);
      if (!COUNT[command]) continue;
    }
    const count = COUNT[command];
    if (!count || at + count > tokens.length) {
      at++;
      continue;
    }
    const values: number[] = [];
    while (values.length < count && at < tokens.length && !/^[A-Z]$/.test(must(tokens[at]))) {
      const token = must(tokens[at++]);
      values.push(/^-?[\d.]/.test(token) ? Number(token) || 0 : read(token));
    }
    if (values.length < count) continue;
    pen.draw(command, values);
    // Further points after a move are lines.
    if (command === "M") command = "L";
  }
  pen.end();
  return pen.parts;
}
