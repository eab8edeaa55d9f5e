import { countWords, type Element, elementTexts, textOf } from "@unitext/core/model";
import type { Check } from "../check";
import { halved } from "../divide";

/** More words than these are not read while somebody speaks (common practice, no source). */
const MOST = 60;

const isProse = ({ kind, slot }: Element) => kind === "text" && slot !== "title";

export const words: Check = {
  label: "Many words",
  find: (checked) => {
    const { slide } = checked;
    if (slide.arrangement === "references") return [];
    const count = slide.elements
      .filter(isProse)
      .reduce(
        (sum, element) => sum + elementTexts(element).reduce((all, text) => all + countWords(textOf(text)), 0),
        0,
      );
    if (count <= MOST) return [];
    const remedy = halved(checked);
    return [{ message: `${count} words: more than an audience reads along with.`, ...(remedy ? { remedy } : {}) }];
  },
};
