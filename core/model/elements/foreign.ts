import { z } from "zod";
import { paragraphsOf, RichText } from "../richtext";
import { type ElementDescriptor, placed } from "./base";
import { PictureElement } from "./picture";
import { ShapeElement } from "./shape";
import { TextElement } from "./text";

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

export const foreignKind: ElementDescriptor<ForeignElement> = {
  label: "embedded object",
  count: "foreign",
  texts: ({ text }) => [text],
  lines: ({ text }) => paragraphsOf(text),
};
