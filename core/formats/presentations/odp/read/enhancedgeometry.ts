import { type Geometry, must } from "@unitext/core/model";
import { childrenOf, type XmlNode, attribute } from "../../../shared/xml";

type Read = (name: string) => number;

const FUNCTIONS: Record<string, (...values: number[]) => number> = {
  abs: Math.abs,
  sqrt: (x) => Math.sqrt(Math.max(0, x)),
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
  atan: Math.atan,
  atan2: Math.atan2,
  min: (x, y) => Math.min(x, y),
  max: (x, y) => Math.max(x, y),
  if: (x, y, z) => (x > 0 ? y : z),
};

/** Returns the value of a formula of an enhanced geometry (OpenDocument 1.3, 19.171); 0 when it cannot be parsed. */
export function formula(text: string, read: Read): number {
  const tokens = text.match(/[\d.]+(?:[eE][-+]?\d+)?|[?$]?[A-Za-z_]\w*|\$\d+|[-+*/(),]/g) ?? [];
  let at = 0;
  let depth = 0;
  const primary = (): number => {
    const token = tokens[at++];
    if (token === undefined || ++depth > 200) return 0;
    if (token === "-") return -primary();
    if (token === "+") return primary();
    if (token === "(") {
      const value = sum();
      if (tokens[at] === ")") at++;
      return value;
    }
    if (/^[\d.]/.test(token)) return Number(token) || 0;
    if (tokens[at] === "(") {
      at++;
      const values: number[] = [];
      while (at < tokens.length && tokens[at] !== ")") {
        values.push(sum());
        if (tokens[at] === ",") at++;
        else break;
      }
      if (tokens[at] === ")") at++;
      return FUNCTIONS[token]?.(...values) ?? 0;
    }
    return read(token);
  };
  const product = (): number => {
    let value = primary();
    while (tokens[at] === "*" || tokens[at] === "/") {
      const times = tokens[at++] === "*";
      const next = primary();
      value = times ? value * next : next === 0 ? 0 : value / next;
    }
    return value;
  };
  function sum(): number {
    let value = product();
    while (tokens[at] === "+" || tokens[at] === "-") value += tokens[at++] === "+" ? product() : -product();
    return value;
  }
  const value = sum();
  return Number.isFinite(value) ? value : 0;
}

const n = (value: number) => String(Math.round(value * 1000) / 1000);
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
const MOST = 20000;

interface Part {
  d: string;
  fill: boolean;
  stroke: boolean;
}

