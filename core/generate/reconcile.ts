import {
  contentKey,
  type PairCandidate,
  metadataChanges,
  joinedText,
  pairByContent,
  type Unit,
  unitsOf,
} from "@unitext/core/diff";
import { apply, type Change, changePage, type SingleChange, singles, batch } from "@unitext/core/edit";
import { type Deck, type DeckMetadata, type Element, slidePropertiesOf, type Slide, must } from "@unitext/core/model";
import { normalText } from "@unitext/core/text";
import { wordChanges, holdsMoreThanText } from "./wordchanges";

/**
 * Pairs the units of a generated slide with those of the deck's slide: equal ones in equal slots first, then equal
 * slots, equal content, equal kinds.
 */
function pairUnits(before: readonly Unit[], after: readonly Unit[]): Map<Unit, Unit> {
  const pairs = new Map<Unit, Unit>();
  const free = new Set(before);
  const pass = (same: (one: Unit, other: Unit) => boolean) => {
    for (const unit of after) {
      if (pairs.has(unit)) continue;
      for (const old of free) {
        if (old.kind !== unit.kind || !same(old, unit)) continue;
        pairs.set(unit, old);
        free.delete(old);
        break;
      }
    }
  };
  pass((a, b) => a.slot === b.slot && a.key === b.key);
  pass((a, b) => a.slot === b.slot);
  pass((a, b) => a.slot !== "title" && b.slot !== "title" && a.key === b.key);
  pass((a, b) => a.slot !== "title" && b.slot !== "title");
  return pairs;
}

/**
 * Returns the changes that bring a slide of the deck in line with a generated one. What the text does not mention
 * stays.
 */
export function slideChanges(old: Slide, made: Slide): SingleChange[] {
  const changes: SingleChange[] = [];
  const id = old.id;
  if (contentKey(old) !== contentKey(made)) {
    const before = unitsOf(old);
    const after = unitsOf(made);
    const pairs = pairUnits(before, after);
    const kept = new Set(pairs.values());
    const slots: Record<string, string | null> = {};
    // Empty texts that the text does not mention give way where their slot gets words.
    const order = old.elements.slice();
    const drop = (element: Element) => {
      changes.push({ kind: "deleteElement", slide: id, element: element.id });
      order.splice(order.indexOf(element), 1);
    };
    for (const unit of before) if (!kept.has(unit)) for (const element of unit.elements) drop(element);
    const listed = new Set(before.flatMap(({ elements }) => elements));
    for (const element of old.elements)
      if (!listed.has(element) && after.some(({ slot }) => slot === element.slot)) drop(element);
    let last = -1;
    for (const unit of after) {
      const held = pairs.get(unit);
      const [wanted] = unit.elements as [Element, ...Element[]];
      if (!held) {
        changes.push({ kind: "insertElement", slide: id, element: wanted, index: last + 1 });
        order.splice(last + 1, 0, wanted);
        last += 1;
        continue;
      }
      const [first, ...rest] = held.elements as [Element, ...Element[]];
      if (held.key !== unit.key) {
        if (wanted.kind === "text" && first.kind === "text" && wanted.steps === first.steps)
          changes.push({ kind: "setText", slide: id, element: first.id, text: joinedText(unit.elements) });
        else {
          const { id: _, slot: __, frame: ___, binding: ____, ...content } = wanted;
          const next = {
            ...content,
            ...(wanted.kind === "text" ? { text: joinedText(unit.elements) } : {}),
            id: first.id,
            slot: first.slot,
            ...(first.frame ? { frame: first.frame } : {}),
            ...(first.binding ? { binding: first.binding } : {}),
            ...(first.entrance ? { entrance: first.entrance } : {}),
          } as Element;
          changes.push({ kind: "setElement", slide: id, element: next });
        }
        for (const element of rest) drop(element);
      }
      if (held.slot !== unit.slot)
        for (const element of held.elements) if (order.includes(element)) slots[element.id] = wanted.slot;
      const at = order.indexOf(first);
      if (at > last) last = at;
      else {
        // It comes before the element that it should follow: it is taken out and inserted again.
        const now: Element =
          held.key === unit.key
            ? first
            : ({
                ...(
                  changes.findLast((change) => change.kind === "setElement" && change.element.id === first.id) as
                    | { element: Element }
                    | undefined
                )?.element,
                ...first,
                ...(wanted.kind === "text" ? { text: joinedText(unit.elements) } : {}),
              } as Element);
        changes.push({ kind: "deleteElement", slide: id, element: first.id });
        order.splice(at, 1);
        changes.push({ kind: "insertElement", slide: id, element: now, index: last });
        order.splice(last, 0, first);
      }
    }
    if (old.arrangement !== made.arrangement || Object.keys(slots).length)
      changes.push({ kind: "setArrangement", slide: id, arrangement: made.arrangement, slots });
    if (JSON.stringify(normalText(old.notes)) !== JSON.stringify(normalText(made.notes)))
      changes.push({ kind: "setNotes", slide: id, notes: made.notes });
    if (JSON.stringify(slidePropertiesOf(old)) !== JSON.stringify(slidePropertiesOf(made)))
      changes.push({ kind: "setSlideProperties", slide: id, properties: slidePropertiesOf(made) });
  }
  if (old.hidden !== made.hidden) changes.push({ kind: "setHidden", slide: id, hidden: made.hidden });
  if ("source" in made && JSON.stringify(old.source) !== JSON.stringify(made.source))
    changes.push({ kind: "setSource", slide: id, source: made.source ?? null });
  return changes;
}

