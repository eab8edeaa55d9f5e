import { enhancedPath, n } from "./enhancedpath";
import type { Geometry } from "@unitext/core/model";
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
  const parts = enhancedPath(path, read).slice(0, 500);
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

/** Returns the preset geometry of a `draw:type`; undefined when there is none. */
export function presetNamed(type: string | undefined): string | undefined {
  if (!type) return undefined;
  return type.startsWith("ooxml-") ? type.slice(6) : PRESETS[type];
}
