import type { Deck } from "@unitext/core/model";
import { deckText } from "@unitext/core/text";

export function writeMarkdown(deck: Deck): string {
  return deckText(deck, { ids: true });
}
