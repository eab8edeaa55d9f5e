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

/** Returns what the text does to one generated slide, and whether that conflicts with the user's changes. */
function reviewGenerated(
  common: Pick<ReviewItem, "key" | "moved" | "mine" | "theirs" | "base">,
  theirs: Slide,
  choice: Choice | undefined,
  newId: () => string,
): ReviewItem {
  const { base: then, mine, moved } = common;
  if (!then) return { ...common, state: "new", hand: false, merged: theirs, conflicts: [] };
  const changed = !same(then, theirs);
  if (!mine) {
    const conflict = { aspect: "slide", label: "Slide", before: allWords(then), hand: "", text: allWords(theirs) };
    const conflicts = changed ? [conflict] : [];
    return { ...common, state: changed ? "conflict" : "same", hand: true, merged: null, conflicts };
  }
  const hand = !untouched(mine, then);
  const settle = (aspect: string) => choice?.conflicts?.[aspect] ?? "hand";
  const merged: MergedSlide = !changed
    ? { slide: mine, conflicts: [] }
    : hand
      ? mergeSlide(then, mine, theirs, newId, settle)
      : { slide: theirs, conflicts: [] };
  const state = merged.conflicts.length ? "conflict" : changed ? "changed" : moved ? "moved" : "same";
  return { ...common, state, hand, merged: merged.slide, conflicts: merged.conflicts };
}

/** Returns what becomes of a slide of the deck that the text does not make now; `then` is what it made before. */
function reviewOther(mine: Slide, then: Slide | null): ReviewItem {
  const hand = then !== null && !untouched(mine, then);
  const conflict = then && { aspect: "slide", label: "Slide", before: allWords(then), hand: allWords(mine), text: "" };
  return {
    key: mine.id,
    state: then === null ? "added" : hand ? "conflict" : "gone",
    moved: false,
    hand: then === null || hand,
    mine,
    theirs: null,
    base: then,
    merged: then === null || hand ? mine : null,
    conflicts: conflict && hand ? [conflict] : [],
  };
}

/** The latest review without choices. It is shown before it is taken, and computed once for both. */
const reviewedOnce = new WeakMap<
  readonly GeneratedSlide[],
  { deck: Deck; base: readonly GeneratedSlide[]; typing: boolean; review: Review }
>();

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
  const { typing = false } = options;
  const known = choices.size ? undefined : reviewedOnce.get(next);
  if (known && known.deck === deck && known.base === base && known.typing === typing) return known.review;
  const made = compare(deck, base, next, choices, options);
  if (!choices.size) reviewedOnce.set(next, { deck, base, typing, review: made });
  return made;
}

function compare(
  deck: Deck,
  base: readonly GeneratedSlide[],
  next: readonly GeneratedSlide[],
  choices: ReadonlyMap<string, Choice>,
  options: RerunOptions,
): Review {
  const pairs = pairWithMade(deck, base, next, options);
  const newId = idsByPlace([...deck.slides, ...base.map(({ slide }) => slide), ...next.map(({ slide }) => slide)]);
  const nextOrder = new Map(
    next.flatMap(({ slide }, at) => {
      const then = pairs.base.get(slide.id);
      return then ? [[then.id, at] as const] : [];
    }),
  );
  const movedInText = movedByHand(
    base.map(({ slide }) => slide.id),
    nextOrder,
  );
  const items = next.map(({ slide: theirs }) => {
    const then = pairs.base.get(theirs.id) ?? null;
    const mine = then ? (pairs.mine.get(then.id) ?? null) : null;
    const key = mine?.id ?? theirs.id;
    const moved = then !== null && movedInText.has(then.id);
    return reviewGenerated({ key, moved, mine, theirs, base: then }, theirs, choices.get(key), newId);
  });
  // What the text no longer has, and what the user inserted, is listed where it is in the deck.
  const byMine = new Map(items.flatMap((item) => (item.mine ? [[item.mine.id, item] as const] : [])));
  const gone = new Map(
    base.flatMap(({ slide }) => {
      const mine = pairs.mine.get(slide.id);
      return mine ? [[mine.id, slide] as const] : [];
    }),
  );
  let at = 0;
  for (const mine of deck.slides) {
    const known = byMine.get(mine.id);
    if (known) at = items.indexOf(known) + 1;
    else items.splice(at++, 0, reviewOther(mine, gone.get(mine.id) ?? null));
  }
  const counts: Review["counts"] = { same: 0, added: 0, new: 0, changed: 0, moved: 0, gone: 0, conflict: 0 };
  for (const { state } of items) counts[state] += 1;
  return { items, counts };
}

/** A slide with the main slide under which it goes. */
interface PlacedSlide {
  slide: Slide;
  parent: string | null;
}

const withoutPositioned = (slide: Slide): Slide =>
  slide.elements.some(isPositioned)
    ? { ...slide, elements: slide.elements.filter((element) => !isPositioned(element)) }
    : slide;

