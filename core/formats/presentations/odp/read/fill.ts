import { type Fill, mixed, type Stop, must } from "@unitext/core/model";
import { childrenOf, type XmlNode, attribute } from "../../../shared/xml";
import { clamp, turned } from "../package/names";
import { colour, share, type Values } from "./properties";

/**
 * Reads an angle (18.3.1) with a unit, or in degrees; a number above 360 without a unit counts tenths of degrees, as in
 * files.
 */
function angleOf(value: string | undefined): number {
  const [, number, unit] = /^\s*(-?[\d.]+)\s*(deg|grad|rad)?\s*$/.exec(value ?? "0") ?? [];
  const said = Number(number) || 0;
  return unit === "rad" ? (said * 180) / Math.PI : unit === "grad" ? said * 0.9 : unit === "deg" ? said : said / 10;
}

interface At<T> {
  at: number;
  value: T;
}

/**
 * Reads how a gradient of colours or opacities runs (16.40.1 and 16.40.7, the numbers from memory): along an angle or
 * from the middle; its border is the part before it starts.
 */
function runOf(element: XmlNode): { form: "linear" | "radial"; angle: number; from<T>(start: T, end: T): At<T>[] } {
  const style = attribute(element, "style") ?? "linear";
  const border = clamp(share(attribute(element, "border")) ?? 0, 0, 0.99);
  if (style !== "linear" && style !== "axial")
    return {
      form: "radial",
      angle: 0,
      from: (start, end) => [
        { at: 0, value: end },
        { at: 1 - border, value: start },
      ],
    };
  const angle = turned(90 - angleOf(attribute(element, "angle")));
  return {
    form: "linear",
    angle,
    from: (start, end) =>
      style === "axial"
        ? [
            { at: 0, value: end },
            { at: 0.5, value: start },
            { at: 1, value: end },
          ]
        : [
            { at: border, value: start },
            { at: 1, value: end },
          ],
  };
}

/** Interpolates between the values at two positions. */
function along<T>(values: readonly At<T>[], at: number, between: (a: T, b: T, share: number) => T): T {
  const after = values.findIndex((one) => one.at >= at);
  const [before, next] = [values[after - 1], values[after]];
  if (!next) return must(values.at(-1)).value;
  return !before
    ? next.value
    : between(before.value, next.value, next.at === before.at ? 1 : (at - before.at) / (next.at - before.at));
}

const tween = (a: number, b: number, part: number) => a + (b - a) * part;
const seen = (opacity: number): Pick<Stop, "opacity"> =>
  opacity >= 1 ? {} : { opacity: Math.round(clamp(opacity, 0, 1) * 1000) / 1000 };

/** Joins gradients of colour and opacity into stops with both. */
function veiled(colours: readonly At<string>[], veil: readonly At<number>[]): Stop[] {
  const places = [...new Set([...colours, ...veil].map(({ at }) => at))].sort((a, b) => a - b);
  return places.slice(0, 20).map((at) => ({ at, colour: along(colours, at, mixed), ...seen(along(veil, at, tween)) }));
}

/** The colour of a fill that names none (common practice, no source). */
const USUAL = "#729fcf";

/** A gradient of opacity over a fill (`draw:opacity`); undefined where there is none. */
function opacityRun(graphic: Values, drawn: ReadonlyMap<string, XmlNode>) {
  const element = drawn.get(`opacity ${graphic["opacity-name"]}`);
  if (!element) return undefined;
  const run = runOf(element);
  const values = run.from(share(attribute(element, "start")) ?? 1, share(attribute(element, "end")) ?? 1);
  return { form: run.form, angle: run.angle, values };
}

