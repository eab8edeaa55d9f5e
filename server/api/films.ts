import { FILM_FORMATS, FILM_WIDTHS } from "@unitext/core/film";
import { Id, Language } from "@unitext/core/model";
import { z } from "zod";

/** The voices that speak notes: the one of this machine, a service that is set up, or none. */
export const VOICES = ["local", "service", "none"] as const;

/** How a film of a deck is to be made. */
export const FilmRequest = z.object({
  format: z.enum(FILM_FORMATS),
  /** The width of its pictures in pixels. */
  width: z.literal(FILM_WIDTHS),
  /** What speaks the notes of slides that have no recorded voice. */
  voice: z.enum(VOICES),
  /** The decks whose notes become captions: this one, and the same deck in other languages. */
  captions: z.array(Id).max(50),
});
export type FilmRequest = z.infer<typeof FilmRequest>;

/** What films can be made with here. */
export const FilmTools = z.object({
  /** Whether ffmpeg is installed. */
  ffmpeg: z.boolean(),
  /** Whether espeak-ng is installed. */
  local: z.boolean(),
  /** The host of the voice service; null without one. */
  service: z.string().nullable(),
});
export type FilmTools = z.infer<typeof FilmTools>;

/** A film that was made of a deck. */
export const Film = z.object({
  id: Id,
  format: z.enum(FILM_FORMATS),
  width: z.number().int(),
  height: z.number().int(),
  seconds: z.number(),
  slides: z.number().int(),
  version: z.number().int(),
  /** The languages of its captions. */
  captions: z.array(Language),
  remarks: z.array(z.string()),
  /** In bytes. */
  size: z.number().int(),
  createdAt: z.iso.datetime(),
});
export type Film = z.infer<typeof Film>;
export const Films = z.object({ films: z.array(Film) });

/** A recording that was taken into a deck, to be named by a slide. */
export const Recording = z.object({
  name: z.string(),
  sha256: z.string(),
  mediaType: z.enum(["audio/webm", "audio/ogg", "audio/mp4", "audio/wav", "audio/mpeg"]),
});
export type Recording = z.infer<typeof Recording>;
