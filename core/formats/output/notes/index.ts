import { type Deck, nameOf, textOf } from "@unitext/core/model";

/** Writes the notes of a deck as plain text: each slide's number and name, then its notes, a line a paragraph. */
export function writeNotes(deck: Deck): string {
  const parts = deck.slides.flatMap((slide, nth) => {
    const said = textOf(slide.notes).trim();
    return said ? [`${nth + 1}. ${nameOf(slide) || "Without a title"}\n\n${said}`] : [];
  });
  return `${[deck.properties.title, ...parts].filter(Boolean).join("\n\n\n")}\n`;
}
