import {
  type Choice,
  type Conflict,
  contentHash,
  isPositioned,
  pairByContent,
  type MergedSlide,
  mergeSlide,
  allWords,
} from "@unitext/core/diff";
import { type Change, longestRise } from "@unitext/core/edit";
import { type Deck, type DeckMetadata, metadataOf, type Slide, must } from "@unitext/core/model";
import type { GeneratedSlide } from "./generate";
import { reconcile } from "./reconcile";

/**
 * What running the rule again does to one slide: `new` or `gone` in the text, `changed` or `moved` by it, `conflict`
 * where text and user differ, `same` when there is nothing to take, `added` when the user inserted it.
 */
export interface ReviewItem {
  key: string;
  state: "same" | "added" | "new" | "changed" | "moved" | "gone" | "conflict";
  /** Whether it also has another place in the text. */
  moved: boolean;
  /** Whether the user changed it since it was generated. */
  hand: boolean;
  /** The slide in the deck; null where it is not there. */
  mine: Slide | null;
  /** The slide as the text now makes it; null where the text no longer has it. */
  theirs: Slide | null;
  /** The slide as the text made it before. */
  base: Slide | null;
  /** The merged slide, with conflicts settled for the user. */
  merged: Slide | null;
  conflicts: Conflict[];
}

export interface Review {
  items: ReviewItem[];
  counts: Record<ReviewItem["state"], number>;
}

const sameSource = (slide: Slide) => (slide.source ? `${slide.source.hash}/${slide.source.from}` : "");

/** Pairs the slides of the deck with those that the text made before, by their recorded source. */
function pairWithBase(deck: Deck, base: readonly GeneratedSlide[]): Map<string, Slide> {
  const pairs = new Map<string, Slide>();
  const taken = new Set<string>();
  const pass = (key: (slide: Slide) => string) => {
    const waiting = new Map<string, Slide[]>();
    for (const slide of deck.slides)
      if (slide.source && !taken.has(slide.id)) waiting.set(key(slide), [...(waiting.get(key(slide)) ?? []), slide]);
    for (const { slide } of base) {
      if (pairs.has(slide.id)) continue;
      const list = waiting.get(key(slide));
      if (!list?.length || !key(slide)) continue;
      // Of several copies, the one that is as it was generated is the original.
      const at =
        list.length === 1
          ? 0
          : Math.max(
              0,
              list.findIndex((other) => contentHash(other) === generatedHash(slide)),
            );
      const [mine] = list.splice(at, 1);
      if (!mine) continue;
      pairs.set(slide.id, mine);
      taken.add(mine.id);
    }
  };
  pass(sameSource);
  pass((slide) => slide.source?.hash ?? "");
  pass((slide) => (slide.source ? String(slide.source.from) : ""));
  // Typed slides record no source; they are recognised by their content.
  const typed = deck.slides.filter((slide) => !slide.source && !taken.has(slide.id));
  const left = base.filter(({ slide }) => !pairs.has(slide.id) && !slide.source);
  if (typed.length && left.length) {
    const byId = new Map(typed.map((slide) => [slide.id, slide]));
    for (const [then, mine] of pairByContent(typed, left)) pairs.set(then, must(byId.get(mine)));
  }
  return pairs;
}

/** Returns the slides that the user moved: those outside a longest run that is still in its generated order. */
function movedByHand(order: readonly string[], wanted: ReadonlyMap<string, number>): Set<string> {
  const still = longestRise(order, wanted);
  return new Set(order.filter((id) => wanted.has(id) && !still.has(id)));
}

/** Returns the hash of a slide as the text made it: the recorded one, or a new one. */
const generatedHash = (slide: Slide) => slide.source?.hash ?? contentHash(slide);
const same = (a: Slide, b: Slide) => generatedHash(a) === generatedHash(b) && a.hidden === b.hidden;
const untouched = (mine: Slide, base: Slide) =>
  contentHash(mine) === generatedHash(base) && mine.hidden === base.hidden;

export interface RerunOptions {
  /** Whether the text is being typed: a slide with other words at the same place is the same slide. */
  typing?: boolean;
}

interface Pairing {
  /** Slides of the deck by the id of the slide generated before. */
  mine: Map<string, Slide>;
  /** Slides generated before by the id of the slide generated now. */
  base: Map<string, Slide>;
}

/** The latest pairs for what is generated now. A review is shown, decided on and taken with the same ones. */
const pairedOnce = new WeakMap<
  readonly GeneratedSlide[],
  { deck: Deck; base: readonly GeneratedSlide[]; typing: boolean; pairing: Pairing }
>();

