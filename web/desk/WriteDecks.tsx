import type { WritableFormat } from "@unitext/core/formats";
import type { Sheets } from "@unitext/core/layout";
import { Begun, type DeckRow } from "@unitext/server/api";
import { type FormEvent, useState } from "react";
import { post } from "../api/client";
import { FORMATS } from "@unitext/core/formats/catalogue";
import { FormatSelect } from "../ui/FormatSelect";
import { PAGES_SHOW } from "../ui/formats";

/** Writes many decks at once in one format: a job whose file and report are listed on the Desk when it is done. */
export function WriteDecks({
  rows,
  pattern,
  onClose,
  onBegun,
}: {
  rows: readonly DeckRow[];
  pattern: string;
  onClose: () => void;
  onBegun: () => void;
}) {
  const [format, setFormat] = useState<WritableFormat>("pptx");
  const [sheets, setSheets] = useState<Sheets>("slides");
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState("");
  const chosen = rows.filter(({ id }) => !off.has(id));
  async function begin(event: FormEvent) {
    event.preventDefault();
    try {
      await post(
        "/writes",
        { decks: chosen.map(({ id }) => id), formats: [format], ...(format === "pdf" ? { sheets } : {}) },
        Begun,
      );
      onBegun();
      onClose();
    } catch (error) {
      setProblem((error as Error).message);
    }
  }
  return (
    <form onSubmit={begin} className="hairline bg-base-200 mb-4 border p-4" aria-labelledby="write-decks">
      <h2 id="write-decks" className="mb-1 font-semibold">
        Write {chosen.length === 1 ? "one deck" : `${chosen.length} decks`} at once
      </h2>
      <p className="quiet mb-2 text-sm">
        {pattern.trim()
          ? `Those whose name fits “${pattern.trim()}”.`
          : "All on the Desk; a pattern in the search above takes some of them."}{" "}
        They come in one archive, with one report on what is kept, adapted and left out.
      </p>
      <div className="mb-2 flex flex-wrap gap-4">
        <FormatSelect label="Format" autoFocus className="select-sm w-60" value={format} onChange={setFormat} />
        {format === "pdf" && (
          <label className="block text-sm">
            Pages show
            <select
              className="select select-sm ml-2 w-64"
              value={sheets}
              onChange={({ target }) => setSheets(target.value as Sheets)}
            >
              {Object.entries(PAGES_SHOW).map(([kind, label]) => (
                <option key={kind} value={kind}>
                  {label}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      <p className="quiet mb-2 text-sm">{FORMATS[format].purpose}</p>
      <fieldset className="hairline bg-base-100 mb-3 max-h-48 overflow-auto border p-2">
        <legend className="sr-only">Decks to write</legend>
        {rows.map(({ id, title, slides }) => (
          <label key={id} className="flex min-h-8 items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={!off.has(id)}
              onChange={({ target }) =>
                setOff((before) => new Set(target.checked ? [...before].filter((one) => one !== id) : [...before, id]))
              }
            />
            {title || "Untitled"} <span className="quiet">{slides} slides</span>
          </label>
        ))}
      </fieldset>
      {problem && (
        <p role="alert" className="border-error mb-2 border-l-4 px-3 text-sm">
          {problem}
        </p>
      )}
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm" disabled={!chosen.length || chosen.length > 500}>
          Write them
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
          Close
        </button>
      </div>
    </form>
  );
}
