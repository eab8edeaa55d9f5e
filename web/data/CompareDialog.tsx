import { metadataOf, type Slide } from "@unitext/core/model";
import type { CheckedBinding } from "@unitext/server/api";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Dialog } from "../ui/Dialog";
import { changedCells, difference } from "./changes";

/** What changes on the slide that is shown: a line for each value, or for each cell of a table or chart. */
function Changes({ checks }: { checks: readonly CheckedBinding[] }) {
  const lines = checks.flatMap(({ key, binding, from, to, numbers, reason }) =>
    from.includes("\n") || to.includes("\n")
      ? changedCells(from, to).map((cell, nth) => ({ ...cell, key: `${key} ${nth}`, note: nth ? "" : binding.range }))
      : [
          {
            key,
            from,
            to,
            note: [binding.range, numbers ? difference(numbers, to) : "", reason].filter(Boolean).join(", "),
          },
        ],
  );
  return (
    <ul className="mt-3 max-h-40 overflow-auto text-sm" aria-label="New values on this slide">
      {lines.slice(0, 200).map(({ key, from, to, note }) => (
        <li key={key} className="tabular-nums">
          {from || "(empty)"} → <strong>{to || "(empty)"}</strong> <span className="quiet">{note}</span>
        </li>
      ))}
    </ul>
  );
}

/** The slides of bindings as they are and with the new values, side by side, before the values are taken. */
export function CompareDialog({
  checks,
  withValues,
  onTake,
  onClose,
}: {
  checks: readonly CheckedBinding[];
  withValues: (keys: readonly string[]) => Promise<Slide[]>;
  onTake: () => void;
  onClose: () => void;
}) {
  const { deck } = useDeck();
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const [after, setAfter] = useState<Slide[]>();
  const [problem, setProblem] = useState("");
  const [at, setAt] = useState(0);
  const ids = [...new Set(checks.map(({ slideId }) => slideId))];
  const id = ids[at];
  const own = checks.filter(({ slideId }) => slideId === id);
  const number = own[0]?.slide ?? 1;
  const before = deck.slides.find((slide) => slide.id === id);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the values are asked for once.
  useEffect(() => {
    let gone = false;
    withValues(checks.map(({ key }) => key)).then(
      (slides) => !gone && setAfter(slides),
      (error: Error) => !gone && setProblem(error.message),
    );
    return () => {
      gone = true;
    };
  }, []);
  const next = after && (after.find((slide) => slide.id === id) ?? before);
  const sources = [...new Set(checks.map(({ binding }) => binding.source))].join(", ");
  const turn = (by: number) => setAt((now) => Math.max(0, Math.min(ids.length - 1, now + by)));
  return (
    <Dialog
      title={ids.length > 1 ? `${checks.length} new values on ${ids.length} slides` : `Slide ${number} with new values`}
      lead={`From ${sources}.`}
      width="page"
      onClose={onClose}
      onSubmit={onTake}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Keep the old values
          </button>
          <button type="submit" className="btn btn-primary">
            {checks.length > 1 ? `Take ${checks.length} new values` : "Take the new value"}
          </button>
        </>
      )}
    >
      {problem && <p role="alert">{problem}</p>}
      {ids.length > 1 && (
        <div className="mb-2 flex items-center gap-2 text-sm" role="group" aria-label="Slides with new values">
          <button
            type="button"
            title="Goes to the difference before this one"
            className="btn btn-xs"
            disabled={at === 0}
            onClick={() => turn(-1)}
          >
            <ChevronLeft size={14} aria-hidden="true" /> Previous
          </button>
          <button
            type="button"
            title="Goes to the next difference"
            className="btn btn-xs"
            disabled={at === ids.length - 1}
            onClick={() => turn(1)}
          >
            Next <ChevronRight size={14} aria-hidden="true" />
          </button>
          <span role="status">
            Slide {number} ({at + 1} of {ids.length})
          </span>
        </div>
      )}
      <div className="grid grid-cols-2 gap-4">
        {[
          { slide: before, label: "Now" },
          { slide: next, label: "With the new values" },
        ].map(({ slide, label }) => (
          <figure key={label}>
            <figcaption className="quiet pb-1 text-sm">{label}</figcaption>
            {slide ? (
              <SmallSlide slide={slide} number={number} metadata={metadata} deck={deck.id} width={440} label={label} />
            ) : (
              <div className="bg-base-200 aspect-video" aria-busy="true" />
            )}
          </figure>
        ))}
      </div>
      <Changes checks={own} />
    </Dialog>
  );
}
