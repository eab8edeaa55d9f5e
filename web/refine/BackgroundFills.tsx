import { BACKGROUND_FILLS, type BackgroundFillName } from "@unitext/core/edit";
import { type Background, canonical, type Slide, themeOf } from "@unitext/core/model";
import { useDeferredValue, useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";

const WIDTH = 70;
const NAMES = Object.keys(BACKGROUND_FILLS) as BackgroundFillName[];

/** The fills that a slide's background can have, each drawn behind the slide. */
export function BackgroundFills({
  slide: given,
  onChoose,
}: {
  slide: Slide;
  onChoose: (background: Background, words: string) => void;
}) {
  const { deck, metadata } = useDeck();
  const slide = useDeferredValue(given);
  const { colours } = themeOf(given, metadata);
  const fills = useMemo(
    () =>
      NAMES.map((name) => {
        const background: Background = { fill: BACKGROUND_FILLS[name].fill(colours) };
        return { name, background, shown: { ...slide, background } };
      }),
    [slide, colours],
  );
  const number = deck.slides.findIndex(({ id }) => id === given.id) + 1;
  return (
    <div role="group" aria-label="Fill of the background" className="my-2 grid grid-cols-3 gap-1.5">
      {fills.map(({ name, background, shown }) => {
        const on = given.background !== undefined && canonical(given.background) === canonical(background);
        const { label } = BACKGROUND_FILLS[name];
        return (
          <button
            key={name}
            type="button"
            aria-pressed={on}
            title={`Fills the background: ${label.toLowerCase()}`}
            className={`flex flex-col items-center p-0.5 text-center text-[0.7rem] leading-tight ${on ? "outline-2 outline-secondary" : ""}`}
            onClick={() => onChoose(background, "Filled the background")}
          >
            <SmallSlide slide={shown} number={number} metadata={metadata} deck={deck.id} width={WIDTH} />
            {label}
          </button>
        );
      })}
    </div>
  );
}
