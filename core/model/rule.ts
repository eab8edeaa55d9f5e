import { z } from "zod";

/** One way to cut a text into slides. The cuts of a rule work together; explicit marks always cut. */
export const Cut = z.discriminatedUnion("kind", [
  /** Headings down to level `slide` start a slide; those down to level `section` start a section. */
  z.object({
    kind: z.literal("heading"),
    section: z.number().int().min(0).max(6),
    slide: z.number().int().min(1).max(6),
  }),
  z.object({ kind: z.literal("paragraph") }),
  z.object({ kind: z.literal("line") }),
  z.object({ kind: z.literal("mark") }),
]);
export type Cut = z.infer<typeof Cut>;

/** Where the text goes: onto the slide, into the notes, or points onto the slide and the whole into the notes. */
export const TextPlacement = z.enum(["slide", "notes", "both"]);
export type TextPlacement = z.infer<typeof TextPlacement>;

/**
 * What happens to content that does not fit: it continues on a next slide, goes to the notes, or is left and marked as
 * overflow.
 */
export const OverflowPolicy = z.enum(["continue", "notes", "leave"]);
export type OverflowPolicy = z.infer<typeof OverflowPolicy>;

/** Where a name with a slide of its own is shown: large in the middle, or small in a lower corner. */
export const NameLayout = z.enum(["middle", "corner"]);
export type NameLayout = z.infer<typeof NameLayout>;

/** The user's version of the point made from a sentence; null for no point. `by` says that a service proposed it. */
export const PointChoice = z.object({
  sentence: z.string().max(20000),
  point: z.string().max(2000).nullable(),
  by: z.literal("service").optional(),
});
export type PointChoice = z.infer<typeof PointChoice>;

/** Slides and lines that are added to those of the text: an agenda, what sections hold, sources, a closing slide. */
export const EXTRAS = ["agenda", "contents", "sources", "closing"] as const;
export type Extra = (typeof EXTRAS)[number];

/** How a text becomes slides. */
export const BreakRule = z.object({
  cuts: z.array(Cut).min(1).max(4),
  placement: TextPlacement,
  overflow: OverflowPolicy,
  names: NameLayout,
  /** Whether numeric tables become charts. */
  charts: z.boolean(),
  extras: z.array(z.enum(EXTRAS)).max(EXTRAS.length).optional(),
  /** The user's decisions on single points. */
  points: z.array(PointChoice).max(20000).optional(),
});
export type BreakRule = z.infer<typeof BreakRule>;

/**
 * The rule of a text that is typed as a deck: marks and headings down to level 2 cut it, and all of it goes on the
 * slide.
 */
export const DEFAULT_RULE: BreakRule = {
  cuts: [{ kind: "heading", section: 1, slide: 2 }],
  placement: "slide",
  overflow: "leave",
  names: "middle",
  charts: false,
};
/** The rule that a document starts with: like a typed deck, but nothing overflows and paragraphs become points. */
export const DOCUMENT_RULE: BreakRule = { ...DEFAULT_RULE, placement: "both", overflow: "continue" };

/** Returns the default rule with a single cut and other overrides. */
export function ruleOf(cut: Cut, rest: Partial<BreakRule> = {}): BreakRule {
  return { ...DEFAULT_RULE, cuts: [cut], ...rest };
}
