import { must } from "@unitext/core/model";
import { wordsInFlow } from "../draft";
import { type Form, type TextFlow, textsOf } from "./form";

/** The columns of two and three subheadings. */
const SLOTS = { 2: ["left", "right"], 3: ["left", "middle", "right"] } as const;
/** How many words columns have together: fewer are read faster one below the other (common practice, no source). */
const LEAST_WORDS = 24;
/** How much the longest column may exceed the shortest. */
const UNEVEN = 2.5;

/** Subheadings with what is below each as columns side by side. */
export const comparison: Form = {
  reason: "two-subheadings",
  suits: 0.7,
  of(page) {
    const texts = textsOf(page);
    if (!texts?.[0]?.heading) return undefined;
    const parts: TextFlow[][] = [];
    for (const text of texts) {
      if (text.quote) return undefined;
      if (text.heading) parts.push([text]);
      else parts.at(-1)?.push(text);
    }
    const slots = parts.length === 2 || parts.length === 3 ? SLOTS[parts.length] : undefined;
    if (!slots || parts.some((part) => part.length < 2)) return undefined;
    const words = parts.map(wordsInFlow);
    if (words.reduce((sum, count) => sum + count, 0) < LEAST_WORDS) return undefined;
    if (Math.max(...words) > Math.min(...words) * UNEVEN + 4) return undefined;
    const [first, ...rest] = slots.map((slot, at) => [slot, must(parts[at])] as const);
    return {
      ...page,
      flow: must(first)[1],
      slots: new Map(rest),
      arrangement: parts.length === 2 ? "comparison" : "columns",
    };
  },
};
