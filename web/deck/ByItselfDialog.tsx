import { batch, type SingleChange } from "@unitext/core/edit";
import { slidePropertiesOf } from "@unitext/core/model";
import { useState } from "react";
import { Dialog } from "../ui/Dialog";
import { DELAY, delayFrom } from "./byitself";
import { useDeck } from "./DeckContext";

/** Sets up a deck that runs by itself, for a screen in a hall: the delay of its slides, the loop, and its link. */
export function ByItselfDialog({ from, onClose }: { from: string | undefined; onClose: () => void }) {
  const { deck, session, canEdit } = useDeck();
  const [seconds, setSeconds] = useState(String(DELAY));
  const [loop, setLoop] = useState(true);
  const [here, setHere] = useState(false);
  const own = deck.slides.filter(({ delay }) => delay !== undefined).length;
  const length = delayFrom(seconds);
  const query = new URLSearchParams({
    auto: String(length),
    ...(loop ? { loop: "" } : {}),
    ...(here && from ? { from } : {}),
  });
  const address = `${window.location.origin}/decks/${deck.id}/hall?${query}`;
  const setAll = () => {
    const changes = deck.slides.map((slide): SingleChange => {
      const { delay: _, ...properties } = slidePropertiesOf(slide);
      return { kind: "setSlideProperties", slide: slide.id, properties: { ...properties, delay: length } };
    });
    session.apply(batch(changes), { words: `Gave all slides a delay of ${length} seconds` });
  };
  return (
    <Dialog
      title="Run by itself"
      lead="For a screen that people walk past: the slides turn on their own, after a reload too, and the screen stays on."
      onClose={onClose}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Close
          </button>
          <button
            type="button"
            className="btn"
            onClick={async () => {
              await navigator.clipboard.writeText(address);
              session.notify("Copied the link: open it on the computer in the hall");
              close();
            }}
          >
            Copy the link
          </button>
          <a className="btn btn-primary" href={address} target="_blank" rel="noreferrer" onClick={close}>
            Start
          </a>
        </>
      )}
    >
      <label className="mb-2 flex items-center justify-between gap-3">
        Seconds for each slide without a delay of its own
        <input
          className="input input-sm w-20 text-right"
          inputMode="decimal"
          value={seconds}
          onChange={({ target }) => setSeconds(target.value)}
        />
      </label>
      <label className="mb-2 flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={loop} onChange={() => setLoop(!loop)} />
        Begin again after the last slide
      </label>
      <label className="mb-3 flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={here} onChange={() => setHere(!here)} />
        Begin with the selected slide
      </label>
      <p className="quiet text-sm">
        {own === 0
          ? "No slide has a delay of its own yet. "
          : `${own} of ${deck.slides.length} slides have a delay of their own. `}
        Delays are stored in the deck: the web page plays by itself with them too.
      </p>
      {canEdit && (
        <button type="button" className="btn btn-sm mt-2" onClick={setAll}>
          Give all slides {length} seconds
        </button>
      )}
    </Dialog>
  );
}
