import { Choices } from "../ui/Choices";
import { Dialog } from "../ui/Dialog";
import { must } from "@unitext/core/model";
import type { Change } from "@unitext/core/edit";
import { putSkeleton, removeSkeleton, SKELETONS, type SkeletonPlace } from "@unitext/core/generate";
import { nanoid } from "nanoid";
import { useState } from "react";
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
  const [text, setText] = useState(() => remembered() || must(Object.values(SKELETONS)[0]).join("\n"));
  const [place, setPlace] = useState<SkeletonPlace>("slide");
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
  };
  return (
    <Dialog
      title={`Skeleton for ${slides}`}
      lead="Adds the same parts to every selected slide, to be filled in later. Parts that are already there are not added again."
      onClose={onClose}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost btn-sm" onClick={close}>
            Cancel
          </button>
          <button
            type="button"
            className="btn btn-sm"
            disabled={!off}
            onClick={() => {
              take(off, `Removed the empty parts from ${slides}`);
              close();
            }}
          >
            Remove empty parts
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={!put}
            onClick={() => {
              take(put, `Added ${parts.length} parts to ${slides}`);
              close();
            }}
          >
            Add
          </button>
        </>
      )}
    >
      <div role="group" aria-label="Start with" className="mb-2 flex flex-wrap gap-1">
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
      <Choices
        legend="Position"
        options={[
          { value: "slide", label: "as headings on the slide" },
          { value: "after", label: "as slides after it" },
        ]}
        value={place}
        onChange={setPlace}
      />
    </Dialog>
  );
}