/** Returns the commands of an enhanced path (19.145) as SVG path data. */
function draw(path: string, read: Read): Part[] {
  const tokens = path.match(/[A-Z]|[?$]\w+|-?[\d.]+(?:[eE][-+]?\d+)?|[a-z]+/g) ?? [];
  const parts: Part[] = [];
  let part: Part = { d: "", fill: true, stroke: true };
  let [x, y] = [0, 0];
  let level = true;
  const end = () => {
    if (part.d) parts.push(part);
    part = { d: "", fill: true, stroke: true };
  };
  const go = (command: string, ...values: number[]) => {
    part.d += `${command}${values.map(n).join(" ")}`;
    [x, y] = values.slice(-2) as [number, number];
  };
  const begin = (move: boolean, px: number, py: number) => go(move || part.d === "" ? "M" : "L", px, py);
  /**
   * Draws an arc of an ellipse between two angles, clockwise or counter-clockwise; the whole ellipse when they are
   * equal.
   */
  const arc = (cx: number, cy: number, rx: number, ry: number, from: number, sweep: number) => {
    const steps = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI * 0.75)));
    for (let step = 1; step <= steps; step++) {
      const angle = from + (sweep * step) / steps;
      part.d += `A${n(Math.abs(rx))} ${n(Math.abs(ry))} 0 0 ${sweep > 0 ? 1 : 0} ${n(cx + rx * Math.cos(angle))} ${n(cy + ry * Math.sin(angle))}`;
      [x, y] = [cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)];
    }
  };
  const boxed = (v: number[], move: boolean, clockwise: boolean) => {
    const [x1, y1, x2, y2, x3, y3, x4, y4] = v as [number, number, number, number, number, number, number, number];
    const [cx, cy, rx, ry] = [
      (x1 + x2) / 2,
      (y1 + y2) / 2,
      Math.abs(x2 - x1) / 2 || 1e-6,
      Math.abs(y2 - y1) / 2 || 1e-6,
    ];
    const angle = (px: number, py: number) => Math.atan2((py - cy) / ry, (px - cx) / rx);
    const [from, to] = [angle(x3, y3), angle(x4, y4)];
    const turn = (((to - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;
    begin(move, cx + rx * Math.cos(from), cy + ry * Math.sin(from));
    arc(cx, cy, rx, ry, from, clockwise ? turn : turn === 2 * Math.PI ? -turn : turn - 2 * Math.PI);
  };
  let command = "";
  for (let at = 0, made = 0; at < tokens.length && made < MOST; made++) {
    const token = must(tokens[at]);
    if (/^[A-Z]$/.test(token)) {
      command = token;
      at++;
      level = true;
      if (command === "Z") part.d += part.d ? "Z" : "";
      else if (command === "N") end();
      else if (command === "F") part.fill = false;
      else if (command === "S") part.stroke = false;
      if (!COUNT[command]) continue;
    }
    const count = COUNT[command];
    if (!count || at + count > tokens.length) {
      at++;
      continue;
    }
    const values: number[] = [];
    while (values.length < count && at < tokens.length && !/^[A-Z]$/.test(must(tokens[at])))
      values.push(/^-?[\d.]/.test(must(tokens[at])) ? Number(tokens[at++]) || 0 : read(must(tokens[at++])));
    if (values.length < count) continue;
    const [a, b, c, d, e, f] = values as [number, number, number, number, number, number];
    switch (command) {
      case "M":
        go("M", a, b);
        command = "L";
        break;
      case "L":
        go("L", a, b);
        break;
      case "C":
        go("C", ...values);
        break;
      case "Q":
        go("Q", ...values);
        break;
      case "T":
      case "U": {
        const [from, to] = [(e * Math.PI) / 180, (f * Math.PI) / 180];
        begin(command === "U", a + c * Math.cos(from), b + d * Math.sin(from));
        const sweep = to - from;
        arc(a, b, c, d, from, Math.abs(sweep) < 1e-9 || Math.abs(sweep) > 2 * Math.PI ? 2 * Math.PI : sweep);
        break;
      }
      case "A":
      case "B":
        boxed(values, command === "B", false);
        break;
      case "W":
      case "V":
        boxed(values, command === "V", true);
        break;
      case "X":
      case "Y": {
        const [fx, fy] = [x, y];
        const flat = (command === "X") === level;
        part.d += flat
          ? `A${n(Math.abs(a - fx))} ${n(Math.abs(b - fy))} 0 0 ${(a - fx) * (b - fy) > 0 ? 1 : 0} ${n(a)} ${n(b)}`
          : `A${n(Math.abs(a - fx))} ${n(Math.abs(b - fy))} 0 0 ${(a - fx) * (b - fy) > 0 ? 0 : 1} ${n(a)} ${n(b)}`;
        [x, y] = [a, b];
        level = !level;
        break;
      }
      case "G": {
        const [from, sweep] = [(c * Math.PI) / 180, (d * Math.PI) / 180];
        arc(x - a * Math.cos(from), y - b * Math.sin(from), a, b, from, sweep);
        break;
      }
    }
  }
  end();
  return parts;
}

/** Returns the coordinate box of an enhanced geometry and the values of its names, at a size in points. */
function measured(
  element: XmlNode,
  width: number,
  height: number,
): { left: number; top: number; wide: number; tall: number; read: Read } {
  const box = (attribute(element, "viewBox") ?? "0 0 21600 21600")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [left = 0, top = 0] = box;
  let [, , wide = 21600, tall = 21600] = box;
  const modifiers = (attribute(element, "modifiers") ?? "")
    .trim()
    .split(/[\s,]+/)
    .map((value) => Number(value) || 0);
  const equations = new Map(
    childrenOf(element, "equation")
      .slice(0, 2000)
      .map((one) => [attribute(one, "name") ?? "", attribute(one, "formula") ?? ""]),
  );
  // Files declare an empty box where their path is in hundredths of a millimetre of the shape's size.
  const fine = 2540 / 72;
  if (!(wide > 0)) wide = width * fine;
  if (!(tall > 0)) tall = height * fine;
  const values = new Map<string, number>([
    ["left", left],
    ["top", top],
    ["right", left + wide],
    ["bottom", top + tall],
    ["width", wide],
    ["height", tall],
    ["logwidth", width * fine],
    ["logheight", height * fine],
    ["xstretch", 0],
    ["ystretch", 0],
    ["hasstroke", 1],
    ["hasfill", 1],
    ["pi", Math.PI],
  ]);
  const open = new Set<string>();
  const read: Read = (name) => {
    if (name.startsWith("$")) return modifiers[Number(name.slice(1))] ?? 0;
    const bare = name.replace(/^\?/, "");
    const known = values.get(bare);
    if (known !== undefined || open.has(bare) || open.size > 200) return known ?? 0;
    const said = equations.get(bare);
    if (said === undefined) return 0;
    open.add(bare);
    const value = formula(said, read);
    open.delete(bare);
    values.set(bare, value);
    return value;
  };
  return { left, top, wide, tall, read };
}

/**
 * Returns the text insets of an enhanced geometry (left, top, right, bottom) in points: those of its first text area
 * (`draw:text-areas`, OpenDocument 1.3, part 3); undefined when it has none.
 */
export function textMargins(
  element: XmlNode,
  width: number,
  height: number,
): [number, number, number, number] | undefined {
  const area = (attribute(element, "text-areas") ?? "")
    .trim()
    .split(/[\s,]+/)
    .slice(0, 4);
  if (area.length < 4) return undefined;
  const { left, top, wide, tall, read } = measured(element, width, height);
  const [l, t, r, b] = area.map((place) => (/^[-+]?[\d.]/.test(place) ? Number(place) : read(place))) as [
    number,
    number,
    number,
    number,
  ];
  const found = [
    ((l - left) / wide) * width,
    ((t - top) / tall) * height,
    ((left + wide - r) / wide) * width,
    ((top + tall - b) / tall) * height,
  ];
  if (!found.every(Number.isFinite) || r <= l || b <= t) return undefined;
  return found.map((value) => Math.max(0, Math.round(value * 100) / 100)) as [number, number, number, number];
}

/** Returns an enhanced geometry with a path as outlines, at a size in points; undefined when it has none. */
export function readEnhancedGeometry(element: XmlNode, width: number, height: number): Geometry | undefined {
  const path = attribute(element, "enhanced-path");
  if (!path) return undefined;
  const { left, top, wide, tall, read } = measured(element, width, height);
  const parts = draw(path, read).slice(0, 500);
  const moved = left || top ? parts.map((part) => ({ ...part, d: shifted(part.d, -left, -top) })) : parts;
  return moved.length && moved.every(({ d }) => d.length <= 200_000)
    ? { width: wide, height: tall, paths: moved }
    : undefined;
}

/** Moves path data with absolute commands. */
function shifted(d: string, dx: number, dy: number): string {
  return d.replace(
    /([MLCQ])([^MLCQAZ]*)|A([^MLCQAZ]*)/g,
    (_, command: string | undefined, plain: string, arc: string | undefined) => {
      if (!command) {
        const [rx, ry, turn, large, sweep, x, y] = (arc ?? "").trim().split(/\s+/).map(Number) as [
          number,
          number,
          number,
          number,
          number,
          number,
          number,
        ];
        return `A${n(rx)} ${n(ry)} ${turn} ${large} ${sweep} ${n(x + dx)} ${n(y + dy)}`;
      }
      return (
        command +
        plain
          .trim()
          .split(/\s+/)
          .map((value, nth) => n(Number(value) + (nth % 2 ? dy : dx)))
          .join(" ")
      );
    },
  );
}

/** Preset geometries for names that files give without a path (common practice, no source). */
const PRESETS: Record<string, string> = {
  rectangle: "rect",
  "round-rectangle": "roundRect",
  ellipse: "ellipse",
  "isosceles-triangle": "triangle",
  "right-triangle": "rtTriangle",
  diamond: "diamond",
  parallelogram: "parallelogram",
  trapezoid: "trapezoid",
  pentagon: "pentagon",
  hexagon: "hexagon",
  octagon: "octagon",
  cross: "plus",
  can: "can",
  cube: "cube",
  "right-arrow": "rightArrow",
  "left-arrow": "leftArrow",
  "up-arrow": "upArrow",
  "down-arrow": "downArrow",
  "left-right-arrow": "leftRightArrow",
  "up-down-arrow": "upDownArrow",
  star5: "star5",
  star8: "star8",
  heart: "heart",
  sun: "sun",
  moon: "moon",
  cloud: "cloud",
  smiley: "smileyFace",
  lightning: "lightningBolt",
  chevron: "chevron",
  "pentagon-right": "homePlate",
  "rectangular-callout": "wedgeRectCallout",
  "round-rectangular-callout": "wedgeRoundRectCallout",
  "round-callout": "wedgeEllipseCallout",
  ring: "donut",
  frame: "frame",
  "flowchart-process": "flowChartProcess",
  "flowchart-decision": "flowChartDecision",
  "flowchart-terminator": "flowChartTerminator",
  "flowchart-data": "flowChartInputOutput",
};

export function presetNamed(type: string | undefined): string | undefined {
  if (!type) return undefined;
  return type.startsWith("ooxml-") ? type.slice(6) : PRESETS[type];
}
