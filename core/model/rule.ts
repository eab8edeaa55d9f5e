import { z } from "zod";

/** One way to cut a text; those of a rule work together. Explicit marks always cut. */
export const Cut = z.discriminatedUnion("kind", [
  /** Headings down to level `slide` begin a slide; those down to level `section` open a section. */
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

/** What happens to what does not fit: it continues on a next slide, goes to the notes, or stands out and is marked. */
export const OverflowPolicy = z.enum(["continue", "notes", "leave"]);
export type OverflowPolicy = z.infer<typeof OverflowPolicy>;

/** How a name that has a slide to itself stands: large in the middle, or small in a lower corner. */
export const NameLayout = z.enum(["middle", "corner"]);
export type NameLayout = z.infer<typeof NameLayout>;

/** A point as the user wants it: for the sentence it came from, its words, or null where there shall be none. */
export const PointChoice = z.object({ sentence: z.string().max(20000), point: z.string().max(2000).nullable() });
export type PointChoice = z.infer<typeof PointChoice>;

/** How a text becomes slides. */
export const BreakRule = z.object({
  cuts: z.array(Cut).min(1).max(4),
  placement: TextPlacement,
  overflow: OverflowPolicy,
  names: NameLayout,
  /** Numeric tables become charts. */
  charts: z.boolean(),
  /** What the user decided on single points. */
  points: z.array(PointChoice).max(20000).optional(),
});
export type BreakRule = z.infer<typeof BreakRule>;

/** The rule of a text that is typed as a deck: marks and headings down to the second level, all of it on the slide. */
export const DEFAULT_RULE: BreakRule = {
  cuts: [{ kind: "heading", section: 1, slide: 2 }],
  placement: "slide",
  overflow: "leave",
  names: "middle",
  charts: false,
};
/** The rule that a document begins with: as a typed deck, but nothing stands out and paragraphs become points. */
export const DOCUMENT_RULE: BreakRule = { ...DEFAULT_RULE, placement: "both", overflow: "continue" };

/** A rule with one cut, else as the default. */
export function ruleOf(cut: Cut, rest: Partial<BreakRule> = {}): BreakRule {
  return { ...DEFAULT_RULE, cuts: [cut], ...rest };
}
