import { z } from "zod";
import type { Deck, Slide } from "./deck";

/** What is in a deck for its makers, and can be taken out before it is given away. */
export const PRIVATE_PARTS = ["notes", "comments", "hidden", "author"] as const;
export const PrivatePart = z.enum(PRIVATE_PARTS);
export type PrivatePart = z.infer<typeof PrivatePart>;

/** What a deck that is given away keeps beside its slides; hidden slides and the author's name unless it says no. */
export interface Kept {
  notes: boolean;
  comments: boolean;
  hidden?: boolean;
  author?: boolean;
}

/** Returns the slides that are not hidden; details of a hidden slide belong to the nearest slide above that is shown. */
function withoutHidden(slides: readonly Slide[]): Slide[] {
  const byId = new Map(slides.map((slide) => [slide.id, slide]));
  const shownAbove = (slide: Slide): string | null => {
    const above = slide.parent === null ? undefined : byId.get(slide.parent);
    return above?.hidden ? shownAbove(above) : (above?.id ?? null);
  };
  return slides.filter(({ hidden }) => !hidden).map((slide) => ({ ...slide, parent: shownAbove(slide) }));
}

/**
 * Returns a deck without what it does not keep. The source files of its slides hold all of it, so they are left out with
 * any part; the document that it was made from holds what may be in the notes and on hidden slides.
 */
export function deckFor(deck: Deck, { notes, comments, hidden = true, author = true }: Kept): Deck {
  if (notes && comments && hidden && author) return deck;
  const { manuscript, ...rest } = deck;
  const keepsText = notes && hidden;
  const assets = Object.entries(deck.assets).filter(([, { mediaType }]) => !mediaType.startsWith("application/"));
  return {
    ...rest,
    ...(manuscript && keepsText ? { manuscript } : {}),
    properties: author ? deck.properties : { ...deck.properties, author: "" },
    assets: Object.fromEntries(assets),
    slides: (hidden ? deck.slides : withoutHidden(deck.slides)).map(
      ({ sourcePart: _, comments: written, source, voice, ...slide }) => ({
        ...slide,
        notes: notes ? slide.notes : [],
        // A recorded voice reads the notes.
        ...(notes && voice ? { voice } : {}),
        ...(comments && written ? { comments: written } : {}),
        ...(source && keepsText ? { source } : {}),
      }),
    ),
  };
}
