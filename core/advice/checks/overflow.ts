import type { Check } from "../check";
import { replacedBy } from "../divide";
import { fitOf } from "../fit";

export const overflow: Check = {
  label: "Text overflows",
  find: ({ slide, scene, deck, number, fonts, newId }) => {
    if (scene.overflow <= 0) return [];
    const { misfits, remedies } = fitOf(slide, { metadata: deck, number, fonts }, newId);
    const found = remedies.find(({ kind }) => kind === "continue") ?? remedies[0];
    const label = found?.kind === "continue" ? "Continue on a next slide" : "Make the text smaller";
    const [first] = misfits;
    return [
      {
        message: `Text is cut off: it needs ${Math.ceil(scene.overflow)} points more than there are.`,
        ...(first ? { element: first.element } : {}),
        ...(found ? { remedy: { label, change: replacedBy(slide, found.slides) } } : {}),
      },
    ];
  },
};
