import { BACKGROUND_FILLS, type BackgroundFillName } from "@unitext/core/edit";
import { type Background, canonical, type Slide, themeOf } from "@unitext/core/model";
import { useDeferredValue, useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SlideChoices } from "../deck/SlideChoices";

const NAMES = Object.keys(BACKGROUND_FILLS) as BackgroundFillName[];

/** The fills that a slide's background can have, each drawn behind the slide. */
export function BackgroundFills({
  slide: given,
  onChoose,
}: {
  slide: Slide;
  onChoose: (background: Background, words: string) => void;
}) {
  const { metadata } = useDeck();
  const slide = useDeferredValue(given);
  const { colours } = themeOf(given, metadata);
  const fills = useMemo(
    () =>
      NAMES.map((name) => {
        const { label, fill } = BACKGROUND_FILLS[name];
        const background: Background = { fill: fill(colours) };
        return { name, label, background, shown: { ...slide, background } };
      }),
    [slide, colours],
  );
  const now = canonical(given.background);
  return (
    <div className="my-2">
      <SlideChoices
        legend="Fill of the background"
        slide={given}
        choices={fills.map(({ background, ...choice }) => ({
          ...choice,
          title: `Fills the background: ${choice.label.toLowerCase()}`,
          on: canonical(background) === now,
        }))}
        onChoose={(name) => onChoose({ fill: BACKGROUND_FILLS[name].fill(colours) }, "Filled the background")}
      />
    </div>
  );
}
