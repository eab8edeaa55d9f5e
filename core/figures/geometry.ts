import SvgPath from "svgpath";
import { type Frame, type Geometry, must } from "@unitext/core/model";
import type { Preset } from "./preset";
import { PRESETS, STARS } from "./presets";

/**
 * An outline of a geometry, as SVG path data in points from its top left; `shade` makes its fill darker (below 0) or
 * lighter.
 */
export interface Outline {
  d: string;
  fill: boolean;
  stroke: boolean;
  shade: number;
  /** Where an open outline starts and ends, and the neighbouring points, which give the direction of line ends. */
  ends?: { from: [number, number]; next: [number, number]; before: [number, number]; to: [number, number] };
}

/** A geometry at a size: its outlines, and the rectangle of its text. */
export interface ResolvedGeometry {
  outlines: Outline[];
  text: Frame;
}

const TURN = 21600000;
const radians = (angle: number) => (angle / TURN) * 2 * Math.PI;

/** The operations of guide formulas (ECMA-376-1, 20.1.9.11); angles in 60,000ths of a degree. */
const OPERATIONS: Record<string, (x: number, y: number, z: number) => number> = {
  "*/": (x, y, z) => (z === 0 ? 0 : (x * y) / z),
  "+-": (x, y, z) => x + y - z,
  "+/": (x, y, z) => (z === 0 ? 0 : (x + y) / z),
  "?:": (x, y, z) => (x > 0 ? y : z),
  abs: (x) => Math.abs(x),
  at2: (x, y) => (Math.atan2(y, x) / (2 * Math.PI)) * TURN,
  cat2: (x, y, z) => x * Math.cos(Math.atan2(z, y)),
  cos: (x, y) => x * Math.cos(radians(y)),
  max: (x, y) => Math.max(x, y),
  min: (x, y) => Math.min(x, y),
  mod: (x, y, z) => Math.sqrt(x * x + y * y + z * z),
  pin: (x, y, z) => Math.max(x, Math.min(z, y)),
  sat2: (x, y, z) => x * Math.sin(Math.atan2(z, y)),
  sin: (x, y) => x * Math.sin(radians(y)),
  sqrt: (x) => Math.sqrt(Math.max(0, x)),
  tan: (x, y) => x * Math.tan(radians(y)),
  val: (x) => x,
};

/** The names that every geometry has (ECMA-376-1, 20.1.10.55 and annex D), for a width and height. */
function builtIn(w: number, h: number): Map<string, number> {
  const ss = Math.min(w, h);
  const names = new Map<string, number>([
    ["l", 0],
    ["t", 0],
    ["r", w],
    ["b", h],
    ["w", w],
    ["h", h],
    ["hc", w / 2],
    ["vc", h / 2],
    ["ss", ss],
    ["ls", Math.max(w, h)],
    ["cd2", TURN / 2],
    ["cd4", TURN / 4],
    ["cd8", TURN / 8],
    ["3cd4", (TURN * 3) / 4],
    ["3cd8", (TURN * 3) / 8],
    ["5cd8", (TURN * 5) / 8],
    ["7cd8", (TURN * 7) / 8],
  ]);
  for (const part of [2, 3, 4, 5, 6, 8, 10, 12, 16, 32]) {
    names.set(`wd${part}`, w / part);
    names.set(`hd${part}`, h / part);
    names.set(`ssd${part}`, ss / part);
  }
  return names;
}

/** Returns the guide values of a geometry by name. Formulas are `name=op x y z`; an unknown name counts as 0. */
export function guideValues(
  guides: readonly { name: string; formula: string }[],
  adjust: Readonly<Record<string, number>>,
  width: number,
  height: number,
): Map<string, number> {
  const names = builtIn(width, height);
  for (const [name, value] of Object.entries(adjust)) names.set(name, value);
  const read = (word: string | undefined) =>
    word === undefined ? 0 : (names.get(word) ?? (Number.isFinite(Number(word)) ? Number(word) : 0));
  for (const { name, formula } of guides) {
    const [operation = "val", x, y, z] = formula.trim().split(/\s+/);
    const value = (OPERATIONS[operation] ?? (() => 0))(read(x), read(y), read(z));
    names.set(name, Number.isFinite(value) ? value : 0);
  }
  return names;
}

