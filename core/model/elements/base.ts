import { z } from "zod";
import { Binding } from "../binding";
import { Drawing, TextBox } from "../look";
import type { RichText } from "../richtext";
import { Frame, Id } from "../units";

/**
 * The shape of a source file that an element was read from, with hashes of its frame, its text and everything else.
 * Where a hash still matches, the shape's own XML is written back; only what differs is rewritten. Elements read by
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
 * deck's text styles. Tables, charts and diagrams without a `direction` are read as the language of the deck is.
 */
export const placed = {
  id: Id,
  slot: z.string().max(40).nullable(),
  frame: Frame.optional(),
  binding: Binding.optional(),
  style: z.string().max(40).optional(),
  box: TextBox.optional(),
  sourceShape: SourceShape.optional(),
  ...Drawing,
};

/** The counts of a tally that elements add to. */
export type ElementCount = "pictures" | "tables" | "charts" | "diagrams" | "code" | "formulas" | "media" | "foreign";

/** What everything but layout and formats needs to know of a kind of element. */
export interface ElementDescriptor<E> {
  /** What people call it: “table”, “film or sound”. */
  label: string;
  /** The count of the tally that it adds to; undefined when it has none. */
  count?: ElementCount;
  /** Returns the texts that are read as words: text, cells or labels, but not code and formulas. */
  texts(element: E): RichText[];
  /** Returns the element with `change` applied to every rich text in it; undefined for kinds without rich text. */
  mapTexts?(element: E, change: (text: RichText) => RichText): E;
  /** Returns what the element shows as plain text; undefined when that is the words of its texts. */
  words?(element: E): string;
  /** Returns what the element adds to the paragraphs of its slide; undefined for kinds that are listed apart. */
  lines?(element: E): string[];
}
