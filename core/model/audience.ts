import type { Deck } from "./deck";

/** What a deck that is given away keeps beside its slides. */
export interface Kept {
  notes: boolean;
  comments: boolean;
}

/**
 * Returns a deck without its notes or its comments. The source files of its slides hold both, and the document that it
 * was made from may hold what is in the notes, so these are left out with them.
 */
export function deckFor(deck: Deck, { notes, comments }: Kept): Deck {
  if (notes && comments) return deck;
  const { manuscript, ...rest } = deck;
  const assets = Object.entries(deck.assets).filter(([, { mediaType }]) => !mediaType.startsWith("application/"));
  return {
    ...rest,
    ...(manuscript && notes ? { manuscript } : {}),
    assets: Object.fromEntries(assets),
    slides: deck.slides.map(({ sourcePart: _, comments: written, source, ...slide }) => ({
      ...slide,
      notes: notes ? slide.notes : [],
      ...(comments && written ? { comments: written } : {}),
      ...(source && notes ? { source } : {}),
    })),
  };
}
