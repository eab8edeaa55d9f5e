import { metadataOf, type Slide } from "@unitext/core/model";
import type { CheckedBinding } from "@unitext/server/api";
import { useEffect, useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Dialog } from "../ui/Dialog";
import { changedCells } from "./BindingRow";

/** The slide of a binding as it is and with the new values, side by side, before they are taken. */
export function CompareDialog({
  check,
  withValues,
  onTake,
  onClose,
}: {
  check: CheckedBinding;
  withValues: (keys: readonly string[]) => Promise<Slide[]>;
  onTake: () => void;
  onClose: () => void;
}) {
  const { deck } = useDeck();
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const [after, setAfter] = useState<Slide>();
  const [problem, setProblem] = useState("");
  const before = deck.slides.find(({ id }) => id === check.slideId);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the values are asked for once for each binding.
  useEffect(() => {
    let gone = false;
    withValues([check.key]).then(
      (slides) => !gone && setAfter(slides.find(({ id }) => id === check.slideId) ?? before),
      (error: Error) => !gone && setProblem(error.message),
    );
    return () => {
      gone = true;
    };
  }, [check.key]);
  const cells = changedCells(check.from, check.to);
  return (
    <Dialog
      title={`Slide ${check.slide} with new values`}
      lead={`${check.binding.source}, ${check.binding.range}${check.reason ? `. ${check.reason}` : ""}`}
      width="page"
      onClose={onClose}
      onSubmit={onTake}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Keep the old values
          </button>
          <button type="submit" className="btn btn-primary">
            Take the new values
          </button>
        </>
      )}
    >
      {problem && <p role="alert">{problem}</p>}
      <div className="grid grid-cols-2 gap-4">
        {[
          { slide: before, label: "Now" },
          { slide: after, label: "With the new values" },
        ].map(({ slide, label }) => (
          <figure key={label}>
            <figcaption className="quiet pb-1 text-sm">{label}</figcaption>
            {slide ? (
              <SmallSlide
                slide={slide}
                number={check.slide}
                metadata={metadata}
                deck={deck.id}
                width={440}
                label={label}
              />
            ) : (
              <div className="bg-base-200 aspect-video" aria-busy="true" />
            )}
          </figure>
        ))}
      </div>
      <ul className="mt-3 max-h-40 overflow-auto text-sm" aria-label="Cells with new values">
        {cells.slice(0, 100).map(({ from, to }, nth) => (
          <li key={nth} className="tabular-nums">
            {from || "(empty)"} → <strong>{to || "(empty)"}</strong>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
