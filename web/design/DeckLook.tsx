import { DeckList, DeckState } from "@unitext/server/api";
import { layoutsOf } from "@unitext/core/model";
import { useState } from "react";
import useSWR from "swr";
import { batch, putLook } from "@unitext/core/edit";
import { get } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/**
 * Gives the deck the look of another deck of the Desk: its theme, and the layouts of the file that it came from. `restyled`
 * says whether slides with the look of a file take it too.
 */
export function DeckLook({ restyled, onTaken }: { restyled: boolean; onTaken: () => void }) {
  const { deck, session } = useDeck();
  const { data } = useSWR("/decks", () => get("/decks", DeckList));
  const [chosen, setChosen] = useState("");
  const [busy, setBusy] = useState(false);
  const rows = data?.decks ?? [];
  async function take() {
    setBusy(true);
    try {
      const other = chosen === deck.id ? deck : (await get(`/decks/${chosen}`, DeckState)).deck;
      session.apply(batch(putLook(deck, other, restyled && other !== deck)), {
        words: `Took the look of “${other.properties.title}”`,
      });
      onTaken();
    } catch (error) {
      session.notify((error as Error).message);
    } finally {
      setBusy(false);
    }
  }
  return (
    <fieldset className="mt-2 text-sm">
      <legend className="font-semibold">Or the look of a deck</legend>
      <div className="flex items-end gap-2">
        <label className="min-w-0 flex-1">
          <span className="quiet">Its theme, and the layouts of the file that it came from</span>
          <select className="select select-sm w-full" value={chosen} onChange={({ target }) => setChosen(target.value)}>
            <option value="">Choose a deck …</option>
            {layoutsOf(deck) && <option value={deck.id}>This deck: the layouts of its file</option>}
            {rows
              .filter(({ id }) => id !== deck.id)
              .map(({ id, title }) => (
                <option key={id} value={id}>
                  {title || "Untitled"}
                </option>
              ))}
          </select>
        </label>
        <button type="button" className="btn btn-sm" disabled={busy || !chosen} onClick={() => void take()}>
          Take its look
        </button>
      </div>
    </fieldset>
  );
}
