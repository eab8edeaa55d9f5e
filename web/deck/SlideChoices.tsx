import type { Slide } from "@unitext/core/model";
import { useDeck } from "./DeckContext";
import { SmallSlide } from "./SmallSlide";

/** The width of a slide in the gallery, in CSS pixels. */
const WIDTH = 70;

/** One way in which a slide can look. */
export interface SlideChoice<N extends string> {
  name: N;
  label: string;
  /** What choosing it does. */
  title: string;
  /** The slide as it then looks. */
  shown: Slide;
  on: boolean;
}

/** A gallery of the ways in which a slide can look, each drawn with what is on the slide. */
export function SlideChoices<N extends string>({
  legend,
  slide,
  choices,
  onChoose,
}: {
  legend: string;
  slide: Slide;
  choices: readonly SlideChoice<N>[];
  onChoose: (name: N) => void;
}) {
  const { deck, metadata, canEdit } = useDeck();
  const number = deck.slides.findIndex(({ id }) => id === slide.id) + 1;
  return (
    <div role="group" aria-label={legend} className="grid grid-cols-3 gap-1.5">
      {choices.map(({ name, label, title, shown, on }) => (
        <button
          key={name}
          type="button"
          aria-pressed={on}
          disabled={!canEdit}
          title={title}
          onClick={() => onChoose(name)}
          className={`flex flex-col items-center p-0.5 text-center text-[0.7rem] leading-tight ${on ? "outline-2 outline-secondary" : ""}`}
        >
          <SmallSlide slide={shown} number={number} metadata={metadata} deck={deck.id} width={WIDTH} />
          {label}
        </button>
      ))}
    </div>
  );
}
