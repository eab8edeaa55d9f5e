import {
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
} from "@unitext/core/model";

/** What a slide is recognised by: its parts before they have an arrangement. */
export interface Parts {
  first: boolean;
  depth: number | null;
  title: RichText | null;
  /** The text of the main flow, quotations left out. */
  text: RichText;
  /** The words that the flow quotes. */
  quote: RichText;
  /** The quotation comes before the other text. */
  quoteFirst: boolean;
  /** How many elements of each kind the flow has, text left out. */
  kinds: Partial<Record<ElementKind, number>>;
  slots: readonly string[];
}

interface Recogniser {
  arrangement: ArrangementName;
  /** The reason, for the person. */
  because: string;
  holds(parts: Parts): boolean;
}

const hasList = (text: RichText) => text.some((paragraph) => paragraph.kind !== "plain");
const count = ({ kinds }: Parts) => Object.values(kinds).reduce((sum, n) => sum + n, 0);
/** A line that can stand under a figure. */
const isCaption = (text: RichText) => !hasList(text) && text.length <= 1 && countWords(textOf(text)) <= 30;
const only = (kind: ElementKind) => (parts: Parts) =>
  parts.kinds[kind] === 1 && count(parts) === 1 && isCaption(parts.text) && parts.quote.length === 0;

const REFERENCES =
  /^(\d[\d.]*\s+)?(references|bibliography|sources|further reading|resources|works cited|literatur(verzeichnis)?|quellen|referencias|bibliografía|références|bibliographie|bibliografia|riferimenti|referências|bronnen|литература|βιβλιογραφία|المراجع|ביבליוגרפיה)$/i;
/** Whether a heading says that sources are listed under it. */
export function namesReferences(title: RichText | null): boolean {
  return title !== null && REFERENCES.test(textOf(title).trim());
}

/** A figure that stands for itself: a number with its unit, no longer than a word or two. */
export function isBigNumber(text: string): boolean {
  return text.length <= 14 && numberIn(text) !== undefined;
}
const opensWithNumber = (text: RichText) =>
  text.length === 2 &&
  !hasList(text) &&
  isBigNumber(paragraphText(text[0] as RichText[number]).trim()) &&
  countWords(paragraphText(text[1] as RichText[number])) <= 30;

/** Tried in order; the first that holds decides. */
const RECOGNISERS: readonly Recogniser[] = [
  { arrangement: "columns", because: "it has three columns", holds: ({ slots }) => slots.includes("middle") },
  {
    arrangement: "comparison",
    because: "it has two columns",
    holds: ({ slots }) => slots.includes("left") || slots.includes("right"),
  },
  {
    arrangement: "number",
    because: "a number stands with one line to explain it",
    holds: (parts) =>
      parts.slots.includes("number") || (opensWithNumber(parts.text) && count(parts) === 0 && parts.quote.length === 0),
  },
  {
    arrangement: "quotation",
    because: "it is a quotation",
    holds: (parts) =>
      parts.quote.length > 0 && parts.quoteFirst && count(parts) === 0 && parts.title === null && isCaption(parts.text),
  },
  {
    arrangement: "picture",
    because: "it is a picture with a line of text",
    holds: (parts) =>
      parts.kinds.picture === 1 && count(parts) === 1 && isCaption(parts.text) && parts.quote.length === 0,
  },
  {
    arrangement: "pictures",
    because: "it is a set of pictures",
    holds: (parts) =>
      (parts.kinds.picture ?? 0) > 1 &&
      (parts.kinds.picture ?? 0) <= 6 &&
      count(parts) === parts.kinds.picture &&
      isCaption(parts.text) &&
      parts.quote.length === 0,
  },
  { arrangement: "table", because: "it is a table", holds: only("table") },
  { arrangement: "chart", because: "it is a chart", holds: only("chart") },
  { arrangement: "diagram", because: "it is a diagram", holds: only("diagram") },
  { arrangement: "code", because: "it is a piece of code", holds: only("code") },
  { arrangement: "formula", because: "it is a formula", holds: only("formula") },
  {
    arrangement: "references",
    because: "its title says that sources are listed",
    holds: (parts) =>
      namesReferences(parts.title) && (parts.text.length > 0 || parts.quote.length > 0) && count(parts) === 0,
  },
  {
    arrangement: "opening",
    because: "it comes first with a heading of the first level",
    holds: (parts) =>
      parts.first && parts.depth === 1 && !hasList(parts.text) && count(parts) === 0 && parts.quote.length === 0,
  },
  {
    arrangement: "section",
    because: "its heading opens a section",
    holds: (parts) => parts.depth === 1 && isCaption(parts.text) && count(parts) === 0 && parts.quote.length === 0,
  },
  {
    arrangement: "title",
    because: "it has a title alone",
    holds: (parts) => parts.title !== null && parts.text.length === 0 && count(parts) === 0 && parts.quote.length === 0,
  },
  { arrangement: "points", because: "it has a title and what belongs to it", holds: ({ title }) => title !== null },
  {
    arrangement: "blank",
    because: "it holds nothing",
    holds: (parts) => parts.text.length === 0 && count(parts) === 0 && parts.quote.length === 0,
  },
  {
    arrangement: "statement",
    because: "it is one paragraph without a title",
    holds: (parts) =>
      parts.text.length + parts.quote.length === 1 &&
      count(parts) === 0 &&
      !hasList(parts.text) &&
      (parts.text[0]?.level ?? 0) === 0,
  },
  { arrangement: "points", because: "it has several paragraphs", holds: () => true },
];

/** The arrangement that fits what a slide holds, and why. */
export function recognised(parts: Parts): { arrangement: ArrangementName; because: string } {
  return (
    RECOGNISERS.find((recogniser) => recogniser.holds(parts)) ?? { arrangement: "points", because: "nothing else fits" }
  );
}

export function recognise(parts: Parts): ArrangementName {
  return recognised(parts).arrangement;
}

/** The heading depth that the text form gives a slide's title. */
export function titleDepth(slide: Slide): number {
  return slide.arrangement === "opening" || slide.arrangement === "section" ? 1 : 2;
}

const MAIN: Partial<Record<ArrangementName, string>> = {
  opening: "subtitle",
  section: "subtitle",
  picture: "caption",
  pictures: "caption",
  comparison: "left",
  columns: "left",
  number: "caption",
  table: "caption",
  chart: "caption",
  diagram: "caption",
  code: "caption",
  formula: "caption",
  quotation: "caption",
};

/** The slot into which text without a slot of its own goes on this arrangement. */
export function mainSlot(arrangement: ArrangementName): string {
  return MAIN[arrangement] ?? "body";
}

/** The slot that an element of the main flow takes: quoted words, pictures and figures have places of their own where the arrangement has them. `nth` counts the elements of that kind before it. */
export function flowSlot(arrangement: ArrangementName, kind: ElementKind | "quote", nth: number): string | null {
  if (kind === "quote") return arrangement === "quotation" ? "body" : mainSlot(arrangement);
  if (kind === "text") return mainSlot(arrangement);
  if (kind === "picture")
    return arrangement === "pictures" ? "pictures" : arrangement === "picture" && nth === 0 ? "picture" : null;
  if (arrangement === kind && nth === 0) return kind;
  const main = mainSlot(arrangement);
  return main === "body" || main === "left" ? main : null;
}

/** A slide's elements as the text form has them: the title, the main flow in order, and the other slots. */
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

/** The parts of a finished slide, as its text form would be read again. */
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
