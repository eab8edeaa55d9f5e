import { slideIndex } from "@unitext/core/model";
import { type KeyboardEvent, useCallback, useRef } from "react";
import { useNavigate } from "react-router";
import { useDeck } from "../deck/DeckContext";
import type { SlideMapLayout } from "./useSlideMap";

export interface HeldKeys {
  shiftKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
}

/** Selecting slides on the map by pointer (with Shift a run, with Ctrl one more) and by arrow keys. */
export function useSlideChoice({ rows, rowOf, show }: SlideMapLayout) {
  const { deck, selected, select } = useDeck();
  const navigate = useNavigate();
  /** The slide where a run that is selected with Shift begins. */
  const anchor = useRef<string>(undefined);

  const choose = (id: string, { shiftKey, ctrlKey, metaKey }: HeldKeys) => {
    if (shiftKey && anchor.current) {
      const [from, to] = [slideIndex(deck, anchor.current), slideIndex(deck, id)];
      const run = deck.slides.slice(Math.min(from, to), Math.max(from, to) + 1).map((slide) => slide.id);
      select(from <= to ? run : run.reverse());
      return;
    }
    anchor.current = id;
    if (!ctrlKey && !metaKey) select([id]);
    else select(selected.includes(id) ? selected.filter((other) => other !== id) : [...selected, id]);
  };
  const open = (id: string) => navigate(`/decks/${deck.id}/refine/${id}`);

  const onKeyDown = (event: KeyboardEvent) => {
    const current = selected.at(-1);
    if (event.altKey || event.ctrlKey || event.metaKey || !current) return;
    const at = slideIndex(deck, current);
    const row = rowOf(current);
    const targets: Record<string, string | undefined> = {
      ArrowDown: rows[row + 1]?.main.id,
      ArrowUp: deck.slides[at]?.parent === null ? rows[row - 1]?.main.id : rows[row]?.main.id,
      ArrowRight: deck.slides[at + 1]?.id,
      ArrowLeft: deck.slides[at - 1]?.id,
      Home: deck.slides[0]?.id,
      End: deck.slides.at(-1)?.id,
    };
    const to = targets[event.key];
    if (event.key === "Enter") open(current);
    else if (to) {
      choose(to, { shiftKey: event.shiftKey, ctrlKey: false, metaKey: false });
      show(to);
    } else if (!event.key.startsWith("Arrow")) return;
    event.preventDefault();
  };

  // Thumbnails are memoised: the functions that they get stay the same, and call the newest ones.
  const latest = useRef({ choose, open });
  latest.current = { choose, open };
  const onChoose = useCallback((id: string, keys: HeldKeys) => latest.current.choose(id, keys), []);
  const onOpen = useCallback((id: string) => latest.current.open(id), []);
  return { onChoose, onOpen, onKeyDown };
}
