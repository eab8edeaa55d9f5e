import { knowsPreset } from "@unitext/core/figures";
import { type Element, type Frame, type Geometry, type TextBox, must } from "@unitext/core/model";
import { child, localName, type XmlNode, attribute } from "../../../shared/xml";
import SvgPath from "svgpath";
import { presetNamed, readEnhancedGeometry, textMargins } from "./enhancedgeometry";
import { ellipseForm, regular } from "./basicshapes";
import { points } from "../package/names";

export const round = (value: number) => Math.round(value * 100) / 100;

type Matrix = [number, number, number, number, number, number];

/** Reads a list of transforms (19.228); rotation is counter-clockwise, as in files. */
function matrixOf(transform: string): Matrix {
  let m: Matrix = [1, 0, 0, 1, 0, 0];
  const after = (n: Matrix) => {
    m = [
      n[0] * m[0] + n[2] * m[1],
      n[1] * m[0] + n[3] * m[1],
      n[0] * m[2] + n[2] * m[3],
      n[1] * m[2] + n[3] * m[3],
      n[0] * m[4] + n[2] * m[5] + n[4],
      n[1] * m[4] + n[3] * m[5] + n[5],
    ];
  };
  for (const [, name, list = ""] of transform.matchAll(/(\w+)\s*\(([^)]*)\)/g)) {
    const words = list.trim().split(/[\s,]+/);
    const plain = words.map((word) => Number.parseFloat(word) || 0);
    const lengths = words.map((word) => points(word) ?? (Number.parseFloat(word) || 0));
    const [a = 0, b = 0] = plain;
    if (name === "rotate") after([Math.cos(a), -Math.sin(a), Math.sin(a), Math.cos(a), 0, 0]);
    else if (name === "translate") after([1, 0, 0, 1, lengths[0] ?? 0, lengths[1] ?? 0]);
    else if (name === "scale") after([a || 1, 0, 0, words.length > 1 ? b || 1 : a || 1, 0, 0]);
    else if (name === "skewX") after([1, 0, Math.tan(-a), 1, 0, 0]);
    else if (name === "skewY") after([1, Math.tan(-a), 0, 1, 0, 0]);
    else if (name === "matrix") after([a, b, plain[2] ?? 0, plain[3] ?? 1, lengths[4] ?? 0, lengths[5] ?? 0]);
  }
  return m;
}

const inPage = (value: number) => Math.max(-40000, Math.min(40000, value));

/** Returns the frame of a shape on its page, and its rotation. */
export function transformOf(shape: XmlNode): { frame: Frame; rotation?: number; flip?: "y" } | undefined {
  const [x, y, width, height] = ["x", "y", "width", "height"].map((name) => points(attribute(shape, name)));
  const transform = attribute(shape, "transform");
  const [w, h] = [Math.max(0.1, width ?? 0), Math.max(0.1, height ?? 0)];
  if ((width === undefined || height === undefined || (width <= 0 && height <= 0)) && !transform) return undefined;
  if (!transform) return { frame: { x: inPage(x ?? 0), y: inPage(y ?? 0), width: w, height: h } };
  const [a, b, c, d, e, f] = matrixOf(transform);
  const [sx, sy] = [Math.hypot(a, b), Math.hypot(c, d)];
  const flipped = a * d - b * c < 0;
  const [cx, cy] = [
    a * ((x ?? 0) + w / 2) + c * ((y ?? 0) + h / 2) + e,
    b * ((x ?? 0) + w / 2) + d * ((y ?? 0) + h / 2) + f,
  ];
  const rotation = (round((Math.atan2(b, a) * 180) / Math.PI) + 360) % 360;
  return {
    frame: {
      x: round(inPage(cx - (w * sx) / 2)) + 0,
      y: round(inPage(cy - (h * sy) / 2)) + 0,
      width: round(Math.max(0.1, w * sx)),
      height: round(Math.max(0.1, h * sy)),
    },
    ...(rotation ? { rotation } : {}),
    ...(flipped ? { flip: "y" as const } : {}),
  };
}

/** Reads the frame of a line from its end points, and how it is mirrored in the frame. */
export function lineFrame(shape: XmlNode): { frame: Frame; flip?: "x" | "y" | "xy" } {
  const [x1, y1, x2, y2] = ["x1", "y1", "x2", "y2"].map((name) => inPage(points(attribute(shape, name)) ?? 0)) as [
    number,
    number,
    number,
    number,
  ];
  const flip = `${x2 < x1 ? "x" : ""}${y2 < y1 ? "y" : ""}` as "" | "x" | "y" | "xy";
  return {
    frame: {
      x: round(Math.min(x1, x2)),
      y: round(Math.min(y1, y2)),
      width: round(Math.max(0.01, Math.abs(x2 - x1))),
      height: round(Math.max(0.01, Math.abs(y2 - y1))),
    },
    ...(flip ? { flip } : {}),
  };
}

