import {
  type Element,
  isEmptyText,
  type Paragraph,
  type RichText,
  type Slide,
  slidePropertiesOf,
  type SlideProperties,
  slotsOf,
  textOf,
  must,
} from "@unitext/core/model";
import { normalText } from "@unitext/core/text";
import { diff3Merge } from "node-diff3";
import { bareContent, joinedText, unitsOf } from "./content";

/** Something that both the text and the user changed in different ways: its value in each, and before. */
export interface Conflict {
  aspect: string;
  label: string;
  before: string;
  hand: string;
  text: string;
}

/**
 * The user's decision on a slide: whether to take what the text brings (by default yes), and whose words to keep in
 * each conflict.
 */
export interface Choice {
  take?: boolean;
  conflicts?: Record<string, "hand" | "text">;
}

interface Aspects {
  arrangement: string;
  appearance: string;
  hidden: boolean;
  slots: Map<string, Atom[]>;
  notes: Atom[];
}

/** A paragraph or an element, with a string to compare it by. */
interface Atom {
  key: string;
  paragraph?: Paragraph;
  steps?: boolean;
  element?: Element;
}

/** Whether an element has a place of its own instead of a slot of the arrangement. */
export const isPositioned = (element: Element): boolean => element.frame !== undefined && element.slot === null;
const textAtoms = (text: RichText, steps?: boolean): Atom[] =>
  normalText(text).map((paragraph) => ({
    key: JSON.stringify([steps ?? false, paragraph]),
    paragraph,
    ...(steps ? { steps } : {}),
  }));

function aspectsOf(slide: Slide): Aspects {
  const slots = new Map<string, Atom[]>();
  for (const unit of unitsOf({ ...slide, elements: slide.elements.filter((element) => !isPositioned(element)) })) {
    const [first] = unit.elements as [Element, ...Element[]];
    const atoms: Atom[] =
      first.kind === "text"
        ? textAtoms(joinedText(unit.elements), first.steps)
        : [{ key: JSON.stringify(bareContent(first)), element: first }];
    slots.set(unit.slot, [...(slots.get(unit.slot) ?? []), ...atoms]);
  }
  return {
    arrangement: slide.arrangement,
    appearance: JSON.stringify(slidePropertiesOf(slide)),
    hidden: slide.hidden,
    slots,
    notes: textAtoms(slide.notes),
  };
}

const keyOf = (atoms: readonly Atom[]) => atoms.map(({ key }) => key).join("\n");

function wordsOfAtoms(atoms: readonly Atom[]): string {
  return atoms
    .map(({ paragraph, element }) => (paragraph ? textOf([paragraph]) : element ? `[${element.kind}]` : ""))
    .join("\n");
}

/** Merges atoms three-way: takes what only one side changed. Returns undefined where both changed the same place. */
function merge3(base: readonly Atom[], hand: readonly Atom[], text: readonly Atom[]): Atom[] | undefined {
  const [b, h, t] = [keyOf(base), keyOf(hand), keyOf(text)];
  if (h === t || t === b) return [...hand];
  if (h === b) return [...text];
  const byKey = new Map([...base, ...text, ...hand].map((atom) => [atom.key, atom]));
  const regions = diff3Merge(
    hand.map(({ key }) => key),
    base.map(({ key }) => key),
    text.map(({ key }) => key),
    { excludeFalseConflicts: true },
  );
  if (regions.some(({ conflict }) => conflict)) return undefined;
  return regions.flatMap(({ ok }) => (ok ?? []).map((key: string) => must(byKey.get(key))));
}

/** Makes elements of atoms for a slot. Paragraphs in a row with the same stepping become one text. */
function elementsOf(atoms: readonly Atom[], slot: string, newId: () => string): Element[] {
  const elements: Element[] = [];
  for (const { paragraph, steps, element } of atoms) {
    const last = elements.at(-1);
    if (element) elements.push({ ...element, slot });
    else if (paragraph && last?.kind === "text" && (last.steps ?? false) === (steps ?? false))
      last.text = [...last.text, paragraph];
    else if (paragraph)
      elements.push({ kind: "text", id: newId(), slot, text: [paragraph], ...(steps ? { steps } : {}) });
  }
  return elements;
}

