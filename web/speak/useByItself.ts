import { useEffect, useRef } from "react";
import { DELAY } from "../deck/byitself";
import { useDeck } from "../deck/DeckContext";
import type { useWalk } from "./useWalk";

/**
 * Turns the slides by themselves: each after its own delay, or after `seconds`; what appears on a slide shares its time. At
 * the end it begins again, or stays. A reload goes on where it was.
 */
export function useByItself({
  on,
  seconds,
  loop,
  from,
  walk,
}: {
  on: boolean;
  seconds: number;
  loop: boolean;
  /** The slide where it begins. */
  from: string | null;
  walk: ReturnType<typeof useWalk>;
}): void {
  const { deck } = useDeck();
  const latest = useRef(walk);
  latest.current = walk;
  const store = `unitext:by-itself/${deck.id}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the place is taken up once, when the page opens.
  useEffect(() => {
    if (!on) return;
    const start = sessionStorage.getItem(store) ?? from;
    if (start && deck.slides.some(({ id }) => id === start)) latest.current.go(start);
  }, [on, store, from]);
  const { current, step, steps } = walk;
  // biome-ignore lint/correctness/useExhaustiveDependencies: each step begins a wait of its own.
  useEffect(() => {
    if (!on || !current) return;
    sessionStorage.setItem(store, current.id);
    const length = current.delay ?? (seconds > 0 ? seconds : DELAY);
    const timer = setTimeout(
      () => {
        const now = latest.current;
        if (now.step < now.steps || now.walk.next) now.forward();
        else if (loop) now.first();
      },
      (length * 1000) / (steps + 1),
    );
    return () => clearTimeout(timer);
  }, [on, current, step, steps, seconds, loop, store]);
}
