import { mergeInto } from "@unitext/core/divide";
import { ACCOUNTED, balance, balanceSentence } from "@unitext/core/tally";
import { apply, type Place } from "@unitext/core/edit";
import { nanoid } from "nanoid";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { MergeList } from "../gather/MergeList";
import { BalanceTable } from "../jobs";
import { DeckFrame } from "../shell/DeckFrame";
import { ArrangeViews } from "../shell/ArrangeViews";

/** Brings slides of other decks into this one at a given place, as one act that can be undone. */
export default function BringIn() {
  const { deck, session, selected, select, canEdit } = useDeck();
  const [asked] = useSearchParams();
  const [pattern, setPattern] = useState(asked.get("names") ?? "");
  const [after, setAfter] = useState(() =>
    String(
      selected.length && selected.at(-1) !== deck.slides[0]?.id
        ? deck.slides.findIndex(({ id }) => id === selected.at(-1)) + 1
        : deck.slides.length,
    ),
  );
  const [outcome, setOutcome] = useState<{
    sentence: string;
    rows: ({ kind: string } & Record<"before" | "carried" | "adapted" | "left" | "open" | "again", number>)[];
  }>();
  const [refused, setRefused] = useState("");
  const number = Number(after);
  const valid = after.trim() !== "" && Number.isInteger(number) && number >= 0 && number <= deck.slides.length;
  /** A place on the main line: after the named slide and its details. */
  const place = (): Place => {
    let slide = deck.slides[number - 1];
    while (slide?.parent) slide = deck.slides.find(({ id }) => id === slide?.parent);
    return { parent: null, after: slide?.id ?? null };
  };
  const words = !valid
    ? `There is no slide ${after}; the last is ${deck.slides.length}.`
    : number === 0
      ? "They land at the start."
      : number === deck.slides.length
        ? `They land after ${number}, at the end.`
        : `They land after ${number}.`;
  return (
    <DeckFrame place="Bring in" tools={<ArrangeViews />}>
      <div className="flex h-full flex-col">
        {(outcome || refused) && (
          <div className="hairline border-b px-4 py-2">
            {outcome && <BalanceTable result={outcome} />}
            {refused && (
              <p role="alert" className="border-error border-l-4 px-3">
                {refused}
              </p>
            )}
          </div>
        )}
        <div className="min-h-0 flex-1">
          <MergeList into={{ id: deck.id, theme: deck.theme }} pattern={pattern} onPattern={setPattern}>
            {(choice, slides, problem) => (
              <form
                className="flex flex-wrap items-center gap-3"
                onSubmit={(event) => {
                  event.preventDefault();
                  if (!choice || !valid) return;
                  setRefused("");
                  try {
                    const made = mergeInto(deck, place(), choice.gathered, choice.options, () => nanoid(10));
                    const { deck: next } = apply(deck, made.change);
                    const closing = balance([deck, ...choice.gathered.map((one) => one.deck)], [next], made.accounts);
                    const from =
                      choice.gathered.length === 1
                        ? `“${choice.gathered[0]?.deck.properties.title}”`
                        : `${choice.gathered.length} decks`;
                    if (
                      session.apply(made.change, {
                        words: `Brought in ${made.slides.length} slides from ${from} after ${number}`,
                      })
                    ) {
                      setOutcome({
                        sentence: balanceSentence(closing),
                        rows: ACCOUNTED.map((kind) => ({ kind, ...closing.rows[kind] })),
                      });
                      select(made.slides.map(({ id }) => id));
                    }
                  } catch (error) {
                    setRefused((error as Error).message);
                  }
                }}
              >
                <label className="flex items-center gap-2">
                  After slide
                  <input
                    className="input input-sm w-20"
                    inputMode="numeric"
                    aria-label="After slide"
                    value={after}
                    onChange={(event) => setAfter(event.target.value)}
                  />
                </label>
                <span role="status">{words}</span>
                <button type="submit" className="btn btn-primary btn-sm" disabled={!choice || !valid || !canEdit}>
                  Bring in {slides} slides
                </button>
                {problem && (
                  <p role="alert" className="text-error">
                    {problem}
                  </p>
                )}
              </form>
            )}
          </MergeList>
        </div>
      </div>
    </DeckFrame>
  );
}