/** Reads graphic properties as a fill; undefined when there is none. `picture` returns the name of a fill picture. */
export function readFill(
  graphic: Values,
  drawn: ReadonlyMap<string, XmlNode>,
  picture: (image: XmlNode) => string | undefined,
): Fill | undefined {
  const opacity = share(graphic.opacity);
  const see = opacity === undefined ? {} : seen(opacity);
  switch (graphic.fill) {
    case "solid": {
      const veil = opacityRun(graphic, drawn);
      const plain = colour(graphic["fill-color"]) ?? USUAL;
      if (!veil) return { kind: "solid", colour: plain, ...see };
      const stops = veiled([{ at: veil.values[0]?.at ?? 0, value: plain }], veil.values);
      return { kind: "gradient", form: veil.form, angle: veil.angle, stops };
    }
    case "gradient":
      return readGradient(graphic, drawn, see);
    case "hatch":
      return readHatch(graphic, drawn);
    case "bitmap": {
      const image = drawn.get(`fill-image ${graphic["fill-image-name"]}`);
      const source = image && picture(image);
      const tile = (graphic.repeat ?? "repeat") === "repeat" ? { tile: true } : {};
      return source === undefined ? undefined : { kind: "picture", source, ...tile, ...see };
    }
    default:
      return undefined;
  }
}

function readGradient(
  graphic: Values,
  drawn: ReadonlyMap<string, XmlNode>,
  see: Pick<Stop, "opacity">,
): Fill | undefined {
  const name = graphic["fill-gradient-name"];
  const element =
    drawn.get(`gradient ${name}`) ?? drawn.get(`linearGradient ${name}`) ?? drawn.get(`radialGradient ${name}`);
  if (!element) {
    const plain = colour(graphic["fill-color"]);
    return plain ? { kind: "solid", colour: plain, ...see } : undefined;
  }
  const { form, angle, from } = runOf(element);
  const stops = childrenOf(element, "gradient-stop")
    .concat(childrenOf(element, "stop"))
    .flatMap((stop) => {
      const at = Number(attribute(stop, "offset"));
      const own = colour(attribute(stop, "color-value") ?? attribute(stop, "stop-color"));
      return own && Number.isFinite(at) ? [{ at: clamp(at, 0, 1), value: own }] : [];
    })
    .slice(0, 20);
  // Radial gradients run inwards in OpenDocument, and outwards here.
  const ordered = form === "linear" ? stops : stops.map((stop) => ({ ...stop, at: 1 - stop.at })).reverse();
  const [first, last] = [colour(attribute(element, "start-color")), colour(attribute(element, "end-color"))];
  const colours = stops.length >= 2 ? ordered : from(first ?? "#ffffff", last ?? "#000000");
  const veil = opacityRun(graphic, drawn);
  return {
    kind: "gradient",
    form,
    angle,
    stops: veil ? veiled(colours, veil.values) : colours.map(({ at, value }) => ({ at, colour: value, ...see })),
  };
}

function readHatch(graphic: Values, drawn: ReadonlyMap<string, XmlNode>): Fill {
  const element = drawn.get(`hatch ${graphic["fill-hatch-name"]}`);
  const rotation = attribute(element, "rotation") ?? "";
  const given = Number(rotation.replace(/deg$/, "")) || 0;
  // Without a unit, angles are tenths of degrees (common practice, no source).
  const degrees = turned(/deg/.test(rotation) ? given : given / 10) % 180;
  const isCrossed = (attribute(element, "style") ?? "single") !== "single";
  const plain = colour(graphic["fill-color"]);
  return {
    kind: "pattern",
    pattern: isCrossed ? (degrees % 90 > 20 && degrees % 90 < 70 ? "cross" : "grid") : lineDirection(degrees),
    fore: colour(attribute(element, "color")) ?? "#000000",
    back: graphic["fill-hatch-solid"] === "true" && plain ? plain : "#ffffff",
  };
}

function lineDirection(degrees: number): "horizontal" | "rising" | "vertical" | "falling" {
  if (degrees < 22 || degrees > 158) return "horizontal";
  if (degrees < 68) return "rising";
  return degrees < 112 ? "vertical" : "falling";
}
