import { type Deck, Failure, type Slide, must } from "@unitext/core/model";
import { apply } from "./apply";
import { mergedInto } from "./textchanges";
import { type Change, type Place, type SingleChange, singles, batch } from "./change";

/** A change made on this page, with its id in the log. */
export interface OwnChange {
  id: string;
  change: Change;
}

/** A committed change, in the server's order. Its content is left out where the page that asks made it. */
export interface LogEntry {
  version: number;
  id: string;
  change?: Change | undefined;
}

/** A deck as one page has it: the committed deck at a version, and the page's own pending changes applied on top. */
export interface Replica<Own extends OwnChange = OwnChange> {
  version: number;
  committed: Deck;
  pending: readonly Own[];
  deck: Deck;
}

/** An own change that could not be applied on top of others' changes, and why. */
export interface RefusedChange<Own extends OwnChange> {
  own: Own;
  reason: string;
}

/**
 * A replica after others' changes were taken in, and what became of its pending changes: their inverses, those that
 * were adapted, and those that were refused.
 */
export interface Integrated<Own extends OwnChange> {
  replica: Replica<Own>;
  inverses: ReadonlyMap<string, Change>;
  adapted: readonly Own[];
  refused: readonly RefusedChange<Own>[];
}

/** Returns the replica of a deck at a committed version, without pending changes. */
export function openReplica<Own extends OwnChange>(deck: Deck, version: number): Replica<Own> {
  return { version, committed: deck, pending: [], deck };
}

/**
 * Applies a change of the page's own on top. Also returns its inverse. Throws a Failure, as `apply` does, when it does
 * not fit.
 */
export function applyOwn<Own extends OwnChange>(
  replica: Replica<Own>,
  own: Own,
): { replica: Replica<Own>; inverse: Change } {
  const { deck, inverse } = apply(replica.deck, own.change);
  return { replica: { ...replica, deck, pending: [...replica.pending, own] }, inverse };
}

/**
 * Returns the place of a slide whose previous sibling is gone: after the last earlier sibling that remains, or on the
 * main line when its main slide is gone.
 */
function nearestPlace(place: Place, before: readonly Slide[], now: ReadonlyMap<string, Slide>): Place {
  const parent = place.parent !== null && now.has(place.parent) ? place.parent : null;
  const moved = parent !== place.parent;
  if (moved) {
    // The details of a deleted slide are now in its place.
    const main = before.findIndex(({ id }) => id === place.parent);
    for (let at = main - 1; at >= 0; at--)
      if (before[at]?.parent === null && now.get(before[at]?.id ?? "")?.parent === null)
        return { parent: null, after: must(before[at]).id };
    return { parent: null, after: null };
  }
  let at = before.findIndex(({ id }) => id === place.after);
  for (; at >= 0; at--) {
    const sibling = must(before[at]);
    if (sibling.parent === parent && now.get(sibling.id)?.parent === parent) return { parent, after: sibling.id };
  }
  return { parent, after: null };
}

/**
 * Adapts a change to a deck in which others moved or deleted the neighbour that it names. Returns the same object when
 * nothing needs adapting.
 */
function adaptTo(change: Change, before: Deck, now: Deck): Change {
  const bySlide = new Map(now.slides.map((slide) => [slide.id, slide]));
  const known = new Set<string>(bySlide.keys());
  let changed = false;
  const list = singles(change).map((one): SingleChange => {
    if (one.kind === "insertSlide") known.add(one.slide.id);
    if (one.kind !== "insertSlide" && one.kind !== "moveSlide") return one;
    const { parent, after } = one.place;
    // A neighbour that the same change inserts exists by the time it is needed.
    const own = (id: string | null) => id !== null && known.has(id) && !bySlide.has(id);
    if (own(parent) || own(after)) return one;
    const fits = (parent === null || bySlide.has(parent)) && (after === null || bySlide.get(after)?.parent === parent);
    if (fits) return one;
    changed = true;
    return { ...one, place: nearestPlace(one.place, before.slides, bySlide) };
  });
  return changed ? batch(list) : change;
}

/**
 * Takes in the changes committed since the replica's version, in the order of the log: undoes the page's pending
 * changes, applies the log, and applies the pending changes again. Own changes found in the log are committed and stay
 * where the log has them. Each pending change is kept, adapted to its neighbours' new places, merged with what others wrote in the same text, or refused. Throws a
 * Failure when the log does not continue the replica's version.
 */
export function integrate<Own extends OwnChange>(replica: Replica<Own>, log: readonly LogEntry[]): Integrated<Own> {
  const fresh = log.filter((entry) => entry.version > replica.version);
  if (fresh.length === log.length && fresh.length > 0 && fresh.every(({ id }, at) => id === replica.pending[at]?.id))
    return acknowledged(replica, fresh);
  const own = new Map(replica.pending.map((one) => [one.id, one]));
  let { committed, version } = replica;
  for (const entry of log) {
    if (entry.version <= replica.version) {
      own.delete(entry.id);
      continue;
    }
    const change = entry.change ?? own.get(entry.id)?.change;
    if (!change) throw new Failure("conflict", entry.id, "A change in the log came without its content.");
    committed = apply(committed, change).deck;
    version = entry.version;
    own.delete(entry.id);
  }
  return rebaseOwn({ ...replica, version, committed }, [...own.values()], replica.committed);
}

/**
 * Marks a replica's first pending changes as committed unchanged, with no changes of others between. What it shows
 * stays the same.
 */
function acknowledged<Own extends OwnChange>(replica: Replica<Own>, log: readonly LogEntry[]): Integrated<Own> {
  const pending = replica.pending.slice(log.length);
  const committed = pending.length
    ? replica.pending.slice(0, log.length).reduce((deck, { change }) => apply(deck, change).deck, replica.committed)
    : replica.deck;
  return {
    replica: { version: must(log.at(-1)).version, committed, pending, deck: replica.deck },
    inverses: new Map(),
    adapted: [],
    refused: [],
  };
}

/** Applies pending changes to a committed deck again. `before` is the deck on which the first of them was made. */
export function rebaseOwn<Own extends OwnChange>(
  { version, committed }: Pick<Replica<Own>, "version" | "committed">,
  waiting: readonly Own[],
  before: Deck,
): Integrated<Own> {
  const inverses = new Map<string, Change>();
  const adapted: Own[] = [];
  const refused: RefusedChange<Own>[] = [];
  const pending: Own[] = [];
  let deck = committed;
  let was = before;
  for (const one of waiting) {
    try {
      const change = adaptTo(mergedInto(one.change, was, deck), was, deck);
      const applied = apply(deck, change);
      deck = applied.deck;
      inverses.set(one.id, applied.inverse);
      const kept = change === one.change ? one : { ...one, change };
      pending.push(kept);
      if (kept !== one) adapted.push(kept);
    } catch (error) {
      refused.push({ own: one, reason: error instanceof Error ? error.message : "It does not fit any more." });
    }
    try {
      was = apply(was, one.change).deck;
    } catch {
      // It depends on a change that is committed by now. The deck before it still shows the slides' neighbours.
    }
  }
  return { replica: { version, committed, pending, deck }, inverses, adapted, refused };
}
