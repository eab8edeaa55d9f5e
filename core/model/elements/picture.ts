import { z } from "zod";
import { Geometry } from "../look";
import { lineOf, lineText, LineValues } from "../linevalues";
import { LinkTarget, type RichText } from "../richtext";
import { type ElementDescriptor, placed } from "./base";

/** The parts cut off a picture's sides, as shares of its size. Negative values leave a margin in its frame. */
export const Crop = z.object({ left: z.number(), top: z.number(), right: z.number(), bottom: z.number() });
export type Crop = z.infer<typeof Crop>;

/** A picture. `source` is a name that the deck's `assets` resolve to bytes; `width` is a percentage of its place. */
export const PictureElement = z.object({
  kind: z.literal("picture"),
  ...placed,
  source: z.string().min(1).max(1000),
  alt: z.string(),
  caption: z.string().max(2000).optional(),
  captionValues: LineValues.optional(),
  width: z.number().min(1).max(100).optional(),
  crop: Crop.optional(),
  opacity: z.number().min(0).max(1).optional(),
  recolour: z.enum(["grey", "mono", "washout"]).optional(),
  shape: Geometry.optional(),
  link: LinkTarget.optional(),
});
export type PictureElement = z.infer<typeof PictureElement>;

/** Whether a picture has a description, and not just the name of its file. */
export function isDescribed({ alt, source }: Pick<PictureElement, "alt" | "source">): boolean {
  const name = source
    .split("/")
    .at(-1)
    ?.replace(/\.[^.]*$/, "");
  return alt.trim() !== "" && alt.trim().replace(/\s+/g, "-") !== name;
}

/** Returns a picture or table with its caption changed as a rich text. */
export function withCaption<E extends { caption?: string | undefined; captionValues?: LineValues | undefined }>(
  element: E,
  change: (text: RichText) => RichText,
): E {
  if (!element.caption) return element;
  const text = lineText(element.caption, element.captionValues);
  const next = change(text);
  if (next === text) return element;
  const { caption: _, captionValues: __, ...rest } = element;
  const { words, values } = lineOf(next);
  return { ...rest, caption: words, ...(values.length ? { captionValues: values } : {}) } as E;
}

export const pictureKind: ElementDescriptor<PictureElement> = {
  label: "picture",
  count: "pictures",
  texts: ({ caption }) => (caption ? [lineText(caption)] : []),
  mapTexts: (element, change) => withCaption(element, change),
  words: ({ caption, alt }) => caption || alt,
  lines: ({ caption }) => (caption ? [caption] : []),
};
