import { Theme } from "@unitext/core/model";
import { z } from "zod";

export const ThemeName = Theme.shape.name;

/** The themes that a person has saved, each with the number of their decks that have a theme of its name. */
export const SavedThemes = z.object({
  themes: z.array(z.object({ theme: Theme, decks: z.number().int().nonnegative() })),
});
export type SavedThemes = z.infer<typeof SavedThemes>;

/** A theme to save under its name. */
export const ThemeSent = z.object({ theme: Theme });

/** How many decks took the saved state of their theme. */
export const ThemesUpdated = z.object({ decks: z.number().int().nonnegative() });
export type ThemesUpdated = z.infer<typeof ThemesUpdated>;
