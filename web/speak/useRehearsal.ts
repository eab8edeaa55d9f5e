import { useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";

/** The longest step of the clock that counts as time on a slide, in seconds; a longer one is a computer that slept. */
const STEP = 5;

type Seconds = Record<string, number>;

function stored(key: string): Seconds {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "{}") as Seconds;
  } catch {
    return {};
  }
}

/** Keeps how long each slide took, in this browser, while the time of the talk runs. */
export function useRehearsal(slide: string | undefined, elapsed: number) {
  const { deck } = useDeck();
  const key = `unitext:rehearsal/${deck.id}`;
  const [spent, setSpent] = useState<Seconds>(() => stored(key));
  const last = useRef(elapsed);
  useEffect(() => {
    const step = elapsed - last.current;
    last.current = elapsed;
    if (!slide || step <= 0 || step > STEP) return;
    setSpent((before) => {
      const next = { ...before, [slide]: (before[slide] ?? 0) + step };
      localStorage.setItem(key, JSON.stringify(next));
      return next;
    });
  }, [slide, elapsed, key]);
  const byId = useMemo(() => new Map(Object.entries(spent)), [spent]);
  const forget = () => {
    localStorage.removeItem(key);
    setSpent({});
  };
  return { spent: byId, forget };
}
