import type { Element, Fill, Frame, Geometry, Shadow, Stroke, TextBox } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { emu } from "../package/names";

/** Writes a colour with its opacity (`a:srgbClr`). */
export function colourXml(colour: string, opacity?: number): string {
  return xml(
    "a:srgbClr",
    { val: colour.slice(1).toUpperCase() },
    opacity === undefined ? "" : xml("a:alpha", { val: Math.round(opacity * 100000) }),
  );
}

export const share = (value: number) => Math.round(value * 100000);
const PATTERN = {
  dots: "pct20",
  horizontal: "horz",
  vertical: "vert",
  rising: "upDiag",
  falling: "dnDiag",
  grid: "smGrid",
  cross: "diagCross",
} as const;

/** The relationships of a picture: its file and, where that is a raster of a vector drawing, the drawing. */
export interface Embedded {
  id: string;
  lines?: string;
}

/**
 * The extension of a picture that names its SVG drawing, as programs that support SVG have it (ECMA-376-1, 20.1.2.2.15,
 * defines its place; the name from memory).
 */
const LINES = {
  uri: "{96DAC541-7B7A-43D3-8B79-37D633B846F1}",
  namespace: "http://schemas.microsoft.com/office/drawing/2016/SVG/main",
};

/** Writes a picture (CT_Blip) with its effects. */
export function blipXml({ id, lines }: Embedded, effects = ""): string {
  const drawing =
    lines === undefined
      ? ""
      : xml(
          "a:extLst",
          {},
          xml("a:ext", { uri: LINES.uri }, xml("asvg:svgBlip", { "xmlns:asvg": LINES.namespace, "r:embed": lines })),
        );
  return xml("a:blip", { "r:embed": id }, effects, drawing);
}

/**
 * Writes a fill (ECMA-376-1, 20.1.8); `embed` returns the relationships of a picture, or undefined when its file is
 * missing.
 */
export function fillXml(fill: Fill, embed: (source: string) => Embedded | undefined): string {
  switch (fill.kind) {
    case "solid":
      return xml("a:solidFill", {}, colourXml(fill.colour, fill.opacity));
    case "gradient":
      return xml(
        "a:gradFill",
        { rotWithShape: 1 },
        xml(
          "a:gsLst",
          {},
          ...fill.stops.map(({ at, colour, opacity }) => xml("a:gs", { pos: share(at) }, colourXml(colour, opacity))),
        ),
        fill.form === "radial"
          ? '<a:path path="circle"><a:fillToRect l="50000" t="50000" r="50000" b="50000"/></a:path>'
          : xml("a:lin", { ang: Math.round((((fill.angle % 360) + 360) % 360) * 60000), scaled: 0 }),
      );
    case "pattern":
      return xml(
        "a:pattFill",
        { prst: PATTERN[fill.pattern] },
        xml("a:fgClr", {}, colourXml(fill.fore)),
        xml("a:bgClr", {}, colourXml(fill.back)),
      );
    case "picture": {
      const picture = embed(fill.source);
      if (!picture) return "<a:noFill/>";
      return xml(
        "a:blipFill",
        { rotWithShape: 1 },
        blipXml(picture, fill.opacity === undefined ? "" : xml("a:alphaModFix", { amt: share(fill.opacity) })),
        fill.tile
          ? '<a:tile tx="0" ty="0" sx="100000" sy="100000" flip="none" algn="tl"/>'
          : "<a:stretch><a:fillRect/></a:stretch>",
      );
    }
  }
}

const DASH = { dot: "sysDot", dash: "dash", longdash: "lgDash", dashdot: "dashDot", longdashdot: "lgDashDot" } as const;
const END = { triangle: "triangle", open: "arrow", barbed: "stealth", oval: "oval", diamond: "diamond" } as const;
const endSize = (size: number) => (size < 2.5 ? "sm" : size < 4 ? "med" : "lg");

