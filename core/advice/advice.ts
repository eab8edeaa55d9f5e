import { type FontSet, layoutSlide } from "@unitext/core/layout";
import { type Deck, metadataOf, slideIndex } from "@unitext/core/model";
import type { Finding } from "./check";
import { CHECKS, type CheckName } from "./checks";

/** What a check found on a slide. */
export interface Advice extends Finding {
  check: CheckName;
  /** What the check is called, so that a page that shows it need not load the checks. */
  label: string;
  slide: string;
}

/** A remedy that answers several findings of a slide is offered once. */
const COVERED: Partial<Record<CheckName, readonly CheckName[]>> = {
  overflow: ["size", "words", "points"],
  size: ["words", "points"],
  words: ["points"],
};

/** Returns what the checks find on the slides with these ids, slide by slide. Hidden slides are left out. */
export function adviceOn(
  deck: Deck,
  slides: Iterable<string>,
  { fonts, newId }: { fonts: FontSet; newId: () => string },
): Advice[] {
  const metadata = metadataOf(deck);
  return [...slides].flatMap((id) => {
    const at = slideIndex(deck, id);
    const slide = deck.slides[at];
    if (!slide || slide.hidden) return [];
    const number = at + 1;
    const scene = layoutSlide(slide, { metadata, number, fonts });
    const checked = { slide, number, scene, deck, fonts, newId };
    const names = Object.keys(CHECKS) as CheckName[];
    const found = names.flatMap((check) => {
      const { label, find } = CHECKS[check];
      return find(checked).map((finding): Advice => ({ ...finding, check, label, slide: id }));
    });
    const covered = new Set(found.flatMap(({ check }) => COVERED[check] ?? []));
    return found.filter(({ check }) => !covered.has(check));
  });
}
