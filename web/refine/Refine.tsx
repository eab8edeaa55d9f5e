import { useEffect } from "react";
import { useNavigate, useParams } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { DeckFrame } from "../shell/DeckFrame";
import { Bench } from "./Bench";

/** Refine: one slide large, its notes, and what is selected. */
export default function Refine() {
  const { deck, selected, select } = useDeck();
  const { slide: wanted } = useParams();
  const navigate = useNavigate();
  const open = (id: string) => navigate(`/decks/${deck.id}/refine/${id}`, { replace: true });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the address selects a slide when the address changes, not when the selection does.
  useEffect(() => {
    if (wanted && deck.slides.some(({ id }) => id === wanted) && selected.at(-1) !== wanted) select([wanted]);
  }, [wanted]);
  const current =
    deck.slides.find(({ id }) => id === (wanted ?? selected.at(-1))) ??
    deck.slides.find(({ id }) => id === selected.at(-1)) ??
    deck.slides[0];
  const at = current ? deck.slides.indexOf(current) : -1;
  const go = (by: number) => {
    const next = deck.slides[at + by];
    if (next) {
      select([next.id]);
      open(next.id);
    }
  };
  const tools = (
    <div className="flex items-center gap-2 text-sm">
      <button type="button" className="btn btn-ghost btn-sm" disabled={at <= 0} onClick={() => go(-1)}>
        Back
      </button>
      <span>
        {at + 1} of {deck.slides.length}
      </span>
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        disabled={at >= deck.slides.length - 1}
        onClick={() => go(1)}
      >
        Next
      </button>
    </div>
  );
  return (
    <DeckFrame place="Refine" tools={tools} onOpen={open}>
      {current ? (
        <Bench key={current.id} slide={current} number={at + 1} />
      ) : (
        <p className="p-8">There is no slide yet. Write some text, or add a slide in Arrange.</p>
      )}
    </DeckFrame>
  );
}
