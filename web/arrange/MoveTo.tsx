import { Dialog } from "../ui/Dialog";
import type { Slide } from "@unitext/core/model";
import { useEffect, useRef, useState } from "react";
import { type Landing, landingWords } from "../deck/landing";

/** Asks for a place by number, and says in words where the slides will go before they are moved. */
export function MoveTo({
  slides,
  onMove,
  onClose,
}: {
  slides: readonly Slide[];
  onMove: (at: Landing) => void;
  onClose: () => void;
}) {
  const [number, setNumber] = useState("");
  const [side, setSide] = useState<Landing["side"]>("after");
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const slide = slides[Number(number) - 1];
  const at: Landing | undefined = slide && { target: slide.id, side };
  const problem = number ? `There is no slide ${number}; the last is ${slides.length}.` : "";
  return (
    <Dialog
      title="Move to"
      onClose={onClose}
      onSubmit={() => {
        if (at) onMove(at);
      }}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary" disabled={!at}>
            Move
          </button>
        </>
      )}
    >
      <div className="mt-2 flex items-center gap-2">
        <label className="sr-only" htmlFor="move-side">
          Beside or under
        </label>
        <select
          id="move-side"
          className="select w-32"
          value={side}
          onChange={(event) => setSide(event.target.value as Landing["side"])}
        >
          <option value="after">after</option>
          <option value="before">before</option>
          <option value="under">under</option>
        </select>
        <label className="sr-only" htmlFor="move-number">
          Slide number
        </label>
        <input
          id="move-number"
          ref={input}
          className="input w-28"
          inputMode="numeric"
          value={number}
          placeholder={`1–${slides.length}`}
          onChange={(event) => setNumber(event.target.value)}
        />
      </div>
      <p className="mt-3 min-h-6" role="status">
        {at ? `Lands ${landingWords(at, slides)}.` : problem}
      </p>
    </Dialog>
  );
}
