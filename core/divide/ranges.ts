import { Failure } from "@unitext/core/model";

/**
 * Reads a list of slide numbers and ranges such as `1-8, 12, 30-`, in the given order, repeats kept. `count` closes an
 * open range; a dash may be written as – or —. Throws a Failure `not-valid` at `where` that names the faulty piece.
 */
export function parseRanges(list: string, count: number, where: string): number[] {
  if (!list.trim()) return [];
  return list.split(/[,;]/).flatMap((piece) => {
    const said = piece.trim();
    const refuse = (why: string) => new Failure("not-valid", where, `“${said}” ${why}`);
    if (!said) throw refuse("stands between two commas; take one of them out.");
    const [, first, dash, last] = /^(\d+)?\s*([-–—])?\s*(\d+)?$/.exec(said) ?? [];
    if ((first === undefined && last === undefined) || (first !== undefined && last !== undefined && !dash))
      throw refuse("is neither a slide's number nor a run such as 12-20.");
    const from = Number(first ?? 1);
    const to = dash ? Number(last ?? count) : from;
    if (from < 1 || to < 1) throw refuse("names a slide 0; slides are counted from 1.");
    const beyond = Math.max(from, to);
    if (beyond > count)
      throw refuse(
        count ? `names slide ${beyond}, but the last is ${count}.` : "names a slide, but the deck has none.",
      );
    if (from > to) throw refuse(`runs backwards; write ${to}-${from}.`);
    return Array.from({ length: to - from + 1 }, (_, nth) => from + nth);
  });
}

/** Writes slide numbers as a list of ranges, in the given order: `1-8, 12`. */
export function rangesOf(numbers: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const last = runs.at(-1);
    if (last && number === last[1] + 1) last[1] = number;
    else runs.push([number, number]);
  }
  return runs.map(([from, to]) => (from === to ? String(from) : `${from}-${to}`)).join(", ");
}