const LABELS: Record<string, string> = {
  title: "Title",
  notes: "Notes",
  arrangement: "Arrangement",
  look: "Look",
  hidden: "Hidden",
  body: "Text",
  caption: "Line below",
  subtitle: "Line below the title",
};

export interface MergedSlide {
  slide: Slide;
  conflicts: Conflict[];
}

/** A three-way merge of one slide's aspects, with the conflicts met. */
class AspectMerge {
  readonly conflicts: Conflict[] = [];

  constructor(private readonly settle: (aspect: string) => "hand" | "text") {}

  /** Merges a single value; `shown` says it to the person. */
  value<V>(aspect: string, before: V, hand: V, text: V, shown: (value: V) => string): V {
    if (hand === text || text === before) return hand;
    if (hand === before) return text;
    return this.decide(aspect, { before: shown(before), hand: shown(hand), text: shown(text) }) === "hand"
      ? hand
      : text;
  }

  /** Merges paragraphs and figures. */
  atoms(aspect: string, before: readonly Atom[], hand: readonly Atom[], text: readonly Atom[]): Atom[] {
    const merged = merge3(before, hand, text);
    if (merged) return merged;
    const words = { before: wordsOfAtoms(before), hand: wordsOfAtoms(hand), text: wordsOfAtoms(text) };
    return this.decide(aspect, words) === "hand" ? [...hand] : [...text];
  }

  private decide(aspect: string, words: Pick<Conflict, "before" | "hand" | "text">): "hand" | "text" {
    this.conflicts.push({ aspect, label: LABELS[aspect] ?? aspect, ...words });
    return this.settle(aspect);
  }
}

/**
 * Merges a slide three-way: keeps what the user changed and takes what the text changed. `settle` decides where both
 * changed the same thing.
 */
export function mergeSlide(
  base: Slide,
  mine: Slide,
  theirs: Slide,
  newId: () => string,
  settle: (aspect: string) => "hand" | "text",
): MergedSlide {
  const [b, h, t] = [aspectsOf(base), aspectsOf(mine), aspectsOf(theirs)];
  const merge = new AspectMerge(settle);
  const arrangement = merge.value("arrangement", base.arrangement, mine.arrangement, theirs.arrangement, String);
  const appearance = merge.value("look", b.appearance, h.appearance, t.appearance, () => "");
  const hidden = merge.value("hidden", b.hidden, h.hidden, t.hidden, (value) => (value ? "hidden" : "shown"));
  const slots = slotsOf(arrangement).map(([name]) => name);
  const names = new Set([...slots, ...t.slots.keys(), ...h.slots.keys(), ...b.slots.keys()]);
  const elements = [...names].flatMap((name) => {
    const atoms = merge.atoms(name, b.slots.get(name) ?? [], h.slots.get(name) ?? [], t.slots.get(name) ?? []);
    return elementsOf(atoms, name, newId);
  });
  const notes = merge.atoms("notes", b.notes, h.notes, t.notes);
  const slide: Slide = {
    id: mine.id,
    parent: mine.parent,
    arrangement,
    elements: [...elements, ...mine.elements.filter(isPositioned)],
    notes: notes.flatMap(({ paragraph }) => (paragraph ? [paragraph] : [])),
    hidden,
    ...(theirs.source ? { source: theirs.source } : {}),
    ...(mine.origin ? { origin: mine.origin } : {}),
    ...(mine.theme ? { theme: mine.theme } : {}),
    ...(JSON.parse(appearance) as SlideProperties),
  };
  return { slide, conflicts: merge.conflicts };
}

/** Returns all words of a slide, slot by slot, then its notes. */
export function allWords(slide: Slide): string {
  const { slots, notes } = aspectsOf(slide);
  return [...[...slots.values()].map(wordsOfAtoms), ...(isEmptyText(slide.notes) ? [] : [wordsOfAtoms(notes)])].join(
    "\n",
  );
}