/** Writes a line (`a:ln`, or a border of a cell under another name). */
export function strokeXml(stroke: Stroke | null | undefined, name = "a:ln"): string {
  if (!stroke) return xml(name, {}, "<a:noFill/>");
  const end = (element: string, given: Stroke["head"]) =>
    given ? xml(element, { type: END[given.form], w: endSize(given.size), len: endSize(given.size) }) : "";
  return xml(
    name,
    { w: emu(stroke.width) },
    xml("a:solidFill", {}, colourXml(stroke.colour, stroke.opacity)),
    stroke.dash ? xml("a:prstDash", { val: DASH[stroke.dash] }) : "",
    end("a:headEnd", stroke.head),
    end("a:tailEnd", stroke.tail),
  );
}

/** Returns the effect list of a shadow; empty without one. */
export function shadowXml(shadow: Shadow | undefined): string {
  if (!shadow) return "";
  return xml(
    "a:effectLst",
    {},
    xml(
      "a:outerShdw",
      {
        blurRad: emu(shadow.blur),
        dist: emu(shadow.distance),
        dir: Math.round((((shadow.direction % 360) + 360) % 360) * 60000),
        algn: "ctr",
        rotWithShape: 0,
      },
      colourXml(shadow.colour, shadow.opacity),
    ),
  );
}

/** Writes a path of absolute SVG commands as a path of the standard; arcs become Bézier curves. */
function pathCommands(d: string): string {
  const point = (x: number, y: number) => xml("a:pt", { x: Math.round(x), y: Math.round(y) });
  let at: [number, number] = [0, 0];
  let out = "";
  for (const [, command = "", list = ""] of d.matchAll(/([MLCQAZ])([^MLCQAZ]*)/g)) {
    const v = list
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    const [a = 0, b = 0, c = 0, e = 0, f = 0, g = 0, h = 0] = v;
    if (command === "M") out += xml("a:moveTo", {}, point(a, b));
    else if (command === "L") out += xml("a:lnTo", {}, point(a, b));
    else if (command === "C") out += xml("a:cubicBezTo", {}, point(a, b), point(c, e), point(f, g));
    else if (command === "Q") out += xml("a:quadBezTo", {}, point(a, b), point(c, e));
    else if (command === "A")
      out += arcCurves(at, [a, b], [g, h], f === 1, e === 1)
        .map(([p, q, r]) => xml("a:cubicBezTo", {}, point(...p), point(...q), point(...r)))
        .join("");
    else out += "<a:close/>";
    if (command !== "Z") at = [v.at(-2) ?? 0, v.at(-1) ?? 0];
  }
  return out;
}

type Point = [number, number];

/** Returns an arc of an upright ellipse between two points as Bézier curves (SVG 2, appendix B.2.4). */
function arcCurves(
  [x1, y1]: Point,
  [rx0, ry0]: Point,
  [x2, y2]: Point,
  sweep: boolean,
  large: boolean,
): [Point, Point, Point][] {
  let [rx, ry] = [Math.abs(rx0) || 1e-6, Math.abs(ry0) || 1e-6];
  const [dx, dy] = [(x1 - x2) / 2, (y1 - y2) / 2];
  const lack = (dx / rx) ** 2 + (dy / ry) ** 2;
  if (lack > 1) [rx, ry] = [rx * Math.sqrt(lack), ry * Math.sqrt(lack)];
  const root = Math.sqrt(Math.max(0, 1 / ((dx / rx) ** 2 + (dy / ry) ** 2 || 1) - 1)) * (large === sweep ? -1 : 1);
  const [cx0, cy0] = [(root * rx * dy) / ry, (-root * ry * dx) / rx];
  const [cx, cy] = [cx0 + (x1 + x2) / 2, cy0 + (y1 + y2) / 2];
  const start = Math.atan2((dy - cy0) / ry, (dx - cx0) / rx);
  let turn = Math.atan2((-dy - cy0) / ry, (-dx - cx0) / rx) - start;
  if (sweep && turn < 0) turn += 2 * Math.PI;
  if (!sweep && turn > 0) turn -= 2 * Math.PI;
  const parts = Math.max(1, Math.ceil(Math.abs(turn) / (Math.PI / 2) - 1e-9));
  const step = turn / parts;
  const k = (4 / 3) * Math.tan(step / 4);
  const at = (angle: number): Point => [cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)];
  const slope = (angle: number): Point => [-rx * Math.sin(angle) * k, ry * Math.cos(angle) * k];
  return Array.from({ length: parts }, (_, nth): [Point, Point, Point] => {
    const [from, to] = [start + nth * step, start + (nth + 1) * step];
    const [p, q, s, e] = [at(from), at(to), slope(from), slope(to)];
    return [[p[0] + s[0], p[1] + s[1]], [q[0] - e[0], q[1] - e[1]], q];
  });
}

