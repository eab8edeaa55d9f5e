import { type Deck, nameOf, picturesOn, type Slide, textHash } from "@unitext/core/model";
import { contentKey } from "@unitext/core/diff";
import type { Versioned } from "./split";

/** A deck to merge: all of its slides, or those chosen by id, in the given order. */
export interface MergeSource extends Versioned {
  slides?: readonly string[];
}

/** Returns a string that is equal for slides with the same words and the same pictures, compared by their bytes. */
export function contentFingerprint(slide: Slide, assets: Deck["assets"]): string {
  const files = picturesOn(slide).map((name) => assets[name]?.sha256 ?? name);
  return textHash(
    `${contentKey({ ...slide, notes: [], elements: slide.elements.map((element) => (element.kind === "picture" ? { ...element, source: assets[element.source]?.sha256 ?? element.source } : element)) })} ${files.join()}`,
  );
}

/** Lists groups of two or more slides with the same words and pictures. */
export function duplicates(
  gathered: readonly MergeSource[],
): { deck: string; slide: string; number: number; name: string }[][] {
  const groups = new Map<string, { deck: string; slide: string; number: number; name: string }[]>();
  for (const { deck, slides } of gathered) {
    const chosen = slides ? new Set(slides) : undefined;
    deck.slides.forEach((slide, nth) => {
      if (chosen && !chosen.has(slide.id)) return;
      if (slide.elements.length === 0) return;
      const key = contentFingerprint(slide, deck.assets);
      groups.set(key, [
        ...(groups.get(key) ?? []),
        { deck: deck.id, slide: slide.id, number: nth + 1, name: nameOf(slide) },
      ]);
    });
  }
  return [...groups.values()].filter((group) => group.length > 1);
}
