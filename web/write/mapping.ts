import { must, type Slide } from "@unitext/core/model";
import type { Lines, Problem, Reason } from "@unitext/core/text";
import type { core, Followed } from "../worker";

/** How the slides of the deck lie along the text: the id, lines and reason of each generated slide. */
export interface Mapping {
  ids: readonly string[];
  lines: readonly Lines[];
  reasons: readonly (Reason | undefined)[];
  problems: readonly Problem[];
  /** The slides that the user changed since the text made them. */
  hand: ReadonlySet<string>;
}

const NOTHING: Mapping = { ids: [], lines: [], reasons: [], problems: [], hand: new Set() };

/** Returns the lines that the slides recorded, before the text was read again. */
export function remembered(slides: readonly Slide[]): Mapping {
  const known = slides.filter(({ source }) => source);
  return {
    ...NOTHING,
    ids: known.map(({ id }) => id),
    lines: known.map(({ source }) => ({ from: source?.from ?? 1, to: source?.to ?? 1 })),
  };
}

/** Returns the lines of the slides in a text that was written from them. */
export const mappingOfWritten = (slides: readonly Slide[], lines: readonly Lines[]): Mapping => ({
  ...NOTHING,
  ids: slides.map(({ id }) => id),
  lines,
  reasons: slides.map(() => undefined),
});

/** Returns the lines of the slides that a run of the rule found or made. */
export function mappingOf({ ids, lines, reasons, problems, hand }: Awaited<ReturnType<typeof core.take>>): Mapping {
  const made = ids.flatMap((id, nth) => (id === null ? [] : [{ id, lines: must(lines[nth]), reason: reasons[nth] }]));
  return {
    ids: made.map(({ id }) => id),
    lines: made.map((one) => one.lines),
    reasons: made.map(({ reason }) => reason),
    problems,
    hand: new Set(hand),
  };
}

/** Returns the lines of the slides of a typed deck, after its text was read. */
export function mappingOfTyped({ ids, lines, reasons, problems }: Followed): Mapping {
  return { ids, lines, reasons, problems, hand: new Set() };
}
