import type { Advice } from "@unitext/core/advice";
import { type Deck, type DeckMetadata, type Slide, titleOf } from "@unitext/core/model";
import { useEffect, useState } from "react";
import { core } from "../worker";

/** The findings of a slide, with everything beside the slide that they depend on. */
interface Known {
  metadata: DeckMetadata;
  number: number;
  titles: string;
  advice: Advice[];
}
const known = new WeakMap<Slide, Known>();

/** How many slides are checked at a time, and how long after the last change, in milliseconds. */
const BATCH = 40;
const PAUSE = 700;

/** What was found so far, in the order of the slides, and whether all slides have been checked. */
export interface DeckAdvice {
  found: readonly Advice[];
  isComplete: boolean;
}

/** Checks the slides of a deck in the background, and returns what is found so far. */
export function useAdvice(deck: Deck, metadata: DeckMetadata): DeckAdvice {
  const [advice, setAdvice] = useState<DeckAdvice>({ found: [], isComplete: false });
  useEffect(() => {
    let isOver = false;
    const titles = deck.slides.map(titleOf).join("\n");
    const isKnown = (slide: Slide, nth: number) => {
      const one = known.get(slide);
      return one?.metadata === metadata && one.number === nth + 1 && one.titles === titles;
    };
    const show = (isComplete: boolean) =>
      setAdvice({ found: deck.slides.flatMap((slide) => known.get(slide)?.advice ?? []), isComplete });
    const check = async () => {
      const left = deck.slides.filter((slide, nth) => !isKnown(slide, nth));
      for (let at = 0; at < left.length && !isOver; at += BATCH) {
        const batch = left.slice(at, at + BATCH);
        const list = await core.advise(
          deck,
          batch.map(({ id }) => id),
        );
        for (const slide of batch) {
          const number = deck.slides.indexOf(slide) + 1;
          known.set(slide, { metadata, number, titles, advice: list.filter((one) => one.slide === slide.id) });
        }
        if (!isOver) show(false);
      }
      if (!isOver) show(true);
    };
    // What the worker cannot check now is checked after the next change.
    const timer = setTimeout(() => void check().catch(() => undefined), PAUSE);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [deck, metadata]);
  return advice;
}
