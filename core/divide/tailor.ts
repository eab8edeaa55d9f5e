import { type Choice, type Conflict, mergeSlide, differences } from "@unitext/core/diff";
import { apply, type Change, longestRise, type SingleChange, batch } from "@unitext/core/edit";

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
  const order = new Map(base.slides.map((slide, nth) => [slide.id, nth]));
  const still = longestRise(
    now.slides.map(({ id }) => id),
    order,
  );
  let serial = 0;
  const newId = () => `t${textHash(version.id).slice(0, 6)}${(serial++).toString(36)}`;
  const items: TailorItem[] = [];
  for (const raw of now.slides) {
    const own = mine.get(raw.id) ?? null;
    const known = then.get(raw.id) ?? null;
    const theirs = translated(raw, mine);
    const before = known && translated(known, mine);
    const common = { key: own?.id ?? raw.id, mine: own, theirs, base: before };
    if (!own) {
      items.push({
        ...common,
        following: "left",
        state: known ? "same" : "new",
        merged: known ? null : theirs,
        conflicts: [],
      });
      continue;
    }
    const following: Following = isEqual(own, before ?? theirs) ? "followed" : "changed";
    const changed = before ? !isEqual(before, theirs) : !isEqual(own, theirs);
    const moved = known !== null && (!still.has(raw.id) || known.parent !== raw.parent);
    if (!changed || isEqual(own, theirs)) {
      items.push({ ...common, following, state: moved ? "moved" : "same", merged: own, conflicts: [] });
    } else if (following === "followed")
      items.push({ ...common, following, state: "changed", merged: theirs, conflicts: [] });
    else {
      const settle = (aspect: string) => choices.get(own.id)?.conflicts?.[aspect] ?? "hand";
      const { slide, conflicts } = mergeSlide(before ?? theirs, own, theirs, newId, settle);
      items.push({
        ...common,
        following,
        state: conflicts.length ? "conflict" : isEqual(slide, own) ? "same" : "changed",
        merged: slide,
        conflicts,
      });
    }
  }
  // Slides that the original no longer has, and slides that are only here, are listed where they are in the version.
  const listed = new Set(items.flatMap((item) => (item.mine ? [item.mine.id] : [])));
  let at = 0;
  for (const own of version.slides) {
    if (listed.has(own.id)) {
      at = items.findIndex((item) => item.mine?.id === own.id) + 1;
      continue;
    }
    const known =
      own.origin?.deck === now.id && mine.get(own.origin.slide) === own ? then.get(own.origin.slide) : undefined;
    const before = known ? translated(known, mine) : null;
    const following: Following = !before ? "own" : isEqual(own, before) ? "followed" : "changed";
    items.splice(at++, 0, {
      key: own.id,
      following,
      state: !before ? "same" : following === "followed" ? "gone" : "conflict",
      mine: own,
      theirs: null,
      base: before,
      merged: following === "followed" ? null : own,
      conflicts:
        before && following === "changed"
          ? [{ aspect: "slide", label: "Slide", before: "", hand: "as it was changed here", text: "" }]
          : [],
    });
  }
  const counts: TailorReview["counts"] = { same: 0, new: 0, changed: 0, moved: 0, gone: 0, conflict: 0 };
  const following: TailorReview["following"] = { followed: 0, changed: 0, left: 0, own: 0 };
  for (const item of items) {
    counts[item.state] += 1;
    following[item.following] += 1;
  }
  return { items, counts, following };
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
  const changes: SingleChange[] = [];
  let current = version;
  const take = (...next: SingleChange[]) => {
    changes.push(...next);
    current = apply(current, batch(next)).deck;
  };
  const takes = ({ key }: TailorItem) => choices.get(key)?.take !== false;
  const idOf = new Map<string, string>([...followers(version, now.deck.id)].map(([theirs, mine]) => [theirs, mine.id]));
  for (const item of items) if (item.state === "new" && takes(item) && item.theirs) idOf.set(item.theirs.id, newId());
  const link = (slide: Slide) =>
    mapSlideLinks(slide, (to) => {
      const inside = slideLink(to);
      return inside !== undefined && idOf.has(inside) ? `slide:${idOf.get(inside)}` : to;
    });
  const originOf = (slide: string): Slide["origin"] => ({ deck: now.deck.id, slide, version: now.version });
  const wantedPictures = new Set<string>();
  const place = (raw: Slide) => {
    const parent = raw.parent === null ? null : (idOf.get(raw.parent) ?? null);
    const at = now.deck.slides.findIndex(({ id }) => id === raw.id);
    const there = new Set(current.slides.filter((slide) => slide.parent === parent).map(({ id }) => id));
    const before = now.deck.slides
      .slice(0, at)
      .findLast((other) => there.has(idOf.get(other.id) ?? "") && idOf.get(other.id) !== idOf.get(raw.id));
    return {
      parent: parent !== null && current.slides.some(({ id }) => id === parent) ? parent : null,
      after: before ? must(idOf.get(before.id)) : null,
    };
  };
  for (const item of items) {
    const { state, mine, theirs, merged } = item;
    const raw = theirs && now.deck.slides.find(({ id }) => id === theirs.id);
    if (state === "same" || !takes(item)) continue;
    if (state === "new" && theirs && raw) {
      const { source: _, ...rest } = link(theirs);
      const slide: Slide = { ...rest, id: must(idOf.get(theirs.id)), parent: null, origin: originOf(theirs.id) };
      take({ kind: "insertSlide", slide, place: place(raw) });
      for (const name of filesOf(slide, now.deck)) wantedPictures.add(name);
    } else if ((state === "changed" || state === "conflict") && mine && theirs && merged) {
      const elements = distinctIds(link(merged).elements, newId);
      const { source: _, ...rest } = link(merged);
      take({
        kind: "setSlide",
        slide: mine.id,
        as: { ...rest, elements, id: mine.id, parent: mine.parent, origin: originOf(theirs.id) },
      });
      for (const name of filesOf(merged, now.deck)) wantedPictures.add(name);
    } else if (state === "moved" && mine && raw) {
      const to = place(raw);
      if (to.after !== mine.id && to.parent !== mine.id) take({ kind: "moveSlide", slide: mine.id, place: to });
    } else if (
      mine &&
      (state === "gone" || (state === "conflict" && !theirs && choices.get(item.key)?.conflicts?.slide === "text"))
    )
      take({ kind: "deleteSlide", slide: mine.id });
  }
  for (const name of wantedPictures) {
    const asset = now.deck.assets[name];
    if (asset && version.assets[name]?.sha256 !== asset.sha256) changes.unshift({ kind: "setAsset", name, asset });
  }
  for (const [name, theme] of Object.entries(now.deck.themes ?? {}))
    if (current.slides.some((slide) => slide.theme === name) && !version.themes?.[name])
      changes.unshift({ kind: "setImportedTheme", name, theme });
  const { masters = {}, styles = {} } = sharedItemsOf(current.slides, now.deck);
  for (const [name, master] of Object.entries(masters))
    if (!version.masters?.[name]) changes.unshift({ kind: "setMaster", name, master });
  for (const [name, style] of Object.entries(styles))
    if (!version.styles?.[name]) changes.unshift({ kind: "setTextStyle", name, style });
  const pending = items.some((item) => item.state !== "same" && !takes(item));
  const original: Original = { deck: now.deck.id, version: now.version };
  if (!pending && version.original?.version !== now.version) changes.push({ kind: "setOriginal", original });
  return changes.length ? batch(changes) : undefined;
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
