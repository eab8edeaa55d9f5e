import { type Form, listOf, wordsOf } from "./form";

/** How many words a statement has (common practice, no source). */
const MESSAGE = { least: 3, most: 26 } as const;

/** A point alone, or a single sentence below a title, as a statement. */
export const message: Form = {
  reason: "one-thought",
  suits: 0.8,
  of(page) {
    const list = listOf(page);
    const [only] = list?.text ?? [];
    if (!list || !only || list.text.length > 1 || only.kind === "number" || only.level > 0 || only.align)
      return undefined;
    const words = wordsOf(only);
    if (words < MESSAGE.least || words > MESSAGE.most) return undefined;
    return { ...page, flow: [{ ...list, text: [{ ...only, kind: "plain" }] }], arrangement: "message" };
  },
};

/** A longer point alone needs no bullet. */
export const sentence: Form = {
  reason: "title-and-content",
  suits: 0.55,
  of(page) {
    const list = listOf(page);
    const [point] = list?.text ?? [];
    if (list?.text.length !== 1 || point?.kind !== "bullet" || point.level > 0) return undefined;
    return { ...page, flow: [{ ...list, text: [{ ...point, kind: "plain" }] }] };
  },
};
