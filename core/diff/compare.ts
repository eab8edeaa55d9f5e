import { longestRise } from "@unitext/core/edit";
import { bareContent, unitsOf } from "./content";
import { pairSlides } from "./pair";
import { bindingsOn, type Deck, slidePropertiesOf, type Slide } from "@unitext/core/model";
import { normalText } from "@unitext/core/text";

/** What can differ between two states of a slide. */
export const DIFFERENCES = ["words", "notes", "appearance", "data"] as const;
export type Difference = (typeof DIFFERENCES)[number];
export type CompareState = "same" | "changed" | "moved" | "here" | "there";

/** A slide of one deck beside its counterpart in the other; null where there is none. */
export interface CompareRow {
  state: CompareState;
  differs: Difference[];
  /** Whether it is at another place, or under another main slide. */
  moved: boolean;
  here: Slide | null;
  there: Slide | null;
}
export interface Comparison {
  rows: CompareRow[];
  counts: Record<CompareState, number>;
}

interface ComparableText {
  words: string;
  notes: string;
  appearance: string;
  data: string;
}
const facesOnce = new WeakMap<Slide, ComparableText>();

/** Returns what a slide says, shows and looks like as strings to compare; ids are left out. */
function comparableText(slide: Slide): ComparableText {
  const known = facesOnce.get(slide);
  if (known) return known;
  const units = unitsOf(slide);
  const isWords = (kind: string) => kind === "text" || kind === "diagram";
  const faces = {
    words: JSON.stringify(units.filter(({ kind }) => isWords(kind)).map(({ slot, key }) => [slot, key])),
    notes: JSON.stringify([normalText(slide.notes), slide.voice?.source]),
    appearance: JSON.stringify([
      slide.arrangement,
      slidePropertiesOf(slide),
      slide.theme,
      slide.hidden,
      slide.elements.flatMap(({ frame, slot }) => (frame ? [[slot, frame]] : [])),
    ]),
    data: JSON.stringify([
      units
        .filter(({ kind }) => !isWords(kind))
        .map(({ slot, elements: [first] }) => [slot, first && bareContent(first)]),
      bindingsOn(slide).map(({ binding: { source, range, mode } }) => [source, range, mode]),
    ]),
  };
  facesOnce.set(slide, faces);
  return faces;
}

/** Lists what differs between two states of a slide, apart from its place. */
export function differences(here: Slide, there: Slide): Difference[] {
  if (here === there) return [];
  const [a, b] = [comparableText(here), comparableText(there)];
  return DIFFERENCES.filter((face) => a[face] !== b[face]);
}

/**
 * Compares two decks, or two states of one, slide by slide in the order of `here`. Slides that only `there` has are
 * listed where they come in `there`.
 */
export function compareDecks(here: Deck, there: Deck): Comparison {
  const pairs = pairSlides(here, there);
  const others = new Map(there.slides.map((slide, nth) => [slide.id, { slide, nth }]));
  const order = new Map([...pairs].map(([one, other]) => [one, others.get(other)?.nth ?? 0]));
  const still = longestRise(
    here.slides.map(({ id }) => id),
    order,
  );
  const rows: CompareRow[] = here.slides.map((slide) => {
    const id = pairs.get(slide.id);
    const other = id === undefined ? null : (others.get(id)?.slide ?? null);
    if (!other) return { state: "here", differs: [], moved: false, here: slide, there: null };
    const parent = slide.parent === null ? null : (pairs.get(slide.parent) ?? "");
    const moved = !still.has(slide.id) || parent !== other.parent;
    const differs = differences(slide, other);
    return { state: differs.length ? "changed" : moved ? "moved" : "same", differs, moved, here: slide, there: other };
  });
  const taken = new Set(pairs.values());
  let at = 0;
  for (const slide of there.slides) {
    if (taken.has(slide.id)) at = rows.findIndex((row) => row.there?.id === slide.id) + 1;
    else rows.splice(at++, 0, { state: "there", differs: [], moved: false, here: null, there: slide });
  }
  const counts: Comparison["counts"] = { same: 0, changed: 0, moved: 0, here: 0, there: 0 };
  for (const { state } of rows) counts[state] += 1;
  return { rows, counts };
}