const n = (value: number) => String(Math.round(value * 1000) / 1000);

/** Writes path commands with the arcs of the standard as SVG path data. */
export class PathWriter {
  d = "";
  private at: [number, number] = [0, 0];
  private from: [number, number] = [0, 0];
  private next: [number, number] | undefined;
  private before: [number, number] = [0, 0];
  private closed = false;
  constructor(
    private readonly scaleX = 1,
    private readonly scaleY = 1,
  ) {}

  private pair(x: number, y: number): string {
    return `${n(x * this.scaleX)} ${n(y * this.scaleY)}`;
  }
  private go(x: number, y: number, near: [number, number] = this.at): void {
    this.next ??= near === this.at ? [x, y] : near;
    this.before = near;
    this.at = [x, y];
  }
  move(x: number, y: number): void {
    this.d += `M${this.pair(x, y)}`;
    this.at = [x, y];
    this.from = [x, y];
    this.next = undefined;
  }
  line(x: number, y: number): void {
    this.d += `L${this.pair(x, y)}`;
    const here = this.at;
    this.go(x, y, here);
    this.next = this.next === here ? [x, y] : this.next;
  }
  cubic(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.d += `C${this.pair(x1, y1)} ${this.pair(x2, y2)} ${this.pair(x, y)}`;
    this.next ??= [x1, y1];
    this.go(x, y, [x2, y2]);
  }
  quad(x1: number, y1: number, x: number, y: number): void {
    this.d += `Q${this.pair(x1, y1)} ${this.pair(x, y)}`;
    this.next ??= [x1, y1];
    this.go(x, y, [x1, y1]);
  }
  /** Draws an arc of an ellipse (ECMA-376-1, 20.1.9.4). Angles are visual, so they are stretched on a flat ellipse. */
  arc(wR: number, hR: number, start: number, sweep: number): void {
    if (sweep === 0 || (wR === 0 && hR === 0)) return;
    const param = (angle: number) => {
      const a = radians(angle);
      const own = Math.atan2(wR * Math.sin(a), hR * Math.cos(a));
      return own + 2 * Math.PI * Math.round((a - own) / (2 * Math.PI));
    };
    const first = param(start);
    const last = param(start + sweep);
    const [cx, cy] = [this.at[0] - wR * Math.cos(first), this.at[1] - hR * Math.sin(first)];
    const parts = Math.max(1, Math.ceil(Math.abs(last - first) / (Math.PI * 0.75)));
    for (let part = 1; part <= parts; part++) {
      const angle = first + ((last - first) * part) / parts;
      const [x, y] = [cx + wR * Math.cos(angle), cy + hR * Math.sin(angle)];
      this.d += `A${n(Math.abs(wR * this.scaleX))} ${n(Math.abs(hR * this.scaleY))} 0 0 ${last > first ? 1 : 0} ${this.pair(x, y)}`;
      const sign = last > first ? 1 : -1;
      this.next ??= [this.at[0] - wR * Math.sin(first) * sign, this.at[1] + hR * Math.cos(first) * sign];
      this.go(x, y, [x + wR * Math.sin(angle) * sign, y - hR * Math.cos(angle) * sign]);
    }
  }
  close(): void {
    this.d += "Z";
    this.at = this.from;
    this.closed = true;
  }
  get ends(): Outline["ends"] {
    const scaled = ([x, y]: [number, number]): [number, number] => [x * this.scaleX, y * this.scaleY];
    return this.closed || !this.next
      ? undefined
      : { from: scaled(this.from), next: scaled(this.next), before: scaled(this.before), to: scaled(this.at) };
  }
}

