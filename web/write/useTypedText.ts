import { useCallback, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import { keepDraft } from "./drafts";
import type { useGeneration } from "./useGeneration";

/** Decks with more slides than this wait for a pause in typing, of so many milliseconds. */
const [MANY, PAUSE] = [300, 350];

/** Applies typed text to the deck. Until it is applied, it is stored as a draft. */
export function useTypedText({ cutting, follow, rerun }: ReturnType<typeof useGeneration>) {
  const { deck, session } = useDeck();
  const typed = useRef<string>(undefined);
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  const running = useRef(false);

  /** Takes typed text, one run at a time; text typed meanwhile is taken by the next. */
  const take = useCallback(async () => {
    if (running.current || typed.current === undefined) return;
    running.current = true;
    try {
      while (typed.current !== undefined) {
        const now = typed.current;
        typed.current = undefined;
        if (session.snapshot().deck.manuscript) await rerun(cutting(session.snapshot().text ?? now), cutting(now));
        else await follow(now);
        if (typed.current === undefined) keepDraft(deck.id, undefined);
      }
    } finally {
      running.current = false;
    }
  }, [deck.id, session, follow, rerun, cutting]);

  const type = useCallback(
    (value: string) => {
      typed.current = value;
      keepDraft(deck.id, value);
      clearTimeout(wait.current);
      const { deck: now } = session.snapshot();
      if (now.manuscript && now.slides.length > MANY) wait.current = setTimeout(take, PAUSE);
      // The worker begins while the page draws the letter.
      else void take();
    },
    [deck.id, session, take],
  );

  /** Whether typed text is not taken yet. */
  const pending = useCallback(() => typed.current !== undefined || running.current, []);
  const stop = useCallback(() => clearTimeout(wait.current), []);
  return { pending, type, stop };
}
