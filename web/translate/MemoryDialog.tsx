import { piecesOf, placeholderKinds, typedText } from "@unitext/core/translate";
import { MemoryFound, MemoryTaken } from "@unitext/server/api";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import useSWR from "swr";
import { get, post, put, remove } from "../api/client";
import { Dialog } from "../ui/Dialog";

type Unit = MemoryFound["units"][number];

/** How long typing pauses before the memory is searched, in milliseconds. */
const PAUSE = 300;

/** A translation of the memory, which can be corrected and removed. */
function UnitRow({ unit, from, to, onRemove }: { unit: Unit; from: string; to: string; onRemove: () => void }) {
  const stored = typedText(unit.target);
  const [text, setText] = useState(stored);
  const [said, setSaid] = useState("");
  async function save() {
    if (text === stored || !text.trim()) return;
    try {
      await put(`/memory/units/${unit.id}`, { target: piecesOf(text, placeholderKinds(unit.source)) });
      setSaid("Corrected");
    } catch (reason) {
      setSaid((reason as Error).message);
    }
  }
  return (
    <li className="hairline grid gap-x-3 border-b py-2 sm:grid-cols-2">
      <div>
        <p lang={from} dir="auto">
          {typedText(unit.source)}
        </p>
        <p className="quiet text-xs">
          {unit.deck ? <Link to={`/decks/${unit.deck.id}/translate`}>{unit.deck.title}</Link> : "brought in"}
          {", "}
          {new Date(unit.at).toLocaleDateString()}
        </p>
      </div>
      <div className="flex items-start gap-1">
        <div className="min-w-0 flex-1">
          <textarea
            className="textarea field-sizing-content min-h-9 w-full px-2 py-1"
            lang={to}
            dir="auto"
            rows={1}
            aria-label={`Translation of “${typedText(unit.source)}”`}
            value={text}
            onChange={(event) => setText(event.target.value)}
            onBlur={() => void save()}
          />
          <p role="status" className="quiet text-xs">
            {said}
          </p>
        </div>
        <button
          type="button"
          className="btn btn-ghost btn-sm btn-square"
          title="Remove from the memory"
          aria-label={`Remove “${typedText(unit.source)}” from the memory`}
          onClick={onRemove}
        >
          <Trash2 size={16} aria-hidden="true" />
        </button>
      </div>
    </li>
  );
}

/** Finds words in what was translated before, in source and translation. */
export function MemoryDialog({ from, to, onClose }: { from: string; to: string; onClose: () => void }) {
  const [typed, setTyped] = useState("");
  const [words, setWords] = useState("");
  const [removed, setRemoved] = useState<Unit>();
  const [problem, setProblem] = useState("");
  const [timer, setTimer] = useState<ReturnType<typeof setTimeout>>();
  const address = words ? `/memory/units?${new URLSearchParams({ from, to, words })}` : null;
  const { data, error, mutate } = useSWR(address, () => get(address ?? "", MemoryFound), { keepPreviousData: true });
  const type = (text: string) => {
    setTyped(text);
    clearTimeout(timer);
    setTimer(setTimeout(() => setWords(text.trim()), PAUSE));
  };
  const act = async (change: () => Promise<unknown>) => {
    setProblem("");
    try {
      await change();
      await mutate();
    } catch (reason) {
      setProblem((reason as Error).message);
    }
  };
  const forget = (unit: Unit) =>
    act(async () => {
      await remove(`/memory/units/${unit.id}`);
      setRemoved(unit);
    });
  const takeBack = ({ source, target }: Unit) =>
    act(async () => {
      await post("/memory/units", { from, to, units: [{ source, target }] }, MemoryTaken);
      setRemoved(undefined);
    });
  const units = words ? (data?.units ?? []) : [];
  return (
    <Dialog
      title="Memory"
      lead="What you have confirmed in these languages, in all decks. A correction is what is proposed from then on."
      width="widest"
      tall
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn btn-primary" onClick={close}>
          Close
        </button>
      )}
    >
      <label className="pb-2">
        <span className="sr-only">Words in the source or the translation</span>
        <input
          type="search"
          className="input w-full"
          placeholder="Words in the source or the translation"
          value={typed}
          onChange={(event) => type(event.target.value)}
        />
      </label>
      <div role="status" className="text-sm">
        {removed && (
          <p className="border-secondary border-l-4 px-3">
            Removed “{typedText(removed.source)}”.{" "}
            <button type="button" className="text-primary underline" onClick={() => void takeBack(removed)}>
              Undo
            </button>
          </p>
        )}
        {(problem || error) && <p className="text-error">{problem || (error as Error).message}</p>}
        {words && data && units.length === 0 && <p className="quiet">Nothing in the memory has these words.</p>}
        {units.length === 100 && <p className="quiet">The 100 newest are shown. Type more words for fewer.</p>}
      </div>
      <ul className="min-h-0 flex-1 overflow-auto">
        {units.map((unit) => (
          <UnitRow key={unit.id} unit={unit} from={from} to={to} onRemove={() => void forget(unit)} />
        ))}
      </ul>
    </Dialog>
  );
}