/**
 * Returns the change that brings the deck in line with its text and touches only what differs: remaining slides keep
 * their ids and everything that the text does not mention. Undefined when nothing differs. `ids` gives the deck's id of
 * each generated slide. With `typed`, the text was written of the deck itself: slides that hold more than the text can
 * say are updated word by word.
 */
export function reconcile(
  before: Deck,
  metadata: DeckMetadata,
  list: readonly PairCandidate[],
  { typed = false }: { typed?: boolean } = {},
): { change: Change | undefined; ids: string[] } {
  const fitted = singles(changePage(before, metadata.page));
  const deck = fitted.length ? apply(before, batch(fitted)).deck : before;
  const made = list.map(({ slide }) => slide);
  const pairs = pairByContent(deck.slides, list);
  const idOf = (slide: string) => pairs.get(slide) ?? slide;
  const kept = new Set(pairs.values());
  const changes: SingleChange[] = [...fitted, ...metadataChanges(deck, metadata)];
  let current = deck;
  const take = (...next: SingleChange[]) => {
    changes.push(...next);
    if (next.length) current = apply(current, batch(next)).deck;
  };
  take(
    ...deck.slides
      .filter((slide) => !kept.has(slide.id))
      .map((slide): SingleChange => ({ kind: "deleteSlide", slide: slide.id })),
  );
  const wanted = made.map((slide) => ({
    id: idOf(slide.id),
    parent: slide.parent === null ? null : idOf(slide.parent),
  }));
  const stay = slidesThatStay(current.slides, wanted);
  const last = new Map<string | null, string>();
  const old = new Map(deck.slides.map((slide) => [slide.id, slide]));
  made.forEach((slide, index) => {
    const { id, parent } = must(wanted[index]);
    const place = { parent, after: last.get(parent) ?? null };
    if (!pairs.has(slide.id)) take({ kind: "insertSlide", slide: { ...slide, parent }, place });
    else if (!stay.has(id)) take({ kind: "moveSlide", slide: id, place });
    last.set(parent, id);
  });
  made.forEach((slide) => {
    const own = old.get(idOf(slide.id));
    if (!own) return;
    if (!typed || !holdsMoreThanText(own)) take(...slideChanges(own, slide));
    else
      take(
        ...wordChanges(own, slide, own === deck.slides[0]),
        ...(own.hidden !== slide.hidden ? [{ kind: "setHidden" as const, slide: own.id, hidden: slide.hidden }] : []),
      );
  });
  return { change: changes.length ? batch(changes) : undefined, ids: wanted.map(({ id }) => id) };
}

/**
 * Returns the slides that need no move: under each parent, a longest run of children that are in the wanted order
 * already.
 */
function slidesThatStay(
  slides: readonly Slide[],
  wanted: readonly { id: string; parent: string | null }[],
): Set<string> {
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
      if ((items[must(tails[middle])]?.index ?? 0) < item.index) low = middle + 1;
      else high = middle;
    }
    previous[at] = low > 0 ? tails[low - 1] : undefined;
    tails[low] = at;
  });
  const ids: string[] = [];
  for (let at = tails.at(-1); at !== undefined; at = previous[at]) ids.push(must(items[at]?.id));
  return ids;
}
