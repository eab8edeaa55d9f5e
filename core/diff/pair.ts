import { type Deck, type Slide, titleOf } from "@unitext/core/model";
import { contentKey, wordsOf } from "./content";
import { pairByLikeness } from "./likeness";

function push<K, V>(lists: Map<K, V[]>, key: K, value: V): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}

/** A slide to pair. `named` means that its id was given by hand, so that it may be paired by this id only. */
export interface PairCandidate {
  slide: Slide;
  named: boolean;
}

/**
 * Pairs the slides made from a text with those of the deck: by id, then, where the text gives no id, by equal content
 * (as `content` returns it), by title and by likeness. With `byPlace`, for a text that is being typed, the rest is
 * paired by place.
 */
export function pairByContent(
  before: readonly Slide[],
  list: readonly PairCandidate[],
  byPlace = true,
  content: (slide: Slide) => string = contentKey,
): Map<string, string> {
  const made = list.map(({ slide }) => slide);
  const named = new Set(list.filter((item) => item.named).map(({ slide }) => slide.id));
  const pairs = new Map<string, string>();
  const free = new Map(before.map((slide) => [slide.id, slide]));
  const pair = (slide: Slide, old: Slide) => {
    pairs.set(slide.id, old.id);
    free.delete(old.id);
  };
  for (const slide of made) {
    const same = free.get(slide.id);
    if (same) pair(slide, same);
  }
  const by = (key: (slide: Slide) => string) => {
    const waiting = new Map<string, Slide[]>();
    for (const old of free.values()) if (key(old)) push(waiting, key(old), old);
    for (const slide of made) {
      const old = pairs.has(slide.id) || named.has(slide.id) ? undefined : waiting.get(key(slide))?.shift();
      if (old) pair(slide, old);
    }
  };
  by(content);
  by(titleOf);
  const worded = (slides: Iterable<Slide>) =>
    [...slides].map((slide) => ({ id: slide.id, words: wordsOf(slide) })).filter(({ words }) => words.size > 3);
  const left = made.filter((slide) => !pairs.has(slide.id) && !named.has(slide.id));
  if (left.length && free.size) {
    for (const [id, old] of pairByLikeness(worded(free.values()), worded(left))) {
      pairs.set(id, old);
      free.delete(old);
    }
  }
  if (!byPlace) return pairs;
  const position = new Map(before.map((slide, index) => [slide.id, index]));
  let after = -1;
  made.forEach((slide) => {
    const known = pairs.get(slide.id);
    if (known) after = position.get(known) ?? after;
    else if (!named.has(slide.id)) {
      const next = before[after + 1];
      if (next && free.has(next.id)) {
        pair(slide, next);
        after += 1;
      }
    }
  });
  return pairs;
}

/**
 * Pairs the slides of two decks: by id, by origin (one copied from the other, or both from a third), then by content,
 * title and likeness. Returns ids of `there` by ids of `here`.
 */
export function pairSlides(here: Deck, there: Deck): Map<string, string> {
  const pairs = new Map<string, string>();
  const free = new Map(there.slides.map((slide) => [slide.id, slide]));
  const pass = (find: (slide: Slide) => string | undefined) => {
    for (const slide of here.slides) {
      if (pairs.has(slide.id)) continue;
      const id = find(slide);
      if (id === undefined || !free.has(id)) continue;
      pairs.set(slide.id, id);
      free.delete(id);
    }
  };
  pass(({ id }) => id);
  pass(({ origin }) => (origin?.deck === there.id ? origin.slide : undefined));
  const madeOf = new Map<string, string>();
  for (const { id, origin } of there.slides) if (origin) madeOf.set(`${origin.deck}/${origin.slide}`, id);
  pass(({ id }) => madeOf.get(`${here.id}/${id}`));
  pass(({ origin }) => (origin ? madeOf.get(`${origin.deck}/${origin.slide}`) : undefined));
  const left = here.slides.filter(({ id }) => !pairs.has(id));
  if (left.length && free.size)
    for (const [one, other] of pairByContent(
      [...free.values()],
      left.map((slide) => ({ slide, named: false })),
      false,
    ))
      pairs.set(one, other);
  return pairs;
}
