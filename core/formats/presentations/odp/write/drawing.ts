import { type ResolvedGeometry, resolveGeometry } from "@unitext/core/figures";
import {
  type Element,
  type Fill,
  type Frame,
  type Geometry,
  isAxial,
  type Shadow,
  type Stop,
  type Stroke,
  type TextBox,
} from "@unitext/core/model";
import SvgPath from "svgpath";
import { xml, type XmlValue } from "../../../shared/xml";
import { length, turned } from "../package/names";

export type Attributes = Record<string, XmlValue>;
const percent = (share: number) => `${Math.round(share * 1000) / 10}%`;

const HATCHES = {
  horizontal: ["single", 0],
  vertical: ["single", 90],
  rising: ["single", 45],
  falling: ["single", 135],
  grid: ["double", 0],
  cross: ["double", 45],
  dots: ["triple", 0],
} as const;
const DASHES = {
  dot: [1, 1, 0, 0, 1],
  dash: [1, 4, 0, 0, 3],
  longdash: [1, 8, 0, 0, 3],
  dashdot: [1, 4, 1, 1, 3],
  longdashdot: [1, 8, 1, 1, 3],
} as const;
const ENDS = {
  triangle: ["0 0 20 30", "m10 0-10 30h20z"],
  barbed: ["0 0 20 30", "m10 0-10 30 10-9 10 9z"],
  open: ["0 0 20 20", "m10 0-10 18 2 2 8-14 8 14 2-2z"],
  oval: ["0 0 20 20", "m10 0c5.5 0 10 4.5 10 10s-4.5 10-10 10-10-4.5-10-10 4.5-10 10-10z"],
  diamond: ["0 0 20 20", "m10 0 10 10-10 10-10-10z"],
} as const;

/**
 * Returns the start and end of a gradient as the format has them: from the middle when it is symmetric, from outside
 * when it is radial. Its border is the part before it starts.
 */
function ends(
  form: "linear" | "radial",
  stops: readonly Stop[],
): { style: string; start: Stop | undefined; end: Stop | undefined; border: string } {
  const [first, last] = [stops[0], stops.at(-1)];
  if (isAxial({ form, stops: [...stops] })) return { style: "axial", start: stops[1], end: last, border: "0%" };
  return form === "radial"
    ? { style: form, start: last, end: first, border: percent(1 - (last?.at ?? 1)) }
    : { style: form, start: first, end: last, border: percent(first?.at ?? 0) };
}
const middle = (form: string) => (form === "radial" ? { "draw:cx": "50%", "draw:cy": "50%" } : {});
const across = (form: string, angle: number) => (form === "radial" ? {} : { "draw:angle": `${turned(90 - angle)}deg` });

/**
 * The fills, dashes and line ends that styles of a presentation refer to (OpenDocument 1.3, 16.40); equal ones are
 * written once.
 */
export class Definitions {
  private readonly made = new Map<string, { name: string; xml: string }>();
  constructor(private readonly prefix = "") {}

