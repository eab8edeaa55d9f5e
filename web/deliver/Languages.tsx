import type { WritableFormat } from "@unitext/core/formats";
import { Begun, DeckLanguages } from "@unitext/server/api";
import { useState } from "react";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { FormatSelect } from "../ui/FormatSelect";
import { languageName } from "../ui/languages";

/** The notes that files hold: the deck's own, or those of the same deck in another language. */
export interface NotesChoice {
  deck: string;
  notesIn: "other" | "both";
}

/** Returns the part of an address that asks for notes of another language. */
export const notesQuery = (choice: NotesChoice | undefined) =>
  choice ? `&notes=${choice.deck}&notesIn=${choice.notesIn}` : "";

/** For a deck that exists in several languages: whose notes its files hold, and all languages in one archive. */
export function Languages({
  notes,
  onNotes,
}: {
  notes: NotesChoice | undefined;
  onNotes: (choice: NotesChoice | undefined) => void;
}) {
  const { deck, session } = useDeck();
  const { data } = useSWR(`/decks/${deck.id}/languages`, (path: string) => get(path, DeckLanguages));
  const [format, setFormat] = useState<WritableFormat>("pptx");
  const decks = data?.decks ?? [];
  const others = decks.filter(({ id }) => id !== deck.id);
  if (!others.length) return null;
  const own = languageName(deck.language);
  const options = others.flatMap(({ id, language }) => [
    { value: `${id} other`, label: `in ${languageName(language)}, slides in ${own}` },
    { value: `${id} both`, label: `in ${own} and ${languageName(language)}` },
  ]);
  async function writeAll() {
    try {
      await post("/writes", { decks: decks.map(({ id }) => id), formats: [format] }, Begun);
      session.notify("All languages are being written; the archive is listed on the Desk.");
    } catch (reason) {
      session.notify((reason as Error).message);
    }
  }
  return (
    <section aria-labelledby="languages" className="hairline mb-4 max-w-5xl border p-4">
      <h2 id="languages" className="text-lg font-semibold">
        Languages
      </h2>
      <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2 text-sm">
        <label className="flex flex-wrap items-center gap-2">
          Notes
          <select
            className="select select-xs w-64 max-w-full"
            value={notes ? `${notes.deck} ${notes.notesIn}` : ""}
            onChange={({ target }) => {
              const [id = "", notesIn] = target.value.split(" ");
              onNotes(id ? { deck: id, notesIn: notesIn === "both" ? "both" : "other" } : undefined);
            }}
          >
            <option value="">in {own}</option>
            {options.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <span className="flex flex-wrap items-center gap-2">
          <FormatSelect
            label={`All ${decks.length} languages as`}
            className="select-xs w-52"
            value={format}
            onChange={setFormat}
          />
          <button type="button" className="btn btn-xs" onClick={() => void writeAll()}>
            Write them
          </button>
        </span>
      </div>
    </section>
  );
}
