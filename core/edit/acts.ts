import {
  type ArrangementName,
  type Deck,
  type Element,
  Failure,
  familyOf,
  mapElementLinks,
  mapLinks,
  roleOf,
  type Slide,
  slideIndex,
  type SlotRole,
  slotsOf,
  newSlide,
  must,
} from "@unitext/core/model";
import { type Change, type Place, type SingleChange, batch } from "./change";
import { placeOf } from "./order";

/** Returns the chosen ids whose main slide is not chosen too, in running order. */
export function roots(deck: Deck, ids: Iterable<string>): string[] {
  const chosen = new Set(ids);
  const covered = new Set<string>();
  const found: string[] = [];
  for (const slide of deck.slides) {
    const inside = slide.parent !== null && covered.has(slide.parent);
    if (chosen.has(slide.id) && !inside) found.push(slide.id);
    if (inside || chosen.has(slide.id)) covered.add(slide.id);
  }
  return found;
}

/**
 * Moves slides with their details to a place, in running order. Throws a Failure for a place inside the moved slides.
 */
export function moveTo(deck: Deck, ids: Iterable<string>, place: Place): Change {
  const chosen = roots(deck, ids);
  const moving = new Set(chosen);
  let after = place.after;
  while (after !== null && moving.has(after)) after = placeOf(deck.slides, slideIndex(deck, after)).after;
  const changes: SingleChange[] = [];
  for (const slide of chosen) {
    changes.push({ kind: "moveSlide", slide, place: { parent: place.parent, after } });
    after = slide;
  }
  return batch(changes);
}

/** Moves slides one place up or down among their siblings. Returns undefined when they are at the end already. */
export function step(deck: Deck, ids: Iterable<string>, by: -1 | 1): Change | undefined {
  const chosen = roots(deck, ids);
  const edge = by < 0 ? chosen[0] : chosen.at(-1);
  if (!edge) return undefined;
  const { parent } = must(deck.slides[slideIndex(deck, edge)]);
  const siblings = deck.slides.filter((slide) => slide.parent === parent).map((slide) => slide.id);
  const at = siblings.indexOf(edge);
  if (by < 0) return at === 0 ? undefined : moveTo(deck, chosen, { parent, after: siblings[at - 2] ?? null });
  const next = siblings[at + 1];
  return next === undefined ? undefined : moveTo(deck, chosen, { parent, after: next });
}

/** Makes slides the last details of the slide before them. Returns undefined when there is none. */
export function makeDetail(deck: Deck, ids: Iterable<string>): Change | undefined {
  const chosen = roots(deck, ids);
  if (!chosen[0]) return undefined;
  const main = placeOf(deck.slides, slideIndex(deck, chosen[0])).after;
  if (main === null) return undefined;
  const details = deck.slides.filter((slide) => slide.parent === main);
  return moveTo(deck, chosen, { parent: main, after: details.at(-1)?.id ?? null });
}

/** Moves slides one level out, directly after their main slide. Returns undefined when they are on the main line. */
export function moveOut(deck: Deck, ids: Iterable<string>): Change | undefined {
  const chosen = roots(deck, ids).filter((id) => deck.slides[slideIndex(deck, id)]?.parent);
  if (!chosen[0]) return undefined;
  const main = must(deck.slides[slideIndex(deck, chosen[0])]?.parent);
  const parent = deck.slides[slideIndex(deck, main)]?.parent ?? null;
  return moveTo(deck, chosen, { parent, after: main });
}

/** Returns the change that deletes slides by id. */
export function remove(ids: Iterable<string>): Change {
  return batch([...ids].map((slide) => ({ kind: "deleteSlide", slide })));
}

/** Returns the change that hides slides from the audience, or shows them again. */
export function hide(ids: Iterable<string>, hidden: boolean): Change {
  return batch([...ids].map((slide) => ({ kind: "setHidden", slide, hidden })));
}

/**
 * Copies slides with new ids and points the links between them to the copies. `origin` says which deck and version they
 * are copied from.
 */
export function copies(
  slides: readonly Slide[],
  newId: () => string,
  origin?: { deck: string; version: number },
): Slide[] {
  const fresh = new Map(slides.map((slide) => [slide.id, newId()]));
  const follow = (to: string) => (to.startsWith("slide:") ? `slide:${fresh.get(to.slice(6)) ?? to.slice(6)}` : to);
  return slides.map((slide) => ({
    ...slide,
    id: must(fresh.get(slide.id)),
    parent: slide.parent === null ? null : (fresh.get(slide.parent) ?? null),
    elements: slide.elements.map((element) => ({ ...mapElementLinks(element, follow), id: newId() })),
    notes: mapLinks(slide.notes, follow),
    ...(origin ? { origin: { ...origin, slide: slide.id } } : {}),
  }));
}

