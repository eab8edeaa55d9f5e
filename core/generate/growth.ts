import type { ArrangementName } from "@unitext/core/model";
import type { Composed } from "./compose";
import type { Flow } from "./draft";
import { type FitContext, fitsAtSize, usedHeight } from "./fit";

/** The sizes at which text alone on its slides is tried, as factors of the theme's, largest first. */
const SIZES = [1.4, 1.3, 1.2, 1.1];

/** The space between paragraphs that is tried, as factors of the theme's, largest first. */
const SPACING = [3, 2.5, 2, 1.5];
/** The largest factor for text with sub-items or subheadings, whose paragraphs belong together. */
const SPACING_OF_LEVELS = 1.5;

/** The share of the height of its place that text may have when the space between its paragraphs grows. */
const FILLED = 0.8;

const GROWS: ReadonlySet<ArrangementName> = new Set(["points", "comparison", "columns", "highlight"]);

/** Returns all content of a slide but its title. */
const contentOf = ({ flow, slots }: Composed): Flow[] => [...flow, ...[...slots.values()].flat()];

/** Whether a slide has nothing but text, in one place or in columns, whose size nobody chose. */
function isTextAlone(composed: Composed): boolean {
  const { arrangement, named, properties } = composed;
  const content = contentOf(composed);
  return (
    GROWS.has(arrangement) &&
    !named &&
    properties.textSize === undefined &&
    properties.spacing === undefined &&
    content.length > 0 &&
    content.every(({ kind }) => kind === "text")
  );
}

const sized = new WeakMap<Composed, Map<string, Composed>>();

/** Returns a slide with a text size and spacing, the same object each time. */
function inSize(composed: Composed, textSize: number, spacing: number): Composed {
  if (textSize === 1 && spacing === 1) return composed;
  const held = sized.get(composed) ?? new Map<string, Composed>();
  sized.set(composed, held);
  const key = `${textSize}/${spacing}`;
  const properties = {
    ...composed.properties,
    ...(textSize === 1 ? {} : { textSize }),
    ...(spacing === 1 ? {} : { spacing }),
  };
  const made = held.get(key) ?? { ...composed, properties };
  held.set(key, made);
  return made;
}

/** Returns the largest spacing with which the text fills no more than `FILLED` of its place. */
function spacingOf(composed: Composed, size: number, context: FitContext): number {
  const content = contentOf(composed);
  const paragraphs = content.flatMap((item) => (item.kind === "text" ? item.text : []));
  if (paragraphs.length < 2) return 1;
  const isDeep =
    paragraphs.some(({ level }) => level > 0) || content.some((item) => item.kind === "text" && item.heading);
  const most = isDeep ? SPACING_OF_LEVELS : Number.POSITIVE_INFINITY;
  const allowed = SPACING.filter((factor) => factor <= most);
  return allowed.find((factor) => usedHeight(inSize(composed, size, factor), size, context) <= FILLED) ?? 1;
}

/**
 * Returns the slides of a section with the text of those that have nothing else as large as all of them can have it: one
 * size in a section. Where few points leave room, they stand further apart. A part of a section has the theme's size, since
 * the rest may need it.
 */
export function withGrownText(section: readonly Composed[], context: FitContext, isPart: boolean): Composed[] {
  const alone = new Set(section.filter(isTextAlone));
  const fits = (factor: number) => [...alone].every((one) => fitsAtSize(inSize(one, factor, 1), factor, context));
  const size = alone.size && !isPart ? (SIZES.find(fits) ?? 1) : 1;
  return section.map((one) => (alone.has(one) ? inSize(one, size, spacingOf(one, size, context)) : one));
}
