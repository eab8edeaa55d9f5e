import { Failure } from "@unitext/core/model";

/** What a user may do with a deck; each right includes those before it. */
export const RIGHTS = ["view", "comment", "edit", "own"] as const;
export type Right = (typeof RIGHTS)[number];

/** The actions of routes on a deck, and the right that each requires. */
export const ACTS = {
  see: "view",
  export: "view",
  copy: "view",
  change: "edit",
  addPicture: "edit",
  delete: "own",
  file: "own",
} as const satisfies Record<string, Right>;
export type Act = keyof typeof ACTS;

/**
 * Decides alone who may do what: passes when `right` (undefined for a stranger) allows the action, else throws a
 * Failure. A stranger learns nothing of a deck, not even that it exists.
 */
export function permit(right: Right | undefined, act: Act, deck: string): void {
  if (right === undefined)
    throw new Failure("not-found", deck, "There is no deck at this address. It may have been deleted.");
  if (RIGHTS.indexOf(right) < RIGHTS.indexOf(ACTS[act]))
    throw new Failure(
      "not-permitted",
      deck,
      "This deck was shared with you to look at; ask its owner for the right to change it.",
    );
}
