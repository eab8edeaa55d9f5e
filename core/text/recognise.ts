import {
  arrangementOf,
  type ArrangementName,
  countWords,
  type Element,
  type ElementKind,
  isEmptyText,
  numberIn,
  paragraphText,
  type RichText,
  roleOf,
  type Slide,
  slotsOf,
  textOf,
  must,
} from "@unitext/core/model";
import type { Reason } from "./reasons";

/** The parts of a slide by which its arrangement is recognised. */
export interface Parts {
  first: boolean;
  depth: number | null;
  title: RichText | null;
  /** The text of the main flow, without quotations. */
  text: RichText;
  /** The quotations of the main flow. */
  quote: RichText;
  /** Whether the quotation comes before the other text. */
  quoteFirst: boolean;
  /** The number of elements of each kind in the main flow, without texts. */
  kinds: Partial<Record<ElementKind, number>>;
  slots: readonly string[];
}

interface Recogniser {
  arrangement: ArrangementName;
  reason: Reason;
  holds(parts: Parts): boolean;
}

const hasList = (text: RichText) => text.some((paragraph) => paragraph.kind !== "plain");
const count = ({ kinds }: Parts) => Object.values(kinds).reduce((sum, n) => sum + n, 0);

/** Whether a text can be the line below a figure. */
const isCaption = (text: RichText) => !hasList(text) && text.length <= 1 && countWords(textOf(text)) <= 30;
const only = (kind: ElementKind) => (parts: Parts) =>
  parts.kinds[kind] === 1 && count(parts) === 1 && isCaption(parts.text) && parts.quote.length === 0;

const REFERENCES =
  /^(\d[\d.]*\s+)?(references|bibliography|sources|further reading|resources|works cited|literatur(verzeichnis)?|quellen|referencias|bibliografía|références|bibliographie|bibliografia|riferimenti|referências|bronnen|литература|βιβλιογραφία|المراجع|ביבליוגרפיה)$/i;

/** Whether a heading announces a list of sources. */
export function namesReferences(title: RichText | null): boolean {
  return title !== null && REFERENCES.test(textOf(title).trim());
}

/** Whether a text is a key figure: a number with its unit, no longer than a word or two. */
export function isKeyFigure(text: string): boolean {
  return text.length <= 14 && numberIn(text) !== undefined;
}

const startsWithNumber = (text: RichText) =>
  text.length === 2 &&
  !hasList(text) &&
  isKeyFigure(paragraphText(must(text[0])).trim()) &&
  countWords(paragraphText(must(text[1]))) <= 30;

/** Tried in order; the first that holds decides. */
const RECOGNISERS: readonly Recogniser[] = [
  { arrangement: "columns", reason: "three-columns", holds: ({ slots }) => slots.includes("middle") },
  {
    arrangement: "comparison",
    reason: "two-columns",
    holds: ({ slots }) => slots.includes("left") || slots.includes("right"),
  },
  {
    arrangement: "number",
    reason: "number-with-line",
    holds: (parts) =>
      parts.slots.includes("number") ||
      (startsWithNumber(parts.text) && count(parts) === 0 && parts.quote.length === 0),
  },
  {
    arrangement: "quotation",
    reason: "quotation",
    holds: (parts) =>
      parts.quote.length > 0 && parts.quoteFirst && count(parts) === 0 && parts.title === null && isCaption(parts.text),
  },
  {
    arrangement: "picture",
    reason: "picture-with-line",
    holds: (parts) =>
      parts.kinds.picture === 1 && count(parts) === 1 && isCaption(parts.text) && parts.quote.length === 0,
  },
  {
    arrangement: "pictures",
    reason: "several-pictures",
    holds: (parts) =>
      (parts.kinds.picture ?? 0) > 1 &&
      (parts.kinds.picture ?? 0) <= 6 &&
      count(parts) === parts.kinds.picture &&
      isCaption(parts.text) &&
      parts.quote.length === 0,
  },
  { arrangement: "table", reason: "table", holds: only("table") },
  { arrangement: "chart", reason: "chart", holds: only("chart") },
  { arrangement: "diagram", reason: "diagram", holds: only("diagram") },
  { arrangement: "code", reason: "code", holds: only("code") },
  { arrangement: "formula", reason: "formula", holds: only("formula") },
  {
    arrangement: "references",
    reason: "lists-sources",
    holds: (parts) =>
      namesReferences(parts.title) && (parts.text.length > 0 || parts.quote.length > 0) && count(parts) === 0,
  },
  {
    arrangement: "opening",
    reason: "first-heading",
    holds: (parts) =>
      parts.first && parts.depth === 1 && !hasList(parts.text) && count(parts) === 0 && parts.quote.length === 0,
  },
  {
    arrangement: "section",
    reason: "section-heading",
    holds: (parts) => parts.depth === 1 && isCaption(parts.text) && count(parts) === 0 && parts.quote.length === 0,
  },
  {
    arrangement: "title",
    reason: "title-alone",
    holds: (parts) => parts.title !== null && parts.text.length === 0 && count(parts) === 0 && parts.quote.length === 0,
  },
  { arrangement: "points", reason: "title-and-content", holds: ({ title }) => title !== null },
  {
    arrangement: "blank",
    reason: "empty",
    holds: (parts) => parts.text.length === 0 && count(parts) === 0 && parts.quote.length === 0,
  },
  {
    arrangement: "statement",
    reason: "one-paragraph",
    holds: (parts) =>
      parts.text.length + parts.quote.length === 1 &&
      count(parts) === 0 &&
      !hasList(parts.text) &&
      (parts.text[0]?.level ?? 0) === 0,
  },
];

