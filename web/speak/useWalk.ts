import { pressesOf } from "@unitext/core/model";
import { useCallback, useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { walkFrom } from "./walk";

/**
 * The way through the deck while speaking: the slide that is shown, how much of it has appeared, and the steps from it.
 * `onWalk` is called before each step.
 */
export function useWalk(onWalk: () => void) {
  const { deck, selected, select } = useDeck();
  const current = deck.slides.find(({ id }) => id === selected.at(-1)) ?? deck.slides[0];
  const walk = useMemo(() => walkFrom(deck.slides, current?.id ?? ""), [deck, current]);
  // What appears at a press starts hidden; a slide that is returned to shows everything.
  const steps = current ? pressesOf(current) : 0;
  const [at, setAt] = useState({ slide: "", step: 0 });
  const step = at.slide === current?.id ? Math.min(at.step, steps) : 0;
  const shown = deck.slides.filter(({ hidden }) => !hidden);
  const go = useCallback(
    (id: string | undefined) => {
      if (!id) return;
      onWalk();
      select([id]);
    },
    [select, onWalk],
  );
  /** Shows what appears next, and after the last the next slide. */
  const forward = () => {
    if (step >= steps) return go(walk.next);
    onWalk();
    setAt({ slide: current?.id ?? "", step: step + 1 });
  };
  const back = () => {
    if (step > 0) return setAt({ slide: current?.id ?? "", step: step - 1 });
    const before = deck.slides.find(({ id }) => id === walk.previous);
    if (before) setAt({ slide: before.id, step: pressesOf(before) });
    go(walk.previous);
  };
  const first = () => go(shown[0]?.id);
  const last = () => go(shown.filter(({ parent }) => parent === null).at(-1)?.id);
  return { current, walk, steps, step, go, forward, back, first, last };
}
