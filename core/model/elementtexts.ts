import { type Element, kindOf } from "./elements";
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
