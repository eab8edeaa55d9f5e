import { Id } from "@unitext/core/model";
import { z } from "zod";
import { ViewedDeck } from "./sharing";

/** Turning of its own: the seconds that a slide without a delay of its own stays, and whether it starts again. */
export const Turning = z.object({ seconds: z.number().min(0.5).max(3600), loop: z.boolean() });

/** Returns the origin of an address, such as “https://course.example”; undefined for anything else. */
export function originOf(text: string): string | undefined {
  try {
    const { origin, protocol } = new URL(text.trim());
    return /^https?:$/.test(protocol) ? origin : undefined;
  } catch {
    return undefined;
  }
}

const Settings = z.object({
  /** The version that it always shows; null where it follows the deck. */
  version: z.number().int().nonnegative().nullable(),
  notes: z.boolean(),
  turning: Turning.nullable(),
  /** The sites that may show it in a frame. */
  origins: z
    .array(z.string().refine((text) => originOf(text) === text, "an origin is like https://course.example"))
    .max(50),
});
export const PageAsked = Settings;
export type PageAsked = z.infer<typeof PageAsked>;

/** A deck that is published as a page of its own. */
export const PublishedPage = Settings.extend({
  id: Id,
  /** How often it was opened. */
  views: z.number().int(),
  createdAt: z.iso.datetime(),
});
export type PublishedPage = z.infer<typeof PublishedPage>;
export const PublishedPages = z.object({ version: z.number().int(), pages: z.array(PublishedPage) });
export type PublishedPages = z.infer<typeof PublishedPages>;

/** A published deck as its page shows it. */
export const PageDeck = z.object({ deck: ViewedDeck, turning: Turning.nullable(), delays: z.record(Id, z.number()) });
export type PageDeck = z.infer<typeof PageDeck>;
