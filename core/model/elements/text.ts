import { z } from "zod";
import { paragraphsOf, RichText } from "../richtext";
import { type ElementDescriptor, placed } from "./base";

/** A text. With `steps`, its paragraphs appear one at a time. */
export const TextElement = z.object({
  kind: z.literal("text"),
  ...placed,
  text: RichText,
  steps: z.boolean().optional(),
});
export type TextElement = z.infer<typeof TextElement>;

export const textKind: ElementDescriptor<TextElement> = {
  label: "text",
  texts: ({ text }) => [text],
  mapTexts: (element, change) => ({ ...element, text: change(element.text) }),
  lines: ({ text }) => paragraphsOf(text),
};
