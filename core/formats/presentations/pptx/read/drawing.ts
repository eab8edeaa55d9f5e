import { guideValues, knowsPreset, PathWriter } from "@unitext/core/figures";
import type { Fill, Frame, Geometry, Shadow } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { type ColourContext, colourIn, fraction } from "./colour";
import { EMU } from "../package/names";
import { degrees, points } from "./transform";

/** Imports the picture of a relationship and returns the name of its asset; undefined when it cannot be read. */
export type PictureOf = (id: string) => string | undefined;

export interface DrawingContext {
  colours: ColourContext;
  picture: PictureOf;
  /** The theme that styles refer to, and the pictures that it names. */
  theme: XmlElement | undefined;
  themePicture: PictureOf;
  /** Returns a picture in two colours. */
  duotone(source: string, colours: readonly [string, string]): string;
}

/** Returns the relationship id in an attribute of an element, whatever its prefix. */
export const relationOf = (element: XmlElement | undefined, name: string) =>
  Object.entries(element?.attributes ?? {}).find(([key]) => key.endsWith(`:${name}`))?.[1];

/** Returns the relationships of the charts in a shape. */
export function chartsIn(shape: XmlElement): string[] {
  if (localName(shape) !== "graphicFrame") return shape.children.flatMap(chartsIn);
  const id = relationOf(at(shape, "graphic", "graphicData", "chart"), "id");
  return id === undefined ? [] : [id];
}

/** Returns the relationships of a picture (CT_Blip), the best first: its SVG drawing, its file, a linked file. */
export function pictureIds(blip: XmlElement | undefined): string[] {
  const drawing = childrenOf(child(blip, "extLst"), "ext").flatMap((one) => child(one, "svgBlip") ?? [])[0];
  return [relationOf(drawing, "embed"), relationOf(blip, "embed"), relationOf(blip, "link")].filter(
    (id): id is string => id !== undefined,
  );
}

const FILLS = ["noFill", "solidFill", "gradFill", "blipFill", "pattFill", "grpFill"];

/** Returns the most similar pattern of those that are drawn (ECMA-376-1, 20.1.10.51). */
function patternOf(preset: string): Extract<Fill, { kind: "pattern" }>["pattern"] {
  if (/Grid|Check|Brick|Plaid|Weave|Trellis|Shingle/i.test(preset)) return "grid";
  if (/^diagCross|Diamond/i.test(preset)) return "cross";
  if (/UpDiag/i.test(preset)) return "rising";
  if (/DnDiag|zigZag|wave/i.test(preset)) return "falling";
  if (/horz|Horz/i.test(preset)) return "horizontal";
  if (/vert|Vert/i.test(preset)) return "vertical";
  return "dots";
}

