import { must } from "@unitext/core/model";
import type { Change } from "@unitext/core/edit";
import { putSkeleton, removeSkeleton, SKELETONS, type SkeletonPlace } from "@unitext/core/generate";
import { nanoid } from "nanoid";
import { useEffect, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";

const STORE = "unitext:skeleton";
const remembered = () => {
  try {
    return localStorage.getItem(STORE) ?? "";
  } catch {
    return "";
  }
};

/** Adds the same parts to all selected slides, and removes those that were not filled in. */
export function SkeletonDialog({ onClose }: { onClose: () => void }) {
  const { deck, selected, session } = useDeck();
  const dialog = useRef<HTMLDialogElement>(null);
  const [text, setText] = useState(() => remembered() || must(Object.values(SKELETONS)[0]).join("\n"));
  const [place, setPlace] = useState<SkeletonPlace>("slide");
  useEffect(() => dialog.current?.showModal(), []);
  const parts = text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);
  const slides = selected.length === 1 ? "one slide" : `${selected.length} slides`;
  const put = putSkeleton(deck, selected, parts, place, () => nanoid(10));
  const off = removeSkeleton(deck, selected, parts);
  const take = (change: Change | undefined, words: string) => {
    try {
      localStorage.setItem(STORE, text);
    } catch {
      // Without storage, the parts are typed again next time.
    }
    if (change) session.apply(change, { words });
    dialog.current?.close();
  };
  return (
    <dialog ref={dialog} className="modal" aria-labelledby="skeleton-title" onClose={onClose}>
      <form method="dialog" className="modal-box hairline border" onSubmit={(event) => event.preventDefault()}>
        <h2 id="skeleton-title" className="mb-1 text-lg font-semibold">
          Skeleton for {slides}
        </h2>
        <p className="quiet mb-3 text-sm">
          The same parts on every selected slide, to be filled in later. A part that is there already is not put twice.
        </p>
        <div role="group" aria-label="Begin with" className="mb-2 flex flex-wrap gap-1">
          {Object.entries(SKELETONS).map(([name, list]) => (
            <button key={name} type="button" className="btn btn-xs" onClick={() => setText(list.join("\n"))}>
              {name}
            </button>
          ))}
        </div>
        <label className="block text-sm" htmlFor="skeleton-parts">
          Parts, one a line
        </label>
        <textarea
          id="skeleton-parts"
          className="textarea mb-3 h-28 w-full font-serif"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <fieldset className="flex gap-4 text-sm">
          <legend className="sr-only">Position</legend>
          {(["slide", "after"] as const).map((value) => (
            <label key={value} className="flex items-center gap-2">
              <input
                type="radio"
                name="skeleton-place"
                className="radio radio-sm"
                checked={place === value}
                onChange={() => setPlace(value)}
              />
              {value === "slide" ? "as headings on the slide" : "as slides after it"}
            </label>
          ))}
        </fieldset>
        <div className="modal-action">
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => dialog.current?.close()}>
            Cancel
          </button>
          <button
            type="button"
            className="btn btn-sm"
            disabled={!off}
            onClick={() => take(off, `Took the unfilled parts off ${slides}`)}
          >
            Remove what is unfilled
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={!put}
            onClick={() => take(put, `Put ${parts.length} parts on ${slides}`)}
          >
            Put on
          </button>
        </div>
      </form>
    </dialog>
  );
}
