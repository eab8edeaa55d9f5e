import { ListPlus } from "lucide-react";
import type { MergeListState } from "./useMergeList";

/** The decks on the Desk whose names fit the pattern, with the parts of their names as columns. */
export function FoundDecks({
  merge: { fits, stars, column, setColumn, listed, add, loaded },
  pattern,
  onPattern,
}: {
  merge: MergeListState;
  pattern: string;
  onPattern: (pattern: string) => void;
}) {
  return (
    <section aria-label="Decks on the Desk" className="hairline flex min-h-0 flex-col border-r">
      <div className="flex items-center gap-2 px-4 py-2">
        <label className="input input-sm min-w-0 flex-1">
          <span className="sr-only">Pattern of the names</span>
          <input
            type="search"
            placeholder="TB2-*-* finds by name"
            value={pattern}
            onChange={(event) => onPattern(event.target.value)}
          />
        </label>
        <button
          type="button"
          title="Adds all decks that were found to the list"
          className="btn btn-sm"
          disabled={fits.every(({ row }) => listed.has(row.id))}
          onClick={() => add(fits)}
        >
          <ListPlus size={16} aria-hidden="true" /> Add all {fits.length}
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-auto" tabIndex={0} role="region" aria-label="Decks found">
        <table className="w-full text-sm">
          <thead className="bg-base-100 sticky top-0">
            <tr className="quiet">
              {(["name", ...Array.from({ length: stars }, (_, nth) => nth)] as const).map((key) => (
                <th
                  key={key}
                  scope="col"
                  aria-sort={column === key ? "ascending" : undefined}
                  className="px-2 text-left font-normal not-first:max-md:hidden first:pl-4"
                >
                  <button
                    type="button"
                    className="min-h-6 underline-offset-4 hover:underline"
                    onClick={() => setColumn(key)}
                  >
                    {key === "name" ? "Name" : `Part ${key + 1}`}
                    {column === key ? " ↓" : ""}
                  </button>
                </th>
              ))}
              <th scope="col" className="px-2 text-right font-normal">
                Slides
              </th>
              <td />
            </tr>
          </thead>
          <tbody>
            {fits.map(({ row, name, parts }) => (
              <tr key={row.id} className={`hairline border-t ${listed.has(row.id) ? "quiet" : ""}`}>
                <th
                  scope="row"
                  className="max-w-56 truncate py-1 pr-2 pl-4 text-left font-normal"
                  title={row.file ? `${row.title}, from ${row.file}` : row.title}
                >
                  {name}
                  {row.file && (
                    <span className="quiet block truncate text-xs">
                      {name === row.file ? row.title : `from ${row.file}`}
                    </span>
                  )}
                </th>
                {parts.map((part, nth) => (
                  <td key={nth} className="max-w-32 truncate px-2 max-md:hidden">
                    {part}
                  </td>
                ))}
                <td className="px-2 text-right">{row.slides}</td>
                <td className="pr-3 text-right">
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs"
                    disabled={listed.has(row.id)}
                    aria-label={`${listed.has(row.id) ? "added:" : "Add"} ${name}`}
                    onClick={() => add([{ row, name, parts }])}
                  >
                    {listed.has(row.id) ? "added" : "Add"}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {loaded && fits.length === 0 && (
          <p className="quiet px-4 py-6 text-sm">
            No other deck on the Desk has a name like that. A star stands for anything, as in TB2-*-*.
          </p>
        )}
      </div>
    </section>
  );
}
