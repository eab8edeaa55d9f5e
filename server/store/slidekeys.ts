import { longestRise } from "@unitext/core/edit";
import { must } from "@unitext/core/model";
import { generateNKeysBetween } from "fractional-indexing";

/** Returns keys for a running order: slides that are still in rising order keep theirs, the others get one between. */
export function newKeys(order: readonly string[], keys: ReadonlyMap<string, string>): Map<string, string> {
  const keep = longestRise(order, keys);
  const placed = new Map<string, string>();
  let last: string | null = null;
  let at = 0;
  while (at < order.length) {
    let end = at;
    while (end < order.length && !keep.has(must(order[end]))) end++;
    const next = end < order.length ? must(keys.get(must(order[end]))) : null;
    generateNKeysBetween(last, next, end - at).forEach((key, nth) => {
      placed.set(must(order[at + nth]), key);
    });
    if (end < order.length) placed.set(must(order[end]), next as string);
    last = next;
    at = end + 1;
  }
  return placed;
}
