import { roots } from "@unitext/core/edit";
import { Asset, type Deck, familyOf, Id, nameOf, Page, Slide, Theme } from "@unitext/core/model";
import { z } from "zod";

/** The clipboard type of slides, for copying between decks and tabs. */
export const SLIDES_TYPE = "application/x-unitext-slides";

/** Slides on the clipboard with what they need of their deck: its theme, its pictures and their names. */
export const Clipped = z.object({
  deck: Id,
  title: z.string(),
  version: z.number().int(),
  page: Page,
  theme: Theme,
  themes: z.record(z.string(), Theme).optional(),
  assets: z.record(z.string(), Asset),
  slides: z.array(Slide).min(1),
});
export type Clipped = z.infer<typeof Clipped>;

/** Returns the clipboard content of slides with their details: as data, and as their names in text. */
export function clip(deck: Deck, version: number, ids: readonly string[]): { data: string; words: string } {
  const chosen = roots(deck, ids);
  const slides = chosen.flatMap((id) =>
    familyOf(deck.slides, id).map((slide) => (slide.id === id ? { ...slide, parent: null } : slide)),
  );
  const used = JSON.stringify(slides);
  const clipped: Clipped = {
    deck: deck.id,
    title: deck.properties.title,
    version,
    page: deck.page,
    theme: deck.theme,
    ...(deck.themes ? { themes: deck.themes } : {}),
    assets: Object.fromEntries(Object.entries(deck.assets).filter(([name]) => used.includes(JSON.stringify(name)))),
    slides,
  };
  return { data: JSON.stringify(clipped), words: slides.map(nameOf).join("\n") };
}

/** Returns the slides on the clipboard; undefined when there are none that can be read. */
export function unclip(data: string): Clipped | undefined {
  try {
    const found = Clipped.safeParse(JSON.parse(data));
    return found.success ? found.data : undefined;
  } catch {
    return undefined;
  }
}

/** Returns the clipboard as a deck from which slides are taken. */
export function clippedDeck({ deck, title, page, theme, themes, assets, slides }: Clipped, like: Deck): Deck {
  const { manuscript: _, original: __, themes: ___, ...head } = like;
  return {
    ...head,
    id: deck,
    properties: { ...head.properties, title },
    page,
    theme,
    ...(themes ? { themes } : {}),
    assets,
    slides,
  };
}
