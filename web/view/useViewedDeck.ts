import { RIGHTS_NEWS, ViewedDeck } from "@unitext/server/api";
import { useEffect, useState } from "react";
import { get, Refused } from "../api/client";

/** What a viewer's page knows of its deck. */
export interface Viewed {
  deck: ViewedDeck | undefined;
  /** Why it shows nothing, or nothing any more. */
  problem: string;
}

/** How long the page waits before it asks whether it may still look, in milliseconds. */
const AGAIN = 500;
/** How long news of changes is gathered, in milliseconds. */
const GATHER = 1500;

/** Loads a deck for a viewer's page and follows it: newer versions are shown, and a right that ends closes it at once. */
export function useViewedDeck(id: string): Viewed {
  const [deck, setDeck] = useState<ViewedDeck>();
  const [problem, setProblem] = useState("");
  useEffect(() => {
    let gone = false;
    let events: EventSource | undefined;
    let timer: ReturnType<typeof setTimeout>;
    let pending: ReturnType<typeof setTimeout> | undefined;
    let announced = 0;
    // While others type there is news many times a second.
    const again = () => {
      pending ??= setTimeout(() => {
        pending = undefined;
        void load();
      }, GATHER);
    };
    const load = async () => {
      try {
        const next = await get(`/decks/${id}/look`, ViewedDeck);
        if (gone) return;
        setDeck(next);
        if (announced === 0) announced = next.version;
        // What the server gives out may be a second old.
        if (next.version < announced) again();
        if (!events) follow();
      } catch (error) {
        if (gone) return;
        if (!(error instanceof Refused)) {
          timer = setTimeout(() => void load(), AGAIN * 4);
          return;
        }
        events?.close();
        setDeck(undefined);
        setProblem(
          error.status === 404
            ? "This deck is not shared with you any more, or was deleted. Ask whoever shared it."
            : error.message,
        );
      }
    };
    const follow = () => {
      events = new EventSource(`/api/decks/${id}/events`);
      events.onmessage = ({ data }) => {
        if (data === RIGHTS_NEWS) {
          void load();
          return;
        }
        if (!(Number(data) > announced)) return;
        announced = Number(data);
        again();
      };
      // The stream ends with the right; then asking again says so.
      events.onerror = () => {
        clearTimeout(timer);
        timer = setTimeout(() => void load(), AGAIN);
      };
    };
    void load();
    return () => {
      gone = true;
      clearTimeout(timer);
      clearTimeout(pending);
      events?.close();
    };
  }, [id]);
  return { deck, problem };
}
