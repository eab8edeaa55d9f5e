import { ARRANGEMENTS, isTitleRole, type SlotRole, slotsOf } from "./arrangement";
import type { Deck, DeckHead, Element, Slide, TextElement } from "./deck";
import { countWords, isEmptyText, textOf } from "./richtext";
import { THEMES } from "./theme";
import { PAGES } from "./units";

/** A deck without slides, as a new one begins. */
export function emptyDeck(id: string, title: string, language = "en"): Deck {
  return {
    id,
    properties: { title, author: "", event: "", date: "" },
    language,
    page: PAGES["16:9"],
    theme: THEMES.saltmarsh,
    regions: { footer: "", number: true },
    rate: 130,
    assets: {},
    slides: [],
  };
}

export function headOf(deck: Deck): DeckHead {
  const { slides: _, ...head } = deck;
  return head;
}

export function slideIndex(deck: Deck, id: string): number {
  return deck.slides.findIndex((slide) => slide.id === id);
}

export function slideWith(deck: Deck, id: string): Slide | undefined {
  return deck.slides.find((slide) => slide.id === id);
}

export function roleOf(slide: Slide, element: Element): SlotRole | undefined {
  return (ARRANGEMENTS[slide.arrangement].slots as Record<string, SlotRole>)[element.slot ?? ""];
}

/** The text element that is the slide's title, if it has one. */
export function titleElement(slide: Slide): TextElement | undefined {
  const found = slide.elements.find((element) => element.kind === "text" && (isTitleRole(roleOf(slide, element)) || element.slot === "title"));
  return found as TextElement | undefined;
}

/** The title on one line; empty when the slide has none. */
export function titleOf(slide: Slide): string {
  const element = titleElement(slide);
  return element ? textOf(element.text).replace(/\s+/g, " ").trim() : "";
}

/** The title, or the first words on the slide, for lists and messages. */
export function nameOf(slide: Slide): string {
  const title = titleOf(slide);
  if (title) return title;
  for (const element of slide.elements) {
    const words = element.kind === "text" ? textOf(element.text).trim() : element.alt;
    if (words) return words.length > 60 ? `${words.slice(0, 60).trimEnd()}…` : words;
  }
  return "";
}

/** Elements in reading order: by the arrangement's slots, then what stands freely. */
export function readingOrder(slide: Slide): Element[] {
  const slots = slotsOf(slide.arrangement).map(([slot]) => slot);
  const rank = (element: Element) => (element.slot !== null && slots.includes(element.slot) ? slots.indexOf(element.slot) : slots.length);
  return slide.elements.map((element, index) => ({ element, index })).sort((a, b) => rank(a.element) - rank(b.element) || a.index - b.index).map(({ element }) => element);
}

/** How deep each slide lies under the main line: 0 for the main line, by slide id. */
export function levels(slides: readonly Slide[]): Map<string, number> {
  const depth = new Map<string, number>();
  for (const slide of slides) depth.set(slide.id, slide.parent === null ? 0 : (depth.get(slide.parent) ?? 0) + 1);
  return depth;
}

/** The title of the section that each slide lies in, by slide id; a slide arranged as section opener begins one. */
export function sections(slides: readonly Slide[]): Map<string, string> {
  const found = new Map<string, string>();
  let current: string | undefined;
  for (const slide of slides) {
    if (slide.arrangement === "section" && slide.parent === null) current = titleOf(slide);
    if (current !== undefined) found.set(slide.id, current);
  }
  return found;
}

/** The slide's details, and theirs, with the slide itself first: the run of slides that moves with it. */
export function familyOf(slides: readonly Slide[], id: string): Slide[] {
  const family: Slide[] = [];
  const inside = new Set<string>();
  for (const slide of slides) {
    if (slide.id === id || (slide.parent !== null && inside.has(slide.parent))) {
      inside.add(slide.id);
      family.push(slide);
    } else if (family.length) break;
  }
  return family;
}

export function wordsOn(slide: Slide): number {
  return slide.elements.reduce((sum, element) => sum + (element.kind === "text" ? countWords(textOf(element.text)) : 0), 0);
}

/** The least time a slide stands, in seconds, and the share of the words on a slide without notes that are spoken. */
const SHORTEST = 10;

/**
 * How long a slide takes to say, in seconds: its notes at the speaking rate in words a minute, or, without notes,
 * the words on it; never under ten seconds (common practice, no source). A hidden slide takes none.
 */
export function secondsOf(slide: Slide, rate: number): number {
  if (slide.hidden) return 0;
  const words = isEmptyText(slide.notes) ? wordsOn(slide) : countWords(textOf(slide.notes));
  return Math.max(SHORTEST, Math.round((words * 60) / rate));
}

export function hasNotes(slide: Slide): boolean {
  return !isEmptyText(slide.notes);
}

