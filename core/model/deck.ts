import { z } from "zod";
import { ArrangementName } from "./arrangement";
import { RichText } from "./richtext";
import { Theme } from "./theme";
import { Frame, Id, Language, Page } from "./units";

/** Ties an element to cells of a workbook: always the latest, the latest when asked, or a moment that never changes. */
export const Binding = z.object({
  source: z.string().min(1),
  range: z.string().min(1),
  mode: z.enum(["latest", "asked", "moment"]),
  taken: z.string().optional(),
});
export type Binding = z.infer<typeof Binding>;

const placed = { id: Id, slot: z.string().max(40).nullable(), frame: Frame.optional(), binding: Binding.optional() };

export const TextElement = z.object({ kind: z.literal("text"), ...placed, text: RichText });
export type TextElement = z.infer<typeof TextElement>;

/** A picture, named as the text names it; the deck's `assets` say which bytes the name stands for. */
export const PictureElement = z.object({ kind: z.literal("picture"), ...placed, source: z.string().min(1).max(1000), alt: z.string() });
export type PictureElement = z.infer<typeof PictureElement>;

export const Element = z.discriminatedUnion("kind", [TextElement, PictureElement]);
export type Element = z.infer<typeof Element>;
export type ElementKind = Element["kind"];

/** Which lines of which document a slide was made from, and the hash of those lines. */
export const Source = z.object({ document: z.string(), from: z.number().int(), to: z.number().int(), hash: z.string() });
/** Which slide of which deck, at which version, a slide was copied from. */
export const Origin = z.object({ deck: Id, slide: Id, version: z.number().int().nonnegative() });

export const Slide = z.object({
  id: Id,
  parent: Id.nullable(),
  arrangement: ArrangementName,
  elements: z.array(Element),
  notes: RichText,
  hidden: z.boolean(),
  source: Source.optional(),
  origin: Origin.optional(),
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
