import { TermList } from "@unitext/server/api";
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import useSWR from "swr";
import { get, put } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { Dialog } from "../ui/Dialog";

/** A term as it is typed: forbidden words are separated by commas. */
interface Row {
  source: string;
  target: string;
  note: string;
  forbidden: string;
}

const EMPTY: Row = { source: "", target: "", note: "", forbidden: "" };
const COLUMNS = [
  ["source", "Term"],
  ["target", "Translation"],
  ["forbidden", "Words not to use"],
  ["note", "Note"],
] as const;

const rowsOf = ({ terms }: TermList): Row[] =>
  terms.map(({ source, target, note = "", forbidden = [] }) => ({
    source,
    target,
    note,
    forbidden: forbidden.join(", "),
  }));

const termsOf = (rows: readonly Row[]): TermList["terms"] =>
  rows
    .filter(({ source }) => source.trim())
    .map(({ source, target, note, forbidden }) => ({
      source,
      target,
      note,
      forbidden: forbidden
        .split(",")
        .map((word) => word.trim())
        .filter(Boolean),
    }));

/** The terms of a person in the languages of the deck, as a table to edit. */
export function TermsDialog({ from, to, onClose }: { from: string; to: string; onClose: (changed: boolean) => void }) {
  const { session } = useDeck();
  const address = `/terms/list?${new URLSearchParams({ from, to })}`;
  const { data, error } = useSWR(address, () => get(address, TermList), { revalidateOnFocus: false });
  const [edited, setEdited] = useState<Row[]>();
  const [words, setWords] = useState("");
  const [problem, setProblem] = useState("");
  const rows = edited ?? (data ? rowsOf(data) : []);
  const shown = rows
    .map((row, nth) => ({ row, nth }))
    .filter(({ row }) => !words || Object.values(row).some((text) => text.toLowerCase().includes(words.toLowerCase())));
  const change = (nth: number, column: keyof Row, value: string) =>
    setEdited(rows.map((row, at) => (at === nth ? { ...row, [column]: value } : row)));

  async function save(close: () => void) {
    try {
      await put(address, { terms: termsOf(rows) });
      session.notify(`${termsOf(rows).length} terms are stored.`);
      setEdited(undefined);
      onClose(true);
      close();
    } catch (reason) {
      setProblem((reason as Error).message);
    }
  }
  return (
    <Dialog
      title="Terms"
      lead="They are shown under each source that has them, in whatever form, and checked in its translation. The term itself as translation means that it is not translated."
      width="widest"
      tall
      onClose={() => onClose(false)}
      actions={(close) => (
        <>
          <button type="button" className="btn" onClick={close}>
            Cancel
          </button>
          <button type="button" className="btn btn-primary" disabled={!edited} onClick={() => void save(close)}>
            Save the terms
          </button>
        </>
      )}
    >
      <div className="flex items-center gap-2 pb-2">
        <input
          type="search"
          className="input input-sm w-56"
          placeholder="Find a term"
          aria-label="Find a term"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <button
          type="button"
          title="Adds a word and what it is called in the other language"
          className="btn btn-sm"
          onClick={() => {
            setWords("");
            setEdited([{ ...EMPTY }, ...rows]);
          }}
        >
          <Plus size={16} aria-hidden="true" /> Add a term
        </button>
        <span className="quiet text-sm">{data ? `${rows.length} terms` : error ? "" : "Reading …"}</span>
      </div>
      {(problem || error) && (
        <p role="alert" className="text-error text-sm">
          {problem || (error as Error).message}
        </p>
      )}
      <div className="min-h-0 flex-1 overflow-auto">
        <table className="table-sm w-full">
          <thead className="bg-base-100 sticky top-0 text-left text-sm">
            <tr>
              {COLUMNS.map(([column, label]) => (
                <th key={column} scope="col" className="px-1 font-semibold">
                  {label}
                </th>
              ))}
              <td />
            </tr>
          </thead>
          <tbody>
            {shown.map(({ row, nth }) => (
              <tr key={nth}>
                {COLUMNS.map(([column, label]) => (
                  <td key={column} className="p-0.5">
                    <input
                      className="input input-sm w-full"
                      aria-label={`${label} ${nth + 1}`}
                      lang={column === "source" ? from : column === "target" ? to : undefined}
                      dir="auto"
                      value={row[column]}
                      onChange={(event) => change(nth, column, event.target.value)}
                    />
                  </td>
                ))}
                <td className="p-0.5">
                  <button
                    type="button"
                    className="btn btn-ghost btn-sm btn-square"
                    aria-label={`Remove ${row.source || "the term"}`}
                    title="Remove"
                    onClick={() => setEdited(rows.filter((_, at) => at !== nth))}
                  >
                    <Trash2 size={16} aria-hidden="true" />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {data && rows.length === 0 && (
          <p className="quiet p-4">
            There are no terms in these languages yet. Add one, or bring in a list (TBX or .csv) in Translate.
          </p>
        )}
      </div>
    </Dialog>
  );
}
