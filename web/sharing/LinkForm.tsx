import type { Link, LinkAsked, SharedRight } from "@unitext/server/api";
import { useState } from "react";
import { RIGHT_WORDS, scopeWords, type SharedThing } from "./rights";

/** Returns the end of a day that a field gives as “2026-12-31”, in the time of this browser. */
const endOf = (day: string): string => new Date(`${day}T23:59:59`).toISOString();
/** Returns the day of a moment as a field wants it. */
const dayOf = (moment: string): string => {
  const at = new Date(moment);
  return [at.getFullYear(), at.getMonth() + 1, at.getDate()].map((part) => String(part).padStart(2, "0")).join("-");
};

interface Props {
  thing: SharedThing;
  translations: number;
  /** The link that is changed; a new one without it. */
  link?: Link;
  /** What the button says. */
  act: string;
  onCancel: () => void;
  onSend: (terms: LinkAsked) => void | Promise<void>;
}

/** What a link gives: a right, notes, translations, an end, a pass phrase. */
export function LinkForm({ thing, translations, link, act, onCancel, onSend }: Props) {
  const [right, setRight] = useState<SharedRight>(link?.right ?? "view");
  const [notes, setNotes] = useState(link?.notes ?? false);
  const [withTranslations, setWithTranslations] = useState(
    link ? link.scope === "translations" : !thing.folder && translations > 0,
  );
  const [ends, setEnds] = useState(link?.expiresAt ? dayOf(link.expiresAt) : "");
  const [phrase, setPhrase] = useState("");
  const [keepsPhrase, setKeepsPhrase] = useState(link?.hasPhrase ?? false);
  const scope = thing.folder ? "folder" : withTranslations ? "translations" : "deck";
  return (
    <form
      className="hairline mt-2 border p-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        const typed = keepsPhrase ? {} : { phrase };
        void onSend({
          scope,
          right,
          notes: notes || right === "edit",
          expiresAt: ends ? endOf(ends) : null,
          ...typed,
        });
      }}
    >
      <div className="flex flex-wrap gap-x-4 gap-y-3">
        <label>
          Whoever has the link
          <select
            className="select select-sm mt-1 flex w-52"
            value={right}
            onChange={({ target }) => setRight(target.value as SharedRight)}
          >
            {(Object.keys(RIGHT_WORDS) as SharedRight[]).map((kind) => (
              <option key={kind} value={kind}>
                {RIGHT_WORDS[kind]}
              </option>
            ))}
          </select>
        </label>
        <label>
          Until the end of (empty: for good)
          <input
            type="date"
            min={dayOf(new Date().toISOString())}
            className="input input-sm mt-1 flex w-44"
            value={ends}
            onChange={({ target }) => setEnds(target.value)}
          />
        </label>
        {keepsPhrase ? (
          <div>
            Pass phrase
            <p className="mt-1 flex items-center gap-2">
              stays as it is
              <button type="button" className="btn btn-sm" onClick={() => setKeepsPhrase(false)}>
                Change
              </button>
            </p>
          </div>
        ) : (
          <label>
            Pass phrase (empty: none)
            <input
              className="input input-sm mt-1 flex w-52"
              maxLength={200}
              autoComplete="off"
              value={phrase}
              onChange={({ target }) => setPhrase(target.value)}
            />
          </label>
        )}
      </div>
      <div className="mt-3 flex flex-wrap gap-x-5 gap-y-1">
        <label className="flex min-h-6 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={notes || right === "edit"}
            disabled={right === "edit"}
            onChange={({ target }) => setNotes(target.checked)}
          />
          Share the notes too
        </label>
        {!thing.folder && (
          <label className="flex min-h-6 items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={withTranslations}
              onChange={({ target }) => setWithTranslations(target.checked)}
            />
            Share {scopeWords("translations", translations)}
          </label>
        )}
      </div>
      <div className="mt-3 flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm">
          {act}
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}