/** Returns the first file of a picture that can be shown; the others are not imported. */
export function firstPicture(
  blip: XmlElement | undefined,
  take: (id: string) => string | undefined,
): string | undefined {
  for (const id of pictureIds(blip)) {
    const found = take(id);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Returns a picture as its blip shows it: in two colours where it says so (20.1.8.23). */
export function recolouredPicture(source: string, blip: XmlElement | undefined, context: DrawingContext): string {
  const [dark, light] = (child(blip, "duotone")?.children ?? []).map(
    (colour) =>
      colourIn({ name: "", local: "", attributes: {}, children: [colour], text: "" }, context.colours)?.colour,
  );
  return dark && light ? context.duotone(source, [dark, light]) : source;
}

/** Reads a fill element; null for no fill, undefined for an unknown one. */
export function readFill(element: XmlElement | undefined, context: DrawingContext): Fill | null | undefined {
  if (!element) return undefined;
  switch (localName(element)) {
    case "noFill":
      return null;
    case "solidFill": {
      const seen = colourIn(element, context.colours);
      return seen && { kind: "solid", ...seen };
    }
    case "gradFill": {
      const stops = childrenOf(child(element, "gsLst"), "gs")
        .flatMap((stop) => {
          const seen = colourIn(stop, context.colours);
          return seen ? [{ at: Math.max(0, Math.min(1, fraction(stop.attributes.pos ?? "0"))), ...seen }] : [];
        })
        .sort((a, b) => a.at - b.at);
      const [first] = stops;
      if (!first) return undefined;
      if (stops.length === 1) return { kind: "solid", colour: first.colour };
      const path = child(element, "path");
      return {
        kind: "gradient",
        form: path ? "radial" : "linear",
        angle: degrees(child(element, "lin")?.attributes.ang),
        stops: stops.slice(0, 20),
      };
    }
    case "pattFill": {
      const [fore, back] = [
        colourIn(child(element, "fgClr"), context.colours),
        colourIn(child(element, "bgClr"), context.colours),
      ];
      return {
        kind: "pattern",
        pattern: patternOf(element.attributes.prst ?? ""),
        fore: fore?.colour ?? "#000000",
        back: back?.colour ?? "#ffffff",
      };
    }
    case "blipFill": {
      const blip = child(element, "blip");
      const source = firstPicture(blip, context.picture);
      const opacity = child(blip, "alphaModFix");
      return source === undefined
        ? undefined
        : {
            kind: "picture",
            source: recolouredPicture(source, blip, context),
            ...(child(element, "tile") ? { tile: true } : {}),
            ...(opacity ? { opacity: fraction(opacity.attributes.amt) } : {}),
          };
    }
    default:
      return undefined;
  }
}

export const fillElement = (properties: XmlElement | undefined) =>
  properties?.children.find((part) => FILLS.includes(localName(part)));

/**
 * Resolves a style reference to the theme's lists (ECMA-376-1, 20.1.4.1.13 and 26): the nth entry, with the style's
 * colour as `phClr`.
 */
export function themed(
  list: "fillStyleLst" | "lnStyleLst" | "bgFillStyleLst",
  index: number,
  reference: XmlElement,
  context: DrawingContext,
): { element: XmlElement | undefined; context: DrawingContext } {
  const element = at(context.theme, "themeElements", "fmtScheme", list)?.children[index - 1];
  const placeholder = colourIn(reference, context.colours);
  return {
    element,
    context: {
      ...context,
      picture: context.themePicture,
      colours: { ...context.colours, ...(placeholder ? { placeholder } : {}) },
    },
  };
}

/**
 * Returns the fill of a shape: its own, that of the placeholders that it inherits from (nearest first), or that of its
 * style.
 */
export function shapeFill(
  properties: readonly (XmlElement | undefined)[],
  style: XmlElement | undefined,
  context: DrawingContext,
): Fill | undefined {
  for (const own of properties) {
    const found = readFill(fillElement(own), context);
    if (found !== undefined) return found ?? undefined;
  }
  const reference = child(style, "fillRef");
  const index = Number(reference?.attributes.idx ?? 0);
  if (!reference || !index || index === 1000) return undefined;
  const { element, context: own } = themed(
    index > 1000 ? "bgFillStyleLst" : "fillStyleLst",
    index > 1000 ? index - 1000 : index,
    reference,
    context,
  );
  return readFill(element, own) ?? undefined;
}

/** Returns the background that a reference names (`p:bgRef`). */
export function referredFill(reference: XmlElement, context: DrawingContext): Fill | undefined {
  const index = Number(reference.attributes.idx ?? 0);
  if (!index) return undefined;
  const { element, context: own } = themed(
    index > 1000 ? "bgFillStyleLst" : "fillStyleLst",
    index > 1000 ? index - 1000 : index,
    reference,
    context,
  );
  return readFill(element, own) ?? undefined;
}

/** Reads the outer shadow of a shape; undefined when it has none. */
export function readShadow(properties: XmlElement | undefined, context: DrawingContext): Shadow | undefined {
  const outer = at(properties, "effectLst", "outerShdw");
  const seen = outer && colourIn(outer, context.colours);
  if (!outer || !seen) return undefined;
  const { blurRad, dist, dir } = outer.attributes;
  return {
    colour: seen.colour,
    opacity: seen.opacity ?? 1,
    blur: Math.min(1000, points(blurRad)),
    distance: Math.min(1000, points(dist)),
    direction: degrees(dir),
  };
}

/**
 * Reads the geometry of a shape (ECMA-376-1, 20.1.9); undefined when it has none of its own. `unknown` is told of
 * presets that are not drawn.
 */
export function readGeometry(
  properties: XmlElement | undefined,
  frame: Frame,
  unknown: (preset: string) => void,
): Geometry | undefined {
  const preset = child(properties, "prstGeom");
  if (preset) {
    const name = preset.attributes.prst ?? "rect";
    const adjust = Object.fromEntries(
      childrenOf(child(preset, "avLst"), "gd").flatMap(({ attributes }) => {
        const value = Number(/^val\s+(-?[\d.]+)/.exec(attributes.fmla ?? "")?.[1]);
        return attributes.name && Number.isFinite(value) ? [[attributes.name.slice(0, 20), value] as const] : [];
      }),
    );
    if (!/^[A-Za-z0-9]{1,40}$/.test(name)) return { preset: "rect" };
    if (!knowsPreset(name)) unknown(name);
    return { preset: name, ...(Object.keys(adjust).length ? { adjust } : {}) };
  }
  const custom = child(properties, "custGeom");
  return custom ? customGeometry(custom, frame) : undefined;
}

function customGeometry(custom: XmlElement, frame: Frame): Geometry | undefined {
  const [width, height] = [frame.width * EMU, frame.height * EMU];
  const guides = [...childrenOf(child(custom, "avLst"), "gd"), ...childrenOf(child(custom, "gdLst"), "gd")].map(
    ({ attributes }) => ({ name: attributes.name ?? "", formula: attributes.fmla ?? "val 0" }),
  );
  const values = guideValues(guides, {}, width, height);
  const read = (word: string | undefined) => values.get(word ?? "") ?? (Number(word) || 0);
  const written = childrenOf(child(custom, "pathLst"), "path")
    .slice(0, 500)
    .flatMap((path) => {
      const [w, h] = [Number(path.attributes.w) || width, Number(path.attributes.h) || height];
      // All paths are scaled to a box of 1,000 by 1,000.
      const writer = new PathWriter(w ? 1000 / w : 1, h ? 1000 / h : 1);
      for (const command of path.children) {
        const pts = childrenOf(command, "pt").map(
          ({ attributes }) => [read(attributes.x), read(attributes.y)] as const,
        );
        const [a = [0, 0], b = [0, 0], c = [0, 0]] = pts;
        const name = localName(command);
        if (name === "moveTo") writer.move(...a);
        else if (name === "lnTo") writer.line(...a);
        else if (name === "cubicBezTo") writer.cubic(...a, ...b, ...c);
        else if (name === "quadBezTo") writer.quad(...a, ...b);
        else if (name === "arcTo")
          writer.arc(
            read(command.attributes.wR),
            read(command.attributes.hR),
            read(command.attributes.stAng),
            read(command.attributes.swAng),
          );
        else if (name === "close") writer.close();
      }
      const { fill, stroke } = path.attributes;
      return writer.d && writer.d.length < 200000
        ? [{ d: writer.d, fill: fill !== "none", stroke: stroke !== "0" && stroke !== "false" }]
        : [];
    });
  return written.length ? { width: 1000, height: 1000, paths: written } : undefined;
}
