import { typedText } from "@unitext/core/translate";
import { Alignment, DeckList, MemoryTaken } from "@unitext/server/api";
import { useState } from "react";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { Dialog } from "../ui/Dialog";
import { languageName } from "../ui/languages";

/** Pairs the texts of the open deck with those of the same deck in another language, to fill the memory. */
export function AlignDialog({ onClose }: { onClose: () => void }) {
  const { deck, session } = useDeck();
  const { data: desk } = useSWR("/decks", () => get("/decks", DeckList));
  const [other, setOther] = useState("");
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState("");
  const { data, error, isLoading } = useSWR(
    other ? `/decks/${deck.id}/alignment?with=${other}` : null,
    (path: string) => get(path, Alignment),
    { revalidateOnFocus: false, shouldRetryOnError: false },
  );
  const pairs = data?.pairs ?? [];
  const taken = pairs.filter((_, nth) => !left.has(nth));
  async function store(close: () => void) {
    if (!data) return;
    try {
      const units = taken.map(({ source, target }) => ({ source, target }));
      const sent = { from: data.from, to: data.to, deck: deck.id, units };
      const stored = await post("/memory/units", sent, MemoryTaken);
      session.notify(`${stored.units} translations are in your memory now.`);
      close();
    } catch (reason) {
      setProblem((reason as Error).message);
    }
  }
  return (
    <Dialog
      title="Fill the memory from another deck"
      lead="The texts of both decks are paired slide by slide and sentence by sentence, by their lengths. Leave out what does not belong together."
      width="widest"
      tall
      onClose={onClose}
      actions={(close) => (
        <>
          <button type="button" className="btn" onClick={close}>
            Cancel
          </button>
          <button type="button" className="btn btn-primary" disabled={!taken.length} onClick={() => void store(close)}>
            Store {taken.length} pairs
          </button>
        </>
      )}
    >
      <label className="block pb-2">
        The same deck in another language
        <select
          className="select w-full"
          value={other}
          onChange={(event) => {
            setOther(event.target.value);
            setLeft(new Set());
          }}
        >
          <option value="">Choose a deck</option>
          {(desk?.decks ?? [])
            .filter(({ id }) => id !== deck.id)
            .map(({ id, title, language }) => (
              <option key={id} value={id}>
                {title} ({languageName(language)})
              </option>
            ))}
        </select>
      </label>
      {(problem || error) && (
        <p role="alert" className="text-error text-sm">
          {problem || (error as Error).message}
        </p>
      )}
      {isLoading && <p className="quiet">Pairing the texts …</p>}
      <ul className="min-h-0 flex-1 overflow-auto">
        {pairs.map(({ slide, source, target }, nth) => (
          <li key={nth} className={`hairline border-b ${left.has(nth) ? "opacity-60" : ""}`}>
            <label className="grid cursor-pointer grid-cols-[1.5rem_3rem_1fr_1fr] gap-2 py-1.5 text-sm">
              <input
                type="checkbox"
                className="checkbox checkbox-xs mt-1"
                aria-label={`Take “${typedText(source)}”`}
                checked={!left.has(nth)}
                onChange={() => {
                  const next = new Set(left);
                  if (!next.delete(nth)) next.add(nth);
                  setLeft(next);
                }}
              />
              <span className="quiet tabular-nums">{slide ?? "deck"}</span>
              <span lang={data?.from} dir="auto">
                {typedText(source)}
              </span>
              <span lang={data?.to} dir="auto">
                {typedText(target)}
              </span>
            </label>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