/** Holds where none of the others does. */
const ANYTHING = { arrangement: "points", reason: "several-paragraphs" } as const;

/** Returns the arrangement that fits the parts of a slide, and the reason. */
export function recogniseParts(parts: Parts): { arrangement: ArrangementName; reason: Reason } {
  return RECOGNISERS.find((recogniser) => recogniser.holds(parts)) ?? ANYTHING;
}

/** Returns the arrangement that fits what a slide consists of. */
export function recognise(parts: Parts): ArrangementName {
  return recogniseParts(parts).arrangement;
}

/** Returns the heading depth of a slide's title in the text form. */
export function titleDepth(slide: Slide): number {
  return slide.arrangement === "opening" || slide.arrangement === "section" ? 1 : 2;
}

/** Returns the slot for text without a slot of its own. */
export function mainSlot(arrangement: ArrangementName): string {
  return arrangementOf(arrangement).textSlot ?? "body";
}

/**
 * Returns the slot of an element of the main flow: quotations, pictures and figures have slots of their own where the
 * arrangement has them. `nth` counts the elements of that kind before it.
 */
export function flowSlot(arrangement: ArrangementName, kind: ElementKind | "quote", nth: number): string | null {
  if (kind === "quote") return arrangement === "quotation" ? "body" : mainSlot(arrangement);
  if (kind === "text") return mainSlot(arrangement);
  if (kind === "picture")
    return arrangement === "pictures" ? "pictures" : arrangement === "picture" && nth === 0 ? "picture" : null;
  if (arrangement === kind && nth === 0) return kind;
  const main = mainSlot(arrangement);
  return main === "body" || main === "left" ? main : null;
}

/** Returns a slide's elements as the text form has them: the title, the main flow in order, and the other slots. */
export function flowOf(slide: Slide): {
  title: Extract<Element, { kind: "text" }> | undefined;
  flow: Element[];
  slots: Map<string, Element[]>;
} {
  const { arrangement } = slide;
  const title = slide.elements.find(
    (element): element is Extract<Element, { kind: "text" }> =>
      element.kind === "text" && element.slot === "title" && !isEmptyText(element.text),
  );
  const main = mainSlot(arrangement);
  const known = new Set(slotsOf(arrangement).map(([slot]) => slot));
  const inFlow = (element: Element) => {
    const { slot } = element;
    if (slot === null || slot === main || !known.has(slot) || roleOf(slide, element) === undefined) return true;
    return (
      (element.kind !== "text" && (slot === element.kind || slot === "pictures")) ||
      (arrangement === "quotation" && slot === "body")
    );
  };
  const flow: Element[] = [];
  const slots = new Map<string, Element[]>();
  for (const element of slide.elements) {
    if (element === title || (element.kind === "text" && isEmptyText(element.text))) continue;
    if (inFlow(element)) flow.push(element);
    else slots.set(element.slot as string, [...(slots.get(element.slot as string) ?? []), element]);
  }
  return { title, flow, slots };
}

/** Returns the parts of a finished slide, as reading its text form would give them. */
export function partsOf(slide: Slide, first: boolean): Parts {
  const { title, flow, slots } = flowOf(slide);
  const quoted = (element: Element) => slide.arrangement === "quotation" && element.slot === "body";
  const kinds: Parts["kinds"] = {};
  for (const { kind } of flow) if (kind !== "text") kinds[kind] = (kinds[kind] ?? 0) + 1;
  const texts = (wanted: boolean) =>
    flow.flatMap((element) => (element.kind === "text" && quoted(element) === wanted ? element.text : []));
  return {
    first,
    depth: title ? titleDepth(slide) : null,
    title: title?.text ?? null,
    text: texts(false),
    quote: texts(true),
    quoteFirst: true,
    kinds,
    slots: [...slots.keys()],
  };
}
