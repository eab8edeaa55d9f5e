import type { ElementKind, Element, Slide } from "./deck";
import { type RichText, plainText, textOf } from "./richtext";

const ELEMENT_TEXTS: {
  [K in ElementKind]: (element: Extract<Element, { kind: K }>) => RichText[];
} = {
  text: ({ text }) => [text],
  picture: ({ caption }) => (caption ? [plainText(caption)] : []),
  table: ({ rows, caption }) => {
    const texts: RichText[] = [];
    for (const row of rows) for (const cell of row) if (cell) texts.push(cell.text);
    if (caption) texts.push(plainText(caption));
    return texts;
  },
  code: () => [],
  formula: () => [],
  diagram: ({ text }) => [text],
  chart: ({ categories, series, title }) => [
    ...(title ? [plainText(title)] : []),
    ...categories.map(plainText),
    ...series.map(({ name }) => plainText(name)),
  ],
  shape: ({ text }) => [text],
  media: () => [],
  foreign: ({ text }) => [text],
};

/** Returns the texts of an element that are read as words: its text, cells or labels, but not code and formulas. */
export function elementTexts(element: Element): RichText[] {
  return (ELEMENT_TEXTS[element.kind] as (element: Element) => RichText[])(element);
}

/** Returns what an element shows as plain text. */
export function elementWords(element: Element): string {
  if (element.kind === "picture") return element.caption || element.alt;
  if (element.kind === "media") return element.alt;
  if (element.kind === "code") return element.text;
  if (element.kind === "formula") return element.tex;
  return elementTexts(element).map(textOf).join("\n");
}

/** Returns all texts of a slide in order, notes last. */
export function slideTexts(slide: Slide): RichText[] {
  return [...slide.elements.flatMap(elementTexts), slide.notes];
}

const ELEMENT_MAPS: {
  [K in ElementKind]?: (element: Extract<Element, { kind: K }>, change: (text: RichText) => RichText) => Element;
} = {
  text: (element, change) => ({ ...element, text: change(element.text) }),
  diagram: (element, change) => ({ ...element, text: change(element.text) }),
  shape: (element, change) => ({ ...element, text: change(element.text) }),
  table: (element, change) => ({
    ...element,
    rows: element.rows.map((row) => row.map((cell) => cell && { ...cell, text: change(cell.text) })),
  }),
};

/** Returns an element with `change` applied to every rich text in it. */
export function mapElementTexts(element: Element, change: (text: RichText) => RichText): Element {
  const map = ELEMENT_MAPS[element.kind] as
    | ((element: Element, change: (text: RichText) => RichText) => Element)
    | undefined;
  return map ? map(element, change) : element;
}