/** Writes the geometry of a shape: a preset with its adjust values, or custom outlines (ECMA-376-1, 20.1.9). */
export function geometryXml(geometry: Geometry): string {
  if ("preset" in geometry)
    return xml(
      "a:prstGeom",
      { prst: geometry.preset },
      xml(
        "a:avLst",
        {},
        ...Object.entries(geometry.adjust ?? {}).map(([name, value]) =>
          xml("a:gd", { name, fmla: `val ${Math.round(value)}` }),
        ),
      ),
    );
  const paths = geometry.paths.map(({ d, fill, stroke }) =>
    xml(
      "a:path",
      {
        w: Math.round(geometry.width),
        h: Math.round(geometry.height),
        fill: fill ? undefined : "none",
        stroke: stroke ? undefined : 0,
      },
      pathCommands(d),
    ),
  );
  return `<a:custGeom><a:avLst/><a:gdLst/><a:ahLst/><a:cxnLst/><a:rect l="0" t="0" r="r" b="b"/>${xml("a:pathLst", {}, ...paths)}</a:custGeom>`;
}

/** Writes a transform with rotation and mirroring (`a:xfrm`, or `p:xfrm` of a graphic frame). */
export function transformXml(
  frame: Frame,
  { rotation, flip }: Pick<Element, "rotation" | "flip">,
  name = "a:xfrm",
): string {
  const turned = rotation ? Math.round((((rotation % 360) + 360) % 360) * 60000) : undefined;
  return xml(
    name,
    {
      rot: turned || undefined,
      flipH: flip?.includes("x") ? 1 : undefined,
      flipV: flip?.includes("y") ? 1 : undefined,
    },
    xml("a:off", { x: emu(frame.x), y: emu(frame.y) }),
    xml("a:ext", { cx: emu(frame.width), cy: emu(frame.height) }),
  );
}

const ANCHOR = { top: "t", middle: "ctr", bottom: "b" } as const;
const FIT = { shrink: "<a:normAutofit/>", grow: "<a:spAutoFit/>", none: "<a:noAutofit/>" } as const;

/** Returns the body properties (`a:bodyPr`) of a text box. */
export function boxXml(
  box: TextBox | undefined,
  usual: { insets: readonly [number, number, number, number]; anchor?: keyof typeof ANCHOR; fit?: keyof typeof FIT },
): string {
  const [l, t, r, b] = box?.insets ?? usual.insets;
  const anchor = box?.anchor ?? usual.anchor ?? "top";
  return xml(
    "a:bodyPr",
    {
      rot: 0,
      vert: box?.turn === 90 ? "vert" : box?.turn === 270 ? "vert270" : undefined,
      wrap: box?.wrap === false ? "none" : "square",
      lIns: emu(l),
      tIns: emu(t),
      rIns: emu(r),
      bIns: emu(b),
      numCol: box?.columns,
      spcCol: box?.gap === undefined ? undefined : emu(box.gap),
      anchor: ANCHOR[anchor],
    },
    FIT[box?.fit ?? usual.fit ?? "shrink"],
  );
}
