import { Failure } from "@unitext/core/model";

/** What a person may do with a deck; each right holds those before it. */
export const RIGHTS = ["view", "comment", "edit", "own"] as const;
export type Right = (typeof RIGHTS)[number];

/** The acts that routes perform on a deck, and the right that each asks for. */
export const ACTS = {
  see: "view",
  export: "view",
  copy: "view",
  change: "edit",
  addPicture: "edit",
  delete: "own",
} as const satisfies Record<string, Right>;
export type Act = keyof typeof ACTS;

/**
 * The one place that decides who may do what: passes when `right` (undefined for a stranger) allows the act, else
 * throws a Failure. A stranger learns nothing of a deck, not even that it exists.
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
