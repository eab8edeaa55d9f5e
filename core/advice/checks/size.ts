import { pageScale } from "@unitext/core/layout";
import type { Check } from "../check";
import { halved } from "../divide";

/**
 * The smallest size of running text, in points on a page 540 points high. From the last row, at six times the height of
 * the screen, its x-height is seen at about nine minutes of arc (common practice, no source).
 */
const LEAST = 18;

export const size: Check = {
  label: "Small text",
  find: (checked) => {
    const { scene, slide, deck } = checked;
    const scale = pageScale(deck.page);
    const small = scene.boxes.filter(({ element, size: found }) => {
      const one = slide.elements.find(({ id }) => id === element);
      return one?.kind === "text" && one.slot !== "caption" && found > 0 && found / scale < LEAST - 0.05;
    });
    const [first] = [...small].sort((a, b) => a.size - b.size);
    if (!first) return [];
    const remedy = halved(checked);
    return [
      {
        message: `Text of ${Math.round((first.size / scale) * 10) / 10} points is too small for the last row.`,
        ...(first.element === null ? {} : { element: first.element }),
        ...(remedy ? { remedy } : {}),
      },
    ];
  },
};
