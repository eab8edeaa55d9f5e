import { type Choice, type Conflict, mergeSlide, differences } from "@unitext/core/diff";
import { apply, type Change, longestRise, type Place, type SingleChange, batch } from "@unitext/core/edit";
import {
  type Deck,
  type Element,
  filesOf,
  type Original,
  sharedItemsOf,
  type Slide,
  slideLink,
  textHash,
  must,
} from "@unitext/core/model";
import { mapSlideLinks } from "./carry";
import { metadataFor, type Versioned } from "./split";

/** How a slide of a version relates to its original: the same, changed here, left out here, or only here. */
export type Following = "followed" | "changed" | "left" | "own";

/** What the original brings to one slide of a version; `same` when there is nothing to take. */
export interface TailorItem {
  key: string;
  following: Following;
  state: "same" | "new" | "changed" | "moved" | "gone" | "conflict";
  mine: Slide | null;
  /** The slide as the original has it now, and as it had it when the version last took from it. */
  theirs: Slide | null;
  base: Slide | null;
  merged: Slide | null;
  conflicts: Conflict[];
}

export interface TailorReview {
  items: TailorItem[];
  counts: Record<TailorItem["state"], number>;
  following: Record<Following, number>;
}

/** Makes a version of a deck for another audience: a copy whose slides remember the slides that they follow. */
export function tailorDeck({ deck, version }: Versioned, id: string, title: string, newId: () => string): Deck {
  const fresh = new Map(deck.slides.map((slide) => [slide.id, newId()]));
  const slides = deck.slides.map((slide): Slide => {
    const { source: _, ...rest } = slide;
    const own = mapSlideLinks(rest, (to) => {
      const inside = slideLink(to);
      return inside !== undefined && fresh.has(inside) ? `slide:${fresh.get(inside)}` : to;
    });
    return {
      ...own,
      id: must(fresh.get(slide.id)),
      parent: slide.parent === null ? null : (fresh.get(slide.parent) ?? null),
      origin: { deck: deck.id, slide: slide.id, version },
    };
  });
  return {
    ...metadataFor(deck, slides),
    id,
    assets: deck.assets,
    properties: { ...deck.properties, title },
    original: { deck: deck.id, version },
    slides,
  };
}

/** Returns the slides of a version by the slide of the original that they follow; the first of several copies. */
function followers(version: Deck, original: string): Map<string, Slide> {
  const found = new Map<string, Slide>();
  for (const slide of version.slides)
    if (slide.origin?.deck === original && !found.has(slide.origin.slide)) found.set(slide.origin.slide, slide);
  return found;
}

/**
 * Returns a slide of the original as the version would have it: its links lead to the slides that follow their targets.
 */
function translated(slide: Slide, mine: ReadonlyMap<string, Slide>): Slide {
  return mapSlideLinks(slide, (to) => {
    const inside = slideLink(to);
    return inside !== undefined && mine.has(inside) ? `slide:${mine.get(inside)?.id}` : to;
  });
}

const isEqual = (a: Slide, b: Slide) => differences(a, b).length === 0;

type ReviewedSlide = Pick<TailorItem, "key" | "mine" | "theirs" | "base">;

/** Returns what the original brings to a slide of the version that follows one of its slides. */
function reviewFollower(
  slide: ReviewedSlide,
  own: Slide,
  theirs: Slide,
  moved: boolean,
  choice: Choice | undefined,
  newId: () => string,
): TailorItem {
  const { base } = slide;
  const following: Following = isEqual(own, base ?? theirs) ? "followed" : "changed";
  const changed = base ? !isEqual(base, theirs) : !isEqual(own, theirs);
  if (!changed || isEqual(own, theirs))
    return { ...slide, following, state: moved ? "moved" : "same", merged: own, conflicts: [] };
  if (following === "followed") return { ...slide, following, state: "changed", merged: theirs, conflicts: [] };
  const settle = (aspect: string) => choice?.conflicts?.[aspect] ?? "hand";
  const { slide: merged, conflicts } = mergeSlide(base ?? theirs, own, theirs, newId, settle);
  const state = conflicts.length ? "conflict" : isEqual(merged, own) ? "same" : "changed";
  return { ...slide, following, state, merged, conflicts };
}

/** Returns what becomes of a slide of the version that follows no slide of the original as it is now. */
function reviewOwn(own: Slide, before: Slide | null): TailorItem {
  const following: Following = !before ? "own" : isEqual(own, before) ? "followed" : "changed";
  const conflict = { aspect: "slide", label: "Slide", before: "", hand: "as it was changed here", text: "" };
  return {
    key: own.id,
    following,
    state: !before ? "same" : following === "followed" ? "gone" : "conflict",
    mine: own,
    theirs: null,
    base: before,
    merged: following === "followed" ? null : own,
    conflicts: following === "changed" ? [conflict] : [],
  };
}

/**
 * Compares a version with its original three-way: the original when the version last took from it (`base`), the
 * original now, and the version. Changes nothing. `choices` settle conflicts, by the key of their item.
 */
