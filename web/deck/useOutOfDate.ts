import { bindingsOn, type Deck, type Slide } from "@unitext/core/model";
import { DeckBindings } from "@unitext/server/api";
import { useMemo } from "react";
import useSWR from "swr";
import { get } from "../api/client";

/** Keys of the bindings on each slide, cached because a change touches few of a deck's slides. */
const linksOf = new WeakMap<Slide, readonly string[]>();
function linksOn(slide: Slide): readonly string[] {
  const known = linksOf.get(slide);
  if (known) return known;
  const found = bindingsOn(slide).map(
    ({ binding }) => `${binding.source} ${binding.range} ${binding.version} ${binding.mode}`,
  );
  linksOf.set(slide, found);
  return found;
}

/**
 * Returns the ids of slides whose linked values differ from the newest version of their workbook, or cannot be found. A
 * deck without linked values asks nothing of the server.
 */
export function useOutOfDate(deck: Deck): ReadonlySet<string> {
  const linked = useMemo(() => deck.slides.flatMap(linksOn), [deck]);
  const { data } = useSWR(
    // Asked again when what is linked changes, and not at every change of the deck.
    linked.length ? `/decks/${deck.id}/bindings of ${linked.join()}` : null,
    () => get(`/decks/${deck.id}/bindings`, DeckBindings),
    { keepPreviousData: true, revalidateOnFocus: false },
  );
  return useMemo(
    () =>
      new Set(
        (linked.length ? (data?.checks ?? []) : [])
          .filter(({ state }) => state === "stale" || state === "moved" || state === "missing" || state === "error")
          .map(({ slideId }) => slideId),
      ),
    [data, linked.length],
  );
}
