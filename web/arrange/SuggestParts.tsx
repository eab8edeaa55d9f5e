import type { SplitBy } from "@unitext/core/divide";
import { secondsOf } from "@unitext/core/model";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";

/** The ways to suggest parts: by minutes, section or count, or slides dealt out to groups. */
export function SuggestParts({ onSuggest }: { onSuggest: (by: SplitBy) => void }) {
  const { deck } = useDeck();
  const [minutes, setMinutes] = useState(() =>
    Math.max(1, Math.ceil(deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0) / 240)),
  );
  const [count, setCount] = useState(10);
  const [groups, setGroups] = useState(4);
  const number = (label: string, value: number, onValue: (value: number) => void, min: number) => (
    <input
      type="number"
      min={min}
      max={1000}
      className="input input-xs w-14 text-right"
      aria-label={label}
      value={value}
      onChange={(event) => onValue(Math.max(min, Number(event.target.value) || min))}
    />
  );
  return (
    <div role="group" aria-label="Suggest parts" className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <strong className="font-semibold">Suggest parts</strong>
      <span className="flex items-center gap-1.5">
        <button type="button" className="btn btn-xs" onClick={() => onSuggest({ minutes })}>
          By minutes
        </button>
        {number("Minutes per part", minutes, setMinutes, 1)}
      </span>
      <button type="button" className="btn btn-xs" onClick={() => onSuggest({ section: true })}>
        By section
      </button>
      <span className="flex items-center gap-1.5">
        <button type="button" className="btn btn-xs" onClick={() => onSuggest({ count })}>
          By count
        </button>
        {number("Slides per part", count, setCount, 1)}
      </span>
      <span className="flex items-center gap-1.5">
        <button type="button" className="btn btn-xs" onClick={() => onSuggest({ deal: groups })}>
          Distribute to groups
        </button>
        {number("Groups", groups, setGroups, 2)}
      </span>
    </div>
  );
}
