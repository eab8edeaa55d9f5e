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
import {
  type Binding,
  bindingsOn,
  type Deck,
  type DeckMetadata,
  type Element,
  emptyDeck,
  isInFileLayout,
  mapBoundRuns,
  mapSlideTexts,
  must,
  type Slide,
  slidePropertiesOf,
} from "@unitext/core/model";
import { normalText } from "@unitext/core/text";
import { holdsMoreThanText, wordChanges } from "./wordchanges";

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

/** The elements of a slide being brought in line with generated ones, with the changes that do it. */
class ElementUpdate {
  readonly changes: SingleChange[] = [];
  /** The slots of elements that move to another one. */
  readonly slots: Record<string, string | null> = {};
  private readonly order: Element[];
  /** The index of the last element that has its place. */
  private last = -1;

  constructor(private readonly slide: Slide) {
    this.order = slide.elements.slice();
  }

  run(made: Slide): void {
    const [before, after] = [unitsOf(this.slide), unitsOf(made)];
    const pairs = pairUnits(before, after);
    const paired = new Set(pairs.values());
    for (const unit of before) if (!paired.has(unit)) for (const element of unit.elements) this.delete(element);
    // Empty texts that the text does not mention give way where their slot gets words.
    const listed = new Set(before.flatMap(({ elements }) => elements));
    for (const element of this.slide.elements)
      if (!listed.has(element) && after.some(({ slot }) => slot === element.slot)) this.delete(element);
    for (const unit of after) {
      const held = pairs.get(unit);
      if (held) this.update(held, unit);
      else this.insert(must(unit.elements[0]));
    }
  }

  private delete(element: Element): void {
    this.changes.push({ kind: "deleteElement", slide: this.slide.id, element: element.id });
    this.order.splice(this.order.indexOf(element), 1);
  }

  private insert(element: Element): void {
    this.last += 1;
    this.changes.push({ kind: "insertElement", slide: this.slide.id, element, index: this.last });
    this.order.splice(this.last, 0, element);
  }

  private update(held: Unit, unit: Unit): void {
    const [first, ...rest] = held.elements as [Element, ...Element[]];
    const wanted = must(unit.elements[0]);
    const isChanged = held.key !== unit.key;
    if (isChanged) {
      this.changes.push(this.contentChange(first, wanted, unit));
      for (const element of rest) this.delete(element);
    }
    if (held.slot !== unit.slot)
      for (const element of held.elements) if (this.order.includes(element)) this.slots[element.id] = wanted.slot;
    const at = this.order.indexOf(first);
    if (at > this.last) this.last = at;
    else this.reinsert(first, isChanged ? this.changed(first, wanted, unit) : first, at);
  }

  private contentChange(first: Element, wanted: Element, unit: Unit): SingleChange {
    const slide = this.slide.id;
    if (wanted.kind === "text" && first.kind === "text" && wanted.steps === first.steps)
      return { kind: "setText", slide, element: first.id, text: joinedText(unit.elements) };
    const { id: _, slot: __, frame: ___, binding: ____, ...content } = wanted;
    const element = {
      ...content,
      ...(wanted.kind === "text" ? { text: joinedText(unit.elements) } : {}),
      id: first.id,
      slot: first.slot,
      ...(first.frame ? { frame: first.frame } : {}),
      ...(first.binding ? { binding: first.binding } : {}),
      ...(first.entrance ? { entrance: first.entrance } : {}),
    } as Element;
    return { kind: "setElement", slide, element };
  }

  /** Returns an element with the changes that it got so far. */
  private changed(first: Element, wanted: Element, unit: Unit): Element {
    const change = this.changes.findLast((one) => one.kind === "setElement" && one.element.id === first.id);
    const content = change?.kind === "setElement" ? change.element : {};
    const text = wanted.kind === "text" ? { text: joinedText(unit.elements) } : {};
    return { ...content, ...first, ...text } as Element;
  }

  /** Takes an element out that comes before the one it should follow, and inserts it again after it. */
  private reinsert(first: Element, now: Element, at: number): void {
    const slide = this.slide.id;
    this.changes.push({ kind: "deleteElement", slide, element: first.id });
    this.order.splice(at, 1);
    this.changes.push({ kind: "insertElement", slide, element: now, index: this.last });
    this.order.splice(this.last, 0, first);
  }
}

/** Returns the change that puts a slide, after other changes, into the layout that it is made in now. */
function layoutChange(old: Slide, made: Slide, changes: readonly SingleChange[]): SingleChange {
  const alone = { ...emptyDeck("layout", ""), slides: [{ ...old, parent: null }] };
  const next = must(apply(alone, batch([...changes])).deck.slides[0]);
  const { regions: _, ...rest } = next;
  const bySlot = new Map(made.elements.map((element) => [element.slot, element]));
  const elements = next.elements.map((element): Element => {
    const fresh = element.frame ? undefined : bySlot.get(element.slot);
    if (!fresh || element.kind !== "text" || fresh.kind !== "text") return element;
    const { style: __, box: ___, ...bare } = element;
    return {
      ...bare,
      ...(fresh.style === undefined ? {} : { style: fresh.style }),
      ...(fresh.box ? { box: fresh.box } : {}),
    };
  });
  const as: Slide = {
    ...rest,
    parent: old.parent,
    elements,
    ...(made.master === undefined ? {} : { master: made.master }),
    ...(made.regions ? { regions: made.regions } : {}),
  };
  return { kind: "setSlide", slide: old.id, as };
}

