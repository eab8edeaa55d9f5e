import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { SlideStrip } from "../deck/SlideStrip";
import { DeckFrame } from "../shell/DeckFrame";
import { Bench } from "./Bench";
import { SlideNavigation } from "./SlideNavigation";

/** Wide windows show the strip of slides until somebody hides it; narrow ones have no room for it beside the slide. */
const WIDE = 1500;
const STRIP = "unitext:strip";

/** Refine: one slide large, its notes, and what is selected. */
export default function Refine() {
  const { deck, selected, select } = useDeck();
  const { slide: wanted } = useParams();
  const navigate = useNavigate();
  const [strip, setStrip] = useState(
    () => (localStorage.getItem(STRIP) ?? String(window.innerWidth >= WIDE)) === "true",
  );
  useEffect(() => localStorage.setItem(STRIP, String(strip)), [strip]);
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
  const show = (id: string) => {
    select([id]);
    open(id);
  };
  const tools = <SlideNavigation at={at} onOpen={open} strip={strip} onStrip={() => setStrip(!strip)} />;
  return (
    <DeckFrame place="Refine" tools={tools} onOpen={open}>
      <div className="flex h-full">
        {strip && deck.slides.length > 0 && <SlideStrip current={current?.id} onOpen={show} />}
        <div className="min-w-0 flex-1">
          {current ? (
            <Bench key={current.id} slide={current} number={at + 1} />
          ) : (
            <p className="p-8">There is no slide yet. Press New, or write some text.</p>
          )}
        </div>
      </div>
    </DeckFrame>
  );
}
