import { z } from "zod";
import { ArrangementName } from "./arrangement";
import { Drawing, Fill, Geometry, Stroke, TextBox, TextStyle } from "./look";
import { LinkTarget, RichText } from "./richtext";
import { BreakRule } from "./rule";
import { Theme } from "./theme";
import { Colour, Frame, Id, Language, Page } from "./units";

/**
 * Ties an element to cells of a workbook: always the latest values, the latest when asked for, or the values of one
 * moment.
 */
export const Binding = z.object({
  source: z.string().min(1),
  range: z.string().min(1),
  mode: z.enum(["latest", "asked", "moment"]),
  taken: z.string().optional(),
});
export type Binding = z.infer<typeof Binding>;

/**
 * The shape of a source file that an element was read from, with hashes of its frame, its text and everything else.
 * Where a hash still matches, the shape's own XML is written back; only what differs is written anew. Elements read by
 * early versions have a single `hash`. With `data`, the text hash covers a chart's data. `unsupported` names the
 * features of the shape that Unitext does not model.
 */
export const SourceShape = z.object({
  shape: z.string().max(40),
  hash: z.string().max(40),
  frameHash: z.string().max(40).optional(),
  textHash: z.string().max(40).optional(),
  appearanceHash: z.string().max(40).optional(),
  data: z.boolean().optional(),
  unsupported: z.array(z.string().max(100)).max(40).optional(),
});

/**
 * Fields of every element. It is in a slot of the arrangement, or has a frame of its own; `style` names one of the
 * deck's text styles.
 */
const placed = {
  id: Id,
  slot: z.string().max(40).nullable(),
  frame: Frame.optional(),
  binding: Binding.optional(),
  style: z.string().max(40).optional(),
  box: TextBox.optional(),
  sourceShape: SourceShape.optional(),
  ...Drawing,
};

/** A text. With `steps`, its paragraphs appear one at a time. */
export const TextElement = z.object({
  kind: z.literal("text"),
  ...placed,
  text: RichText,
  steps: z.boolean().optional(),
});
export type TextElement = z.infer<typeof TextElement>;

/** The parts cut off a picture's sides, as shares of its size. Negative values leave a margin in its frame. */
export const Crop = z.object({ left: z.number(), top: z.number(), right: z.number(), bottom: z.number() });
export type Crop = z.infer<typeof Crop>;
/** A picture. `source` is a name that the deck's `assets` resolve to bytes; `width` is a percentage of its place. */
export const PictureElement = z.object({
  kind: z.literal("picture"),
  ...placed,
  source: z.string().min(1).max(1000),
  alt: z.string(),
  caption: z.string().max(2000).optional(),
  width: z.number().min(1).max(100).optional(),
  crop: Crop.optional(),
  opacity: z.number().min(0).max(1).optional(),
  recolour: z.enum(["grey", "mono", "washout"]).optional(),
  shape: Geometry.optional(),
  link: LinkTarget.optional(),
});
export type PictureElement = z.infer<typeof PictureElement>;

/** A table cell. `columns` and `rows` are its spans. */
export const Cell = z.object({
  text: RichText,
  columns: z.number().int().min(2).max(200).optional(),
  rows: z.number().int().min(2).max(2000).optional(),
  fill: Fill.optional(),
  anchor: z.enum(["top", "middle", "bottom"]).optional(),
  insets: TextBox.shape.insets,
  borders: z
    .object({
      left: Stroke.nullable().optional(),
      top: Stroke.nullable().optional(),
      right: Stroke.nullable().optional(),
      bottom: Stroke.nullable().optional(),
    })
    .optional(),
});
export type Cell = z.infer<typeof Cell>;
export const Align = z.enum(["start", "centre", "end"]);
export type Align = z.infer<typeof Align>;
/**
 * A table. All rows have the same number of positions; those covered by another cell are null. The first `header` rows
 * are headings. `widths` and `heights`, in points, set the column widths and the minimum row heights.
 */
export const TableElement = z.object({
  kind: z.literal("table"),
  ...placed,
  rows: z.array(z.array(Cell.nullable())).min(1),
  header: z.number().int().nonnegative(),
  align: z.array(Align),
  caption: z.string().max(2000).optional(),
  widths: z.array(z.number().nonnegative()).max(200).optional(),
  heights: z.array(z.number().nonnegative()).max(2000).optional(),
});
export type TableElement = z.infer<typeof TableElement>;

