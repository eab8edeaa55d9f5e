import type { Slide } from "./deck";
import type { Element } from "./elements";
import { elementTexts, elementWords, mapElementTexts } from "./elementtexts";
import { linksOf, mapLinks } from "./richtext";

/** Returns the link of a whole element; undefined when it has none. */
export function elementLink(element: Element): string | undefined {
  return "link" in element ? element.link : undefined;
}

/** Returns the links of an element with their words: its own, and those in its texts. */
export function elementLinks(element: Element): { text: string; to: string }[] {
  const to = elementLink(element);
  return [
    ...elementTexts(element).flatMap(linksOf),
    ...(to === undefined ? [] : [{ text: elementWords(element), to }]),
  ];
}

/** Returns the links of a slide with their words, those of its notes last. */
export function slideLinks({ elements, notes }: Pick<Slide, "elements" | "notes">): { text: string; to: string }[] {
  return [...elements.flatMap(elementLinks), ...linksOf(notes)];
}

/** Returns an element with its links changed; undefined removes a link. */
export function mapElementLinks(element: Element, change: (to: string) => string | undefined): Element {
  const worded = mapElementTexts(element, (text) => mapLinks(text, change));
  const to = elementLink(worded);
  if (to === undefined) return worded;
  const { link: _, ...rest } = worded as Extract<Element, { kind: "picture" | "shape" }>;
  const next = change(to);
  return (next === undefined ? rest : { ...rest, link: next }) as Element;
}
