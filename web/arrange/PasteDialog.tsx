import { metadataOf, must } from "@unitext/core/model";
import { useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { type Clipped, clippedDeck } from "./clipboard";
import { SmallSlide } from "../deck/SmallSlide";

/** Slides from a deck with another theme are shown in both themes before the choice. */
export function PasteDialog({
  clipped,
  place,
  first,
  onPaste,
  onClose,
}: {
  clipped: Clipped;
  place: string;
  first: "match" | "keep";
  onPaste: (look: "match" | "keep") => void;
  onClose: () => void;
}) {
  const { deck } = useDeck();
  const dialog = useRef<HTMLDialogElement>(null);
  const [look, setLook] = useState(first);
  useEffect(() => dialog.current?.showModal(), []);
  // A slide drawn in two themes counts as two slides for the drawing.
  const twin = useMemo(
    () => ({
      match: { ...must(clipped.slides[0]), parent: null },
      keep: { ...must(clipped.slides[0]), parent: null },
    }),
    [clipped],
  );
  const count = clipped.slides.length === 1 ? "one slide" : `${clipped.slides.length} slides`;
  const from = clippedDeck(clipped, deck);
  return (
    <dialog ref={dialog} className="modal" aria-labelledby="paste-title" onClose={onClose}>
      <form
        method="dialog"
        className="modal-box hairline max-w-3xl border"
        onSubmit={(event) => {
          event.preventDefault();
          onPaste(look);
          dialog.current?.close();
        }}
      >
        <h2 id="paste-title" className="mb-1 text-lg font-semibold">
          Paste {count} from “{clipped.title}”
        </h2>
        <p className="quiet mb-3 text-sm">
          {clipped.slides.length === 1 ? "It lands" : "They land"} {place}. The deck that{" "}
          {clipped.slides.length === 1 ? "it comes" : "they come"} from looks otherwise than this one; both looks are
          shown{clipped.slides.length === 1 ? "" : " with the first of them"}.
        </p>
        <fieldset className="flex gap-4">
          <legend className="sr-only">Appearance</legend>
          {(["match", "keep"] as const).map((value) => (
            <label
              key={value}
              className={`hairline block cursor-pointer border p-2 ${look === value ? "outline-3 outline-secondary" : ""}`}
            >
              <SmallSlide
                slide={twin[value]}
                number={1}
                metadata={
                  value === "match" ? { ...metadataOf(from), theme: deck.theme, page: deck.page } : metadataOf(from)
                }
                deck={clipped.deck}
                width={312}
              />
              <span className="mt-2 flex items-center gap-2 text-sm">
                <input
                  type="radio"
                  name="paste-look"
                  className="radio radio-sm"
                  checked={look === value}
                  onChange={() => setLook(value)}
                />
                {value === "match" ? "The theme of this deck" : "Their own theme"}
              </span>
            </label>
          ))}
        </fieldset>
        <div className="modal-action">
          <button type="button" className="btn btn-ghost" onClick={() => dialog.current?.close()}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary">
            Paste
          </button>
        </div>
      </form>
    </dialog>
  );
}
