import { Dialog } from "../ui/Dialog";
import { batch } from "@unitext/core/edit";
import type { Slide } from "@unitext/core/model";
import { useEffect, useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { core, type Cutting } from "../worker";

function Side({ slide, number, label }: { slide: Slide; number: number; label: string }) {
  const { deck, metadata } = useDeck();
  const scene = useScene(slide, number, metadata);
  return (
    <figure className="min-w-0 flex-1">
      <figcaption className="mb-1 text-sm font-semibold">{label}</figcaption>
      <div className="hairline border">
        {scene ? (
          <SlideView scene={scene} deck={deck.id} label={label} />
        ) : (
          <div className="bg-base-200 aspect-video" />
        )}
      </div>
    </figure>
  );
}

/** A slide that the user changed beside the one that its text makes, with the way back to the text. */
export function HandDialog({ id, cutting, onClose }: { id: string; cutting: Cutting; onClose: () => void }) {
  const { deck, session } = useDeck();
  const [made, setMade] = useState<Slide | null>();
  const mine = deck.slides.find((slide) => slide.id === id);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the dialog opens once, on the slide that it was opened for.
  useEffect(() => {
    void core.asMade(deck, cutting, id).then((found) => setMade(found?.slide ?? null));
  }, []);
  // One object as long as it is the same slide, so that it is laid out once.
  const drawn = useMemo(() => (made ? { ...made, id: `${id}-made` } : undefined), [made, id]);
  if (!mine) return null;
  const number = deck.slides.indexOf(mine) + 1;
  const restore = async () => {
    const changes = (await core.asMade(session.snapshot().deck, cutting, id))?.changes ?? [];
    if (changes.length) session.apply(batch(changes), { words: `Slide ${number} now says what its text says` });
  };
  return (
    <Dialog
      title={`Slide ${number} was edited by hand`}
      width="widest"
      onClose={onClose}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-sm" onClick={close}>
            Keep it as it is
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={!made}
            onClick={() => {
              void restore();
              close();
            }}
          >
            Use what the text says
          </button>
        </>
      )}
    >
      <div className="flex gap-4">
        <Side slide={mine} number={number} label="As it is" />
        {drawn && <Side slide={drawn} number={number} label="As its text makes it" />}
      </div>
    </Dialog>
  );
}
