import { HEADING_LOOKS, type HeadingLookName, withHeadingLook } from "@unitext/core/edit";
import { placeTheme, slotPlaces } from "@unitext/core/layout";
import { canonical, type Frame, roleOf, type Slide, type SlotRole, type TextElement } from "@unitext/core/model";
import { useDeferredValue, useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Fold } from "../ui/Fold";
import type { Acts } from "./selection";

/** The texts that are headings. */
const HEADINGS: readonly SlotRole[] = ["opening", "title", "statement"];
const WIDTH = 70;
const NAMES = Object.keys(HEADING_LOOKS) as HeadingLookName[];

/** The looks that a heading can have, each drawn on the slide; nothing for other texts. */
export function HeadingLooks({
  slide: given,
  text,
  frame,
  acts,
}: {
  slide: Slide;
  text: TextElement;
  frame: Frame;
  acts: Acts;
}) {
  const { deck, metadata } = useDeck();
  const slide = useDeferredValue(given);
  const role = roleOf(given, text);
  const surface = text.slot === null ? undefined : slotPlaces(given.arrangement, deck).get(text.slot)?.surface;
  const theme = placeTheme(given, surface, deck);
  const looks = useMemo(
    () =>
      NAMES.map((name) => {
        const element = withHeadingLook(text, name, theme, frame);
        const elements = slide.elements.map((other) => (other.id === text.id ? element : other));
        return { name, element, shown: { ...slide, elements } };
      }),
    [slide, text, theme, frame],
  );
  if (!role || !HEADINGS.includes(role)) return null;
  const number = deck.slides.findIndex(({ id }) => id === given.id) + 1;
  return (
    <Fold name="heading-look" title="Heading style">
      <div role="group" aria-label="Heading style" className="grid grid-cols-3 gap-1.5">
        {looks.map(({ name, element, shown }) => {
          const on = canonical(element) === canonical(text);
          return (
            <button
              key={name}
              type="button"
              aria-pressed={on}
              title={`Gives the heading the style “${HEADING_LOOKS[name].label}”`}
              className={`flex flex-col items-center p-0.5 text-center text-[0.7rem] leading-tight ${on ? "outline-2 outline-secondary" : ""}`}
              onClick={() => acts.set(() => element, `Gave the heading the style “${HEADING_LOOKS[name].label}”`)}
            >
              <SmallSlide slide={shown} number={number} metadata={metadata} deck={deck.id} width={WIDTH} />
              {HEADING_LOOKS[name].label}
            </button>
          );
        })}
      </div>
    </Fold>
  );
}
