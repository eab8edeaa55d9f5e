import type { Change } from "@unitext/core/edit";
import type { FontSet, Scene } from "@unitext/core/layout";
import type { Deck, Slide } from "@unitext/core/model";

/** What a check finds: what is wrong and where, and a change that mends it where one can. */
export interface Finding {
  /** One sentence for the person. */
  message: string;
  element?: string;
  remedy?: { label: string; change: Change };
}

/** A slide with what a check needs to judge it. */
export interface Checked {
  slide: Slide;
  number: number;
  scene: Scene;
  deck: Deck;
  fonts: FontSet;
  newId: () => string;
}

/** A check of one slide. To add one: a file with its descriptor, and its line in `CHECKS`. */
export interface Check {
  label: string;
  find: (checked: Checked) => Finding[];
}
