import { type Stroke, must, type Shadow, type TextBox } from "@unitext/core/model";
import { type XmlNode, attribute } from "../../../shared/xml";
import { points, clamp, turned } from "../package/names";
import { type Values, share, round, colour, type Properties } from "./properties";

/** Reads the outline of a shape; undefined when it has none. `drawn` are the definitions of dashes by name. */
export function readStroke(graphic: Values, drawn: ReadonlyMap<string, XmlNode>): Stroke | undefined {
  const kind = graphic.stroke ?? "none";
  if (kind === "none") return undefined;
  const width = points(graphic["stroke-width"]) ?? 0;
  const opacity = share(graphic["stroke-opacity"]);
  const element = kind === "dash" ? drawn.get(`stroke-dash ${graphic["stroke-dash"]}`) : undefined;
  const long = (name: string) => {
    const value = attribute(element, name);
    return share(value) ?? (points(value) === undefined ? 1 : must(points(value)) / Math.max(width, 0.5));
  };
  const two = element && Number(attribute(element, "dots2") ?? 0) > 0;
  const longest = element ? Math.max(long("dots1-length"), two ? long("dots2-length") : 0) : 0;
  const dash: Stroke["dash"] = !element
    ? undefined
    : two
      ? longest > 5
        ? "longdashdot"
        : "dashdot"
      : longest > 5
        ? "longdash"
        : longest > 1.5
          ? "dash"
          : "dot";
  const end = (side: "start" | "end"): Stroke["head"] => {
    const name = graphic[`marker-${side}`];
    if (!name) return undefined;
    const marker = drawn.get(`marker ${name}`);
    const label = `${name} ${attribute(marker, "display-name") ?? ""}`.toLowerCase();
    const d = attribute(marker, "d") ?? "";
    const form =
      /circle|oval|dot/.test(label) || /[ca]/i.test(d.slice(1))
        ? "oval"
        : /diamond|square/.test(label) || d === "m10 0 10 10-10 10-10-10z"
          ? "diamond"
          : /open|line/.test(label) || d === "m10 0-10 18 2 2 8-14 8 14 2-2z"
            ? "open"
            : /concave|stealth|barb/.test(label) || d === "m10 0-10 30 10-9 10 9z"
              ? "barbed"
              : "triangle";
    return {
      form,
      size: clamp(
        round((points(graphic[`marker-${side}-width`]) ?? 3 * Math.max(width, 1)) / Math.max(width, 1)),
        1,
        10,
      ),
    };
  };
  const [head, tail] = [end("start"), end("end")];
  return {
    colour: colour(graphic["stroke-color"]) ?? "#000000",
    width: round(clamp(width, 0, 1600)),
    ...(opacity !== undefined && opacity < 1 ? { opacity: clamp(opacity, 0, 1) } : {}),
    ...(dash ? { dash } : {}),
    ...(head ? { head } : {}),
    ...(tail ? { tail } : {}),
  };
}

/** Reads the shadow of a shape; undefined when it has none. */
export function readShadow(graphic: Values): Shadow | undefined {
  if (graphic.shadow !== "visible") return undefined;
  const [x, y] = [points(graphic["shadow-offset-x"]) ?? 0, points(graphic["shadow-offset-y"]) ?? 0];
  return {
    colour: colour(graphic["shadow-color"]) ?? "#808080",
    opacity: clamp(share(graphic["shadow-opacity"]) ?? 1, 0, 1),
    blur: clamp(points(graphic["shadow-blur"] ?? graphic.blur) ?? 0, 0, 1000),
    distance: clamp(round(Math.hypot(x, y)), 0, 1000),
    direction: turned(round((Math.atan2(y, x) * 180) / Math.PI)),
  };
}

/**
 * Reads how text is set in a shape. Text of a “custom” shape wraps as its style says (fo:wrap-option); text of a box
 * wraps at its width unless the box grows with it (draw:auto-grow-width), whatever the default style of all shapes
 * says.
 */
export function readBox({ graphic, paragraph, columns }: Properties, custom = false): TextBox {
  const inset = (side: string) =>
    round(
      clamp(
        points(graphic[`padding-${side}`] ?? graphic.padding) ?? (side === "left" || side === "right" ? 7.09 : 3.54),
        -4032,
        4032,
      ),
    );
  const anchor = ({ middle: "middle", bottom: "bottom", justify: "middle" } as Record<string, TextBox["anchor"]>)[
    graphic["textarea-vertical-align"] ?? ""
  ];
  const many = Number(columns["column-count"] ?? 1);
  const turn = paragraph["writing-mode"]?.startsWith("tb") ? (90 as const) : undefined;
  const shrinks = /shrink/.test(graphic["fit-to-size"] ?? "");
  return {
    insets: [inset("left"), inset("top"), inset("right"), inset("bottom")],
    ...(anchor ? { anchor } : {}),
    ...(many >= 2 && many <= 16
      ? { columns: Math.floor(many), gap: clamp(points(columns["column-gap"]) ?? 0, 0, 1000) }
      : {}),
    // A minimum height is that of a box that grows; files of some programs set no more (common practice, no source).
    fit: shrinks
      ? "shrink"
      : (graphic["auto-grow-height"] ?? ((points(graphic["min-height"]) ?? 0) > 0 && !custom ? "true" : "false")) ===
          "true"
        ? "grow"
        : "none",
    ...((custom ? graphic["wrap-option"] === "no-wrap" : graphic["auto-grow-width"] === "true") ? { wrap: false } : {}),
    ...(turn ? { turn } : {}),
  };
}
