import { useEffect, useRef } from "react";
import { useDeck } from "../deck/DeckContext";

/** Changes that could not be saved: what each was, why, and its words to copy. */
export function SetAsideDialog({ onClose }: { onClose: () => void }) {
  const { aside, session } = useDeck();
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  const text = aside
    .map(({ description: describeChange, reason, text: words }) => `${describeChange} – ${reason}\n${words}`)
    .join("\n\n");
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    session.notify("Copied the changes that could not be saved");
  };
  const forget = () => {
    session.forgetAside();
    dialog.current?.close();
  };
  return (
    <dialog ref={dialog} className="modal" aria-labelledby="aside-title" onClose={onClose}>
      <div className="modal-box hairline border">
        <h2 id="aside-title" className="mb-1 text-lg font-semibold">
          {aside.length === 1 ? "One change" : `${aside.length} changes`} could not be saved
        </h2>
        <p className="quiet mb-3 text-sm">
          Everything else was saved. What these said is kept in this browser until you discard it.
        </p>
        <ul className="max-h-72 overflow-auto">
          {aside.map(({ id, description: describeChange, reason, text: words }) => (
            <li key={id} className="hairline border-t py-2">
              <p className="font-semibold">{describeChange}</p>
              <p className="quiet text-sm">{reason}</p>
              {words && (
                <pre className="mt-1 max-h-32 overflow-auto font-serif text-sm whitespace-pre-wrap">{words}</pre>
              )}
            </li>
          ))}
        </ul>
        <div className="modal-action">
          <button type="button" className="btn btn-ghost btn-sm" onClick={forget}>
            Discard
          </button>
          <button type="button" className="btn btn-sm" onClick={copy}>
            Copy as text
          </button>
          <button type="button" className="btn btn-primary btn-sm" onClick={() => dialog.current?.close()}>
            Keep for now
          </button>
        </div>
      </div>
    </dialog>
  );
}
