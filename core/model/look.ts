import { z } from "zod";
import { Direction } from "./direction";
import { Colour, Language } from "./units";

const share = z.number().min(0).max(1);
const points = z.number().min(-4032).max(4032);

export const UNDERLINES = ["single", "double", "heavy", "dotted", "dashed", "wavy"] as const;
/**
 * Character properties where they differ from those of the style. Sizes and letter spacing in points; `rise` is a share
 * of the size, negative for subscripts.
 */
export const RunProperties = z.object({
  size: z.number().min(1).max(4000).optional(),
  colour: Colour.optional(),
  font: z.string().min(1).max(200).optional(),
  underline: z.enum(UNDERLINES).optional(),
  caps: z.enum(["all", "small"]).optional(),
  highlight: Colour.optional(),
  spacing: z.number().min(-100).max(400).optional(),
  rise: z.number().min(-1).max(1).optional(),
  language: Language.optional(),
});
export type RunProperties = z.infer<typeof RunProperties>;

/** The numbering schemes that both standards have. */
export const SCHEMES = [
  "1.",
  "1)",
  "(1)",
  "1",
  "a.",
  "a)",
  "(a)",
  "A.",
  "A)",
  "(A)",
  "i.",
  "i)",
  "(i)",
  "I.",
  "I)",
  "(I)",
] as const;
/** The bullet of an item. `size` is a share of the text size. */
export const Bullet = z.object({
  character: z.string().min(1).max(8).optional(),
  scheme: z.enum(SCHEMES).optional(),
  picture: z.string().min(1).max(1000).optional(),
  colour: Colour.optional(),
  size: z.number().min(0.1).max(4).optional(),
  font: z.string().min(1).max(200).optional(),
});
export type Bullet = z.infer<typeof Bullet>;

/** Line spacing: a multiple of the font's own line height, or points. */
export const LineSpacing = z.union([
  z.object({ times: z.number().min(0.1).max(20) }),
  z.object({ points: z.number().min(1).max(4000) }),
]);
const along = z.number().min(0).max(4032);
/**
 * A tab stop in points from the edge of the text. Text starts at it, or with `align` ends there, is centred there, or
 * has its decimal sign there.
 */
export const TabStop = z.union([along, z.object({ at: along, align: z.enum(["end", "centre", "decimal"]) })]);
export type TabStop = z.infer<typeof TabStop>;
/** Splits a tab stop into position and alignment. */
export const tabParts = (stop: TabStop): { at: number; align: "start" | "end" | "centre" | "decimal" } =>
  typeof stop === "number" ? { at: stop, align: "start" } : stop;
/** Makes a tab stop of a position and alignment. */
export const tabStop = (at: number, align: "start" | "end" | "centre" | "decimal"): TabStop =>
  align === "start" ? at : { at, align };
/**
 * Paragraph properties. `before` and `after` are points or shares of the text size; `left` is the indent of the text,
 * and `first` the offset of its first line from that, in points.
 */
export const ParagraphProperties = z.object({
  before: z
    .union([z.object({ points: z.number().min(0).max(4000) }), z.object({ times: z.number().min(0).max(20) })])
    .optional(),
  after: z
    .union([z.object({ points: z.number().min(0).max(4000) }), z.object({ times: z.number().min(0).max(20) })])
    .optional(),
  line: LineSpacing.optional(),
  left: points.optional(),
  right: points.optional(),
  first: points.optional(),
  tabs: z.array(TabStop).max(32).optional(),
  direction: Direction.optional(),
  bullet: Bullet.optional(),
  /** The properties of text typed into an empty paragraph; its size is that of the empty line. */
  words: RunProperties.optional(),
});
export type ParagraphProperties = z.infer<typeof ParagraphProperties>;

/** The style of one level of a text, as a file gives it: character and paragraph properties and alignment. */
export const LevelStyle = z.object({
  run: RunProperties.optional(),
  paragraph: ParagraphProperties.optional(),
  align: z.enum(["start", "centre", "end"]).optional(),
  strong: z.boolean().optional(),
  emphasis: z.boolean().optional(),
});
export type LevelStyle = z.infer<typeof LevelStyle>;
/** A text style as a file gives it, level by level. Deeper levels look like the last one. */
export const TextStyle = z.array(LevelStyle).min(1).max(9);
export type TextStyle = z.infer<typeof TextStyle>;

/** How a text is set in its box. Insets in points: left, top, right, bottom. */
export const TextBox = z.object({
  insets: z.tuple([points, points, points, points]).optional(),
  anchor: z.enum(["top", "middle", "bottom"]).optional(),
  columns: z.number().int().min(2).max(16).optional(),
  gap: z.number().min(0).max(1000).optional(),
  /** What happens to text that is too long: it shrinks, the box grows, or it overflows. */
  fit: z.enum(["shrink", "grow", "none"]).optional(),
  wrap: z.boolean().optional(),
  /** Text turned to run downwards or upwards, in degrees. */
  turn: z.union([z.literal(90), z.literal(270)]).optional(),
});
export type TextBox = z.infer<typeof TextBox>;

