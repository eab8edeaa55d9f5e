import { z } from "zod";
import { Tally } from "./tally";

export const Adapted = z.object({ slide: z.number().int().nullable(), what: z.string(), how: z.string() });
export const Left = z.object({ slide: z.number().int().nullable(), what: z.string(), why: z.string() });

/** What an operation did with all that went in: counts before and after, and each thing adapted or left out with its slide number (null: the whole deck). */
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

/** What is compared: everything but the words, whose loss shows as lost elements. */
const COUNTED = (name: string) => name !== "words" && name !== "notes.words" && name !== "hidden";

/** How many things of the input are in the output as they were: for each kind the smaller count, less what was adapted. */
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

/** The counts that differ between input and output: none when nothing was lost or added. */
export function differences(from: Tally, to: Tally): { what: string; before: number; after: number }[] {
  const after = new Map(flat(to));
  return flat(from)
    .map(([what, before]) => ({ what, before, after: after.get(what) ?? 0 }))
    .filter((row) => row.before !== row.after);
}
