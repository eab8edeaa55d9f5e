import { History, type HistoryEntry } from "@unitext/server/api";
import { useEffect, useState } from "react";
import useSWR from "swr";
import { get } from "../api/client";

export const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Loads the history of the deck page by page. */
export function useHistory(deck: string, version: number) {
  const [older, setOlder] = useState<History[]>([]);
  const { data } = useSWR(`/decks/${deck}/history@${version}`, () => get(`/decks/${deck}/history`, History), {
    keepPreviousData: true,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: older pages belong to the version that they were read of.
  useEffect(() => setOlder([]), [deck, version]);
  const pages = data ? [data, ...older] : [];
  const last = pages.at(-1);
  return {
    entries: pages.flatMap(({ entries }) => entries),
    first: last?.first ?? true,
    more: async () => {
      const before = last?.entries.at(-1)?.version;
      if (before === undefined) return;
      const next = await get(`/decks/${deck}/history?before=${before}`, History);
      setOlder((now) => [...now, next]);
    },
  };
}

/** A line of the history: what was done, by whom and when. */
export function Entry({ entry, current, onCompare }: { entry: HistoryEntry; current: boolean; onCompare: () => void }) {
  return (
    <li className={`hairline border-t ${current ? "bg-base-200" : ""}`}>
      <button
        type="button"
        className="hover:bg-base-200 block w-full px-4 py-1.5 text-left text-sm"
        aria-pressed={current}
        onClick={onCompare}
      >
        {entry.name && <strong className="text-secondary block">{entry.name}</strong>}
        <span className={entry.undone ? "quiet line-through" : ""}>{entry.description}</span>
        <span className="quiet block text-xs">
          {entry.user}, {when.format(new Date(entry.at))}
          {entry.undone ? ", undone" : ""}
        </span>
      </button>
    </li>
  );
}
