import { isTitleRole, slotsOf, titleOf } from "@unitext/core/model";
import type { Check } from "../check";

const key = (title: string) => title.trim().toLowerCase();

export const sameTitle: Check = {
  label: "Titles alike",
  find: ({ slide, number, deck }) => {
    const own = titleOf(slide);
    if (!own.trim()) return [];
    const before = deck.slides.slice(0, number - 1).findIndex((other) => key(titleOf(other)) === key(own));
    return before < 0 ? [] : [{ message: `It has the same title as slide ${before + 1}: “${own.trim()}”.` }];
  },
};

export const noTitle: Check = {
  label: "Slides without a title",
  find: ({ slide }) => {
    const hasSlot = slotsOf(slide.arrangement).some(([, role]) => isTitleRole(role));
    const isEmpty = slide.elements.length === 0;
    if (!hasSlot || isEmpty || titleOf(slide).trim()) return [];
    return [{ message: "It has no title, by which it is found and read aloud." }];
  },
};
