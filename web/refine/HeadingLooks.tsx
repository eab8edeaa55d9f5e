import { HEADING_LOOKS, type HeadingLookName, withHeadingLook } from "@unitext/core/edit";
import { placeTheme, slotPlaces } from "@unitext/core/layout";
import { canonical, type Frame, roleOf, type Slide, type SlotRole, type TextElement } from "@unitext/core/model";
import { useDeferredValue, useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SlideChoices } from "../deck/SlideChoices";
import { Fold } from "../ui/Fold";
import type { Acts } from "./selection";

/** The texts that are headings. */
const HEADINGS: readonly SlotRole[] = ["opening", "title", "statement"];
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
  const { deck } = useDeck();
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
  return (
    <Fold name="heading-look" title="Heading style">
      <SlideChoices
        legend="Heading style"
        slide={given}
        choices={looks.map(({ name, element, shown }) => ({
          name,
          shown,
          label: HEADING_LOOKS[name].label,
          title: `Gives the heading the style “${HEADING_LOOKS[name].label}”`,
          on: canonical(element) === canonical(text),
        }))}
        onChoose={(name) =>
          acts.set(
            () => withHeadingLook(text, name, theme, frame),
            `Gave the heading the style “${HEADING_LOOKS[name].label}”`,
          )
        }
      />
    </Fold>
  );
}