/** Returns path data over a view box as a geometry; `open` when it is not closed. */
function pathForm(d: string, viewBox: string | undefined): Geometry | undefined {
  const [left = 0, top = 0, width = 0, height = 0] = (viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (!d.trim() || d.length > 200_000) return undefined;
  const path = new SvgPath(d);
  if (path.toString().length < 4) return undefined;
  const wide = width > 0 ? width : 1;
  const tall = height > 0 ? height : 1;
  const drawn: string[] = [];
  path
    .abs()
    .unshort()
    .translate(-left, -top)
    .round(3)
    .iterate(([name, ...values], _, x, y) => {
      if (name === "H") drawn.push(`L${values[0]} ${y}`);
      else if (name === "V") drawn.push(`L${x} ${values[0]}`);
      else drawn.push(`${name}${values.join(" ")}`);
    });
  return { width: wide, height: tall, paths: [{ d: drawn.join(""), fill: /z/i.test(d), stroke: true }] };
}

export const polygon = (list: string, closed: boolean) => {
  const pairs = list
    .trim()
    .split(/\s+/)
    .filter((pair) => /^-?[\d.]+,-?[\d.]+$/.test(pair));
  return pairs.length < 2 ? "" : `M${pairs.map((pair) => pair.replace(",", " ")).join("L")}${closed ? "Z" : ""}`;
};

type Form = { geometry: Geometry; flip?: Element["flip"] };

/** Reads a shape with enhanced geometry (ODF 1.3, 10.6.2). */
function customForm(shape: XmlNode, frame: Frame): Form {
  const element = child(shape, "enhanced-geometry");
  if (!element) return { geometry: { preset: "rect" } };
  const preset = presetNamed(attribute(element, "type"));
  const flip =
    `${attribute(element, "mirror-horizontal") === "true" ? "x" : ""}${attribute(element, "mirror-vertical") === "true" ? "y" : ""}` as
      | ""
      | "x"
      | "y"
      | "xy";
  const modifiers = (attribute(element, "modifiers") ?? "").trim();
  const plain =
    preset === "rect" ||
    preset === "ellipse" ||
    (preset !== undefined && knowsPreset(preset) && !modifiers && !attribute(element, "enhanced-path"));
  return {
    geometry: plain
      ? { preset: must(preset) }
      : (readEnhancedGeometry(element, frame.width, frame.height) ?? {
          preset: preset && knowsPreset(preset) ? preset : "rect",
        }),
    ...(flip ? { flip } : {}),
  };
}

/** Reads the geometry of a drawing shape, and along which axes it is mirrored. */
export function formOf(shape: XmlNode, frame: Frame): Form {
  switch (localName(shape)) {
    case "rect":
    case "caption": {
      const radius = points(attribute(shape, "corner-radius")) ?? 0;
      if (radius <= 0) return { geometry: { preset: "rect" } };
      const adj = Math.round(Math.min(50000, (radius / Math.max(0.1, Math.min(frame.width, frame.height))) * 100000));
      return { geometry: { preset: "roundRect", adjust: { adj } } };
    }
    case "ellipse":
    case "circle":
      return { geometry: ellipseForm(shape) };
    case "regular-polygon":
      return { geometry: regular(shape) };
    case "polygon":
    case "polyline":
      return {
        geometry: pathForm(
          polygon(attribute(shape, "points") ?? "", localName(shape) === "polygon"),
          attribute(shape, "viewBox"),
        ) ?? { preset: "rect" },
      };
    case "path":
      return { geometry: pathForm(attribute(shape, "d") ?? "", attribute(shape, "viewBox")) ?? { preset: "rect" } };
    case "custom-shape":
      return customForm(shape, frame);
    default:
      return { geometry: { preset: "line" } };
  }
}

/** Reads how text is set in a shape: where its geometry has a text area, insets extend to that area. */
export function boxIn(shape: XmlNode, geometry: Geometry, { width, height }: Frame, box: TextBox): TextBox {
  const element = child(shape, "enhanced-geometry");
  const margins = element && !("preset" in geometry) ? textMargins(element, width, height) : undefined;
  if (!margins?.some((margin) => margin > 0)) return box;
  const insets = box.insets ?? [0, 0, 0, 0];
  return {
    ...box,
    insets: margins.map((margin, side) => Math.round((margin + (insets[side] ?? 0)) * 100) / 100) as TextBox["insets"],
  };
}
