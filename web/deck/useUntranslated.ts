import type { Deck } from "@unitext/core/model";
import { SegmentStates } from "@unitext/server/api";
import { useMemo } from "react";
import useSWR from "swr";
import { get } from "../api/client";

/** The address of the states of a translated deck's segments, by slide. */
export const statesAddress = (deck: string) => `/decks/${deck}/segments/states`;

/** Returns the ids of slides with untranslated texts; for a deck that is not a translation, nothing is requested. */
export function useUntranslated({ id, original }: Deck): ReadonlySet<string> {
  // Asked again when the original brings other texts, and when translations are stored.
  const key = original?.language ? [statesAddress(id), original.version] : null;
  const { data } = useSWR(key, () => get(statesAddress(id), SegmentStates), {
    keepPreviousData: true,
    revalidateOnFocus: false,
  });
  return useMemo(
    () => new Set((data?.slides ?? []).filter(({ untranslated }) => untranslated > 0).map(({ slide }) => slide)),
    [data],
  );
}
