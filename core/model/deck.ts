import { z } from "zod";
import { ArrangementName } from "./arrangement";
import { Drawing, Fill, Geometry, Stroke, TextBox, TextStyle } from "./look";
import { LinkTarget, RichText } from "./richtext";
import { BreakRule } from "./rule";
import { Theme } from "./theme";
import { Colour, Frame, Id, Language, Page } from "./units";

/** Ties an element to cells of a workbook: always the latest, the latest when asked, or a moment that never changes. */
export const Binding = z.object({
  source: z.string().min(1),
  range: z.string().min(1),
  mode: z.enum(["latest", "asked", "moment"]),
  taken: z.string().optional(),
});
export type Binding = z.infer<typeof Binding>;

/**
 * The shape of a file's part that an element was read from, with the sums of where it stood, of its words and of all
 * else as they were read: while they agree, the file's own words for it are written back, and where some do not, only
 * that is written anew. Elements that were read before have one `sum`. With `data` the words of a chart are its data. `more` names what the file says of it that Unitext does not model.
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

/** An element stands in a slot of the arrangement, or in a frame of its own; `style` names one of the deck's text styles. */
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

/** Text; with `steps` its paragraphs appear one at a time. */
export const TextElement = z.object({
  kind: z.literal("text"),
  ...placed,
  text: RichText,
  steps: z.boolean().optional(),
});
export type TextElement = z.infer<typeof TextElement>;

/** What is cut off a picture's sides, as shares of its size; below 0 the picture is smaller than its frame. */
export const Crop = z.object({ left: z.number(), top: z.number(), right: z.number(), bottom: z.number() });
export type Crop = z.infer<typeof Crop>;
/** A picture, named as the text names it; the deck's `assets` say which bytes the name stands for. `width` is a share of its place in percent. */
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

/** A cell; `columns` and `rows` say over how many it reaches. */
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
/** A table: all rows have the same number of places; a place that another cell covers is null. The first `header` rows are headings. With `widths` and `heights` in points, columns are as wide and rows at least as high as they say. */
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

/** A formula on lines of its own, in TeX. */
export const FormulaElement = z.object({ kind: z.literal("formula"), ...placed, tex: z.string() });
export type FormulaElement = z.infer<typeof FormulaElement>;

export const DIAGRAM_TYPES = ["steps", "cycle", "hierarchy", "pyramid", "relation"] as const;
export const DiagramType = z.enum(DIAGRAM_TYPES);
export type DiagramType = z.infer<typeof DiagramType>;
/** A diagram drawn from a list; deeper levels belong to the item above. */
export const DiagramElement = z.object({ kind: z.literal("diagram"), ...placed, type: DiagramType, text: RichText });
export type DiagramElement = z.infer<typeof DiagramElement>;

export const CHART_TYPES = ["column", "bar", "line", "pie", "area", "doughnut", "scatter", "combined"] as const;
export const ChartType = z.enum(CHART_TYPES);
export type ChartType = z.infer<typeof ChartType>;
/** One row of values. In a scatter chart `x` says where each stands; in a combined one `form` says whether it is drawn as columns, a line or an area. `points` are colours of single columns or slices; lines join the points of a line, and of a scatter chart those that are `joined`, unless a line is not; a `smooth` one is curved; a series `by` the second axis is measured on the right. */
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
/** An axis; a `reversed` one of categories runs from right to left, or in bars from the foot to the top. */
export const Axis = z.object({
  title: z.string().max(500).optional(),
  min: z.number().optional(),
  max: z.number().optional(),
  reversed: z.boolean().optional(),
});
/** How a chart shows its data: stacked, with a title, a key, labels, a number format (as spreadsheets write it) and axes; the second one, on the right, has a format of its own. */
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
/** A chart of one or more series over categories; a missing value is null. */
export const ChartElement = z.object({
  kind: z.literal("chart"),
  ...placed,
  type: ChartType,
  categories: z.array(z.string()),
  series: z.array(Series).min(1),
  ...ChartOptions.shape,
});
export type ChartElement = z.infer<typeof ChartElement>;

/** A drawn form with or without words in it: boxes, arrows, lines, connectors. */
export const ShapeElement = z.object({
  kind: z.literal("shape"),
  ...placed,
  geometry: Geometry,
  text: RichText,
  alt: z.string().optional(),
  link: LinkTarget.optional(),
});
export type ShapeElement = z.infer<typeof ShapeElement>;

/** A film or a sound, by the name of its file, with the picture that stands for it. */
export const MediaElement = z.object({
  kind: z.literal("media"),
  ...placed,
  source: z.string().min(1).max(4000),
  type: z.enum(["video", "audio"]),
  poster: z.string().min(1).max(1000).optional(),
  alt: z.string(),
});
export type MediaElement = z.infer<typeof MediaElement>;

