import type { Change } from "@unitext/core/edit";
import type { SentChange } from "@unitext/server/api";

const named = ({ description }: SentChange) => (description ? `“${description}”` : "a change");

/**
 * Says what became of one's own changes after somebody else's: those that could not be applied and those that landed
 * elsewhere. Undefined when all stand as they were made.
 */
export function conflictNotice(refused: readonly SentChange[], adapted: readonly SentChange[]): string | undefined {
  const [first] = refused;
  if (first)
    return `Somebody else changed the same thing: ${refused.length === 1 ? `${named(first)} of yours` : `${refused.length} of your changes`} could not be put on top of theirs.`;
  const [moved] = adapted;
  if (moved)
    return `Somebody else changed the order: ${adapted.length === 1 ? `${named(moved)} was` : `${adapted.length} of your changes were`} put next to what is there now.`;
  return undefined;
}

/** Whether a change only adds slides and pictures, as the reading of a file does. */
export const onlyAdds = (change: Change): boolean =>
  change.kind === "batch" && change.changes.every(({ kind }) => kind === "insertSlide" || kind === "setAsset");
