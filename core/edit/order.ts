import { type Deck, Failure, familyOf, orderProblems, type Slide, slideIndex, must } from "@unitext/core/model";
import type { Handler, Place, SingleChange } from "./change";

type Of<K extends SingleChange["kind"]> = Extract<SingleChange, { kind: K }>;

/** Returns the failure for something that a change names and the deck does not have. */
export function notFound(what: string, id: string): Failure {
  return new Failure("conflict", id, `The ${what} ${id} is no longer in the deck.`);
}

/** Returns the place of the slide at an index: its parent and the sibling before it. */
export function placeOf(slides: readonly Slide[], index: number): Place {
  const slide = must(slides[index]);
  for (let before = index - 1; before >= 0; before--) {
    const other = must(slides[before]);
    if (other.id === slide.parent) break;
    if (other.parent === slide.parent) return { parent: slide.parent, after: other.id };
  }
  return { parent: slide.parent, after: null };
}

/** Returns the index that a slide put at a place would have. Throws a Failure when the place is not in the deck. */
export function indexAt(slides: readonly Slide[], place: Place): number {
  if (place.after !== null) {
    const index = slides.findIndex((slide) => slide.id === place.after);
    if (index < 0) throw notFound("slide", place.after);
    if (must(slides[index]).parent !== place.parent)
      throw new Failure("conflict", place.after, `The slide ${place.after} has moved to another place.`);
    return index + familyOf(slides, place.after).length;
  }
  if (place.parent === null) return 0;
  const index = slides.findIndex((slide) => slide.id === place.parent);
  if (index < 0) throw notFound("slide", place.parent);
  return index + 1;
}

function spliced(slides: readonly Slide[], at: number, remove: number, insert: readonly Slide[]): Slide[] {
  return [...slides.slice(0, at), ...insert, ...slides.slice(at + remove)];
}

export const insertSlide: Handler<Of<"insertSlide">> = {
  apply(deck, { slide, place }) {
    if (slideIndex(deck, slide.id) >= 0)
      throw new Failure("conflict", slide.id, `A slide with the id ${slide.id} is already in the deck.`);
    const placed = { ...slide, parent: place.parent };
    const problem = orderProblems([{ ...placed, parent: null }])[0];
    if (problem) throw new Failure("not-valid", slide.id, `The slide cannot be taken: ${problem.message}.`);
    return {
      deck: { ...deck, slides: spliced(deck.slides, indexAt(deck.slides, place), 0, [placed]) },
      inverse: [{ kind: "deleteSlide", slide: slide.id }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide.id}`],
  describe: () => "Added a slide",
};

/** Deletes one slide. Its details move up into its place, so that none disappears unnoticed. */
export const deleteSlide: Handler<Of<"deleteSlide">> = {
  apply(deck, { slide: id }) {
    const index = slideIndex(deck, id);
    if (index < 0) throw notFound("slide", id);
    const slide = must(deck.slides[index]);
    const lifted: string[] = [];
    const slides = deck.slides.flatMap((other) => {
      if (other === slide) return [];
      if (other.parent !== id) return [other];
      lifted.push(other.id);
      return [{ ...other, parent: slide.parent }];
    });
    const back: SingleChange[] = [{ kind: "insertSlide", slide, place: placeOf(deck.slides, index) }];
    lifted.forEach((child, nth) => {
      back.push({ kind: "moveSlide", slide: child, place: { parent: id, after: lifted[nth - 1] ?? null } });
    });
    return { deck: { ...deck, slides }, inverse: back };
  },
  writeSet: ({ slide }) => [`slide:${slide}`],
  describe: () => "Deleted a slide",
};

/** Moves a slide with its details. A slide cannot be moved under itself. */
export const moveSlide: Handler<Of<"moveSlide">> = {
  apply(deck, { slide: id, place }) {
    const index = slideIndex(deck, id);
    if (index < 0) throw notFound("slide", id);
    const family = familyOf(deck.slides, id);
    if (family.some((member) => member.id === place.parent || member.id === place.after)) {
      throw new Failure("not-valid", id, "A slide cannot be put under itself or after itself.");
    }
    const back = placeOf(deck.slides, index);
    const rest = spliced(deck.slides, index, family.length, []);
    const [main, ...details] = family as [Slide, ...Slide[]];
    const moved = main.parent === place.parent ? main : { ...main, parent: place.parent };
    return {
      deck: { ...deck, slides: spliced(rest, indexAt(rest, place), 0, [moved, ...details]) },
      inverse: [{ kind: "moveSlide", slide: id, place: back }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}/place`],
  describe: () => "Moved a slide",
};

export type { Of };

/** Replaces one slide by the result of `change`. Throws a Failure `conflict` when it is not in the deck. */
export function onSlide(deck: Deck, id: string, change: (slide: Slide) => Slide): Deck {
  const index = slideIndex(deck, id);
  if (index < 0) throw notFound("slide", id);
  const slides = deck.slides.slice();
  slides[index] = change(must(slides[index]));
  return { ...deck, slides };
}

/**
 * Returns a longest subsequence of ids whose keys rise strictly: the ids that can stay in place while the others are
 * moved (patience sorting, Fredman 1975, from memory). Ids without a key are left out.
 */
export function longestRise<Key extends string | number>(
  order: readonly string[],
  keys: ReadonlyMap<string, Key>,
): Set<string> {
  const known = order.filter((id) => keys.has(id));
  const keyAt = (at: number) => must(keys.get(must(known[at])));
  /**
   * For each length, the end of the subsequence of that length with the lowest last key; and the predecessor of each
   * id.
   */
  const ends: number[] = [];
  const before: number[] = [];
  for (let at = 0; at < known.length; at++) {
    let low = 0;
    let high = ends.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (keyAt(must(ends[middle])) < keyAt(at)) low = middle + 1;
      else high = middle;
    }
    before[at] = low > 0 ? must(ends[low - 1]) : -1;
    ends[low] = at;
  }
  const rise = new Set<string>();
  for (let at = ends.at(-1) ?? -1; at >= 0; at = must(before[at])) rise.add(must(known[at]));
  return rise;
}