export const Stop = z.object({ at: share, colour: Colour, opacity: share.optional() });
export type Stop = z.infer<typeof Stop>;
export const PATTERNS = ["dots", "horizontal", "vertical", "rising", "falling", "grid", "cross"] as const;
/** The fill of an area. The angle of a gradient is clockwise, from left to right at 0. */
export const Fill = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("solid"), colour: Colour, opacity: share.optional() }),
  z.object({
    kind: z.literal("gradient"),
    form: z.enum(["linear", "radial"]),
    angle: z.number(),
    stops: z.array(Stop).min(2).max(20),
  }),
  z.object({ kind: z.literal("pattern"), pattern: z.enum(PATTERNS), fore: Colour, back: Colour }),
  z.object({
    kind: z.literal("picture"),
    source: z.string().min(1).max(1000),
    tile: z.boolean().optional(),
    opacity: share.optional(),
  }),
]);
export type Fill = z.infer<typeof Fill>;

export const DASHES = ["dot", "dash", "longdash", "dashdot", "longdashdot"] as const;
/** The end of a line. Its size is a multiple of the line width. */
export const LineEnd = z.object({
  form: z.enum(["triangle", "open", "barbed", "oval", "diamond"]),
  size: z.number().min(1).max(10),
});
export const Stroke = z.object({
  colour: Colour,
  width: z.number().min(0).max(1600),
  opacity: share.optional(),
  dash: z.enum(DASHES).optional(),
  head: LineEnd.optional(),
  tail: LineEnd.optional(),
});
export type Stroke = z.infer<typeof Stroke>;

/** The borders of a cell; null for none. */
export const CellBorders = z.object({
  left: Stroke.nullable().optional(),
  top: Stroke.nullable().optional(),
  right: Stroke.nullable().optional(),
  bottom: Stroke.nullable().optional(),
});
export type CellBorders = z.infer<typeof CellBorders>;

/** Whether a gradient is symmetric: from its middle to the same colour on both sides. */
export function isAxial({ form, stops }: Pick<Extract<Fill, { kind: "gradient" }>, "form" | "stops">): boolean {
  const [first, middle, last, ...more] = stops;
  return (
    form === "linear" &&
    !more.length &&
    first !== undefined &&
    last !== undefined &&
    first.at < 0.02 &&
    last.at > 0.98 &&
    Math.abs((middle?.at ?? 0) - 0.5) < 0.02 &&
    first.colour === last.colour &&
    first.opacity === last.opacity
  );
}

/** Whether both standards can express a gradient: two colours from end to end, or from the middle to both sides. */
export function isPlainGradient({ form, stops }: Pick<Extract<Fill, { kind: "gradient" }>, "form" | "stops">): boolean {
  const [first, last] = [stops[0], stops.at(-1)];
  return (
    isAxial({ form, stops }) ||
    (stops.length === 2 && (form === "linear" ? (last?.at ?? 1) > 0.99 : (first?.at ?? 0) < 0.01))
  );
}

/** A shadow. Blur and distance in points, direction in degrees clockwise from the right. */
export const Shadow = z.object({
  colour: Colour,
  opacity: share,
  blur: z.number().min(0).max(1000),
  distance: z.number().min(0).max(1000),
  direction: z.number(),
});
export type Shadow = z.infer<typeof Shadow>;

/**
 * Path data as in SVG 2, 9.3.9: commands, numbers and separators, and nothing that could end the attribute that holds
 * it.
 */
export const PathData = z
  .string()
  .max(200000)
  .regex(/^[MmZzLlHhVvCcSsQqTtAa0-9eE+\-.,\s]*$/, "an outline is written in SVG path data");

/**
 * A geometry: one of the standard's presets with its adjust values, or outlines as SVG path data in a box of `width` by
 * `height`.
 */
export const Geometry = z.union([
  z.object({
    preset: z.string().regex(/^[A-Za-z0-9]{1,40}$/),
    adjust: z.record(z.string().max(20), z.number()).optional(),
  }),
  z.object({
    width: z.number().positive(),
    height: z.number().positive(),
    paths: z
      .array(z.object({ d: PathData, fill: z.boolean(), stroke: z.boolean() }))
      .min(1)
      .max(500),
  }),
]);
export type Geometry = z.infer<typeof Geometry>;

export const TRIGGERS = ["press", "with", "after"] as const;
/** What starts an entrance: a press, the start of the entrance before it, or its end. */
export const Trigger = z.enum(TRIGGERS);
export type Trigger = z.infer<typeof Trigger>;
export const EFFECTS = ["appear", "fade", "wipe", "slide", "grow"] as const;
/**
 * How an element appears: at once, faded in, wiped from the left, moved up from below the page, or grown from its
 * middle.
 */
export const Effect = z.enum(EFFECTS);
export type Effect = z.infer<typeof Effect>;

/**
 * The entrance of an element: its order among those of the slide, what starts it, its effect and duration. `delay` is
 * in seconds.
 */
export const Entrance = z.object({
  order: z.number().int().min(0).max(100000),
  trigger: Trigger,
  effect: Effect,
  seconds: z.number().min(0).max(60),
  delay: z.number().min(0).max(600).optional(),
});
export type Entrance = z.infer<typeof Entrance>;

/**
 * Fields of every positioned element: name, rotation clockwise about its middle in degrees, mirroring, groups
 * (outermost first), fill, outline, shadow and entrance.
 */
export const Drawing = {
  name: z.string().max(300).optional(),
  rotation: z.number().min(-360).max(360).optional(),
  flip: z.enum(["x", "y", "xy"]).optional(),
  groups: z.array(z.string().min(1).max(80)).max(20).optional(),
  fill: Fill.optional(),
  stroke: Stroke.optional(),
  shadow: Shadow.optional(),
  entrance: Entrance.optional(),
};
