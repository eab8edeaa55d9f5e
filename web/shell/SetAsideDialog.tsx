import { Dialog } from "../ui/Dialog";
import { useDeck } from "../deck/DeckContext";

/** Changes that could not be saved: what each was, why, and its words to copy. */
export function SetAsideDialog({ onClose }: { onClose: () => void }) {
  const { aside, session } = useDeck();
  const text = aside
    .map(({ description: describeChange, reason, text: words }) => `${describeChange} – ${reason}\n${words}`)
    .join("\n\n");
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    session.notify("Copied the changes that could not be saved");
  };
  return (
    <Dialog
      title={`${aside.length === 1 ? "One change" : `${aside.length} changes`} could not be saved`}
      lead="Everything else was saved. The text of these is kept in this browser until you discard it."
      onClose={onClose}
      actions={(close) => (
        <>
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            onClick={() => {
              session.forgetAside();
              close();
            }}
          >
            Discard
          </button>
          <button type="button" className="btn btn-sm" onClick={copy}>
            Copy as text
          </button>
          <button type="button" className="btn btn-primary btn-sm" onClick={close}>
            Keep for now
          </button>
        </>
      )}
    >
      <ul className="max-h-72 overflow-auto">
        {aside.map(({ id, description: describeChange, reason, text: words }) => (
          <li key={id} className="hairline border-t py-2">
            <p className="font-semibold">{describeChange}</p>
            <p className="quiet text-sm">{reason}</p>
            {words && <pre className="mt-1 max-h-32 overflow-auto font-serif text-sm whitespace-pre-wrap">{words}</pre>}
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