function pairWithMade(
  deck: Deck,
  base: readonly GeneratedSlide[],
  next: readonly GeneratedSlide[],
  { typing = false }: RerunOptions,
): Pairing {
  const known = pairedOnce.get(next);
  if (known && known.deck === deck && known.base === base && known.typing === typing) return known.pairing;
  const before = new Map(base.map(({ slide }) => [slide.id, slide]));
  const pairs = pairByContent(
    base.map(({ slide }) => slide),
    next,
    typing,
    generatedHash,
  );
  const pairing = {
    mine: pairWithBase(deck, base),
    base: new Map([...pairs].map(([now, then]) => [now, must(before.get(then))])),
  };
  pairedOnce.set(next, { deck, base, typing, pairing });
  return pairing;
}

/** Makes ids for merged elements that none of these slides uses. */
function idsByPlace(slides: readonly Slide[]): () => string {
  let used: Set<string> | undefined;
  let serial = 0;
  return () => {
    used ??= new Set(slides.flatMap(({ elements }) => elements.map(({ id }) => id)));
    let id: string;
    do id = `m${(serial++).toString(36)}`;
    while (used.has(id));
    return id;
  };
}

/**
 * Compares what the text made before, what it makes now, and the deck: what is new, changed, moved or gone, and where
 * text and user disagree. `base` and `next` are made by the same rule, or by an old and a new one. Changes nothing.
 */
export function review(
  deck: Deck,
  base: readonly GeneratedSlide[],
  next: readonly GeneratedSlide[],
  choices: ReadonlyMap<string, Choice> = new Map(),
  options: RerunOptions = {},
): Review {
  const pairs = pairWithMade(deck, base, next, options);
  const freshId = idsByPlace([...deck.slides, ...base.map(({ slide }) => slide), ...next.map(({ slide }) => slide)]);
  const byMine = new Map<string, ReviewItem>();
  const items: ReviewItem[] = [];
  const nextOrder = new Map<string, number>();
  next.forEach(({ slide }, at) => {
    const then = pairs.base.get(slide.id);
    if (then) nextOrder.set(then.id, at);
  });
  const movedInText = movedByHand(
    base.map(({ slide }) => slide.id),
    nextOrder,
  );
  for (const { slide: theirs } of next) {
    const then = pairs.base.get(theirs.id) ?? null;
    const mine = then ? (pairs.mine.get(then.id) ?? null) : null;
    const moved = then !== null && movedInText.has(then.id);
    const key = mine?.id ?? theirs.id;
    const common = { key, moved, mine, theirs, base: then };
    let item: ReviewItem;
    if (!then) item = { ...common, state: "new", hand: false, merged: theirs, conflicts: [] };
    else if (!mine) {
      const changed = !same(then, theirs);
      item = {
        ...common,
        state: changed ? "conflict" : "same",
        hand: true,
        merged: null,
        conflicts: changed
          ? [{ aspect: "slide", label: "Slide", before: allWords(then), hand: "", text: allWords(theirs) }]
          : [],
      };
    } else {
      const hand = !untouched(mine, then);
      const changed = !same(then, theirs);
      const settle = (aspect: string) => choices.get(key)?.conflicts?.[aspect] ?? "hand";
      const merged: MergedSlide = !changed
        ? { slide: mine, conflicts: [] }
        : !hand
          ? { slide: theirs, conflicts: [] }
          : mergeSlide(then, mine, theirs, freshId, settle);
      item = {
        ...common,
        state: merged.conflicts.length ? "conflict" : changed ? "changed" : moved ? "moved" : "same",
        hand,
        merged: merged.slide,
        conflicts: merged.conflicts,
      };
    }
    items.push(item);
    if (mine) byMine.set(mine.id, item);
  }
  // What the text no longer has, and what the user inserted, is listed where it is in the deck.
  const gone = new Map(
    base.flatMap(({ slide }) =>
      pairs.mine.has(slide.id) ? [[must(pairs.mine.get(slide.id)).id, slide] as const] : [],
    ),
  );
  let at = 0;
  for (const mine of deck.slides) {
    const known = byMine.get(mine.id);
    if (known) {
      at = items.indexOf(known) + 1;
      continue;
    }
    const then = gone.get(mine.id) ?? null;
    const hand = then !== null && !untouched(mine, then);
    const item: ReviewItem = {
      key: mine.id,
      state: then === null ? "added" : hand ? "conflict" : "gone",
      moved: false,
      hand: then === null || hand,
      mine,
      theirs: null,
      base: then,
      merged: then === null || hand ? mine : null,
      conflicts:
        then !== null && hand
          ? [{ aspect: "slide", label: "Slide", before: allWords(then), hand: allWords(mine), text: "" }]
          : [],
    };
    items.splice(at++, 0, item);
  }
  const counts: Review["counts"] = { same: 0, added: 0, new: 0, changed: 0, moved: 0, gone: 0, conflict: 0 };
  for (const { state } of items) counts[state] += 1;
  return { items, counts };
}