export function reviewTailored(
  version: Deck,
  base: Deck,
  now: Deck,
  choices: ReadonlyMap<string, Choice> = new Map(),
): TailorReview {
  const mine = followers(version, now.id);
  const then = new Map(base.slides.map((slide) => [slide.id, slide]));
  const inOrder = longestRise(
    now.slides.map(({ id }) => id),
    new Map(base.slides.map((slide, nth) => [slide.id, nth])),
  );
  let serial = 0;
  const newId = () => `t${textHash(version.id).slice(0, 6)}${(serial++).toString(36)}`;
  const items = now.slides.map((raw): TailorItem => {
    const own = mine.get(raw.id) ?? null;
    const known = then.get(raw.id) ?? null;
    const theirs = translated(raw, mine);
    const slide = { key: own?.id ?? raw.id, mine: own, theirs, base: known && translated(known, mine) };
    if (!own)
      return {
        ...slide,
        following: "left",
        state: known ? "same" : "new",
        merged: known ? null : theirs,
        conflicts: [],
      };
    const moved = known !== null && (!inOrder.has(raw.id) || known.parent !== raw.parent);
    return reviewFollower(slide, own, theirs, moved, choices.get(own.id), newId);
  });
  // Slides that the original no longer has, and slides that are only here, are listed where they are in the version.
  const listed = new Set(items.flatMap((item) => (item.mine ? [item.mine.id] : [])));
  let at = 0;
  for (const own of version.slides) {
    if (listed.has(own.id)) {
      at = items.findIndex((item) => item.mine?.id === own.id) + 1;
      continue;
    }
    const follows = own.origin?.deck === now.id && mine.get(own.origin.slide) === own;
    const known = follows ? then.get(own.origin?.slide ?? "") : undefined;
    items.splice(at++, 0, reviewOwn(own, known ? translated(known, mine) : null));
  }
  const counts: TailorReview["counts"] = { same: 0, new: 0, changed: 0, moved: 0, gone: 0, conflict: 0 };
  const following: TailorReview["following"] = { followed: 0, changed: 0, left: 0, own: 0 };
  for (const item of items) {
    counts[item.state] += 1;
    following[item.following] += 1;
  }
  return { items, counts, following };
}

/** Collects the changes that take from the original, on the version as it becomes. */
class TailorUpdate {
  private readonly changes: SingleChange[] = [];
  /** The version with the changes so far. */
  private current: Deck;
  /** The ids in the version of the slides of the original. */
  private readonly idOf: Map<string, string>;
  private readonly files = new Set<string>();

  constructor(
    private readonly version: Deck,
    private readonly now: Versioned,
    newSlides: readonly string[],
    private readonly newId: () => string,
  ) {
    this.current = version;
    this.idOf = new Map([...followers(version, now.deck.id)].map(([theirs, mine]) => [theirs, mine.id]));
    for (const id of newSlides) this.idOf.set(id, newId());
  }

  /** Takes what the original brings to one slide. `takesDeletion` settles a deleted slide that was changed here. */
  take({ state, mine, theirs, merged }: TailorItem, takesDeletion: boolean): void {
    const raw = theirs && this.now.deck.slides.find(({ id }) => id === theirs.id);
    if (state === "new" && theirs && raw) {
      const { source: _, ...rest } = this.linked(theirs);
      const id = must(this.idOf.get(theirs.id));
      const slide: Slide = { ...rest, id, parent: null, origin: this.originOf(theirs.id) };
      this.add({ kind: "insertSlide", slide, place: this.place(raw) });
      this.takeFiles(slide);
    } else if ((state === "changed" || state === "conflict") && mine && theirs && merged) {
      const { source: _, ...rest } = this.linked(merged);
      const elements = distinctIds(rest.elements, this.newId);
      const as = { ...rest, elements, id: mine.id, parent: mine.parent, origin: this.originOf(theirs.id) };
      this.add({ kind: "setSlide", slide: mine.id, as });
      this.takeFiles(merged);
    } else if (state === "moved" && mine && raw) {
      const place = this.place(raw);
      if (place.after !== mine.id && place.parent !== mine.id) this.add({ kind: "moveSlide", slide: mine.id, place });
    } else if (mine && (state === "gone" || (state === "conflict" && !theirs && takesDeletion)))
      this.add({ kind: "deleteSlide", slide: mine.id });
  }

  /** Returns the change; undefined when there is nothing to do. `isComplete` when nothing of the original is pending. */
  change(isComplete: boolean): Change | undefined {
    const { version, now, changes } = this;
    changes.unshift(...this.sharedChanges());
    const original: Original = { ...version.original, deck: now.deck.id, version: now.version };
    if (isComplete && version.original?.version !== now.version) changes.push({ kind: "setOriginal", original });
    return changes.length ? batch(changes) : undefined;
  }

  private add(change: SingleChange): void {
    this.changes.push(change);
    this.current = apply(this.current, batch([change])).deck;
  }

