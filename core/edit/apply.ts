import { type Deck, must } from "@unitext/core/model";
import { type Change, type Handler, type SingleChange, singles, batch } from "./change";
import * as comments from "./comments";
import * as content from "./content";
import * as metadata from "./metadata";
import * as order from "./order";

const HANDLERS: { [K in SingleChange["kind"]]: Handler<Extract<SingleChange, { kind: K }>> } = {
  insertSlide: order.insertSlide,
  deleteSlide: order.deleteSlide,
  moveSlide: order.moveSlide,
  setHidden: content.setHidden,
  setVoice: content.setVoice,
  setNotes: content.setNotes,
  setArrangement: content.setArrangement,
  setText: content.setText,
  insertElement: content.insertElement,
  deleteElement: content.deleteElement,
  setElement: content.setElement,
  setSlideProperties: content.setSlideProperties,
  putComment: comments.putComment,
  removeComment: comments.removeComment,
  putReply: comments.putReply,
  removeReply: comments.removeReply,
  setDone: comments.setDone,
  setSource: content.setSource,
  setProperties: metadata.setProperties,
  setLanguage: metadata.setLanguage,
  setPage: metadata.setPage,
  setTheme: metadata.setTheme,
  setLayouts: metadata.setLayouts,
  setRegions: metadata.setRegions,
  setRate: metadata.setRate,
  setAsset: metadata.setAsset,
  setManuscript: metadata.setManuscript,
  setSlide: content.setSlide,
  setSlideTheme: content.setSlideTheme,
  setImportedTheme: metadata.setImportedTheme,
  setMaster: metadata.setMaster,
  setTextStyle: metadata.setTextStyle,
  setOriginal: metadata.setOriginal,
};

function handler(change: SingleChange): Handler<SingleChange> {
  return HANDLERS[change.kind] as Handler<SingleChange>;
}

/**
 * Applies a change. Returns the new deck, which shares every slide that the change does not touch, and the inverse:
 * `apply(apply(deck, change).deck, inverse).deck` equals `deck`. Throws a Failure `conflict` when the change names
 * something that is not in the deck, and `not-valid` when it would break the model; the given deck is never altered.
 */
export function apply(deck: Deck, change: Change): { deck: Deck; inverse: Change } {
  let current = deck;
  const undo: (readonly SingleChange[])[] = [];
  for (const next of singles(change)) {
    const result = handler(next).apply(current, next);
    current = result.deck;
    undo.push(result.inverse);
  }
  return { deck: current, inverse: batch(undo.reverse().flat()) };
}

/** Returns the aspects of the deck that a change writes. */
export function writeSet(change: Change): string[] {
  return [...new Set(singles(change).flatMap((next) => handler(next).writeSet(next)))];
}

/**
 * Whether two changes made on the same version write the same thing: an aspect of one equals or contains an aspect of
 * the other.
 */
export function conflicts(a: readonly string[], b: readonly string[]): boolean {
  return overlaps(a, new Set(b)) || overlaps(b, new Set(a));
}

/** Whether a set holds an aspect or one that contains it. */
function overlaps(aspects: readonly string[], others: ReadonlySet<string>): boolean {
  return aspects.some((aspect) => {
    for (let end = aspect.length; end > 0; end = aspect.lastIndexOf("/", end - 1))
      if (others.has(aspect.slice(0, end))) return true;
    return false;
  });
}

/** Describes a change in a few words: "Moved 3 slides". */
export function describeChange(change: Change): string {
  const list = singles(change);
  const texts = [...new Set(list.map((next) => handler(next).describe(next)))];
  if (texts.length === 0) return "Nothing changed";
  if (texts.length === 1)
    return list.length === 1 ? must(texts[0]) : must(texts[0]).replace(/\ba (slide|picture)\b/, `${list.length} $1s`);
  const first = must(list[0]);
  return `${handler(first).describe(first)} and more (${list.length} changes)`;
}

/** Returns the ids of the slides whose bodies a change reads or writes, or "all" when it needs the running order. */
export function slidesNeeded(change: Change): string[] | "all" {
  const ids = new Set<string>();
  for (const next of singles(change)) {
    if (next.kind === "insertSlide" || next.kind === "deleteSlide" || next.kind === "moveSlide") return "all";
    if ("slide" in next) ids.add(next.slide);
  }
  return [...ids];
}
