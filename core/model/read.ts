import { cutText } from "./wellformed";
import { arrangementOf, isTitleRole, type SlotRole, slotsOf, type ArrangementName } from "./arrangement";
import { type Deck, type DeckMetadata, type Slide, SlideProperties } from "./deck";
import type { ChartType, Element, Series, TextElement } from "./elements";
import type { ParagraphProperties } from "./look";
import { countsSlide, isEmptyText, onSlide, type Paragraph, type RichText, textOf, wordsIn } from "./richtext";
import { type Theme, THEMES } from "./theme";
import { PAGES } from "./units";
import { elementWords, elementTexts, mapElementTexts } from "./elementtexts";

/** Returns a new deck without slides. */
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

/** Returns a deck without its slides. */
export function metadataOf(deck: Deck): DeckMetadata {
  const { slides: _, ...metadata } = deck;
  return metadata;
}

/** Returns the place of a slide in running order, from 0; -1 when the deck does not have it. */
export function slideIndex(deck: Deck, id: string): number {
  return deck.slides.findIndex((slide) => slide.id === id);
}

/** Returns a slide by its id; undefined when the deck does not have it. */
export function slideWith(deck: Deck, id: string): Slide | undefined {
  return deck.slides.find((slide) => slide.id === id);
}

/** Returns the role of the slot that an element is in; undefined when it is in none. */
export function roleOf(slide: Slide, element: Element): SlotRole | undefined {
  return arrangementOf(slide.arrangement).slots[element.slot ?? ""]?.role;
}

/** Returns the text element that is the slide's title; undefined when there is none. */
export function titleElement(slide: Slide): TextElement | undefined {
  const found = slide.elements.find(
    (element) => element.kind === "text" && (isTitleRole(roleOf(slide, element)) || element.slot === "title"),
  );
  return found as TextElement | undefined;
}

/** Returns the title on one line; empty when the slide has none. */
export function titleOf(slide: Slide): string {
  const element = titleElement(slide);
  return element ? textOf(element.text).replace(/\s+/g, " ").trim() : "";
}

/** Returns the title, or the first words on the slide, for lists and messages. */
export function nameOf(slide: Slide): string {
  const title = titleOf(slide);
  if (title) return title;
  for (const element of slide.elements) {
    const words = elementWords(element).trim();
    if (words) return words.length > 60 ? `${cutText(words, 60).trimEnd()}…` : words;
  }
  return "";
}

/** Returns elements in reading order: by the arrangement's slots, then positioned elements. */
export function readingOrder(slide: Pick<Slide, "arrangement" | "elements">): Element[] {
  const slots = slotsOf(slide.arrangement).map(([slot]) => slot);
  const rank = (element: Element) =>
    element.slot !== null && slots.includes(element.slot) ? slots.indexOf(element.slot) : slots.length;
  return slide.elements
    .map((element, index) => ({ element, index }))
    .sort((a, b) => rank(a.element) - rank(b.element) || a.index - b.index)
    .map(({ element }) => element);
}

/** Returns by slide id how deep each slide is under the main line, which is 0. */
export function levels(slides: readonly Slide[]): Map<string, number> {
  const depth = new Map<string, number>();
  for (const slide of slides) depth.set(slide.id, slide.parent === null ? 0 : (depth.get(slide.parent) ?? 0) + 1);
  return depth;
}

/**
 * Returns the name of the section that starts with a slide of the main line: its own, or the title of a section opener;
 * undefined when none starts.
 */
export function sectionStarting(slide: Slide): string | undefined {
  if (slide.parent !== null) return undefined;
  return slide.section ?? (slide.arrangement === "section" ? titleOf(slide) : undefined);
}

/** Returns by slide id the name of the section that each slide belongs to. */
export function sections(slides: readonly Slide[]): Map<string, string> {
  const found = new Map<string, string>();
  let current: string | undefined;
  for (const slide of slides) {
    current = sectionStarting(slide) ?? current;
    if (current !== undefined) found.set(slide.id, current);
  }
  return found;
}

/** Returns a slide with its details and theirs: the slides that move together. */
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

/** Returns the slide with its number put in where its text has the slide number field. */
export function counted(slide: Slide, number: number): Slide {
  if (!slide.elements.some((element) => elementTexts(element).some(countsSlide))) return slide;
  return {
    ...slide,
    elements: slide.elements.map((element) => mapElementTexts(element, (text) => onSlide(text, number))),
  };
}

/** Returns only the properties of a slide. */
export function slidePropertiesOf(slide: Slide | SlideProperties): SlideProperties {
  const names = Object.keys(SlideProperties.shape) as (keyof SlideProperties)[];
  return Object.fromEntries(names.flatMap((name) => (slide[name] ? [[name, slide[name]]] : [])));
}

/** Returns a slide without the properties beside its elements. */
export function withoutSlideProperties(slide: Slide): Slide {
  const names: readonly string[] = Object.keys(SlideProperties.shape);
  return Object.fromEntries(Object.entries(slide).filter(([name]) => !names.includes(name))) as Slide;
}

/** Returns the theme that a slide is drawn in: the one imported with it, or the deck's. */
export function themeOf(slide: Pick<Slide, "theme">, metadata: Pick<DeckMetadata, "theme" | "themes">): Theme {
  return (slide.theme !== undefined ? metadata.themes?.[slide.theme] : undefined) ?? metadata.theme;
}

