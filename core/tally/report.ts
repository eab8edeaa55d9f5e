import { z } from "zod";
import { Tally } from "./tally";

export const Adapted = z.object({ slide: z.number().int().nullable(), what: z.string(), how: z.string() });
export const Left = z.object({ slide: z.number().int().nullable(), what: z.string(), why: z.string() });

/**
 * What an operation did with its input: counts before and after, and everything adapted or left out with its slide
 * number (null: the whole deck).
 */
export const Report = z.object({
  from: Tally,
  to: Tally,
  kept: z.number().int(),
  adapted: z.array(Adapted),
  left: z.array(Left),
});
export type Report = z.infer<typeof Report>;

type Entries = Pick<Report, "adapted" | "left">;

const flat = (tally: Tally): [string, number][] =>
  Object.entries(tally).flatMap(([name, value]) =>
    typeof value === "number"
      ? [[name, value]]
      : Object.entries(value).map(([part, n]) => [`${name}.${part}`, n] as [string, number]),
  );

/** Everything is compared but the words, whose loss shows as lost elements. */
const COUNTED = (name: string) => name !== "words" && name !== "notes.words" && name !== "hidden";

/** Makes a report. The number kept is, for each kind, the smaller of the two counts, less what was adapted. */
export function report(from: Tally, to: Tally, entries: Entries): Report {
  const after = new Map(flat(to));
  const both = flat(from)
    .filter(([name]) => COUNTED(name))
    .reduce((sum, [name, n]) => sum + Math.min(n, after.get(name) ?? 0), 0);
  return {
    from,
    to,
    kept: Math.max(0, both - entries.adapted.filter((entry) => entry.slide !== null).length),
    ...entries,
  };
}

/** Returns the counts that differ between input and output. */
export function differences(from: Tally, to: Tally): { what: string; before: number; after: number }[] {
  const after = new Map(flat(to));
  return flat(from)
    .map(([what, before]) => ({ what, before, after: after.get(what) ?? 0 }))
    .filter((row) => row.before !== row.after);
}
