import type { Flow } from "../draft";
import { type Form, isPlain, isWithin, listOf, wordsOf } from "./form";

/** How many steps stand in a row, and how many words each may have (common practice, no source). */
const STEPS = { least: 3, most: 5, words: 9 } as const;

/** A numbered list of few short items, from the first on, as a row of steps. */
export const steps: Form = {
  reason: "short-steps",
  suits: 0.9,
  of(page) {
    const list = listOf(page);
    if (!list || !isWithin(list.text.length, STEPS) || (list.text[0]?.start ?? 1) !== 1) return undefined;
    const isStep = list.text.every(
      (item) => item.kind === "number" && item.level === 0 && isPlain(item) && wordsOf(item) <= STEPS.words,
    );
    if (!isStep) return undefined;
    const text = list.text.map(({ runs }) => ({ kind: "bullet" as const, level: 0, runs }));
    const content: Flow = {
      kind: "content",
      content: { kind: "diagram", type: "steps", text },
      line: list.lines[0] ?? 1,
    };
    return { ...page, flow: [content], arrangement: "diagram" };
  },
};
