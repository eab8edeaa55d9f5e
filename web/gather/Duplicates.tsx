import type { MergeListState } from "./useMergeList";

/** Slides that are in the merge more than once, and which of them are left out. */
export function Duplicates({ merge: { twins, drop, setDrop, byId } }: { merge: MergeListState }) {
  return (
    <details data-twins>
      <summary className="cursor-pointer">
        {twins.length === 1 ? "One slide appears" : `${twins.length} slides appear`} more than once; {drop.size} dropped
      </summary>
      <p className="my-1">
        <button
          type="button"
          className="btn btn-xs"
          onClick={() =>
            setDrop(new Set(twins.flatMap((group) => group.slice(1).map(({ deck, slide }) => `${deck}/${slide}`))))
          }
        >
          Drop all but the first of each
        </button>{" "}
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => setDrop(new Set())}>
          Keep all
        </button>
      </p>
      <ul className="max-h-32 overflow-auto">
        {twins.slice(0, 200).map((group) => (
          <li key={`${group[0]?.deck}/${group[0]?.slide}`} className="py-1">
            “{group[0]?.name || "(empty)"}”:{" "}
            {group.map(({ deck, slide, number }, nth) => {
              const key = `${deck}/${slide}`;
              return (
                <label key={key} className="mr-3 inline-flex min-h-6 items-center gap-1">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={!drop.has(key)}
                    disabled={nth === 0}
                    onChange={(event) =>
                      setDrop(
                        (now) =>
                          new Set(event.target.checked ? [...now].filter((other) => other !== key) : [...now, key]),
                      )
                    }
                  />
                  {byId.get(deck)?.title}, {number}
                </label>
              );
            })}
          </li>
        ))}
      </ul>
    </details>
  );
}
