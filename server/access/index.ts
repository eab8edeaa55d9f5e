import { Failure } from "@unitext/core/model";

/** The rights that an owner can give; each includes those before it. “Copy” is to take a copy away, and nothing else. */
export const SHARED_RIGHTS = ["copy", "view", "comment", "edit"] as const;
export type SharedRight = (typeof SHARED_RIGHTS)[number];

/** What a user may do with a deck; each right includes those before it. */
export const RIGHTS = [...SHARED_RIGHTS, "own"] as const;
export type Right = (typeof RIGHTS)[number];

/** A user's right on a deck, and whether the speaker's notes are shared too. */
export interface Access {
  right: Right;
  notes: boolean;
}

/** The actions of routes on a deck, and the right that each requires. */
export const ACTS = {
  /** The slides as an audience sees them. */
  look: "view",
  see: "view",
  /** A file of the deck, or a copy of it on one's own Desk. */
  export: "copy",
  copy: "copy",
  /** Other decks that are made from it: parts, versions, translations. */
  derive: "view",
  comment: "comment",
  change: "edit",
  addPicture: "edit",
  delete: "own",
  file: "own",
  share: "own",
} as const satisfies Record<string, Right>;
export type Act = keyof typeof ACTS;

/** The actions that never show notes, so that a right without them is enough. All others need both. */
const WITHOUT_NOTES: ReadonlySet<Act> = new Set(["look", "export", "copy", "comment"]);

const REFUSALS: Record<Right, string> = {
  copy: "This deck was shared with you as a copy to take; ask its owner for the right to look at it here.",
  view: "This deck was shared with you to look at; ask its owner for the right to change it.",
  comment: "This deck was shared with you to look at and to comment on; ask its owner for the right to change it.",
  edit: "Only the owner of this deck may do this.",
  own: "",
};

/** Whether a right includes another one. */
export const includes = (right: Right, other: Right): boolean => RIGHTS.indexOf(right) >= RIGHTS.indexOf(other);

/**
 * Decides alone who may do what: passes when `right` (undefined for a stranger) allows the action, else throws a
 * Failure. A stranger learns nothing of a deck, not even that it exists.
 */
export function permit(right: Right | undefined, act: Act, deck: string, notes = true): asserts right is Right {
  if (right === undefined)
    throw new Failure("not-found", deck, "There is no deck at this address. It may have been deleted.");
  if (!includes(right, ACTS[act])) throw new Failure("not-permitted", deck, REFUSALS[right]);
  if (!notes && !WITHOUT_NOTES.has(act))
    throw new Failure(
      "not-permitted",
      deck,
      "This deck was shared with you without its notes, so it opens in its viewer only. Take a copy to work with it, or ask its owner for the notes.",
    );
}
