import { batch, type SingleChange } from "@unitext/core/edit";
import { revealsOf } from "@unitext/core/model";
import type { Check } from "../check";

/** More kinds of effects than these on one slide are restless (common practice, no source). */
const KINDS = 2;
/** More entrances than these make a slide a film (common practice, no source). */
const MOST = 8;

export const motion: Check = {
  label: "Much motion",
  find: ({ slide }) => {
    const moving = slide.elements.filter(({ entrance }) => entrance && entrance.effect !== "appear");
    const kinds = new Set(moving.map(({ entrance }) => entrance?.effect));
    const presses = revealsOf(slide).length;
    if (kinds.size <= KINDS && moving.length <= MOST) return [];
    const calm: SingleChange[] = moving.map((element) => ({
      kind: "setElement",
      slide: slide.id,
      element: { ...element, ...(element.entrance ? { entrance: { ...element.entrance, effect: "fade" } } : {}) },
    }));
    const what = kinds.size > KINDS ? `${kinds.size} kinds of motion` : `${moving.length} moving elements`;
    return [
      {
        message: `${what} in ${presses} entrances.`,
        ...(kinds.size > 1 ? { remedy: { label: "Fade all of them in", change: batch(calm) } } : {}),
      },
    ];
  },
};