/**
 * Returns the changes that bring a slide of the deck in line with a generated one. What the text does not mention
 * stays.
 */
export function slideChanges(old: Slide, made: Slide): SingleChange[] {
  const changes: SingleChange[] = [];
  const slide = old.id;
  if (contentKey(old) !== contentKey(made)) {
    const update = new ElementUpdate(old);
    update.run(made);
    const { slots } = update;
    changes.push(...update.changes);
    if (old.arrangement !== made.arrangement || Object.keys(slots).length)
      changes.push({ kind: "setArrangement", slide, arrangement: made.arrangement, slots });
    if (JSON.stringify(normalText(old.notes)) !== JSON.stringify(normalText(made.notes)))
      changes.push({ kind: "setNotes", slide, notes: made.notes });
    if (JSON.stringify(slidePropertiesOf(old)) !== JSON.stringify(slidePropertiesOf(made)))
      changes.push({ kind: "setSlideProperties", slide, properties: slidePropertiesOf(made) });
  }
  if (old.hidden !== made.hidden) changes.push({ kind: "setHidden", slide, hidden: made.hidden });
  if (isInFileLayout(old) && isInFileLayout(made) && old.master !== made.master)
    changes.push(layoutChange(old, made, changes));
  if ("source" in made && JSON.stringify(old.source) !== JSON.stringify(made.source))
    changes.push({ kind: "setSource", slide, source: made.source ?? null });
  return changes;
}

const cellsKey = ({ source, range, use, format }: Binding) => JSON.stringify([source, range, use, format]);

/** Returns the bindings of a deck by their cells, with what was taken of them. */
function takenBindings(deck: Deck): Map<string, Binding> {
  return new Map(deck.slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => [cellsKey(binding), binding])));
}

/** Returns a slide made of a text, which says the cells of its values, with what the deck knows of those cells. */
function withTaken(slide: Slide, known: ReadonlyMap<string, Binding>): Slide {
  if (!known.size) return slide;
  const tied = <T extends { binding?: Binding | undefined }>(holder: T): T => {
    const taken = holder.binding && known.get(cellsKey(holder.binding));
    return taken ? { ...holder, binding: { ...taken, mode: holder.binding?.mode ?? taken.mode } } : holder;
  };
  const elements = slide.elements.map(tied);
  return mapSlideTexts({ ...slide, elements }, (text) => mapBoundRuns(text, tied));
}

/** The tables and charts of a slide, whose cells the text form says. */
const boundFigures = (slide: Slide) => unitsOf(slide).filter(({ kind }) => kind === "table" || kind === "chart");

/** Returns the changes that link, or unlink, the tables and charts of a slide as its typed text says. */
function bindingChanges(old: Slide, made: Slide): SingleChange[] {
  return [...pairUnits(boundFigures(old), boundFigures(made))].flatMap(([wanted, held]): SingleChange[] => {
    const [first, next] = [must(held.elements[0]), must(wanted.elements[0])];
    const said = ({ binding }: Element) => binding && [cellsKey(binding), binding.mode];
    if (JSON.stringify(said(first)) === JSON.stringify(said(next))) return [];
    const { binding: _, ...rest } = first;
    const element = { ...rest, ...(next.binding ? { binding: next.binding } : {}) } as Element;
    return [{ kind: "setElement", slide: old.id, element }];
  });
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
  given: readonly PairCandidate[],
  { typed = false }: { typed?: boolean } = {},
): { change: Change | undefined; ids: string[] } {
  const fitted = singles(changePage(before, metadata.page));
  const deck = fitted.length ? apply(before, batch(fitted)).deck : before;
  const known = takenBindings(before);
  const list = given.map((one) => ({ ...one, slide: withTaken(one.slide, known) }));
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
    const now = typed && current.slides.find(({ id }) => id === own.id);
    if (now) take(...bindingChanges(now, slide));
  });
  take(...commentsLeft(deck.slides, current.slides));
  return { change: changes.length ? batch(changes) : undefined, ids: wanted.map(({ id }) => id) };
}

/**
 * Returns the changes that keep the comments of slides that are no longer there: on the nearest slide before them that is,
 * else on the first. They keep the words that they were on as a quotation.
 */
function commentsLeft(before: readonly Slide[], now: readonly Slide[]): SingleChange[] {
  const there = new Set(now.map(({ id }) => id));
  let [host] = now;
  return before.flatMap((slide): SingleChange[] => {
    if (there.has(slide.id)) host = slide;
    else if (host) {
      const on = host.id;
      return (slide.comments ?? []).map(({ element: _, at: __, ...comment }) => ({
        kind: "putComment",
        slide: on,
        comment,
      }));
    }
    return [];
  });
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
