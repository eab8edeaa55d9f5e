import { type DeckMetadata, metadataOf, type Slide } from "@unitext/core/model";
import { useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Dialog } from "../ui/Dialog";

/** How many of the slides are drawn. */
const SHOWN = 12;

/** A way to take what was pasted or dropped. The first one is the main act. */
export interface Way {
  label: string;
  act: () => void;
}

/** Shows the slides that pasted or dropped content makes, before it lands in one of several ways. */
export function ContentDialog({
  title,
  place,
  slides,
  assets,
  ways,
  onClose,
}: {
  title: string;
  /** Where new slides land: "after 12". */
  place: string;
  slides: readonly Slide[];
  /** Pictures that the slides have and the deck does not have yet. */
  assets?: DeckMetadata["assets"];
  ways: readonly Way[];
  onClose: () => void;
}) {
  const { deck } = useDeck();
  const metadata = useMemo(() => {
    const own = metadataOf(deck);
    return assets ? { ...own, assets: { ...own.assets, ...assets } } : own;
  }, [deck, assets]);
  const [first, ...others] = ways;
  return (
    <Dialog
      title={title}
      lead={`${slides.length === 1 ? "It makes one slide" : `It makes ${slides.length} slides`}, which would land ${place}.`}
      width="wider"
      onClose={onClose}
      onSubmit={() => first?.act()}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          {others.map(({ label, act }) => (
            <button
              key={label}
              type="button"
              className="btn"
              onClick={() => {
                act();
                close();
              }}
            >
              {label}
            </button>
          ))}
          {first && (
            <button type="submit" className="btn btn-primary">
              {first.label}
            </button>
          )}
        </>
      )}
    >
      <div className="grid max-h-[50vh] grid-cols-3 gap-3 overflow-y-auto">
        {slides.slice(0, SHOWN).map((slide, nth) => (
          <SmallSlide key={slide.id} slide={slide} number={nth + 1} metadata={metadata} deck={deck.id} width={222} />
        ))}
      </div>
      {slides.length > SHOWN && <p className="quiet pt-2 text-sm">and {slides.length - SHOWN} more</p>}
    </Dialog>
  );
}
