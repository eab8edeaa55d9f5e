import { type ArrangementName, type Element, isEmptyText, type RichText, roleOf, type Slide } from "@unitext/core/model";

/** What a slide is recognised by: its parts before they have an arrangement. */
export interface Parts {
  first: boolean;
  depth: number | null;
  title: RichText | null;
  text: RichText;
  pictures: number;
  slots: readonly string[];
}

interface Recogniser {
  arrangement: ArrangementName;
  holds(parts: Parts): boolean;
}

const hasList = (text: RichText) => text.some((paragraph) => paragraph.kind !== "plain");

/** Tried in order; the first that holds decides. */
const RECOGNISERS: readonly Recogniser[] = [
  { arrangement: "columns", holds: ({ slots }) => slots.includes("middle") },
  { arrangement: "comparison", holds: ({ slots }) => slots.includes("left") || slots.includes("right") },
  { arrangement: "number", holds: ({ slots }) => slots.includes("number") },
  { arrangement: "picture", holds: ({ pictures, text }) => pictures > 0 && !hasList(text) && text.length <= 1 },
  { arrangement: "opening", holds: ({ first, depth, text, pictures }) => first && depth === 1 && !hasList(text) && pictures === 0 },
  { arrangement: "section", holds: ({ depth, text, pictures }) => depth === 1 && !hasList(text) && text.length <= 1 && pictures === 0 },
  { arrangement: "title", holds: ({ title, text, pictures }) => title !== null && text.length === 0 && pictures === 0 },
  { arrangement: "points", holds: ({ title }) => title !== null },
  { arrangement: "blank", holds: ({ text, pictures }) => text.length === 0 && pictures === 0 },
  { arrangement: "statement", holds: ({ text, pictures }) => text.length === 1 && pictures === 0 && !hasList(text) && text[0]?.level === 0 },
  { arrangement: "points", holds: () => true },
];

/** The arrangement that fits what a slide holds. */
export function recognise(parts: Parts): ArrangementName {
  return RECOGNISERS.find((recogniser) => recogniser.holds(parts))?.arrangement ?? "points";
}

/** The heading depth that the text form gives a slide's title. */
export function titleDepth(slide: Slide): number {
  return slide.arrangement === "opening" || slide.arrangement === "section" ? 1 : 2;
}

/** The slot into which text without a slot of its own goes on this arrangement. */
export function mainSlot(arrangement: ArrangementName): string {
  const special: Partial<Record<ArrangementName, string>> = { opening: "subtitle", section: "subtitle", picture: "caption", comparison: "left", columns: "left", number: "caption" };
  return special[arrangement] ?? "body";
}

/** The parts of a finished slide, as its text form would be read again. */
export function partsOf(slide: Slide, first: boolean): Parts {
  const titled = slide.elements.find((element) => element.kind === "text" && element.slot === "title" && !isEmptyText(element.text));
  const main = mainSlot(slide.arrangement);
  const loose = (element: Element) => element !== titled && (element.slot === main || element.slot === null || roleOf(slide, element) === undefined);
  const text = slide.elements.flatMap((element) => (element.kind === "text" && loose(element) ? element.text : []));
  return {
    first,
    depth: titled ? titleDepth(slide) : null,
    title: titled?.kind === "text" ? titled.text : null,
    text,
    pictures: slide.elements.filter((element) => element.kind === "picture").length,
    slots: slide.elements.flatMap((element) => (element !== titled && element.kind === "text" && !loose(element) && element.slot ? [element.slot] : [])),
  };
}
