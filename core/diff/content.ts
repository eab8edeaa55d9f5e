import {
  type Element,
  elementWords,
  isEmptyText,
  mapElementTexts,
  type RichText,
  type Slide,
  slotsOf,
  textHash,
  textOf,
  withFormerNames,
} from "@unitext/core/model";
import { mainSlot, normalText } from "@unitext/core/text";

/** A stretch of a slot's content that the text form cannot tell apart: one element, or texts that follow each other. */
export interface Unit {
  slot: string;
  kind: Element["kind"];
  elements: Element[];
  /** Its content alone, as a string. */
  key: string;
}

/** The slot as the text form knows it: one that the arrangement does not have counts as the main one. */
function knownSlot(slide: Slide, slot: string | null): string {
  const main = mainSlot(slide.arrangement);
  if (slot === "title") return slot;
  return slot !== null && slotsOf(slide.arrangement).some(([name]) => name === slot) ? slot : main;
}

/** What an element shows and how, without what a text cannot say of it: id, place, binding and entrance. */
export function bareContent(element: Element): Omit<Element, "id" | "slot" | "frame" | "binding" | "entrance"> {
  const {
    id: _,
    slot: __,
    frame: ___,
    binding: ____,
    entrance: _____,
    ...content
  } = mapElementTexts(element, normalText);
  return content;
}

export function joinedText(elements: readonly Element[]): RichText {
  const texts = elements.flatMap((element) => (element.kind === "text" ? [element.text] : []));
  return texts.length === 1 && texts[0] ? texts[0] : texts.flat();
}

/** What was found of a slide's elements: slides never change, and those made of others share their elements. */
interface Found {
  arrangement: Slide["arrangement"];
  units: Unit[];
  keyed?: { slide: Slide; key: string };
}
const foundOnce = new WeakMap<readonly Element[], Found>();

function foundOf(slide: Slide): Found {
  const known = foundOnce.get(slide.elements);
  if (known?.arrangement === slide.arrangement) return known;
  const found: Found = { arrangement: slide.arrangement, units: unitsIn(slide) };
  foundOnce.set(slide.elements, found);
  return found;
}

/** The content of a slide as units in reading order; empty texts are none. */
export function unitsOf(slide: Slide): Unit[] {
  return foundOf(slide).units;
}

function unitsIn(slide: Slide): Unit[] {
  const units: Unit[] = [];
  const last = new Map<string, Unit>();
  for (const element of slide.elements) {
    const slot = knownSlot(slide, element.slot);
    const before = last.get(slot);
    if (element.kind === "text" && isEmptyText(element.text)) {
      if (before?.kind === "text") before.elements.push(element);
      continue;
    }
    if (
      element.kind === "text" &&
      before?.kind === "text" &&
      (before.elements[0] as { steps?: boolean }).steps === element.steps
    )
      before.elements.push(element);
    else {
      const unit: Unit = { slot, kind: element.kind, elements: [element], key: "" };
      units.push(unit);
      last.set(slot, unit);
    }
  }
  for (const unit of units) {
    const [first] = unit.elements as [Element, ...Element[]];
    unit.key = JSON.stringify(
      unit.kind === "text"
        ? [(first as { steps?: boolean }).steps ?? false, normalText(joinedText(unit.elements))]
        : bareContent(first),
    );
  }
  return units;
}

/** All that the text form can say of a slide, as one string; it is kept as long as its elements live. */
export function contentKey(slide: Slide): string {
  const found = foundOf(slide);
  const { background, transition, delay, widths, section, notes } = slide;
  const known = found.keyed?.slide;
  if (
    found.keyed &&
    known &&
    known.notes === notes &&
    known.background === background &&
    known.transition === transition &&
    known.delay === delay &&
    known.widths === widths &&
    known.section === section
  )
    return found.keyed.key;
  const key = JSON.stringify([
    slide.arrangement,
    background,
    transition,
    delay,
    widths,
    found.units.map(({ slot, key: own }) => [slot, own]),
    normalText(notes),
    ...(section === undefined ? [] : [section]),
  ]);
  found.keyed = { slide, key };
  return key;
}

/** The sum of a slide's content: slides with other sums differ in what the text form can say of them. */
export function contentHash(slide: Slide): string {
  return textHash(contentKey(withFormerNames(slide)));
}

/** The words by which a slide is known again. */
export function wordsOf(slide: Slide): Set<string> {
  const text = [...slide.elements.map(elementWords), textOf(slide.notes)].join(" ").toLowerCase();
  return new Set(text.match(/[\p{L}\p{N}]{3,}/gu) ?? []);
}
