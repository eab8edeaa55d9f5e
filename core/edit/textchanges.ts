import { cutText, type Deck, Failure, type RichText, slideWith, textOf } from "@unitext/core/model";
import { batch, type Change, type SingleChange, singles } from "./change";
import { mergeTexts } from "./mergetext";

/** A change that writes a whole text. */
export type TextChange = Extract<SingleChange, { kind: "setText" | "setNotes" }>;

const isTextChange = (change: SingleChange): change is TextChange =>
  change.kind === "setText" || change.kind === "setNotes";

/** Returns the parts of a change that write texts. */
export const textChanges = (change: Change): TextChange[] => singles(change).filter(isTextChange);

const written = (change: TextChange): RichText => (change.kind === "setNotes" ? change.notes : change.text);

/** Returns the text of a deck that a change writes; undefined where the deck has no such text. */
function textIn(deck: Deck, change: TextChange): RichText | undefined {
  const slide = slideWith(deck, change.slide);
  if (change.kind === "setNotes") return slide?.notes;
  const element = slide?.elements.find(({ id }) => id === change.element);
  return element?.kind === "text" ? element.text : undefined;
}

/**
 * Returns a change of texts that somebody else has changed since: with both changes in each text. `baseOf` returns a text
 * as it was before both. Returns the same object where nobody else changed them. Throws a Failure `conflict` with the
 * other's words where both have replaced the same words.
 */
function merged(change: Change, baseOf: (one: TextChange) => RichText | undefined, now: Deck): Change {
  let changed = false;
  const list = singles(change).map((one): SingleChange => {
    if (!isTextChange(one)) return one;
    const [base, theirs] = [baseOf(one), textIn(now, one)];
    if (!base || !theirs || base === theirs) return one;
    const mine = written(one);
    const text = mergeTexts(base, mine, theirs);
    if (!text)
      throw new Failure(
        "conflict",
        one.slide,
        `Somebody else has replaced the same words meanwhile. On the slide is now: “${cutText(textOf(theirs), 200)}”.`,
      );
    if (text === mine) return one;
    changed = true;
    return one.kind === "setNotes" ? { ...one, notes: text } : { ...one, text };
  });
  return changed ? batch(list) : change;
}

/** Merges a change that was made on `before` into the texts of the deck as others have made it. Throws as above. */
export const mergedInto = (change: Change, before: Deck, now: Deck): Change =>
  merged(change, (one) => textIn(before, one), now);

/**
 * Returns the inverse of a change without what others have written in the same texts since. `made` are the texts that
 * the change wrote. Throws a Failure `conflict` where others have replaced the same words.
 */
export function inverseNow(inverse: Change, made: readonly TextChange[], now: Deck): Change {
  const madeBy = (one: TextChange) =>
    made.find(
      (other) =>
        other.kind === one.kind &&
        other.slide === one.slide &&
        (other.kind === "setNotes" || (one.kind === "setText" && other.element === one.element)),
    );
  return merged(
    inverse,
    (one) => {
      const found = madeBy(one);
      return found && written(found);
    },
    now,
  );
}
