import { paragraphText } from "@unitext/core/model";
import type { Composed } from "../compose";
import { type FitContext, fitsAtSize } from "../fit";
import { isWithin, listOf, type TextFlow } from "./form";

/** How many items stand in two columns, and how long one is (common practice, no source). */
const SHORT = { least: 6, most: 12, characters: 26 } as const;

/** Returns a list of short items as two columns side by side, the first half before the second. */
function asColumns(page: Composed, list: TextFlow): Composed | undefined {
  const isShort = list.text.every(
    (item) => item.kind === "bullet" && item.level === 0 && paragraphText(item).length <= SHORT.characters,
  );
  if (!isShort || !isWithin(list.text.length, SHORT)) return undefined;
  const half = Math.ceil(list.text.length / 2);
  const part = (from: number, to: number): TextFlow => ({
    ...list,
    text: list.text.slice(from, to),
    lines: list.lines.slice(from, to),
  });
  return {
    ...page,
    flow: [part(0, half)],
    slots: new Map([["right", [part(half, list.text.length)]]]),
    arrangement: "comparison",
    reason: "short-list",
  };
}

/**
 * Returns a slide with a list of short items in two columns, where one is too long and two fit at the size of the theme;
 * undefined for any other. Asked before the list is divided over slides.
 */
export function inColumns(page: Composed, context: FitContext): Composed | undefined {
  const list = listOf(page);
  const formed = list && !fitsAtSize(page, 1, context) ? asColumns(page, list) : undefined;
  return formed && fitsAtSize(formed, 1, context) ? formed : undefined;
}
