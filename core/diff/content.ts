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

/** Content of a slot that the text form treats as one: a single element, or several texts in a row. */
export interface Unit {
  slot: string;
  kind: Element["kind"];
  elements: Element[];
  /** The content as a string, to compare. */
  key: string;
}

/**
 * Returns the slot under which the text form writes an element: its own, or the main one where the arrangement does not
 * have it.
 */
function knownSlot(slide: Slide, slot: string | null): string {
  const main = mainSlot(slide.arrangement);
  if (slot === "title") return slot;
  return slot !== null && slotsOf(slide.arrangement).some(([name]) => name === slot) ? slot : main;
}

/** Returns what an element shows and how, without what the text form cannot say: id, place, binding and entrance. */
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

/** Returns the paragraphs of all texts among the elements, in their order. */
export function joinedText(elements: readonly Element[]): RichText {
  const texts = elements.flatMap((element) => (element.kind === "text" ? [element.text] : []));
  return texts.length === 1 && texts[0] ? texts[0] : texts.flat();
}

/** Results for the elements of a slide. Slides are never changed in place, and copies share their elements. */
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

/** Returns the content of a slide as units in reading order, without empty texts. */
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

/**
 * Returns everything that the text form can say of a slide as one string. Cached as long as the slide's elements live.
 */
export function contentKey(slide: Slide): string {
  const found = foundOf(slide);
  const { background, transition, delay, widths, section, textSize, spacing, notes } = slide;
  const known = found.keyed?.slide;
  if (
    found.keyed &&
    known &&
    known.notes === notes &&
    known.background === background &&
    known.transition === transition &&
    known.delay === delay &&
    known.widths === widths &&
    known.section === section &&
    known.textSize === textSize &&
    known.spacing === spacing
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
    ...(textSize === undefined ? [] : [{ textSize }]),
    ...(spacing === undefined ? [] : [{ spacing }]),
  ]);
  found.keyed = { slide, key };
  return key;
}

/** Returns a hash of a slide's content. Slides with different hashes differ in what the text form can say. */
export function contentHash(slide: Slide): string {
  return textHash(contentKey(withFormerNames(slide)));
}

/** Returns the words of a slide, lower case and three letters or longer, to find similar slides by. */
export function wordsOf(slide: Slide): Set<string> {
  const text = [...slide.elements.map(elementWords), textOf(slide.notes)].join(" ").toLowerCase();
  return new Set(text.match(/[\p{L}\p{N}]{3,}/gu) ?? []);
}
