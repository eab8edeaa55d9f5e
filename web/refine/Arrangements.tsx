import { apply, batch, rearrangeIn } from "@unitext/core/edit";
import { ARRANGEMENTS, ArrangementName, type Slide } from "@unitext/core/model";
import { useDeferredValue, useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SlideChoices } from "../deck/SlideChoices";

/** The arrangements that a slide can have, each drawn with what is on the slide. */
export function Arrangements({ slide: given }: { slide: Slide }) {
  const { deck, session } = useDeck();
  const slide = useDeferredValue(given);
  const arranged = useMemo(() => {
    const alone = { ...deck, slides: [{ ...slide, parent: null }] };
    return ArrangementName.options.map((name) => {
      const changed = name === slide.arrangement ? alone : apply(alone, batch(rearrangeIn(alone, slide, name))).deck;
      return { name, shown: changed.slides[0] ?? slide };
    });
  }, [slide, deck]);
  return (
    <SlideChoices
      legend="Arrangement"
      slide={given}
      choices={arranged.map(({ name, shown }) => ({
        name,
        shown,
        label: ARRANGEMENTS[name].label,
        title: `Arranges the slide as “${ARRANGEMENTS[name].label}”`,
        on: given.arrangement === name,
      }))}
      onChoose={(name) =>
        session.apply(batch(rearrangeIn(deck, given, name)), { words: `Arranged as “${ARRANGEMENTS[name].label}”` })
      }
    />
  );
}
