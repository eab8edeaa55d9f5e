import type { Composed } from "./compose";
import { type FitContext, fitsAtSize } from "./fit";

/** The sizes at which text alone on its slides is tried, as factors of the theme's, largest first. */
const SIZES = [1.3, 1.15];

/** Whether a slide has nothing but points whose size nobody chose. */
const isTextAlone = ({ arrangement, flow, slots, properties }: Composed): boolean =>
  arrangement === "points" &&
  properties.textSize === undefined &&
  slots.size === 0 &&
  flow.length > 0 &&
  flow.every(({ kind }) => kind === "text");

const sized = new WeakMap<Composed, Map<number, Composed>>();

/** Returns a slide with a text size, the same object each time. */
function inSize(composed: Composed, textSize: number): Composed {
  const held = sized.get(composed) ?? new Map<number, Composed>();
  sized.set(composed, held);
  const made = held.get(textSize) ?? { ...composed, properties: { ...composed.properties, textSize } };
  held.set(textSize, made);
  return made;
}

/**
 * Returns the slides of a section with the text of those that have nothing else as large as all of them can have it: one
 * size in a section.
 */
export function withGrownText(section: readonly Composed[], context: FitContext): Composed[] {
  const alone = new Set(section.filter(isTextAlone));
  const size = alone.size
    ? SIZES.find((factor) => [...alone].every((one) => fitsAtSize(inSize(one, factor), factor, context)))
    : undefined;
  return section.map((one) => (size !== undefined && alone.has(one) ? inSize(one, size) : one));
}
