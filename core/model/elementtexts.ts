import { type Element, kindOf } from "./elements";
import type { TextRange } from "./comment";
import type { Slide } from "./deck";
import { type RichText, textOf } from "./richtext";

/** Returns the texts of an element that are read as words: its text, cells or labels, but not code and formulas. */
export function elementTexts(element: Element): RichText[] {
  return kindOf(element).texts(element);
}

/** Returns what an element shows as plain text. */
export function elementWords(element: Element): string {
  return kindOf(element).words?.(element) ?? elementTexts(element).map(textOf).join("\n");
}

/** Returns what an element adds to the paragraphs of its slide. Charts, and films and sounds, add nothing. */
export function elementLines(element: Element): string[] {
  return kindOf(element).lines?.(element) ?? [];
}

/** Returns all texts of a slide in order, notes last. */
export function slideTexts(slide: Slide): RichText[] {
  return [...slide.elements.flatMap(elementTexts), slide.notes];
}

/** Returns an element with `change` applied to every rich text in it. */
export function mapElementTexts(element: Element, change: (text: RichText) => RichText): Element {
  return kindOf(element).mapTexts?.(element, change) ?? element;
}

/**
 * Returns which of an element's texts has a range of its words, and where in it. Undefined for words in more than one text,
 * such as two cells, and for words that are no text of the element, such as a description.
 */
export function textAtRange(
  element: Element,
  { start, end }: TextRange,
): { nth: number; range: TextRange } | undefined {
  const texts = elementTexts(element).map(textOf);
  if (elementWords(element) !== texts.join("\n")) return undefined;
  let from = 0;
  for (const [nth, { length }] of texts.entries()) {
    if (start >= from && end <= from + length) return { nth, range: { start: start - from, end: end - from } };
    from += length + 1;
  }
  return undefined;
}