/** Program code, as typed. */
export const CodeElement = z.object({
  kind: z.literal("code"),
  ...placed,
  language: z.string().max(40),
  text: z.string(),
});
export type CodeElement = z.infer<typeof CodeElement>;

/** A displayed formula, in TeX. */
export const FormulaElement = z.object({ kind: z.literal("formula"), ...placed, tex: z.string() });
export type FormulaElement = z.infer<typeof FormulaElement>;

export const DIAGRAM_TYPES = ["steps", "cycle", "hierarchy", "pyramid", "relation"] as const;
export const DiagramType = z.enum(DIAGRAM_TYPES);
export type DiagramType = z.infer<typeof DiagramType>;
/** A diagram drawn from a list. Deeper levels belong to the item above. */
export const DiagramElement = z.object({ kind: z.literal("diagram"), ...placed, type: DiagramType, text: RichText });
export type DiagramElement = z.infer<typeof DiagramElement>;

export const CHART_TYPES = ["column", "bar", "line", "pie", "area", "doughnut", "scatter", "combined"] as const;
export const ChartType = z.enum(CHART_TYPES);
export type ChartType = z.infer<typeof ChartType>;
/**
 * A series of values. In a scatter chart, `x` holds the horizontal values; in a combined chart, `type` says how the
 * series is drawn. `points` are colours of single columns or slices. Lines join the points of a line chart unless
 * `joined` is false, and of a scatter chart where it is true; `smooth` lines are curved. A series on the secondary axis
 * is measured on the right.
 */
export const Series = z.object({
  name: z.string(),
  values: z.array(z.number().nullable()),
  x: z.array(z.number().nullable()).optional(),
  type: z.enum(["column", "line", "area"]).optional(),
  colour: Colour.optional(),
  points: z.array(Colour.nullable()).max(2000).optional(),
  joined: z.boolean().optional(),
  smooth: z.boolean().optional(),
  axis: z.literal("secondary").optional(),
});
export type Series = z.infer<typeof Series>;
/** An axis. A `reversed` category axis runs from right to left; in bar charts it runs from bottom to top. */
export const Axis = z.object({
  title: z.string().max(500).optional(),
  min: z.number().optional(),
  max: z.number().optional(),
  reversed: z.boolean().optional(),
});
/**
 * How a chart shows its data: stacking, title, legend, labels, number format (as in spreadsheets) and axes. The
 * secondary axis, on the right, has a number format of its own.
 */
export const ChartOptions = z.object({
  stack: z.enum(["sum", "share"]).optional(),
  title: z.string().max(1000).optional(),
  legend: z.enum(["top", "right", "bottom", "left", "none"]).optional(),
  labels: z.enum(["value", "share", "category"]).optional(),
  format: z.string().max(100).optional(),
  xAxis: Axis.optional(),
  yAxis: Axis.optional(),
  secondaryAxis: Axis.extend({ format: z.string().max(100).optional() }).optional(),
});
export type ChartOptions = z.infer<typeof ChartOptions>;
/** A chart of one or more series over categories. A missing value is null. */
export const ChartElement = z.object({
  kind: z.literal("chart"),
  ...placed,
  type: ChartType,
  categories: z.array(z.string()),
  series: z.array(Series).min(1),
  ...ChartOptions.shape,
});
export type ChartElement = z.infer<typeof ChartElement>;

/** A drawn shape, with or without text: boxes, arrows, lines, connectors. */
export const ShapeElement = z.object({
  kind: z.literal("shape"),
  ...placed,
  geometry: Geometry,
  text: RichText,
  alt: z.string().optional(),
  link: LinkTarget.optional(),
});
export type ShapeElement = z.infer<typeof ShapeElement>;

/** A film or a sound by the name of its file, with the poster picture that represents it. */
export const MediaElement = z.object({
  kind: z.literal("media"),
  ...placed,
  source: z.string().min(1).max(4000),
  type: z.enum(["video", "audio"]),
  poster: z.string().min(1).max(1000).optional(),
  alt: z.string(),
});
export type MediaElement = z.infer<typeof MediaElement>;

/**
 * A drawing that a file shows for a foreign element: shapes, texts and pictures in an area of this width and height in
 * points, stretched to the element's frame.
 */
