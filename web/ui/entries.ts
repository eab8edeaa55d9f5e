import { rangesOf } from "@unitext/core/divide";

/** Something that a file changes or leaves out, with its slide; null for the whole deck. */
export interface Entry {
  slide: number | null;
  what: string;
  said: string;
}

/**
 * Groups entries into lines: one that holds for several slides is written once with their numbers, and several things
 * of the same slides for the same reason share a line. In slide order, the whole deck first.
 */
export function entryLines(entries: readonly Entry[]): string[] {
  const same = new Map<string, Entry & { slides: number[] }>();
  for (const entry of entries) {
    const key = JSON.stringify([entry.what, entry.said, entry.slide === null]);
    const known = same.get(key) ?? { ...entry, slides: [] };
    if (entry.slide !== null && !known.slides.includes(entry.slide)) known.slides.push(entry.slide);
    same.set(key, known);
  }
  const lines = new Map<string, { slides: number[]; whats: string[]; said: string }>();
  for (const { slides, what, said } of same.values()) {
    slides.sort((a, b) => a - b);
    const key = JSON.stringify([slides, said]);
    const line = lines.get(key) ?? { slides, whats: [], said };
    line.whats.push(what);
    lines.set(key, line);
  }
  const first = ({ slides }: { slides: number[] }) => slides[0] ?? 0;
  return [...lines.values()]
    .sort((a, b) => first(a) - first(b))
    .map(
      ({ slides, whats, said }) =>
        `${slides.length ? `Slide${slides.length > 1 ? "s" : ""} ${rangesOf(slides).replace(/-/g, "–")}: ` : ""}${whats.join(", ")}: ${said}`,
    );
}

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