/** Whether a slide has elements in places of their own: drawings, pictures or texts beside its slots. */
export const hasPositioned = ({ elements }: Slide): boolean =>
  elements.some(({ slot, frame }) => slot === null && frame !== undefined);

/** Removes fonts, sizes and colours from a text. Bold, italic and links stay. */
const withoutProperties = (text: RichText): RichText =>
  text.map(({ properties: _, ...paragraph }) => ({
    ...paragraph,
    runs: paragraph.runs.map(({ properties: __, ...item }) => item),
  }));

/** Returns an element in the theme of its deck; one that is to stay where it is shrinks its text to the room that it has. */
function inDeckTheme(element: Element, stays: boolean): Element {
  const { style, box, frame, ...rest } = element;
  const place = frame ? { frame } : {};
  // On a fill of its own a text keeps the colours that go with it.
  const keepsStyle = style !== undefined && (element.kind !== "text" || element.fill !== undefined);
  const styled = keepsStyle ? { style } : {};
  const shrinks = element.kind === "text" && !keepsStyle && frame !== undefined ? { fit: "shrink" as const } : {};
  if (element.slot === null)
    return { ...rest, ...place, ...(box || shrinks.fit ? { box: { ...box, ...shrinks } } : {}), ...styled } as Element;
  const plain = mapElementTexts(rest as Element, withoutProperties);
  return stays ? ({ ...plain, ...place, ...(frame ? { box: { ...box, ...shrinks } } : {}) } as Element) : plain;
}

/**
 * Returns a slide in a theme of its deck: without master and text styles. Where everything is in slots, it takes the
 * places of the design. Where something has a place of its own, everything stays where it is, on the plain paper of the
 * theme, so that no text comes to lie under anything.
 */
export function withoutOwnAppearance(given: Slide, theme: Theme): Slide {
  if (given.master === undefined) return given;
  const { master: _, regions: __, background, ...slide } = given;
  const stays = hasPositioned(given);
  const picture = background && "picture" in background ? background : undefined;
  const behind = picture ?? (stays ? { colour: theme.colours.paper } : undefined);
  return {
    ...slide,
    ...(behind ? { background: behind } : {}),
    elements: slide.elements.map((element) => inDeckTheme(element, stays)),
  };
}

/** Returns the number of words on a slide, without its notes. */
export function wordsOn(slide: Slide): number {
  return slide.elements.reduce(
    (sum, element) => sum + elementTexts(element).reduce((words, text) => words + wordsIn(text), 0),
    0,
  );
}

/** The minimum time of a slide in seconds, and the share of the words on a slide without notes that is spoken. */
const SHORTEST = 10;

/**
 * Returns the speaking time of a slide in seconds: its notes at the speaking rate in words a minute, or the words on it
 * when there are no notes; at least ten seconds (common practice, no source). A hidden slide takes none.
 */
export function secondsOf(slide: Slide, rate: number): number {
  if (slide.hidden) return 0;
  const words = isEmptyText(slide.notes) ? wordsOn(slide) : wordsIn(slide.notes);
  return Math.max(SHORTEST, Math.round((words * 60) / rate));
}

/** Returns how many comments on a slide are open. */
export const openCommentsOn = ({ comments = [] }: Pick<Slide, "comments">): number =>
  comments.filter(({ done }) => done !== true).length;

/** Whether the notes of a slide have words. */
export function hasNotes(slide: Slide): boolean {
  return !isEmptyText(slide.notes);
}

/**
 * Returns the direction that a paragraph or its level sets; undefined where the text decides. A level that says left to
 * right decides nothing, since most files say so whatever the text is.
 */
export function directionOf(
  own: ParagraphProperties | undefined,
  level: ParagraphProperties | undefined,
): ParagraphProperties["direction"] {
  return own?.direction ?? (level?.direction === "rtl" ? "rtl" : undefined);
}

/**
 * Returns the size of the largest words of a paragraph in points; runs without a size have their level's. Space before
 * and after that is given as a share counts by this size (ECMA-376-1, 21.1.2.2.11).
 */
export function wordsSize({ runs, properties }: Paragraph, usual: number): number {
  let most: number | undefined;
  for (const { text, properties: own } of runs) if (text.trim() !== "") most = Math.max(most ?? 0, own?.size ?? usual);
  return most ?? properties?.words?.size ?? usual;
}

/** Whether lines join the points of a series in this kind of chart. */
export function isJoined({ joined }: Pick<Series, "joined">, drawn: "line" | "scatter"): boolean {
  return joined ?? drawn === "line";
}

/** Whether a chart has a secondary value axis, on the right. Bars, pies and scatter charts have one pair of axes. */
export const hasSecondAxis = ({
  type,
  series,
}: {
  type: ChartType;
  series: readonly Pick<Series, "axis">[];
}): boolean =>
  ["column", "line", "area", "combined"].includes(type) &&
  series.some(({ axis }) => axis === "secondary") &&
  series.some(({ axis }) => axis !== "secondary");

/** Returns an empty slide with an arrangement. */
export function newSlide(id: string, arrangement: ArrangementName): Slide {
  return { id, parent: null, arrangement, elements: [], notes: [], hidden: false };
}
