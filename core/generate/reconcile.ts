import { apply, type Change, type SingleChange, together } from "@unitext/core/edit";
import { type Deck, type DeckHead, type Element, isEmptyText, type RichText, type Slide, titleOf } from "@unitext/core/model";
import { mainSlot, normalText } from "@unitext/core/text";
import type { Made } from "./generate";

/** A text slot's content, all its elements together: what the text form can tell apart. */
function slotTexts(slide: Slide): Map<string, { elements: Element[]; text: RichText }> {
  const slots = new Map<string, { elements: Element[]; text: RichText }>();
  const own = new Set(["title", "left", "middle", "right", "number", "subtitle", "caption", "body"]);
  for (const element of slide.elements) {
    if (element.kind !== "text") continue;
    const slot = element.slot !== null && own.has(element.slot) ? element.slot : mainSlot(slide.arrangement);
    const held = slots.get(slot) ?? { elements: [], text: [] };
    held.elements.push(element);
    held.text.push(...element.text);
    slots.set(slot, held);
  }
  return slots;
}

const written = (text: RichText) => JSON.stringify(normalText(text));

/** What the text form can say of a slide's content, as one string; kept as long as the slide lives, which never changes. */
const signatures = new WeakMap<Slide, string>();
function signature(slide: Slide): string {
  const known = signatures.get(slide);
  if (known !== undefined) return known;
  const slots = [...slotTexts(slide)].filter(([, { text }]) => !isEmptyText(text)).map(([slot, { text }]) => [slot, written(text)]);
  const pictures = slide.elements.flatMap((element) => (element.kind === "picture" ? [[element.source, element.alt]] : []));
  const made = JSON.stringify([slots.sort(), pictures, written(slide.notes)]);
  signatures.set(slide, made);
  return made;
}

/** What reconciling needs of a slide made from the text. */
type FromText = Pick<Made, "slide" | "named">;

/** Pairs the slides made from the text with those of the deck: by id, then, where the text gives no id, by equal content, by title and by place. */
export function match(before: readonly Slide[], list: readonly FromText[]): Map<string, string> {
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
    for (const old of free.values()) if (key(old)) waiting.set(key(old), [...(waiting.get(key(old)) ?? []), old]);
    for (const slide of made) {
      const old = pairs.has(slide.id) || named.has(slide.id) ? undefined : waiting.get(key(slide))?.shift();
      if (old) pair(slide, old);
    }
  };
  by(signature);
  by(titleOf);
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

function slideChanges(old: Slide, made: Slide): SingleChange[] {
  if (old.arrangement === made.arrangement && old.hidden === made.hidden && signature(old) === signature(made)) return [];
  const changes: SingleChange[] = [];
  const before = slotTexts(old);
  const after = slotTexts(made);
  const slots: Record<string, string | null> = {};
  for (const [slot, { elements, text }] of after) {
    const held = before.get(slot);
    if (held && written(held.text) === written(text)) continue;
    const [first, ...rest] = held?.elements ?? [];
    if (first) {
      changes.push({ kind: "setText", slide: old.id, element: first.id, text });
      changes.push(...rest.map((element): SingleChange => ({ kind: "deleteElement", slide: old.id, element: element.id })));
    } else changes.push({ kind: "insertElement", slide: old.id, element: elements[0] as Element, index: slot === "title" ? 0 : old.elements.length });
  }
  for (const [slot, { elements }] of before) {
    if (!after.has(slot)) changes.push(...elements.map((element): SingleChange => ({ kind: "deleteElement", slide: old.id, element: element.id })));
  }
  const pictures = old.elements.filter((element) => element.kind === "picture");
  const wanted = made.elements.filter((element) => element.kind === "picture");
  const same = (a: (typeof wanted)[number], b: (typeof wanted)[number]) => a.source === b.source && a.alt === b.alt;
  for (const picture of pictures) if (!wanted.some((other) => same(picture, other))) changes.push({ kind: "deleteElement", slide: old.id, element: picture.id });
  for (const picture of wanted) if (!pictures.some((other) => same(picture, other))) changes.push({ kind: "insertElement", slide: old.id, element: picture, index: old.elements.length });
  if (old.arrangement !== made.arrangement) changes.push({ kind: "setArrangement", slide: old.id, arrangement: made.arrangement, slots });
  if (written(old.notes) !== written(made.notes)) changes.push({ kind: "setNotes", slide: old.id, notes: made.notes });
  if (old.hidden !== made.hidden) changes.push({ kind: "setHidden", slide: old.id, hidden: made.hidden });
  return changes;
}