/**
 * Returns the change that takes a review as decided: what the text brings is taken unless a choice says otherwise,
 * conflicts are settled for the user unless a choice says otherwise, and slides that the user inserted or moved stay
 * where they are. `ids` gives the deck's id of each generated slide, or null where it is left out.
 */
export function takeReview(
  deck: Deck,
  base: readonly GeneratedSlide[],
  next: readonly GeneratedSlide[],
  choices: ReadonlyMap<string, Choice>,
  metadata: DeckMetadata = metadataOf(deck),
  options: RerunOptions = {},
): { change: Change | undefined; ids: (string | null)[] } {
  const { items } = review(deck, base, next, choices, options);
  // Positioned elements are the user's: the text does not mention them.
  const bound = (slide: Slide): Slide =>
    slide.elements.some(isPositioned)
      ? { ...slide, elements: slide.elements.filter((element) => !isPositioned(element)) }
      : slide;
  const pairs = pairWithMade(deck, base, next, options);
  const takes = ({ key }: ReviewItem) => choices.get(key)?.take !== false;
  const text = (item: ReviewItem) => choices.get(item.key)?.conflicts?.slide === "text";
  const byTheirs = new Map(items.flatMap((item) => (item.theirs ? [[item.theirs.id, item] as const] : [])));

  const sourceOf = (item: ReviewItem): { source?: Slide["source"] } => ({ source: item.theirs?.source });
  // The generated slides that stay, in the order of the text.
  const list: { slide: Slide; parent: string | null }[] = [];
  const held = new Map<string, { slide: Slide; parent: string | null }>();
  const idOf = new Map<string, string>();
  for (const { slide } of next) {
    const item = must(byTheirs.get(slide.id));
    const left =
      item.mine === null &&
      (item.state === "same" || (item.state === "conflict" && !text(item)) || (item.state === "new" && !takes(item)));
    if (left) continue;
    idOf.set(slide.id, item.mine?.id ?? slide.id);
  }
  const baseOrder = new Map(base.map(({ slide }, at) => [slide.id, at]));
  const placeInBase = new Map([...pairs.mine].map(([then, mine]) => [mine.id, must(baseOrder.get(then))]));
  const handMoved = movedByHand(
    deck.slides.map(({ id }) => id),
    placeInBase,
  );
  const parentInDeck = new Map(deck.slides.map((slide) => [slide.id, slide.parent]));
  for (const { slide } of next) {
    const id = idOf.get(slide.id);
    if (id === undefined) continue;
    const item = must(byTheirs.get(slide.id));
    const wanted = slide.parent === null ? null : (idOf.get(slide.parent) ?? null);
    const then = item.base;
    const nestedBefore = then?.parent ? (pairs.mine.get(then.parent)?.id ?? null) : null;
    const nestedByHand = item.mine !== null && item.mine.parent !== nestedBefore;
    const content =
      item.mine === null
        ? (item.theirs as Slide)
        : takes(item)
          ? (item.merged as Slide)
          : { ...item.mine, ...sourceOf(item) };
    const stays = item.mine !== null && (handMoved.has(id) || (item.moved && !takes(item)));
    if (!stays)
      list.push({
        slide: { ...content, ...sourceOf(item), id },
        parent: nestedByHand ? (parentInDeck.get(id) ?? null) : wanted,
      });
    else held.set(id, { slide: { ...content, ...sourceOf(item), id }, parent: parentInDeck.get(id) ?? null });
  }
  // Slides that the user inserted, moved or keeps go after the slide that they follow in the deck.
  const inList = new Set(list.map(({ slide }) => slide.id));
  let last: string | null = null;
  for (const mine of deck.slides) {
    if (inList.has(mine.id)) {
      last = mine.id;
      continue;
    }
    const item = items.find((other) => other.mine?.id === mine.id);
    const kept =
      held.get(mine.id) ??
      (item &&
      (item.state === "added" ||
        (item.state === "gone" && !takes(item)) ||
        (item.state === "conflict" && item.theirs === null && !text(item)))
        ? { slide: mine, parent: mine.parent }
        : undefined);
    if (!kept) continue;
    const at = last === null ? 0 : list.findIndex(({ slide }) => slide.id === last) + 1;
    list.splice(at, 0, kept);
    inList.add(mine.id);
    last = mine.id;
  }
  const present = new Set(list.map(({ slide }) => slide.id));
  const wanted = list.map(({ slide, parent }) => ({
    slide: { ...bound(slide), parent: parent !== null && present.has(parent) ? parent : null },
    named: true,
  }));
  const { change } = reconcile({ ...deck, slides: deck.slides.map(bound) }, metadata, wanted);
  return { change, ids: next.map(({ slide }) => idOf.get(slide.id) ?? null) };
}
