import type { Advice } from "@unitext/core/advice";
import { nameOf, type Slide } from "@unitext/core/model";
import { useNavigate } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Dialog } from "../ui/Dialog";

/** What was found on one slide: each finding with the act that mends it. */
function SlideAdvice({
  slide,
  number,
  advice,
  onOpen,
}: {
  slide: Slide;
  number: number;
  advice: readonly Advice[];
  onOpen: () => void;
}) {
  const { deck, metadata, session, canEdit } = useDeck();
  return (
    <li className="hairline flex gap-4 border-b py-3">
      <SmallSlide slide={slide} number={number} metadata={metadata} deck={deck.id} width={160} className="self-start" />
      <div className="min-w-0 flex-1">
        <p className="flex items-baseline gap-2">
          <strong className="min-w-0 flex-1 truncate">
            {number}. {nameOf(slide) || "(empty)"}
          </strong>
          <button type="button" className="btn btn-ghost btn-xs" onClick={onOpen}>
            Open<span className="sr-only"> slide {number}</span>
          </button>
        </p>
        <ul className="mt-1 text-sm">
          {advice.map(({ check, label, message, element, remedy }) => (
            <li key={`${check}/${element ?? ""}/${message}`} className="flex items-baseline gap-3 py-0.5">
              <span className="min-w-0 flex-1">
                <span className="font-semibold">{label}.</span> {message}
              </span>
              {remedy && canEdit && (
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() => session.apply(remedy.change, { words: `${remedy.label}: slide ${number}` })}
                >
                  {remedy.label}
                  <span className="sr-only">, slide {number}</span>
                </button>
              )}
            </li>
          ))}
        </ul>
      </div>
    </li>
  );
}

/** Lists what the checks found, slide by slide, each with one act that mends it where there is one. */
export function CheckDialog({ onClose }: { onClose: () => void }) {
  const {
    deck,
    advice: { found, isComplete },
    select,
  } = useDeck();
  const navigate = useNavigate();
  const shown = deck.slides.flatMap((slide, nth) => {
    const own = found.filter((one) => one.slide === slide.id);
    return own.length ? [{ slide, number: nth + 1, own }] : [];
  });
  const lead = !isComplete
    ? "Checking the slides …"
    : shown.length === 0
      ? "Nothing was found: contrast, sizes, words, pictures, titles and motion are as they should be."
      : `${found.length} ${found.length === 1 ? "hint" : "hints"} on ${shown.length} of ${deck.slides.length} slides. Every change can be undone.`;
  return (
    <Dialog
      title="Check"
      lead={lead}
      width="widest"
      tall={shown.length > 2}
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn btn-primary" onClick={close}>
          Done
        </button>
      )}
    >
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {shown.map(({ slide, number, own }) => (
          <SlideAdvice
            key={slide.id}
            slide={slide}
            number={number}
            advice={own}
            onOpen={() => {
              select([slide.id]);
              onClose();
              void navigate(`/decks/${deck.id}/refine/${slide.id}`);
            }}
          />
        ))}
      </ul>
    </Dialog>
  );
}
