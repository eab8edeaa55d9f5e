import { cutText } from "./wellformed";
import { ARRANGEMENTS, isTitleRole, type SlotRole, slotsOf, type ArrangementName } from "./arrangement";
import type {
  Background,
  ChartType,
  Deck,
  DeckMetadata,
  Element,
  ElementKind,
  ForeignDrawing,
  Series,
  Slide,
  SlideProperties,
  TextElement,
} from "./deck";
import type { Fill, ParagraphProperties } from "./look";
import {
  countsSlide,
  isEmptyText,
  linksOf,
  mapLinks,
  onSlide,
  type Paragraph,
  plainText,
  type RichText,
  textOf,
  wordsIn,
} from "./richtext";
import { type Theme, THEMES } from "./theme";
import { PAGES } from "./units";

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

export function metadataOf(deck: Deck): DeckMetadata {
  const { slides: _, ...metadata } = deck;
  return metadata;
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

const ELEMENT_TEXTS: { [K in ElementKind]: (element: Extract<Element, { kind: K }>) => RichText[] } = {
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

/** Returns the slide with its number put in where its text has the slide number field. */
export function counted(slide: Slide, number: number): Slide {
  if (!slide.elements.some((element) => elementTexts(element).some(countsSlide))) return slide;
  return {
    ...slide,
    elements: slide.elements.map((element) => mapElementTexts(element, (text) => onSlide(text, number))),
  };
}

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

/** Returns only the properties of a slide. */
export function slidePropertiesOf({ background, transition, delay, widths, section }: Slide): SlideProperties {
  return {
    ...(background ? { background } : {}),
    ...(transition ? { transition } : {}),
    ...(delay ? { delay } : {}),
    ...(widths ? { widths } : {}),
    ...(section ? { section } : {}),
  };
}

/** Returns the theme that a slide is drawn in: the one imported with it, or the deck's. */
export function themeOf(slide: Pick<Slide, "theme">, metadata: Pick<DeckMetadata, "theme" | "themes">): Theme {
  return (slide.theme !== undefined ? metadata.themes?.[slide.theme] : undefined) ?? metadata.theme;
}

const withBackground = (fill: Fill | undefined) => (fill?.kind === "picture" ? [fill.source] : []);
const backgroundOf = (background: Background | undefined) =>
  !background
    ? []
    : "picture" in background
      ? [background.picture]
      : "fill" in background
        ? withBackground(background.fill)
        : [];
const picturesShownBy = (element: Element): string[] => [
  ...(element.kind === "picture"
    ? [element.source]
    : element.kind === "media" && element.poster
      ? [element.poster]
      : element.kind === "foreign" && element.picture
        ? [element.picture]
        : []),
  ...withBackground(element.fill),
  ...(element.kind === "table" ? element.rows.flatMap((row) => row.flatMap((cell) => withBackground(cell?.fill))) : []),
];

/** Returns elements followed by the elements of their foreign drawings. */
export const withDrawing = (elements: readonly Element[]): Element[] =>
  elements.flatMap((element) =>
    element.kind === "foreign" && element.drawing ? [element, ...element.drawing.elements] : [element],
  );

/** Returns the names of the pictures that a slide shows, including its background. */
export function picturesOn(slide: Pick<Slide, "background" | "elements">): string[] {
  return [...backgroundOf(slide.background), ...withDrawing(slide.elements).flatMap(picturesShownBy)];
}

/** Returns the names of picture bullets. They are named by their content, so the name is the same in every deck. */
export function bulletsOf(element: Element, styles: DeckMetadata["styles"]): string[] {
  const levels = element.style === undefined ? undefined : styles?.[element.style];
  return [
    ...elementTexts(element).flatMap((text) => text.flatMap(({ properties }) => properties?.bullet?.picture ?? [])),
    ...(levels ?? []).flatMap(({ paragraph }) => paragraph?.bullet?.picture ?? []),
  ];
}

/**
 * Returns the names of all files that a slide needs: pictures, picture bullets, films, sounds, those of its master, and
 * its source file.
 */
export function filesOf(slide: Slide, { masters, styles }: Pick<DeckMetadata, "masters" | "styles">): string[] {
  const master = slide.master === undefined ? undefined : masters?.[slide.master];
  return [
    ...picturesOn(slide),
    ...(master ? picturesOn(master) : []),
    ...withDrawing(slide.elements).flatMap((element) => bulletsOf(element, styles)),
    ...slide.elements.flatMap((element) => (element.kind === "media" ? [element.source] : [])),
    ...(slide.sourcePart ? [slide.sourcePart.file] : []),
  ];
}

/** Returns the slide, or an element of it, with `change` applied to every picture name. */
export function renamePictures<S extends Pick<Slide, "background" | "elements">>(
  slide: S,
  change: (name: string) => string,
): S {
  const fill = (own: Fill): Fill => (own.kind === "picture" ? { ...own, source: change(own.source) } : own);
  const { background } = slide;
  const behind = !background
    ? {}
    : "picture" in background
      ? { background: { picture: change(background.picture) } }
      : "fill" in background
        ? { background: { fill: fill(background.fill) } }
        : {};
  const elements = slide.elements.map((element): Element => {
    const own = element.fill ? { ...element, fill: fill(element.fill) } : element;
    if (own.kind === "picture") return { ...own, source: change(own.source) };
    if (own.kind === "table")
      return {
        ...own,
        rows: own.rows.map((row) => row.map((cell) => (cell?.fill ? { ...cell, fill: fill(cell.fill) } : cell))),
      };
    if (own.kind === "media")
      return { ...own, source: change(own.source), ...(own.poster ? { poster: change(own.poster) } : {}) };
    if (own.kind !== "foreign") return own;
    const drawing = own.drawing && { ...own.drawing, ...renamePictures({ elements: own.drawing.elements }, change) };
    return {
      ...own,
      ...(own.picture ? { picture: change(own.picture) } : {}),
      ...(drawing ? { drawing: drawing as ForeignDrawing } : {}),
    };
  });
  return { ...slide, ...behind, elements };
}

/** Returns the masters and text styles of a deck that the given slides use. */
export function sharedItemsOf(
  slides: readonly Slide[],
  { masters, styles }: Pick<DeckMetadata, "masters" | "styles">,
): Pick<DeckMetadata, "masters" | "styles"> {
  const masterNames = new Set(
    slides.flatMap(({ master }) => (master !== undefined && masters?.[master] ? [master] : [])),
  );
  const own = [...masterNames].map((name) => masters?.[name]?.elements ?? []);
  const styleNames = new Set(
    [
      ...slides.flatMap(({ elements, regions }) => [...withDrawing(elements), ...(regions ?? [])]),
      ...own.flatMap(withDrawing),
    ].flatMap(({ style }) => (style !== undefined && styles?.[style] ? [style] : [])),
  );
  const pick = <V>(names: ReadonlySet<string>, from: Record<string, V> | undefined) =>
    Object.fromEntries([...names].map((name) => [name, from?.[name] as V]));
  return {
    ...(masterNames.size ? { masters: pick(masterNames, masters) } : {}),
    ...(styleNames.size ? { styles: pick(styleNames, styles) } : {}),
  };
}

/**
 * Returns the slide in the deck's own theme: without master, text styles and frames of its slots. Positioned elements
 * stay.
 */
export function withoutOwnAppearance(given: Slide): Slide {
  if (given.master === undefined) return given;
  const { master: _, regions: __, background, ...slide } = given;
  return {
    ...slide,
    ...(background && "picture" in background ? { background } : {}),
    elements: slide.elements.map((element): Element => {
      const { style, box, frame, ...rest } = element;
      const plain = (text: RichText): RichText =>
        text.map(({ properties: own, ...paragraph }) => ({
          ...paragraph,
          runs: paragraph.runs.map(({ properties, ...item }) => item),
        }));
      return element.slot === null
        ? ({
            ...rest,
            ...(frame ? { frame } : {}),
            ...(box ? { box } : {}),
            ...(style && element.kind !== "text" ? { style } : {}),
          } as Element)
        : mapElementTexts(rest as Element, plain);
    }),
  };
}

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
