import type { PairedSegment } from "@unitext/server/api";
import { useState } from "react";
import type { Sent } from "./waiting";

/** Returns pieces with words replaced, and how often; placeholders stay. */
function replaced(pieces: PairedSegment["source"], words: string, by: string) {
  let count = 0;
  const next = pieces.map((piece) => {
    if (typeof piece !== "string") return piece;
    const parts = piece.split(words);
    count += parts.length - 1;
    return parts.join(by);
  });
  return { next, count };
}

/** Replaces words in all translations that are listed. Letters count as they are typed. */
export function Replace({
  words,
  rows,
  disabled,
  onReplace,
}: {
  words: string;
  rows: readonly PairedSegment[];
  disabled: boolean;
  onReplace: (sent: Sent[]) => void;
}) {
  const [by, setBy] = useState("");
  const changes = rows.flatMap(({ id, target, state }) => {
    const { next, count } = replaced(target ?? [], words, by);
    const kept: Sent["state"] = state === "reviewed" ? "reviewed" : "draft";
    return count ? [{ id, target: next, state: kept, count }] : [];
  });
  const places = changes.reduce((sum, { count }) => sum + count, 0);
  return (
    <form
      className="flex items-center gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (places) onReplace(changes.map(({ count: _, ...sent }) => sent));
      }}
    >
      <input
        className="input input-xs w-36"
        placeholder="Replace with"
        aria-label="Replace with"
        value={by}
        disabled={disabled}
        onChange={(event) => setBy(event.target.value)}
      />
      <button type="submit" className="btn btn-xs" disabled={disabled || places === 0}>
        Replace {places} in the translations
      </button>
    </form>
  );
}
