import { z } from "zod";
import { ArrangementName } from "./arrangement";
import { RichText } from "./richtext";
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

const placed = { id: Id, slot: z.string().max(40).nullable(), frame: Frame.optional(), binding: Binding.optional() };

/** Text; with `steps` its paragraphs appear one at a time. */
export const TextElement = z.object({ kind: z.literal("text"), ...placed, text: RichText, steps: z.boolean().optional() });
export type TextElement = z.infer<typeof TextElement>;

/** A picture, named as the text names it; the deck's `assets` say which bytes the name stands for. `width` is a share of its place in percent. */
export const PictureElement = z.object({ kind: z.literal("picture"), ...placed, source: z.string().min(1).max(1000), alt: z.string(), caption: z.string().max(2000).optional(), width: z.number().min(1).max(100).optional() });
export type PictureElement = z.infer<typeof PictureElement>;

/** A cell; `columns` and `rows` say over how many it reaches. */
export const Cell = z.object({ text: RichText, columns: z.number().int().min(2).max(200).optional(), rows: z.number().int().min(2).max(2000).optional() });
export type Cell = z.infer<typeof Cell>;
export const Align = z.enum(["start", "centre", "end"]);
export type Align = z.infer<typeof Align>;
/** A table: all rows have the same number of places; a place that another cell covers is null. The first `header` rows are headings. */
export const TableElement = z.object({ kind: z.literal("table"), ...placed, rows: z.array(z.array(Cell.nullable())).min(1), header: z.number().int().nonnegative(), align: z.array(Align), caption: z.string().max(2000).optional() });
export type TableElement = z.infer<typeof TableElement>;

/** Program code, as typed. */
export const CodeElement = z.object({ kind: z.literal("code"), ...placed, language: z.string().max(40), text: z.string() });
export type CodeElement = z.infer<typeof CodeElement>;

/** A formula on lines of its own, in TeX. */
export const FormulaElement = z.object({ kind: z.literal("formula"), ...placed, tex: z.string() });
export type FormulaElement = z.infer<typeof FormulaElement>;

export const DIAGRAM_FORMS = ["steps", "cycle", "hierarchy", "pyramid", "relation"] as const;
export const DiagramForm = z.enum(DIAGRAM_FORMS);
export type DiagramForm = z.infer<typeof DiagramForm>;
/** A diagram drawn from a list; deeper levels belong to the item above. */
export const DiagramElement = z.object({ kind: z.literal("diagram"), ...placed, form: DiagramForm, text: RichText });
export type DiagramElement = z.infer<typeof DiagramElement>;

export const CHART_FORMS = ["column", "bar", "line", "pie"] as const;
export const ChartForm = z.enum(CHART_FORMS);
export type ChartForm = z.infer<typeof ChartForm>;
/** A chart of one or more series over categories; a missing value is null. */
export const ChartElement = z.object({ kind: z.literal("chart"), ...placed, form: ChartForm, categories: z.array(z.string()).min(1), series: z.array(z.object({ name: z.string(), values: z.array(z.number().nullable()) })).min(1) });
export type ChartElement = z.infer<typeof ChartElement>;

export const Element = z.discriminatedUnion("kind", [TextElement, PictureElement, TableElement, CodeElement, FormulaElement, DiagramElement, ChartElement]);
export type Element = z.infer<typeof Element>;
export type ElementKind = Element["kind"];

/** Which lines of which document a slide was made from, and the hash of what was made of them. */
export const Source = z.object({ document: z.string(), from: z.number().int(), to: z.number().int(), hash: z.string() });
export type Source = z.infer<typeof Source>;
/** Which slide of which deck, at which version, a slide was copied from. */
export const Origin = z.object({ deck: Id, slide: Id, version: z.number().int().nonnegative() });

/** What stands behind everything else on a slide. */
export const Background = z.union([z.object({ colour: Colour }), z.object({ picture: z.string().min(1).max(1000) })]);
export type Background = z.infer<typeof Background>;
export const TRANSITIONS = ["fade", "push", "wipe"] as const;
/** How a slide comes in, and in how many seconds. */
export const Transition = z.object({ kind: z.enum(TRANSITIONS), seconds: z.number().min(0.1).max(10) });
export type Transition = z.infer<typeof Transition>;
/** What a slide may say of itself beside its elements: background, transition, seconds until the next by itself, widths of its columns in percent. */
export const SlideLook = z.object({ background: Background.optional(), transition: Transition.optional(), delay: z.number().min(0.5).max(3600).optional(), widths: z.array(z.number().min(5).max(95)).min(2).max(3).optional() });
export type SlideLook = z.infer<typeof SlideLook>;

export const Slide = z.object({
  id: Id,
  parent: Id.nullable(),
  arrangement: ArrangementName,
  elements: z.array(Element),
  notes: RichText,
  hidden: z.boolean(),
  source: Source.optional(),
  origin: Origin.optional(),
  ...SlideLook.shape,
});
export type Slide = z.infer<typeof Slide>;

/** The bytes behind a picture's name: their SHA-256 in hex, media type and size in pixels. */
export const Asset = z.object({
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  mediaType: z.enum(["image/png", "image/jpeg"]),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
});
export type Asset = z.infer<typeof Asset>;

export const Properties = z.object({ title: z.string().max(500), author: z.string().max(500), event: z.string().max(500), date: z.string().max(100) });
export type Properties = z.infer<typeof Properties>;

/** What stands on every slide: a line at the foot and the slide's number. */
export const Regions = z.object({ footer: z.string().max(300), number: z.boolean() });
export type Regions = z.infer<typeof Regions>;

export const Manuscript = z.object({ document: Id, rule: BreakRule });
export type ManuscriptRef = z.infer<typeof Manuscript>;

export const DeckHead = z.object({
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
});
export type DeckHead = z.infer<typeof DeckHead>;

const DeckShape = DeckHead.extend({ slides: z.array(Slide) });
/** A deck: its slides in running order, details directly after the slide that they belong to. */
export const Deck = DeckShape.superRefine((deck, context) => {
  for (const problem of orderProblems(deck.slides)) context.addIssue({ code: "custom", path: ["slides", problem.index], message: problem.message });
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
    if (slide.parent !== null && open.length === 0) problems.push({ index, message: `slide ${slide.id} does not follow its main slide ${slide.parent}` });
    open.push(slide.id);
    elements.clear();
    for (const { id } of slide.elements) {
      if (elements.has(id)) problems.push({ index, message: `the element id ${id} is used twice on slide ${slide.id}` });
      elements.add(id);
    }
  });
  return problems;
}