function headChanges(before: DeckHead, after: DeckHead): SingleChange[] {
  const changed = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);
  const changes: SingleChange[] = [];
  if (changed(before.properties, after.properties)) changes.push({ kind: "setProperties", properties: after.properties });
  if (before.language !== after.language) changes.push({ kind: "setLanguage", language: after.language });
  if (changed(before.page, after.page)) changes.push({ kind: "setPage", page: after.page });
  if (before.theme.name !== after.theme.name) changes.push({ kind: "setTheme", theme: after.theme });
  if (changed(before.regions, after.regions)) changes.push({ kind: "setRegions", regions: after.regions });
  if (before.rate !== after.rate) changes.push({ kind: "setRate", rate: after.rate });
  return changes;
}

/**
 * The change that makes the deck say what its text now says, touching only what differs: slides that stay keep their
 * ids and all that the text does not speak of. Undefined when the deck says it already. `ids` gives, for each slide
 * made, the id that it has in the deck.
 */
export function reconcile(deck: Deck, head: DeckHead, list: readonly FromText[]): { change: Change | undefined; ids: string[] } {
  const made = list.map(({ slide }) => slide);
  const pairs = match(deck.slides, list);
  const idOf = (slide: string) => pairs.get(slide) ?? slide;
  const kept = new Set(pairs.values());
  const changes: SingleChange[] = headChanges(deck, head);
  let current = deck;
  const take = (...next: SingleChange[]) => {
    changes.push(...next);
    if (next.length) current = apply(current, together(next)).deck;
  };
  take(...deck.slides.filter((slide) => !kept.has(slide.id)).map((slide): SingleChange => ({ kind: "deleteSlide", slide: slide.id })));
  const wanted = made.map((slide) => ({ id: idOf(slide.id), parent: slide.parent === null ? null : idOf(slide.parent) }));
  const stay = steady(current.slides, wanted);
  const last = new Map<string | null, string>();
  const old = new Map(deck.slides.map((slide) => [slide.id, slide]));
  made.forEach((slide, index) => {
    const { id, parent } = wanted[index] as (typeof wanted)[number];
    const place = { parent, after: last.get(parent) ?? null };
    if (!pairs.has(slide.id)) take({ kind: "insertSlide", slide: { ...slide, parent }, place });
    else if (!stay.has(id)) take({ kind: "moveSlide", slide: id, place });
    last.set(parent, id);
  });
  made.forEach((slide) => {
    const before = old.get(idOf(slide.id));
    if (before) take(...slideChanges(before, slide));
  });
  return { change: changes.length ? together(changes) : undefined, ids: wanted.map(({ id }) => id) };
}

/** The slides that need no move: for each parent, a longest run of its children that stand in the wanted order already. */
function steady(slides: readonly Slide[], wanted: readonly { id: string; parent: string | null }[]): Set<string> {
  const now = new Map(slides.map((slide, index) => [slide.id, { index, parent: slide.parent }]));
  const groups = new Map<string | null, { id: string; index: number }[]>();
  for (const { id, parent } of wanted) {
    const at = now.get(id);
    if (at && at.parent === parent) groups.set(parent, [...(groups.get(parent) ?? []), { id, index: at.index }]);
  }
  const stay = new Set<string>();
  for (const group of groups.values()) for (const id of longestIncreasing(group)) stay.add(id);
  return stay;
}

/** A longest increasing subsequence by patience sorting, O(n log n). */
function longestIncreasing(items: readonly { id: string; index: number }[]): string[] {
  const tails: number[] = [];
  const previous: (number | undefined)[] = [];
  items.forEach((item, at) => {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((items[tails[middle] as number]?.index ?? 0) < item.index) low = middle + 1;
      else high = middle;
    }
    previous[at] = low > 0 ? tails[low - 1] : undefined;
    tails[low] = at;
  });
  const ids: string[] = [];
  for (let at = tails.at(-1); at !== undefined; at = previous[at]) ids.push(items[at]?.id as string);
  return ids;
}

