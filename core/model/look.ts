import { z } from "zod";
import { Colour, Language } from "./units";

const share = z.number().min(0).max(1);
const points = z.number().min(-4032).max(4032);

export const UNDERLINES = ["single", "double", "heavy", "dotted", "dashed", "wavy"] as const;
/** How characters look where they differ from what their place gives them. Sizes and letter spacing in points; `rise` is a share of the size, below 0 under the line. */
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

/** The number schemes of lists that both standards have. */
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
/** The sign before an item. `size` is a share of the text's. */
export const Bullet = z.object({
  character: z.string().min(1).max(8).optional(),
  scheme: z.enum(SCHEMES).optional(),
  picture: z.string().min(1).max(1000).optional(),
  colour: Colour.optional(),
  size: z.number().min(0.1).max(4).optional(),
  font: z.string().min(1).max(200).optional(),
});
export type Bullet = z.infer<typeof Bullet>;

/** A distance between lines: a multiple of what the font asks, or points. */
export const LineSpacing = z.union([
  z.object({ times: z.number().min(0.1).max(20) }),
  z.object({ points: z.number().min(1).max(4000) }),
]);
const along = z.number().min(0).max(4032);
/** A tab stop, in points from the edge of the text: text begins there; with `align` it ends there, has its middle there, or its decimal sign. */
export const TabStop = z.union([along, z.object({ at: along, align: z.enum(["end", "centre", "decimal"]) })]);
export type TabStop = z.infer<typeof TabStop>;
/** A tab stop taken apart. */
export const tabParts = (stop: TabStop): { at: number; align: "start" | "end" | "centre" | "decimal" } =>
  typeof stop === "number" ? { at: stop, align: "start" } : stop;
/** A tab stop of these parts. */
export const tabStop = (at: number, align: "start" | "end" | "centre" | "decimal"): TabStop =>
  align === "start" ? at : { at, align };
/** How a paragraph stands. `before` and `after` are points, or shares of the text's size; `left` is where its text begins, `first` how its first line is moved against that, in points. */
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
  direction: z.enum(["ltr", "rtl"]).optional(),
  bullet: Bullet.optional(),
  /** How words would look that are written in a paragraph that has none; its size is that of the empty line. */
  words: RunProperties.optional(),
});
export type ParagraphProperties = z.infer<typeof ParagraphProperties>;

/** How text of one level stands where a file says it: characters, paragraph and side. */
export const LevelStyle = z.object({
  run: RunProperties.optional(),
  paragraph: ParagraphProperties.optional(),
  align: z.enum(["start", "centre", "end"]).optional(),
  strong: z.boolean().optional(),
  emphasis: z.boolean().optional(),
});
export type LevelStyle = z.infer<typeof LevelStyle>;
/** A text style as a file gives it, level by level; levels past the last stand as the last. */
export const TextStyle = z.array(LevelStyle).min(1).max(9);
export type TextStyle = z.infer<typeof TextStyle>;

/** How a text stands in its box. Insets in points: left, top, right, bottom. */
export const TextBox = z.object({
  insets: z.tuple([points, points, points, points]).optional(),
  anchor: z.enum(["top", "middle", "bottom"]).optional(),
  columns: z.number().int().min(2).max(16).optional(),
  gap: z.number().min(0).max(1000).optional(),
  /** What happens to text that is too long: it gets smaller, the box grows, or it stands out. */
  fit: z.enum(["shrink", "grow", "none"]).optional(),
  wrap: z.boolean().optional(),
  /** Lines that run downwards or upwards. */
  turn: z.union([z.literal(90), z.literal(270)]).optional(),
});
export type TextBox = z.infer<typeof TextBox>;

export const Stop = z.object({ at: share, colour: Colour, opacity: share.optional() });
export type Stop = z.infer<typeof Stop>;
export const PATTERNS = ["dots", "horizontal", "vertical", "rising", "falling", "grid", "cross"] as const;
/** What an area is filled with. The angle of a gradient turns clockwise from left to right. */
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
/** The end of a line; its size counts in widths of the line. */
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

/** Whether a gradient runs from its middle to the same colour on both sides. */
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

/** Whether a gradient runs between two colours to its end, or from its middle to both sides: what both standards can say. */
export function isPlainGradient({ form, stops }: Pick<Extract<Fill, { kind: "gradient" }>, "form" | "stops">): boolean {
  const [first, last] = [stops[0], stops.at(-1)];
  return (
    isAxial({ form, stops }) ||
    (stops.length === 2 && (form === "linear" ? (last?.at ?? 1) > 0.99 : (first?.at ?? 0) < 0.01))
  );
}

/** Soft light behind a thing: blur and distance in points, direction in degrees clockwise from the right. */
export const Shadow = z.object({
  colour: Colour,
  opacity: share,
  blur: z.number().min(0).max(1000),
  distance: z.number().min(0).max(1000),
  direction: z.number(),
});
export type Shadow = z.infer<typeof Shadow>;

/** Path data as SVG 2, 9.3.9 writes them: commands, numbers and what stands between, and nothing that could end the attribute in which they are drawn. */
export const PathData = z
  .string()
  .max(200000)
  .regex(/^[MmZzLlHhVvCcSsQqTtAa0-9eE+\-.,\s]*$/, "an outline is written in SVG path data");

/** A form: one of the standard's preset geometries with its adjust values, or outlines drawn in a box of `width` by `height` as SVG path data. */
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
/** What lets an element come in: a press, the beginning of the entrance before it, or its end. */
export const Trigger = z.enum(TRIGGERS);
export type Trigger = z.infer<typeof Trigger>;
export const EFFECTS = ["appear", "fade", "wipe", "slide", "grow"] as const;
/** How it comes in: at once, out of nothing, uncovered from the left, moved up from below the page, or grown from its middle. */
export const Effect = z.enum(EFFECTS);
export type Effect = z.infer<typeof Effect>;

/** The entrance of an element: where it stands among those of its slide, what lets it begin, how it looks and how long it takes; `delay` are seconds that it waits. */
export const Entrance = z.object({
  order: z.number().int().min(0).max(100000),
  trigger: Trigger,
  effect: Effect,
  seconds: z.number().min(0).max(60),
  delay: z.number().min(0).max(600).optional(),
});
export type Entrance = z.infer<typeof Entrance>;

/** What any element that stands freely may have: turned clockwise in degrees about its middle, mirrored, part of groups (outermost first), with a fill, an outline, a shadow and an entrance. */
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
