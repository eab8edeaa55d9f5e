import type { Slide } from "@unitext/core/model";
import { useEffect, useRef, useState } from "react";
import { type Landing, landingWords } from "./rows";

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
  const dialog = useRef<HTMLDialogElement>(null);
  const [number, setNumber] = useState("");
  const [side, setSide] = useState<Landing["side"]>("after");
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    dialog.current?.showModal();
    input.current?.focus();
  }, []);
  const slide = slides[Number(number) - 1];
  const at: Landing | undefined = slide && { target: slide.id, side };
  return (
    <dialog ref={dialog} className="modal" aria-labelledby="move-title" onClose={onClose}>
      <form
        className="modal-box hairline border"
        onSubmit={(event) => {
          event.preventDefault();
          if (at) onMove(at);
          dialog.current?.close();
        }}
      >
        <h2 id="move-title" className="mb-3 text-lg font-semibold">
          Move to
        </h2>
        <div className="flex items-center gap-2">
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
          {at
            ? `Lands ${landingWords(at, slides)}.`
            : number
              ? `There is no slide ${number}; the last is ${slides.length}.`
              : ""}
        </p>
        <div className="modal-action">
          <button type="button" className="btn btn-ghost" onClick={() => dialog.current?.close()}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary" disabled={!at}>
            Move
          </button>
        </div>
      </form>
    </dialog>
  );
}
