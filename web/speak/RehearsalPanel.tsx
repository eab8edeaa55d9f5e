import { nameOf } from "@unitext/core/model";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { clock } from "../ui/time";
import { lengthOf, spokenRate } from "./rehearsal";

/** A pace that differs by less than this share is the same. */
const SAME = 0.08;

/** What the last rehearsal took against the plan and a target, the pace that it had, and what to shorten. */
export function RehearsalPanel({
  spent,
  onForget,
  onGo,
}: {
  spent: ReadonlyMap<string, number>;
  onForget: () => void;
  onGo: (slide: string) => void;
}) {
  const { deck, session, canEdit } = useDeck();
  const store = `unitext:target/${deck.id}`;
  const [minutes, setMinutes] = useState(() => localStorage.getItem(store) ?? "");
  const target = Number(minutes.replace(",", ".")) * 60;
  const rate = spokenRate(deck.slides, spent);
  const total = [...spent.values()].reduce((sum, seconds) => sum + seconds, 0);
  const length = target > 0 ? lengthOf(deck, spent, target) : undefined;
  return (
    <section aria-label="Rehearsal" className="hairline border-b py-2 text-sm">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <label className="flex items-center gap-2">
          Target, minutes
          <input
            className="input input-xs w-16 text-right"
            inputMode="decimal"
            value={minutes}
            placeholder="–"
            onChange={({ target: field }) => {
              setMinutes(field.value);
              localStorage.setItem(store, field.value);
            }}
          />
        </label>
        {total > 0 && (
          <p>
            Rehearsed: <strong>{clock(total)}</strong> on {spent.size} slides{" "}
            <button type="button" className="btn btn-ghost btn-xs" onClick={onForget}>
              Forget
            </button>
          </p>
        )}
        {canEdit && rate !== undefined && Math.abs(rate - deck.rate) > deck.rate * SAME && (
          <button
            type="button"
            className="btn btn-xs"
            title={`The plan is made at ${deck.rate} words a minute`}
            onClick={() => session.apply({ kind: "setRate", rate }, { words: `Planned with ${rate} words a minute` })}
          >
            You said {rate} words a minute: plan with that
          </button>
        )}
      </div>
      {length && (
        <p role="status" className="pt-1">
          {length.over > 0
            ? `${clock(length.over)} too long. ${length.longest.length ? "Shorten:" : "Leave some slides out."}`
            : `It fits, with ${clock(-length.over)} to spare.`}
        </p>
      )}
      {length && length.longest.length > 0 && (
        <ul>
          {length.longest.map(({ slide, seconds }) => (
            <li key={slide.id}>
              <button
                type="button"
                className="min-h-6 underline-offset-4 hover:underline"
                onClick={() => onGo(slide.id)}
              >
                {deck.slides.indexOf(slide) + 1}. {nameOf(slide) || "(empty)"}, {clock(seconds)}
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