/** Inserts slides, given in running order with parents among them or null, so that the first is at `place`. */
export function insertAt(slides: readonly Slide[], place: Place): Change {
  const changes: SingleChange[] = [];
  const last = new Map<string | null, string>();
  const own = new Set(slides.map((slide) => slide.id));
  for (const slide of slides) {
    const inside = slide.parent !== null && own.has(slide.parent);
    const parent = inside ? slide.parent : place.parent;
    const after = last.get(parent) ?? (inside ? null : place.after);
    changes.push({ kind: "insertSlide", slide: { ...slide, parent }, place: { parent, after } });
    last.set(parent, slide.id);
  }
  return batch(changes);
}

/** Copies slides, with their details, and puts the copies after the last of them. */
export function duplicate(deck: Deck, ids: Iterable<string>, newId: () => string, version: number): Change {
  const chosen = roots(deck, ids);
  const last = chosen.at(-1);
  if (!last) throw new Failure("not-valid", "slides", "Choose at least one slide to duplicate.");
  const { parent } = must(deck.slides[slideIndex(deck, last)]);
  const family = chosen.flatMap((id) =>
    familyOf(deck.slides, id).map((slide) => (slide.id === id ? { ...slide, parent: null } : slide)),
  );
  return insertAt(copies(family, newId, { deck: deck.id, version }), { parent, after: last });
}

/**
 * Gives a slide another arrangement. Each element goes to the free slot that fits its role best; elements without one
 * share the main text slot, so nothing is dropped.
 */
export function rearrange(slide: Slide, arrangement: ArrangementName): SingleChange {
  const free = slotsOf(arrangement);
  const group = (role: SlotRole | undefined) =>
    role === "opening"
      ? "title"
      : role === "corner" || role === "name"
        ? "title"
        : role === "picture"
          ? "picture"
          : role === "figure"
            ? "figure"
            : role === "title"
              ? "title"
              : "text";
  const main = free.find(([, role]) => group(role) === "text")?.[0] ?? null;
  const slots: Record<string, string | null> = {};
  const waiting: Element[] = [];
  for (const element of slide.elements) {
    if (element.slot === null) continue;
    const role = roleOf(slide, element);
    const exact = free.findIndex(([slot, other]) => slot === element.slot && group(other) === group(role));
    if (exact >= 0) slots[element.id] = free.splice(exact, 1)[0]?.[0] ?? null;
    else waiting.push(element);
  }
  for (const element of waiting) {
    const wanted =
      element.kind === "picture" ? "picture" : element.kind === "text" ? group(roleOf(slide, element)) : "figure";
    let at = free.findIndex(([, role]) => group(role) === wanted);
    if (at < 0 && element.kind === "text") at = free.findIndex(([, role]) => group(role) === "text");
    slots[element.id] =
      (at >= 0 ? free.splice(at, 1)[0]?.[0] : element.kind === "text" || element.kind === "picture" ? main : null) ??
      element.slot;
  }
  return { kind: "setArrangement", slide: slide.id, arrangement, slots };
}

const bodyTexts = (slide: Slide) =>
  slide.elements.filter(
    (element) =>
      element.kind === "text" &&
      roleOf(slide, element) !== "title" &&
      roleOf(slide, element) !== "opening" &&
      element.slot !== "title" &&
      !element.frame,
  );

/** Moves the text below a slide's title to the end of its notes. Returns undefined when there is none. */
export function textToNotes(slide: Slide): Change | undefined {
  const texts = bodyTexts(slide).flatMap((element) =>
    element.kind === "text" && element.text.some(({ runs }) => runs.length) ? [element] : [],
  );
  if (!texts.length) return undefined;
  return batch([
    { kind: "setNotes", slide: slide.id, notes: [...slide.notes, ...texts.flatMap(({ text }) => text)] },
    ...texts.map(({ id }): SingleChange => ({ kind: "deleteElement", slide: slide.id, element: id })),
  ]);
}

/** Moves a slide's notes to the end of its main text. Returns undefined when it has none. */
export function notesToText(slide: Slide, newId: () => string): Change | undefined {
  if (!slide.notes.length) return undefined;
  const last = bodyTexts(slide).at(-1);
  const slot =
    slotsOf(slide.arrangement).find(([, role]) => role === "body" || role === "statement" || role === "caption")?.[0] ??
    "body";
  return batch([
    last?.kind === "text"
      ? { kind: "setText", slide: slide.id, element: last.id, text: [...last.text, ...slide.notes] }
      : {
          kind: "insertElement",
          slide: slide.id,
          element: { kind: "text", id: newId(), slot, text: slide.notes },
          index: slide.elements.length,
        },
    { kind: "setNotes", slide: slide.id, notes: [] },
  ]);
}

/** Inserts a section opener before the first chosen slide of the main line. Returns undefined when none is chosen. */
export function makeSection(deck: Deck, ids: Iterable<string>, id: string, title: Element): Change | undefined {
  let first = deck.slides.find(({ id: own }) => new Set(ids).has(own));
  while (first?.parent) first = deck.slides.find(({ id: own }) => own === first?.parent);
  if (!first) return undefined;
  return {
    kind: "insertSlide",
    slide: { ...newSlide(id, "section"), elements: [title] },
    place: placeOf(deck.slides, slideIndex(deck, first.id)),
  };
}