const parsed = new Map<string, { adjust: Record<string, number>; guides: { name: string; formula: string }[] }>();
function partsOf(name: string, { adjust = "", guides = "" }: Preset) {
  const known = parsed.get(name);
  if (known) return known;
  const made = {
    adjust: Object.fromEntries(
      adjust
        .split(" ")
        .filter(Boolean)
        .map((pair) => [must(pair.split("=")[0]), Number(pair.split("=")[1])]),
    ),
    guides: guides
      .split(";")
      .map((line) => line.trim())
      .filter(Boolean)
      .map((line) => ({ name: line.slice(0, line.indexOf("=")), formula: line.slice(line.indexOf("=") + 1) })),
  };
  parsed.set(name, made);
  return made;
}

const COUNTS: Record<string, number> = { M: 2, L: 2, C: 6, Q: 4, A: 4, Z: 0 };

function resolvePreset(
  name: string,
  preset: Preset,
  adjust: Readonly<Record<string, number>>,
  width: number,
  height: number,
): ResolvedGeometry {
  const own = partsOf(name, preset);
  const values = guideValues(own.guides, { ...own.adjust, ...adjust }, width, height);
  const read = (word: string) => values.get(word) ?? (Number(word) || 0);
  const outlines = preset.path.split("|").map((written): Outline => {
    const [, flags = ""] = /^\[([^\]]*)\]/.exec(written) ?? [];
    const space = /w=(\d+) h=(\d+)/.exec(flags);
    const writer = new PathWriter(space ? width / Number(space[1]) : 1, space ? height / Number(space[2]) : 1);
    const words = written
      .replace(/^\[[^\]]*\]/, "")
      .split(/\s+/)
      .filter(Boolean);
    for (let at = 0; at < words.length; ) {
      const command = must(words[at]);
      const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = words.slice(at + 1, at + 1 + (COUNTS[command] ?? 0)).map(read);
      if (command === "M") writer.move(a, b);
      else if (command === "L") writer.line(a, b);
      else if (command === "C") writer.cubic(a, b, c, d, e, f);
      else if (command === "Q") writer.quad(a, b, c, d);
      else if (command === "A") writer.arc(a, b, c, d);
      else writer.close();
      at += 1 + (COUNTS[command] ?? 0);
    }
    return {
      d: writer.d,
      fill: !flags.includes("f0"),
      stroke: !flags.includes("s0"),
      shade: flags.includes("dk") ? -0.2 : flags.includes("lt") ? 0.2 : 0,
      ...(writer.ends ? { ends: writer.ends } : {}),
    };
  });
  const [l = 0, t = 0, r = width, b = height] = preset.text?.split(" ").map(read) ?? [];
  return turned(
    preset,
    { outlines, text: { x: l, y: t, width: Math.max(0, r - l), height: Math.max(0, b - t) } },
    width,
    height,
  );
}

/** Returns a geometry with its axes exchanged or mirrored; `width` and `height` are those in which it was drawn. */
function turned(
  { transpose = false, mirror }: Preset,
  { outlines, text }: ResolvedGeometry,
  width: number,
  height: number,
): ResolvedGeometry {
  if (!transpose && !mirror) return { outlines, text };
  const [w, h] = transpose ? [height, width] : [width, height];
  const point = ([x, y]: [number, number]): [number, number] => {
    const [u, v] = transpose ? [y, x] : [x, y];
    return [mirror === "x" ? w - u : u, mirror === "y" ? h - v : v];
  };
  // A single reflection reverses the direction of an arc.
  const other = transpose !== (mirror !== undefined);
  const path = (d: string) =>
    d.replace(/([MLCQAZ])([^MLCQAZ]*)/g, (_, command: string, list: string) => {
      const values = list
        .trim()
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number);
      if (command === "A") {
        const [rx = 0, ry = 0, angle = 0, large = 0, sweep = 0, x = 0, y = 0] = values;
        return `A${transpose ? `${n(ry)} ${n(rx)}` : `${n(rx)} ${n(ry)}`} ${angle} ${large} ${other ? 1 - sweep : sweep} ${point([x, y]).map(n).join(" ")}`;
      }
      const pairs = values.flatMap((value, at) => (at % 2 ? [] : [point([value, values[at + 1] ?? 0])]));
      return command + pairs.map((pair) => pair.map(n).join(" ")).join(" ");
    });
  const [from, to] = [point([text.x, text.y]), point([text.x + text.width, text.y + text.height])];
  return {
    outlines: outlines.map(({ ends: _, ...outline }) => ({ ...outline, d: path(outline.d) })),
    text: {
      x: Math.min(from[0], to[0]),
      y: Math.min(from[1], to[1]),
      width: Math.abs(to[0] - from[0]),
      height: Math.abs(to[1] - from[1]),
    },
  };
}

