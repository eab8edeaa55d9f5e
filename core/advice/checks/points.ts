import type { Check } from "../check";
import { halved, longestText } from "../divide";

/** More points than these are too many for one slide (common practice, no source). */
const MOST = 8;

export const points: Check = {
  label: "Many points",
  find: (checked) => {
    if (checked.slide.arrangement === "references") return [];
    const text = longestText(checked.slide);
    const count = text?.text.filter(({ kind, level }) => kind !== "plain" && level === 0).length ?? 0;
    if (!text || count <= MOST) return [];
    const remedy = halved(checked);
    return [{ message: `${count} points in one list.`, element: text.id, ...(remedy ? { remedy } : {}) }];
  },
};