  private linked(slide: Slide): Slide {
    return mapSlideLinks(slide, (to) => {
      const inside = slideLink(to);
      return inside !== undefined && this.idOf.has(inside) ? `slide:${this.idOf.get(inside)}` : to;
    });
  }

  private originOf(slide: string): NonNullable<Slide["origin"]> {
    return { deck: this.now.deck.id, slide, version: this.now.version };
  }

  private takeFiles(slide: Slide): void {
    for (const name of filesOf(slide, this.now.deck)) this.files.add(name);
  }

  /** Returns where a slide of the original goes: after the nearest sibling before it that the version has. */
  private place(raw: Slide): Place {
    const { slides } = this.now.deck;
    const parent = raw.parent === null ? null : (this.idOf.get(raw.parent) ?? null);
    const at = slides.findIndex(({ id }) => id === raw.id);
    const siblings = new Set(this.current.slides.filter((slide) => slide.parent === parent).map(({ id }) => id));
    const before = slides
      .slice(0, at)
      .findLast(({ id }) => siblings.has(this.idOf.get(id) ?? "") && this.idOf.get(id) !== this.idOf.get(raw.id));
    return {
      parent: parent !== null && this.current.slides.some(({ id }) => id === parent) ? parent : null,
      after: before ? must(this.idOf.get(before.id)) : null,
    };
  }

  /** Returns the changes that bring the files, themes, masters and styles of the slides that were taken. */
  private sharedChanges(): SingleChange[] {
    const { version, current } = this;
    const { deck } = this.now;
    const { masters = {}, styles = {} } = sharedItemsOf(current.slides, deck);
    const assets = [...this.files].flatMap((name): SingleChange[] => {
      const asset = deck.assets[name];
      return asset && version.assets[name]?.sha256 !== asset.sha256 ? [{ kind: "setAsset", name, asset }] : [];
    });
    const themes = Object.entries(deck.themes ?? {}).filter(
      ([name]) => current.slides.some((slide) => slide.theme === name) && !version.themes?.[name],
    );
    return [
      ...Object.entries(styles).flatMap(([name, style]): SingleChange[] =>
        version.styles?.[name] ? [] : [{ kind: "setTextStyle", name, style }],
      ),
      ...Object.entries(masters).flatMap(([name, master]): SingleChange[] =>
        version.masters?.[name] ? [] : [{ kind: "setMaster", name, master }],
      ),
      ...themes.map(([name, theme]): SingleChange => ({ kind: "setImportedTheme", name, theme })),
      ...assets,
    ];
  }
}

/**
 * Returns the change that takes what the original brings: everything unless a choice says `take: false`. Conflicts are
 * settled for the version unless decided otherwise. What was not taken is offered again until everything is decided.
 * Returns undefined when there is nothing to do.
 */
export function takeTailored(
  version: Deck,
  base: Deck,
  now: Versioned,
  choices: ReadonlyMap<string, Choice>,
  newId: () => string,
): Change | undefined {
  const { items } = reviewTailored(version, base, now.deck, choices);
  const takes = ({ key }: TailorItem) => choices.get(key)?.take !== false;
  const pending = items.filter(({ state }) => state !== "same");
  const taken = pending.filter(takes);
  const newSlides = taken.flatMap(({ state, theirs }) => (state === "new" && theirs ? [theirs.id] : []));
  const update = new TailorUpdate(version, now, newSlides, newId);
  for (const item of taken) update.take(item, choices.get(item.key)?.conflicts?.slide === "text");
  return update.change(taken.length === pending.length);
}

function distinctIds(elements: readonly Element[], newId: () => string): Element[] {
  const seen = new Set<string>();
  return elements.map((element) => {
    const id = seen.has(element.id) ? newId() : element.id;
    seen.add(id);
    return id === element.id ? element : { ...element, id };
  });
}

/** How each slide of an original relates to each of its versions, and the slides that are only in one version. */
export interface DiffersTable {
  rows: { slide: Slide; number: number; states: Following[] }[];
  /** The slides that are only in a version, by the version's index. */
  own: Slide[][];
}

/** Compares tailored versions with their original: what each made of every slide, and the slides that only it has. */
export function differsTable(original: Deck, versions: readonly Deck[]): DiffersTable {
  const each = versions.map((version) => followers(version, original.id));
  const known = new Set(original.slides.map(({ id }) => id));
  return {
    rows: original.slides.map((slide, nth) => ({
      slide,
      number: nth + 1,
      states: each.map((mine): Following => {
        const own = mine.get(slide.id);
        return !own ? "left" : isEqual(own, translated(slide, mine)) ? "followed" : "changed";
      }),
    })),
    own: versions.map((version, at) =>
      version.slides.filter(
        (slide) =>
          !(
            slide.origin?.deck === original.id &&
            known.has(slide.origin.slide) &&
            each[at]?.get(slide.origin.slide) === slide
          ),
      ),
    ),
  };
}
