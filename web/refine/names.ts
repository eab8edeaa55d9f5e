import { cutText, type Element, kindOf, must, textOf } from "@unitext/core/model";

const SLOTS: Record<string, string> = {
  title: "title",
  subtitle: "line below the title",
  body: "text",
  left: "left column",
  middle: "middle column",
  right: "right column",
  number: "number",
  caption: "caption",
  picture: "picture",
  pictures: "pictures",
  table: "table",
  chart: "chart",
  diagram: "diagram",
  code: "code",
  formula: "formula",
};
export const slotName = (slot: string) => SLOTS[slot] ?? slot;

/** Names an element: its slot or kind, and its first words or name. */
export function nameOfElement(element: Element): string {
  const kind = element.slot && SLOTS[element.slot] ? must(SLOTS[element.slot]) : kindOf(element).label;
  const words =
    element.kind === "text" || element.kind === "shape"
      ? textOf(element.text).replace(/\s+/g, " ").trim()
      : element.kind === "picture" || element.kind === "media"
        ? element.alt
        : (element.name ?? "");
  return words
    ? `${kind} “${words.length > 40 ? `${cutText(words, 40)}…` : words}”`
    : element.name?.toLowerCase().startsWith(kind)
      ? element.name
      : element.name
        ? `${kind} ${element.name}`
        : kind;
}
