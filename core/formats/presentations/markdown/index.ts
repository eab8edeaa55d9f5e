import type { Deck } from "@unitext/core/model";
import { deckText } from "@unitext/core/text";

/** Writes a deck in the text form. */
export function writeMarkdown(deck: Deck): string {
  return deckText(deck, { ids: true });
}