export const ForeignDrawing = z.object({
  width: z.number().positive(),
  height: z.number().positive(),
  elements: z.array(z.discriminatedUnion("kind", [TextElement, PictureElement, ShapeElement])).max(5000),
});
export type ForeignDrawing = z.infer<typeof ForeignDrawing>;
/**
 * An object of a source file that Unitext does not model: what it is, the words found in it, and the picture or drawing
 * that the file shows for it. The object itself stays in the source package.
 */
export const ForeignElement = z.object({
  kind: z.literal("foreign"),
  ...placed,
  what: z.string().min(1).max(200),
  text: RichText,
  picture: z.string().min(1).max(1000).optional(),
  drawing: ForeignDrawing.optional(),
  alt: z.string(),
});
export type ForeignElement = z.infer<typeof ForeignElement>;

export const Element = z.discriminatedUnion("kind", [
  TextElement,
  PictureElement,
  TableElement,
  CodeElement,
  FormulaElement,
  DiagramElement,
  ChartElement,
  ShapeElement,
  MediaElement,
  ForeignElement,
]);
export type Element = z.infer<typeof Element>;
export type ElementKind = Element["kind"];

/** The lines of the document that a slide was generated from, and a hash of the generated content. */
export const Source = z.object({
  document: z.string(),
  from: z.number().int(),
  to: z.number().int(),
  hash: z.string(),
});
export type Source = z.infer<typeof Source>;
/** The slide, deck and version that a slide was copied from. */
export const Origin = z.object({ deck: Id, slide: Id, version: z.number().int().nonnegative() });
export type Origin = z.infer<typeof Origin>;

/** A background behind everything else on a slide. */
export const Background = z.union([
  z.object({ colour: Colour }),
  z.object({ picture: z.string().min(1).max(1000) }),
  z.object({ fill: Fill }),
]);
export type Background = z.infer<typeof Background>;
export const TRANSITIONS = ["fade", "push", "wipe"] as const;
/** How a slide appears, and in how many seconds. */
export const Transition = z.object({ kind: z.enum(TRANSITIONS), seconds: z.number().min(0.1).max(10) });
export type Transition = z.infer<typeof Transition>;
/**
 * Properties of a slide beside its elements: background, transition, seconds until the next slide comes by itself,
 * column widths in percent, and the name of the section that starts with it.
 */
export const SlideProperties = z.object({
  background: Background.optional(),
  transition: Transition.optional(),
  delay: z.number().min(0.5).max(3600).optional(),
  widths: z.array(z.number().min(5).max(95)).min(2).max(3).optional(),
  section: z.string().min(1).max(300).optional(),
});
export type SlideProperties = z.infer<typeof SlideProperties>;

/**
 * The footer, number or date of a slide where its source file places it. The number is counted when the slide is shown.
 */
export const RegionBox = z.object({
  region: z.enum(["footer", "number", "date"]),
  text: z.string().max(500),
  frame: Frame,
  style: z.string().max(40).optional(),
  box: TextBox.optional(),
});
export type RegionBox = z.infer<typeof RegionBox>;
/** A comment on a slide. */
export const Comment = z.object({
  author: z.string().max(300),
  text: z.string().max(20000),
  date: z.string().max(40).optional(),
});
export type Comment = z.infer<typeof Comment>;
/**
 * The part of a source file that a slide was read from. `file` names the asset that stores the package; the hashes are
 * of the slide, its notes, background, transition and entrances as they were read; `master` is its master, and `shapes`
 * are the shapes that became elements.
 */
export const SourcePart = z.object({
  file: z.string().max(200),
  part: z.string().max(500),
  hash: z.string().max(40),
  notesHash: z.string().max(40),
  backgroundHash: z.string().max(40),
  transitionHash: z.string().max(40),
  motionHash: z.string().max(40).optional(),
  master: z.string().max(40).optional(),
  shapes: z.array(z.string().max(40)).max(20000),
});
export type SourcePart = z.infer<typeof SourcePart>;

/** What a file draws behind its slides: a background and drawings shared by all slides of one layout. */
export const Master = z.object({
  name: z.string().max(300),
  background: Background.optional(),
  elements: z.array(Element),
});
export type Master = z.infer<typeof Master>;

