import { rangesOf } from "./ranges";

/** Something that a file changes or leaves out, with its slide; null for the whole deck. */
export interface Entry {
  slide: number | null;
  what: string;
  said: string;
}

/** Several things that are said of the same slides for one reason. */
interface EntryGroup {
  /** In ascending order; empty for the whole deck. */
  slides: number[];
  whats: string[];
  said: string;
}

/**
 * Groups entries: one that holds for several slides is there once with their numbers, and several things of the same slides
 * for the same reason are together. In slide order, the whole deck first.
 */
export function entryGroups(entries: readonly Entry[]): EntryGroup[] {
  const same = new Map<string, Entry & { slides: number[] }>();
  for (const entry of entries) {
    const key = JSON.stringify([entry.what, entry.said, entry.slide === null]);
    const known = same.get(key) ?? { ...entry, slides: [] };
    if (entry.slide !== null && !known.slides.includes(entry.slide)) known.slides.push(entry.slide);
    same.set(key, known);
  }
  const groups = new Map<string, EntryGroup>();
  for (const { slides, what, said } of same.values()) {
    slides.sort((a, b) => a - b);
    const key = JSON.stringify([slides, said]);
    const group = groups.get(key) ?? { slides, whats: [], said };
    group.whats.push(what);
    groups.set(key, group);
  }
  const first = ({ slides }: EntryGroup) => slides[0] ?? 0;
  return [...groups.values()].sort((a, b) => first(a) - first(b));
}

/** Returns the groups of entries as lines. */
export const entryLines = (entries: readonly Entry[]): string[] =>
  entryGroups(entries).map(
    ({ slides, whats, said }) =>
      `${slides.length ? `Slide${slides.length > 1 ? "s" : ""} ${rangesOf(slides).replace(/-/g, "–")}: ` : ""}${whats.join(", ")}: ${said}`,
  );

/** Returns lines of what a report leaves out, then of what it adapts. */
export const reportLines = ({
  left,
  adapted,
}: {
  left: readonly { slide: number | null; what: string; why: string }[];
  adapted: readonly { slide: number | null; what: string; how: string }[];
}): string[] => [
  ...entryLines(left.map(({ slide, what, why }) => ({ slide, what, said: `left out, ${why}` }))),
  ...entryLines(adapted.map(({ slide, what, how }) => ({ slide, what, said: how }))),
];
