import { z } from "zod";
import { Geometry } from "../look";
import { LinkTarget, paragraphsOf, RichText } from "../richtext";
import { type ElementDescriptor, placed } from "./base";

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

export const shapeKind: ElementDescriptor<ShapeElement> = {
  label: "shape",
  texts: ({ text }) => [text],
  mapTexts: (element, change) => ({ ...element, text: change(element.text) }),
  lines: ({ text }) => paragraphsOf(text),
};