  private named(element: string, attributes: Attributes, content = ""): string {
    const key = JSON.stringify([element, attributes, content]);
    const known = this.made.get(key);
    if (known) return known.name;
    const name = `${this.prefix}${element.slice(5).replace("-image", "")}${this.made.size + 1}`;
    this.made.set(key, { name, xml: xml(element, { "draw:name": name, ...attributes }, content) });
    return name;
  }
  picture(path: string): string {
    return this.named("draw:fill-image", {
      "xlink:href": path,
      "xlink:type": "simple",
      "xlink:show": "embed",
      "xlink:actuate": "onLoad",
    });
  }
  /**
   * Writes a gradient between its first and last colour, or from the middle to both sides; gradients of the format
   * start at the top and turn counter-clockwise.
   */
  gradient({ form, angle, stops }: Extract<Fill, { kind: "gradient" }>): string {
    const { style, start, end, border } = ends(form, stops);
    return this.named("draw:gradient", {
      "draw:style": style,
      ...middle(form),
      "draw:start-color": start?.colour,
      "draw:end-color": end?.colour,
      "draw:start-intensity": "100%",
      "draw:end-intensity": "100%",
      ...across(form, angle),
      "draw:border": border,
    });
  }
  /** Writes the opacity of a gradient, from its first colour to its last (16.40.7, the number from memory). */
  opacity({ form, angle, stops }: Extract<Fill, { kind: "gradient" }>): string {
    const { style, start, end, border } = ends(form, stops);
    return this.named("draw:opacity", {
      "draw:style": style,
      ...middle(form),
      "draw:start": percent(start?.opacity ?? 1),
      "draw:end": percent(end?.opacity ?? 1),
      ...across(form, angle),
      "draw:border": border,
    });
  }
  hatch({ pattern, fore }: Extract<Fill, { kind: "pattern" }>): string {
    const [style, rotation] = HATCHES[pattern];
    return this.named("draw:hatch", {
      "draw:style": style,
      "draw:color": fore,
      "draw:distance": "4pt",
      "draw:rotation": rotation * 10,
    });
  }
  dash(dash: NonNullable<Stroke["dash"]>): string {
    const [dots, long, more, short, gap] = DASHES[dash];
    return this.named("draw:stroke-dash", {
      "draw:style": "rect",
      "draw:dots1": dots,
      "draw:dots1-length": percent(long),
      ...(more ? { "draw:dots2": more, "draw:dots2-length": percent(short) } : {}),
      "draw:distance": percent(gap),
    });
  }
  end(form: keyof typeof ENDS): string {
    const [box, d] = ENDS[form];
    return this.named("draw:marker", { "svg:viewBox": box, "svg:d": d });
  }
  xml(): string {
    return [...this.made.values()].map(({ xml: own }) => own).join("");
  }
}

/** Writes a fill as graphic properties; `file` returns the path of a picture, or undefined when its file is missing. */
export function fillAttributes(
  fill: Fill | undefined,
  definitions: Definitions,
  file: (source: string) => string | undefined,
): Attributes {
  switch (fill?.kind) {
    case undefined:
      return { "draw:fill": "none" };
    case "solid":
      return {
        "draw:fill": "solid",
        "draw:fill-color": fill.colour,
        ...(fill.opacity === undefined ? {} : { "draw:opacity": percent(fill.opacity) }),
      };
    case "gradient":
      return {
        "draw:fill": "gradient",
        "draw:fill-gradient-name": definitions.gradient(fill),
        "draw:fill-color": fill.stops[0]?.colour,
        ...(fill.stops.some(({ opacity = 1 }) => opacity < 1)
          ? { "draw:opacity-name": definitions.opacity(fill) }
          : {}),
      };
    case "pattern":
      return {
        "draw:fill": "hatch",
        "draw:fill-hatch-name": definitions.hatch(fill),
        "draw:fill-hatch-solid": "true",
        "draw:fill-color": fill.back,
      };
    case "picture": {
      const path = file(fill.source);
      if (path === undefined) return { "draw:fill": "none" };
      return {
        "draw:fill": "bitmap",
        "draw:fill-image-name": definitions.picture(path),
        "style:repeat": fill.tile ? "repeat" : "stretch",
        ...(fill.opacity === undefined ? {} : { "draw:opacity": percent(fill.opacity) }),
      };
    }
  }
}

/** Returns the graphic properties of an outline; `none` without one. */
export function strokeAttributes(stroke: Stroke | undefined, definitions: Definitions): Attributes {
  if (!stroke) return { "draw:stroke": "none" };
  const end = (side: "start" | "end", given: Stroke["head"]): Attributes =>
    given
      ? {
          [`draw:marker-${side}`]: definitions.end(given.form),
          [`draw:marker-${side}-width`]: length(Math.max(stroke.width, 1) * given.size),
        }
      : {};
  return {
    "draw:stroke": stroke.dash ? "dash" : "solid",
    ...(stroke.dash ? { "draw:stroke-dash": definitions.dash(stroke.dash) } : {}),
    "svg:stroke-width": length(stroke.width),
    "svg:stroke-color": stroke.colour,
    ...(stroke.opacity === undefined ? {} : { "svg:stroke-opacity": percent(stroke.opacity) }),
    ...end("start", stroke.head),
    ...end("end", stroke.tail),
  };
}

