import { type Change, batch } from "@unitext/core/edit";
import type { Slide, TextElement } from "@unitext/core/model";
import type { Checked } from "./check";
import { dividedAt } from "./fit";

/** Returns the change that puts slides in place of one: it is set to the first, and the others follow it. */
export function replacedBy(slide: Slide, [first, ...next]: readonly [Slide, ...Slide[]]): Change {
  let after = slide.id;
  return batch([
    { kind: "setSlide", slide: slide.id, as: first },
    ...next.map((one) => {
      const place = { parent: slide.parent, after };
      after = one.id;
      return { kind: "insertSlide" as const, slide: one, place };
    }),
  ]);
}

/** Returns the longest list or text of a slide; undefined where none has several paragraphs. */
export function longestText({ elements }: Slide): TextElement | undefined {
  return elements
    .filter((element): element is TextElement => element.kind === "text" && element.slot !== "title")
    .filter(({ text }) => text.length > 1)
    .sort((a, b) => b.text.length - a.text.length)[0];
}

/** Returns the remedy that divides a slide in the middle of its longest text; undefined where that has one paragraph. */
export function halved({ slide, newId }: Checked): { label: string; change: Change } | undefined {
  const text = longestText(slide);
  if (!text) return undefined;
  const middle = Math.ceil(text.text.length / 2);
  // A point is not parted from what is below it.
  const top = text.text.findIndex(({ level }, at) => at >= middle && level === 0);
  const at = top > 0 ? top : middle;
  return { label: "Continue on a next slide", change: replacedBy(slide, dividedAt(slide, text, at, newId)) };
}