export const Slide = z.object({
  id: Id,
  parent: Id.nullable(),
  arrangement: ArrangementName,
  elements: z.array(Element),
  notes: RichText,
  hidden: z.boolean(),
  source: Source.optional(),
  origin: Origin.optional(),
  /** The name of the theme imported with the slide; without one it has the deck's theme. */
  theme: z.string().max(80).optional(),
  /** The name of the master drawn behind it. */
  master: z.string().max(40).optional(),
  regions: z.array(RegionBox).max(10).optional(),
  comments: z.array(Comment).max(2000).optional(),
  /** Names of motion in its source file that entrances cannot express. */
  unsupportedMotion: z.array(z.string().max(300)).max(500).optional(),
  sourcePart: SourcePart.optional(),
  ...SlideProperties.shape,
});
export type Slide = z.infer<typeof Slide>;

export const MEDIA_TYPES = [
  "image/png",
  "image/jpeg",
  "image/gif",
  "image/svg+xml",
  "video/mp4",
  "video/webm",
  "audio/mpeg",
  "audio/mp4",
  "audio/wav",
  "application/zip",
] as const;
/**
 * The bytes behind the name of a picture, film, sound or source package: their SHA-256 in hex, media type, and size in
 * pixels (1 by 1 for anything but pictures).
 */
export const Asset = z.object({
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  mediaType: z.enum(MEDIA_TYPES),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
});
export type Asset = z.infer<typeof Asset>;

export const Properties = z.object({
  title: z.string().max(500),
  author: z.string().max(500),
  event: z.string().max(500),
  date: z.string().max(100),
});
export type Properties = z.infer<typeof Properties>;

/** What is repeated on every slide: a footer line and the slide number. */
export const Regions = z.object({ footer: z.string().max(300), number: z.boolean() });
export type Regions = z.infer<typeof Regions>;

export const Manuscript = z.object({ document: Id, rule: BreakRule });
export type ManuscriptRef = z.infer<typeof Manuscript>;

/** The deck that this deck is a version of, and the version of it that was taken last. */
export const Original = z.object({ deck: Id, version: z.number().int().nonnegative() });
export type Original = z.infer<typeof Original>;

export const DeckMetadata = z.object({
  id: Id,
  properties: Properties,
  language: Language,
  page: Page,
  theme: Theme,
  regions: Regions,
  /** Speaking rate in words a minute. */
  rate: z.number().min(40).max(400),
  assets: z.record(z.string(), Asset),
  /** The document that the slides were generated from, and the rule that cut it. */
  manuscript: Manuscript.optional(),
  /** Themes imported with slides from other decks, by name. */
  themes: z.record(z.string(), Theme).optional(),
  original: Original.optional(),
  /** Masters and text styles imported from files, by the hash of each. */
  masters: z.record(z.string(), Master).optional(),
  styles: z.record(z.string(), TextStyle).optional(),
});
export type DeckMetadata = z.infer<typeof DeckMetadata>;

const DeckShape = DeckMetadata.extend({ slides: z.array(Slide) });
/** A deck: its slides in running order, with details directly after the slide that they belong to. */
export const Deck = DeckShape.superRefine((deck, context) => {
  for (const problem of orderProblems(deck.slides))
    context.addIssue({ code: "custom", path: ["slides", problem.index], message: problem.message });
});
export type Deck = z.infer<typeof DeckShape>;

/**
 * Lists where a running order breaks the rules: an id used twice, a parent that does not come before, details apart
 * from their slide.
 */
export function orderProblems(slides: readonly Slide[]): { index: number; message: string }[] {
  const problems: { index: number; message: string }[] = [];
  const seen = new Set<string>();
  const elements = new Set<string>();
  const open: string[] = [];
  slides.forEach((slide, index) => {
    if (seen.has(slide.id)) problems.push({ index, message: `the slide id ${slide.id} is used twice` });
    seen.add(slide.id);
    while (open.length && open.at(-1) !== slide.parent) open.pop();
    if (slide.parent !== null && open.length === 0)
      problems.push({ index, message: `slide ${slide.id} does not follow its main slide ${slide.parent}` });
    open.push(slide.id);
    elements.clear();
    for (const { id } of slide.elements) {
      if (elements.has(id))
        problems.push({ index, message: `the element id ${id} is used twice on slide ${slide.id}` });
      elements.add(id);
    }
  });
  return problems;
}