/** A review being taken: which slides the deck has then, and where. */
class TakenReview {
  /** The deck's ids of the generated slides that stay. */
  readonly ids = new Map<string, string>();
  private readonly items: readonly ReviewItem[];
  private readonly byTheirs: ReadonlyMap<string, ReviewItem>;
  private readonly pairs: Pairing;

  constructor(
    private readonly deck: Deck,
    private readonly base: readonly GeneratedSlide[],
    private readonly next: readonly GeneratedSlide[],
    private readonly choices: ReadonlyMap<string, Choice>,
    options: RerunOptions,
  ) {
    this.items = review(deck, base, next, choices, options).items;
    this.pairs = pairWithMade(deck, base, next, options);
    this.byTheirs = new Map(this.items.flatMap((item) => (item.theirs ? [[item.theirs.id, item] as const] : [])));
    for (const { slide } of next) {
      const item = must(this.byTheirs.get(slide.id));
      if (!this.isLeftOut(item)) this.ids.set(slide.id, item.mine?.id ?? slide.id);
    }
  }

  private takes({ key }: ReviewItem): boolean {
    return this.choices.get(key)?.take !== false;
  }

  private takesText({ key }: ReviewItem): boolean {
    return this.choices.get(key)?.conflicts?.slide === "text";
  }

  /** Whether a generated slide that the deck does not have stays out. */
  private isLeftOut(item: ReviewItem): boolean {
    if (item.mine) return false;
    if (item.state === "same") return true;
    return item.state === "conflict" ? !this.takesText(item) : item.state === "new" && !this.takes(item);
  }

  /** Whether a slide that the text does not make now stays in the deck. */
  private isKept(item: ReviewItem): boolean {
    if (item.state === "added") return true;
    if (item.state === "gone") return !this.takes(item);
    return item.state === "conflict" && item.theirs === null && !this.takesText(item);
  }

  /** Returns the slides in the order of the text; those that the user placed go after the slide that they follow. */
  slides(): PlacedSlide[] {
    const { list, placedByHand } = this.generated();
    const present = new Set(list.map(({ slide }) => slide.id));
    const byMine = new Map(this.items.flatMap((item) => (item.mine ? [[item.mine.id, item] as const] : [])));
    let last: string | null = null;
    for (const mine of this.deck.slides) {
      if (!present.has(mine.id)) {
        const item = byMine.get(mine.id);
        const own = item && this.isKept(item) ? { slide: mine, parent: mine.parent } : undefined;
        const placed = placedByHand.get(mine.id) ?? own;
        if (!placed) continue;
        const at = last === null ? 0 : list.findIndex(({ slide }) => slide.id === last) + 1;
        list.splice(at, 0, placed);
        present.add(mine.id);
      }
      last = mine.id;
    }
    return list;
  }

  /** Returns the generated slides that stay: those in the order of the text, and those that the user moved. */
  private generated(): { list: PlacedSlide[]; placedByHand: Map<string, PlacedSlide> } {
    const baseOrder = new Map(this.base.map(({ slide }, at) => [slide.id, at]));
    const placeInBase = new Map([...this.pairs.mine].map(([then, mine]) => [mine.id, must(baseOrder.get(then))]));
    const moved = movedByHand(
      this.deck.slides.map(({ id }) => id),
      placeInBase,
    );
    const parentInDeck = new Map(this.deck.slides.map(({ id, parent }) => [id, parent]));
    const list: PlacedSlide[] = [];
    const placedByHand = new Map<string, PlacedSlide>();
    for (const { slide } of this.next) {
      const id = this.ids.get(slide.id);
      if (id === undefined) continue;
      const item = must(this.byTheirs.get(slide.id));
      const content = { ...this.contentOf(item), source: item.theirs?.source, id } as Slide;
      const inDeck = parentInDeck.get(id) ?? null;
      if (item.mine && (moved.has(id) || (item.moved && !this.takes(item))))
        placedByHand.set(id, { slide: content, parent: inDeck });
      else {
        const inText = slide.parent === null ? null : (this.ids.get(slide.parent) ?? null);
        list.push({ slide: content, parent: this.isNestedByHand(item) ? inDeck : inText });
      }
    }
    return { list, placedByHand };
  }

  private contentOf(item: ReviewItem): Slide {
    if (!item.mine) return must(item.theirs);
    return this.takes(item) ? must(item.merged) : item.mine;
  }

  private isNestedByHand({ mine, base }: ReviewItem): boolean {
    const before = base?.parent ? (this.pairs.mine.get(base.parent)?.id ?? null) : null;
    return mine !== null && mine.parent !== before;
  }
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
  const taken = new TakenReview(deck, base, next, choices, options);
  const list = taken.slides();
  const present = new Set(list.map(({ slide }) => slide.id));
  // Positioned elements are the user's: the text does not mention them.
  const wanted = list.map(({ slide, parent }) => ({
    slide: { ...withoutPositioned(slide), parent: parent !== null && present.has(parent) ? parent : null },
    named: true,
  }));
  const { change } = reconcile({ ...deck, slides: deck.slides.map(withoutPositioned) }, metadata, wanted);
  return { change, ids: next.map(({ slide }) => taken.ids.get(slide.id) ?? null) };
}
