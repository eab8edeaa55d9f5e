import { Choices } from "../ui/Choices";
import { Dialog } from "../ui/Dialog";
import { metadataOf, must } from "@unitext/core/model";
import { useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { type Clipped, clippedDeck } from "./slideclipboard";
import { SmallSlide } from "../deck/SmallSlide";

/** Slides from a deck with another theme are shown in both themes before the choice. */
export function SlidesDialog({
  clipped,
  place,
  first,
  onPaste,
  onClose,
}: {
  clipped: Clipped;
  place: string;
  first: "match" | "keep";
  onPaste: (look: "match" | "keep") => void;
  onClose: () => void;
}) {
  const { deck } = useDeck();
  const [look, setLook] = useState(first);
  // A slide drawn in two themes counts as two slides for the drawing.
  const twin = useMemo(
    () => ({
      match: { ...must(clipped.slides[0]), parent: null },
      keep: { ...must(clipped.slides[0]), parent: null },
    }),
    [clipped],
  );
  const count = clipped.slides.length === 1 ? "one slide" : `${clipped.slides.length} slides`;
  const from = clippedDeck(clipped, deck);
  const one = clipped.slides.length === 1;
  return (
    <Dialog
      title={`Paste ${count} from “${clipped.title}”`}
      lead={`${one ? "It lands" : "They land"} ${place}. The deck it comes from has another theme; ${one ? "the slide" : "the first slide"} is shown in both.`}
      width="wider"
      onClose={onClose}
      onSubmit={() => onPaste(look)}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary">
            Paste
          </button>
        </>
      )}
    >
      <Choices
        legend="Appearance"
        layout="cards"
        value={look}
        onChange={setLook}
        options={(["match", "keep"] as const).map((value) => ({
          value,
          label: value === "match" ? "The theme of this deck" : "Their own theme",
          content: (
            <SmallSlide
              slide={twin[value]}
              number={1}
              metadata={
                value === "match" ? { ...metadataOf(from), theme: deck.theme, page: deck.page } : metadataOf(from)
              }
              deck={clipped.deck}
              width={312}
            />
          ),
        }))}
      />
    </Dialog>
  );
}
