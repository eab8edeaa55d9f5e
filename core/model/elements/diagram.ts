import { z } from "zod";
import { paragraphsOf, RichText } from "../richtext";
import { Direction } from "../direction";
import { type ElementDescriptor, placed } from "./base";

export const DIAGRAM_TYPES = [
  "steps",
  "cycle",
  "hierarchy",
  "pyramid",
  "relation",
  "timeline",
  "matrix",
  "comparison",
] as const;
export const DiagramType = z.enum(DIAGRAM_TYPES);
export type DiagramType = z.infer<typeof DiagramType>;

/** A diagram drawn from a list. Deeper levels belong to the item above. */
export const DiagramElement = z.object({
  kind: z.literal("diagram"),
  ...placed,
  direction: Direction.optional(),
  type: DiagramType,
  text: RichText,
});
export type DiagramElement = z.infer<typeof DiagramElement>;

export const diagramKind: ElementDescriptor<DiagramElement> = {
  label: "diagram",
  count: "diagrams",
  texts: ({ text }) => [text],
  mapTexts: (element, change) => ({ ...element, text: change(element.text) }),
  lines: ({ text }) => paragraphsOf(text),
};
