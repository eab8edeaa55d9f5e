import { apply, batch, rearrangeIn } from "@unitext/core/edit";
import { ARRANGEMENTS, ArrangementName, type Slide } from "@unitext/core/model";
import { useDeferredValue, useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";

/** The width of a slide in the gallery, in CSS pixels. */
const WIDTH = 70;

/** The arrangements that a slide can have, each drawn with what is on the slide. */
export function Arrangements({ slide: given }: { slide: Slide }) {
  const { deck, metadata, session, canEdit } = useDeck();
  const slide = useDeferredValue(given);
  const arranged = useMemo(() => {
    const alone = { ...deck, slides: [{ ...slide, parent: null }] };
    return ArrangementName.options.map((name) => {
      const changed = name === slide.arrangement ? alone : apply(alone, batch(rearrangeIn(alone, slide, name))).deck;
      return { name, slide: changed.slides[0] ?? slide };
    });
  }, [slide, deck]);
  const number = deck.slides.findIndex(({ id }) => id === given.id) + 1;
  return (
    <div role="group" aria-label="Arrangement" className="grid grid-cols-3 gap-1.5">
      {arranged.map(({ name, slide: shown }) => (
        <button
          key={name}
          type="button"
          aria-pressed={given.arrangement === name}
          disabled={!canEdit}
          title={`Arranges the slide as “${ARRANGEMENTS[name].label}”`}
          onClick={() =>
            session.apply(batch(rearrangeIn(deck, given, name)), {
              words: `Arranged as “${ARRANGEMENTS[name].label}”`,
            })
          }
          className={`flex flex-col items-center p-0.5 text-center text-[0.7rem] leading-tight ${given.arrangement === name ? "outline-2 outline-secondary" : ""}`}
        >
          <SmallSlide slide={shown} number={number} metadata={metadata} deck={deck.id} width={WIDTH} />
          {ARRANGEMENTS[name].label}
        </button>
      ))}
    </div>
  );
}
