import type { DeckMetadata } from "./deck";

/** The properties that a line on every slide may name in braces. */
export const LINE_FIELDS = ["title", "author", "event", "date"] as const;

const FIELD = new RegExp(`\\{(${LINE_FIELDS.join("|")})\\}`, "g");

/** Returns the words of the line at the foot or at the top, with the deck's own title, author, event and date in them. */
export function regionWords(
  { regions, properties }: Pick<DeckMetadata, "regions" | "properties">,
  region: "footer" | "header",
): string {
  const words = regions[region] ?? "";
  return words.replace(FIELD, (_, field: (typeof LINE_FIELDS)[number]) => properties[field]).trim();
}