/** Returns the graphic properties of a shadow; hidden without one. */
export function shadowAttributes(shadow: Shadow | undefined): Attributes {
  if (!shadow) return {};
  const angle = (shadow.direction * Math.PI) / 180;
  return {
    "draw:shadow": "visible",
    "draw:shadow-offset-x": length(shadow.distance * Math.cos(angle)),
    "draw:shadow-offset-y": length(shadow.distance * Math.sin(angle)),
    "draw:shadow-color": shadow.colour,
    "draw:shadow-opacity": percent(shadow.opacity),
  };
}

/** Writes how text is set in a shape as graphic properties, with the columns inside them. */
export function boxAttributes(
  box: TextBox | undefined,
  usual: {
    insets: NonNullable<TextBox["insets"]>;
    anchor: NonNullable<TextBox["anchor"]>;
    fit: NonNullable<TextBox["fit"]>;
  },
): Attributes {
  const [left, top, right, bottom] = box?.insets ?? usual.insets;
  const fit = box?.fit ?? usual.fit;
  return {
    "fo:padding-left": length(left),
    "fo:padding-top": length(top),
    "fo:padding-right": length(right),
    "fo:padding-bottom": length(bottom),
    "draw:textarea-vertical-align": box?.anchor ?? usual.anchor,
    "draw:auto-grow-height": fit === "grow" ? "true" : "false",
    "draw:auto-grow-width": box?.wrap === false ? "true" : "false",
    "draw:fit-to-size": fit === "shrink" ? "shrink-to-fit" : undefined,
    "fo:wrap-option": box?.wrap === false ? "no-wrap" : "wrap",
  };
}

export const place = ({ x, y, width, height }: Frame): Attributes => ({
  "svg:x": length(x),
  "svg:y": length(y),
  "svg:width": length(width),
  "svg:height": length(height),
});

/**
 * Writes the place of a shape; a rotated one is at the origin and moved from there (`draw:transform`, 19.228), turning
 * counter-clockwise in radians.
 */
export function transformAttributes(frame: Frame, rotation: number | undefined): Attributes {
  if (!rotation) return place(frame);
  const angle = (rotation * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const { x, y, width, height } = frame;
  const left = x + width / 2 - (width / 2) * cos + (height / 2) * sin;
  const top = y + height / 2 - (width / 2) * sin - (height / 2) * cos;
  return {
    "svg:width": length(width),
    "svg:height": length(height),
    "draw:transform": `rotate (${-angle}) translate (${length(left)} ${length(top)})`,
  };
}

const FINE = 100;
/**
 * Writes the path of a geometry in hundredths of points as commands of enhanced paths (19.145): lines, curves, ends,
 * and what is not filled or outlined.
 */
function enhancedPath({ outlines }: ResolvedGeometry): string {
  return outlines
    .map(({ d, fill, stroke }) => {
      const drawn = new SvgPath(d).abs().unarc().unshort().scale(FINE).round(0);
      const commands: string[] = [];
      drawn.iterate(([name, ...values], _, x, y) => {
        if (name === "H") commands.push(`L ${values[0]} ${y}`);
        else if (name === "V") commands.push(`L ${x} ${values[0]}`);
        else commands.push([name, ...values].join(" "));
      });
      return [...commands, ...(fill ? [] : ["F"]), ...(stroke ? [] : ["S"]), "N"].join(" ");
    })
    .join(" ");
}

/** Writes a geometry as an enhanced geometry at a size, always with outlines of its own. */
export function geometryXml(geometry: Geometry, { width, height }: Frame, flip: Element["flip"]): string {
  const form = resolveGeometry(geometry, width, height);
  const { x, y, width: w, height: h } = form.text;
  const fine = (value: number) => Math.round(value * FINE);
  return xml("draw:enhanced-geometry", {
    "svg:viewBox": `0 0 ${Math.max(1, fine(width))} ${Math.max(1, fine(height))}`,
    "draw:type": "non-primitive",
    "draw:text-areas": [x, y, x + w, y + h].map(fine).join(" "),
    "draw:mirror-horizontal": flip?.includes("x") ? "true" : undefined,
    "draw:mirror-vertical": flip?.includes("y") ? "true" : undefined,
    "draw:enhanced-path": enhancedPath(form),
  });
}