function star(points: number, adjust: number, width: number, height: number): ResolvedGeometry {
  const inner = Math.max(0, Math.min(50000, adjust)) / 50000;
  const writer = new PathWriter();
  for (let at = 0; at < points * 2; at++) {
    const angle = -Math.PI / 2 + (at * Math.PI) / points;
    const far = at % 2 ? inner : 1;
    const [x, y] = [width / 2 + (width / 2) * far * Math.cos(angle), height / 2 + (height / 2) * far * Math.sin(angle)];
    if (at) writer.line(x, y);
    else writer.move(x, y);
  }
  writer.close();
  const half = inner * Math.SQRT1_2;
  return {
    outlines: [{ d: writer.d, fill: true, stroke: true, shade: 0 }],
    text: { x: (width / 2) * (1 - half), y: (height / 2) * (1 - half), width: width * half, height: height * half },
  };
}

/** Scales SVG path data with absolute coordinates. */
export function scaledPath(d: string, sx: number, sy: number): string {
  return d.replace(/([MLCQAZ])([^MLCQAZ]*)/g, (_, command: string, list: string) => {
    const values = list
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    if (command === "A")
      return `A${values.map((value, at) => (at % 7 === 0 || at % 7 === 5 ? n(value * sx) : at % 7 === 1 || at % 7 === 6 ? n(value * sy) : String(value))).join(" ")}`;
    return command + values.map((value, at) => n(value * (at % 2 ? sy : sx))).join(" ");
  });
}

/** Whether a preset is known; unknown ones are drawn as rectangles. */
export function knowsPreset(preset: string): boolean {
  return preset in PRESETS || preset in STARS;
}

/** Resolves a geometry at a size in points. An unknown preset becomes its rectangle. */
export function resolveGeometry(geometry: Geometry, width: number, height: number): ResolvedGeometry {
  if ("preset" in geometry) {
    const { preset, adjust = {} } = geometry;
    const many = STARS[preset];
    if (many) return star(many.points, adjust.adj ?? many.adjust, width, height);
    const known = PRESETS[preset] ?? must(PRESETS.rect);
    return known.transpose
      ? resolvePreset(preset, known, adjust, height, width)
      : resolvePreset(preset, known, adjust, width, height);
  }
  const [sx, sy] = [width / geometry.width, height / geometry.height];
  return {
    outlines: geometry.paths.map(({ d, fill, stroke }) => ({
      d: scaledPath(d, sx, sy),
      fill,
      stroke,
      shade: 0,
      ...openEnds(d, sx, sy),
    })),
    text: { x: 0, y: 0, width, height },
  };
}

/**
 * Returns the ends of an open path and the directions in which it leaves and reaches them: control points of a curve;
 * arcs are converted to curves.
 */
function openEnds(d: string, sx: number, sy: number): Pick<Outline, "ends"> {
  if (d.includes("Z")) return {};
  const points: [number, number][] = [];
  new SvgPath(d).unarc().iterate(([command, ...values]) => {
    if (command === "M") points.length = 0;
    for (let at = 0; at + 1 < values.length; at += 2) points.push([must(values[at]) * sx, must(values[at + 1]) * sy]);
  });
  const [from, to] = [points[0], points.at(-1)];
  // A control point may coincide with its end; then the next point gives the direction.
  const apart =
    (one: [number, number]) =>
    ([x, y]: [number, number]) =>
      Math.hypot(x - one[0], y - one[1]) > 1e-6;
  const next = from && points.find(apart(from));
  const before = to && points.findLast(apart(to));
  return from && to && next && before ? { ends: { from, next, before, to } } : {};
}
