import { z } from "zod";
import { type ElementDescriptor, placed } from "./base";

/** A film or a sound by the name of its file, with the poster picture that represents it. */
export const MediaElement = z.object({
  kind: z.literal("media"),
  ...placed,
  source: z.string().min(1).max(4000),
  type: z.enum(["video", "audio"]),
  poster: z.string().min(1).max(1000).optional(),
  alt: z.string(),
});
export type MediaElement = z.infer<typeof MediaElement>;

export const mediaKind: ElementDescriptor<MediaElement> = {
  label: "film or sound",
  count: "media",
  texts: () => [],
  words: ({ alt }) => alt,
};
