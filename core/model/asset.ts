import { z } from "zod";

export const MEDIA_TYPES = [
  "image/png",
  "image/jpeg",
  "image/gif",
  "image/svg+xml",
  "video/mp4",
  "video/webm",
  "audio/mpeg",
  "audio/mp4",
  "audio/wav",
  "audio/webm",
  "audio/ogg",
  "application/zip",
] as const;

/**
 * The bytes behind the name of a picture, film, sound or source package: their SHA-256 in hex, media type, and size in
 * pixels (1 by 1 for anything but pictures).
 */
export const Asset = z.object({
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  mediaType: z.enum(MEDIA_TYPES),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
});
export type Asset = z.infer<typeof Asset>;
