import {
  mixed,
  type DeckMetadata,
  type Element,
  type Fill,
  type Frame,
  type Geometry,
  type Shadow,
  type Stroke,
} from "@unitext/core/model";
import { type FigurePath, type ResolvedGeometry, resolveGeometry, type Outline } from "@unitext/core/figures";
import type { Matrix, SceneNode } from "./scene";

const DASH: Record<NonNullable<Stroke["dash"]>, readonly number[]> = {
  dot: [1, 3],
  dash: [4, 3],
  longdash: [8, 3],
  dashdot: [4, 3, 1, 3],
  longdashdot: [8, 3, 1, 3],
};

/** Returns the matrix that rotates and mirrors a frame about its middle; undefined where it does neither. */
export function turning({ x, y, width, height }: Frame, rotation = 0, flip?: Element["flip"]): Matrix | undefined {
  if (!rotation && !flip) return undefined;
  const [cx, cy] = [x + width / 2, y + height / 2];
  const angle = (rotation * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [fx, fy] = [flip?.includes("x") ? -1 : 1, flip?.includes("y") ? -1 : 1];
  const [a, b, c, d] = [cos * fx, sin * fx, -sin * fy, cos * fy];
  return [a, b, c, d, cx - a * cx - c * cy, cy - b * cx - d * cy];
}

/** Makes a colour lighter or darker by a share. */
const shaded = (colour: string, shade: number) =>
  shade === 0 ? colour : mixed(colour, shade < 0 ? "#000000" : "#ffffff", Math.abs(shade));

/** Returns a picture that covers or fills a frame, clipped by an outline. */
function pictureFill(
  fill: Extract<Fill, { kind: "picture" }>,
  frame: Frame,
  clip: string,
  element: string,
  assets: DeckMetadata["assets"],
): SceneNode {
  const asset = assets[fill.source];
  return {
    kind: "group",
    element,
    clip,
    ...(fill.opacity === undefined ? {} : { opacity: fill.opacity }),
    nodes: [
      {
        kind: "picture",
        element,
        source: fill.source,
        alt: "",
        missing: !asset,
        ...frame,
        ...(asset ? { sha256: asset.sha256 } : {}),
      },
    ],
  };
}

/** Returns the fill of a path, unless it is a picture. */
export function paintOf(fill: Fill, frame: Frame, shade = 0): Pick<FigurePath, "fill" | "fillOpacity" | "paint"> {
  if (fill.kind === "solid")
    return { fill: shaded(fill.colour, shade), ...(fill.opacity === undefined ? {} : { fillOpacity: fill.opacity }) };
  if (fill.kind === "picture") return {};
  return {
    fill: fill.kind === "pattern" ? mixed(fill.back, fill.fore, 0.5) : (fill.stops[0]?.colour ?? "#888888"),
    paint: { fill, frame },
  };
}

/** Returns the stroke of an outline in the scene's terms. */
export function strokeOf({
  colour,
  width,
  opacity,
  dash,
}: Stroke): Pick<FigurePath, "stroke" | "width" | "strokeOpacity" | "dash"> {
  const wide = Math.max(width, 0.25);
  return {
    stroke: colour,
    width: wide,
    ...(opacity === undefined ? {} : { strokeOpacity: opacity }),
    ...(dash ? { dash: DASH[dash].map((part) => part * wide) } : {}),
  };
}

/** Returns the end of a line: an arrow head, a dot or a diamond at `tip`, coming from `before`. */
function lineEnd(
  end: NonNullable<Stroke["head"]>,
  tip: readonly [number, number],
  before: readonly [number, number],
  { colour, width, opacity }: Stroke,
): FigurePath {
  const long = Math.max(width, 1) * end.size;
  const angle = Math.atan2(tip[1] - before[1], tip[0] - before[0]);
  const at = (along: number, across: number): string =>
    `${(tip[0] + along * Math.cos(angle) - across * Math.sin(angle)).toFixed(2)} ${(tip[1] + along * Math.sin(angle) + across * Math.cos(angle)).toFixed(2)}`;
  const filled = { fill: colour, ...(opacity === undefined ? {} : { fillOpacity: opacity }) };
  const half = long / 2;
  switch (end.form) {
    case "triangle":
      return { d: `M${at(0, 0)}L${at(-long, half)}L${at(-long, -half)}Z`, ...filled };
    case "barbed":
      return { d: `M${at(0, 0)}L${at(-long, half)}L${at(-long * 0.65, 0)}L${at(-long, -half)}Z`, ...filled };
    case "open":
      return { d: `M${at(-long, half)}L${at(0, 0)}L${at(-long, -half)}`, stroke: colour, width };
    case "diamond":
      return { d: `M${at(-half, 0)}L${at(0, half)}L${at(half, 0)}L${at(0, -half)}Z`, ...filled };
    case "oval":
      return {
        d: `M${at(-half, 0)}A${half} ${half} 0 1 1 ${at(half, 0)}A${half} ${half} 0 1 1 ${at(-half, 0)}Z`,
        ...filled,
      };
  }
}

function moved(path: FigurePath, x: number, y: number): FigurePath {
  return { ...path, matrix: [1, 0, 0, 1, x, y] };
}

/** What a geometry is drawn with; `shown` is the width of the edge of a picture shown in it. */
type GeometryPaint = Pick<Element, "id" | "fill" | "stroke" | "shadow"> & { shown?: { edge: number } };

/** Draws the shadow of a filled area, or else of its outline. */
function shadowNode(form: ResolvedGeometry, frame: Frame, shadow: Shadow, paint: GeometryPaint): SceneNode {
  const { id, fill, stroke, shown } = paint;
  const angle = (shadow.direction * Math.PI) / 180;
  const [dx, dy] = [shadow.distance * Math.cos(angle), shadow.distance * Math.sin(angle)];
  const edge = shown?.edge ?? stroke?.width ?? 0;
  const whole = fill !== undefined || shown !== undefined;
  const far = shadow.blur * 1.5 + edge;
  const around = { x: -far, y: -far, width: frame.width + far * 2, height: frame.height + far * 2 };
  const soft = shadow.blur > 0 ? { blur: { by: shadow.blur, frame: around } } : {};
  const { colour, opacity } = shadow;
  const outline = { stroke: colour, strokeOpacity: opacity };
  const paths = form.outlines
    .filter(({ fill: filled }) => filled || !whole)
    .map(
      ({ d }): FigurePath =>
        whole
          ? { d, ...soft, fill: colour, fillOpacity: opacity, ...(edge ? { ...outline, width: edge } : {}) }
          : { d, ...soft, ...outline, width: stroke?.width ?? 1 },
    );
  return { kind: "paths", element: id, paths: paths.map((path) => moved(path, frame.x + dx, frame.y + dy)) };
}

/**
 * Draws a geometry at its place, filled and outlined. Returns its nodes and the frame of its text on the page. Its
 * shadow is that of its area where it is filled, or where something is shown in it with an edge of the width `shown`;
 * else that of its outline.
 */
export function drawGeometry(
  geometry: Geometry,
  frame: Frame,
  paint: GeometryPaint,
  assets: DeckMetadata["assets"],
): { nodes: SceneNode[]; text: Frame; form: ResolvedGeometry } {
  const { id, fill, stroke, shadow } = paint;
  // Files give lines an invisible height, which would be seen as a slope over a long line.
  const level = (side: number) =>
    "preset" in geometry && /^(line|straightConnector1)$/.test(geometry.preset) && side <= 0.1 ? 0 : side;
  const form = resolveGeometry(geometry, level(frame.width), level(frame.height));
  const nodes: SceneNode[] = shadow ? [shadowNode(form, frame, shadow, paint)] : [];
  const own = { x: 0, y: 0, width: frame.width, height: frame.height };
  const place = (path: FigurePath) => moved(path, frame.x, frame.y);
  for (const outline of form.outlines) {
    if (fill?.kind === "picture" && outline.fill)
      nodes.push({
        kind: "group",
        element: id,
        matrix: [1, 0, 0, 1, frame.x, frame.y],
        nodes: [pictureFill(fill, own, outline.d, id, assets)],
      });
    const path: FigurePath = {
      d: outline.d,
      ...(fill && outline.fill ? paintOf(fill, own, outline.shade) : {}),
      ...(stroke && outline.stroke ? strokeOf(stroke) : {}),
    };
    const ends = stroke ? endsOf(outline, stroke).map(place) : [];
    if (path.fill || path.stroke) nodes.push({ kind: "paths", element: id, paths: [place(path), ...ends] });
  }
  return { nodes, text: { ...form.text, x: frame.x + form.text.x, y: frame.y + form.text.y }, form };
}

function endsOf({ ends, stroke: outlined }: Outline, stroke: Stroke): FigurePath[] {
  if (!ends || !outlined) return [];
  return [
    ...(stroke.head ? [lineEnd(stroke.head, ends.from, ends.next, stroke)] : []),
    ...(stroke.tail ? [lineEnd(stroke.tail, ends.to, ends.before, stroke)] : []),
  ];
}

/** Fills the whole of a frame. */
export function drawFill(fill: Fill, frame: Frame, element: string, assets: DeckMetadata["assets"]): SceneNode[] {
  return drawGeometry({ preset: "rect" }, frame, { id: element, fill }, assets).nodes;
}
