import { countWords, secondsOf } from "@unitext/core/model";
import { useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { useMeasures } from "../deck/scenes";
import { clock } from "../ui/time";

/** Slowest and fastest speaking rate, in words per minute. */
const [SLOWEST, FASTEST] = [40, 400];

/** The deck in figures: slides, words, time at a speaking rate that can be changed, and slides that are too full. */
export function DeckFigures({ text }: { text: string }) {
  const { deck, metadata } = useDeck();
  const measureOf = useMeasures(deck, metadata);
  const words = useMemo(() => countWords(text), [text]);
  const seconds = deck.slides.reduce((total, slide) => total + secondsOf(slide, deck.rate), 0);
  const over = deck.slides.filter((slide) => (measureOf(slide)?.overflow ?? 0) > 0).length;
  return (
    <div className="ml-auto flex items-center gap-2.5 whitespace-nowrap" aria-live="off">
      <span>
        <strong>{deck.slides.length}</strong> slides
      </span>
      <span>
        <strong>{words}</strong> words
      </span>
      <span>
        <strong>{clock(seconds)}</strong> at <RateField />
      </span>
      <span className={over ? "text-error" : ""}>
        <strong>{over}</strong> too full
      </span>
    </div>
  );
}

function RateField() {
  const { deck, session, canEdit } = useDeck();
  return (
    <input
      key={deck.rate}
      type="number"
      min={SLOWEST}
      max={FASTEST}
      step={5}
      className="input input-xs w-12 px-1 text-right"
      aria-label="Speaking rate in words a minute"
      title="Words per minute"
      defaultValue={deck.rate}
      disabled={!canEdit}
      onBlur={({ target }) => {
        const rate = Number(target.value);
        if (rate >= SLOWEST && rate <= FASTEST && rate !== deck.rate) session.apply({ kind: "setRate", rate });
        else target.value = String(deck.rate);
      }}
    />
  );
}