/** How a file draws a thing: forms, texts and pictures in a room of a width and height in points, which is stretched to the thing's frame. */
export const ForeignDrawing = z.object({
  width: z.number().positive(),
  height: z.number().positive(),
  elements: z.array(z.discriminatedUnion("kind", [TextElement, PictureElement, ShapeElement])).max(5000),
});
export type ForeignDrawing = z.infer<typeof ForeignDrawing>;
/** A thing that a file holds and Unitext does not model: what it is, the words found in it, and the picture or the drawing that the file shows for it. The file keeps the thing itself. */
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

/** Which lines of which document a slide was made from, and the hash of what was made of them. */
export const Source = z.object({
  document: z.string(),
  from: z.number().int(),
  to: z.number().int(),
  hash: z.string(),
});
export type Source = z.infer<typeof Source>;
/** Which slide of which deck, at which version, a slide was copied from. */
export const Origin = z.object({ deck: Id, slide: Id, version: z.number().int().nonnegative() });
export type Origin = z.infer<typeof Origin>;

/** What stands behind everything else on a slide. */
export const Background = z.union([
  z.object({ colour: Colour }),
  z.object({ picture: z.string().min(1).max(1000) }),
  z.object({ fill: Fill }),
]);
export type Background = z.infer<typeof Background>;
export const TRANSITIONS = ["fade", "push", "wipe"] as const;
/** How a slide comes in, and in how many seconds. */
export const Transition = z.object({ kind: z.enum(TRANSITIONS), seconds: z.number().min(0.1).max(10) });
export type Transition = z.infer<typeof Transition>;
/** What a slide may say of itself beside its elements: background, transition, seconds until the next by itself, widths of its columns in percent, the name of the section that begins with it. */
export const SlideProperties = z.object({
  background: Background.optional(),
  transition: Transition.optional(),
  delay: z.number().min(0.5).max(3600).optional(),
  widths: z.array(z.number().min(5).max(95)).min(2).max(3).optional(),
  section: z.string().min(1).max(300).optional(),
});
export type SlideProperties = z.infer<typeof SlideProperties>;

/** The footer, number or date of a slide where a file puts it; the number is counted where it is shown. */
export const RegionBox = z.object({
  region: z.enum(["footer", "number", "date"]),
  text: z.string().max(500),
  frame: Frame,
  style: z.string().max(40).optional(),
  box: TextBox.optional(),
});
export type RegionBox = z.infer<typeof RegionBox>;
/** What somebody said about a slide. */
export const Comment = z.object({
  author: z.string().max(300),
  text: z.string().max(20000),
  date: z.string().max(40).optional(),
});
export type Comment = z.infer<typeof Comment>;
/** The part of a file that a slide was read from, by the name of the asset that keeps the file, with sums of the slide, its notes, background, transition and entrances as they were read, the master that it stood on, and the shapes that became elements. */
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

/** What a file draws behind its slides: a background and drawings that all slides of one layout share. */
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
  /** The name of the look that it brought along from another deck; without one it has the deck's. */
  theme: z.string().max(80).optional(),
  /** The name of what its file draws behind it. */
  master: z.string().max(40).optional(),
  regions: z.array(RegionBox).max(10).optional(),
  comments: z.array(Comment).max(2000).optional(),
  /** What moves on it in its file beside entrances, by name. */
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
/** The bytes behind the name of a picture, film, sound or kept file: their SHA-256 in hex, media type and size in pixels (1 by 1 for what is none). */
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

/** What stands on every slide: a line at the foot and the slide's number. */
export const Regions = z.object({ footer: z.string().max(300), number: z.boolean() });
export type Regions = z.infer<typeof Regions>;

export const Manuscript = z.object({ document: Id, rule: BreakRule });
export type ManuscriptRef = z.infer<typeof Manuscript>;

/** The deck that a version of it follows, and the version of it that was taken last. */
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
  /** The looks that slides brought along from other decks, by name. */
  themes: z.record(z.string(), Theme).optional(),
  original: Original.optional(),
  /** What files draw behind slides, and the text styles that they give, by the sum of each. */
  masters: z.record(z.string(), Master).optional(),
  styles: z.record(z.string(), TextStyle).optional(),
});
export type DeckMetadata = z.infer<typeof DeckMetadata>;

const DeckShape = DeckMetadata.extend({ slides: z.array(Slide) });
/** A deck: its slides in running order, details directly after the slide that they belong to. */
export const Deck = DeckShape.superRefine((deck, context) => {
  for (const problem of orderProblems(deck.slides))
    context.addIssue({ code: "custom", path: ["slides", problem.index], message: problem.message });
});
export type Deck = z.infer<typeof DeckShape>;

/** Where a running order breaks the rules: an id used twice, a parent that does not stand before, details apart from their slide. */
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
