import { useOutOfDate } from "../deck/useOutOfDate";
import { useUntranslated } from "../deck/useUntranslated";
import { must } from "@unitext/core/model";
import { type RefObject, useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useMeasures } from "../deck/scenes";
import { findSlides, type Mark, MARKS } from "./find";

/** Selects the slides with given words or a property, and shows the first of them. */
export function FindSlides({
  input,
  scrollTo,
}: {
  input: RefObject<HTMLInputElement | null>;
  scrollTo: (id: string) => void;
}) {
  const { deck, metadata, select } = useDeck();
  const measureOf = useMeasures(deck, metadata);
  const [words, setWords] = useState("");
  const [mark, setMark] = useState<Mark | "">("");
  const outdated = useOutOfDate(deck);
  const untranslated = useUntranslated(deck);
  const overflows = useMemo(
    () => (slide: Parameters<typeof measureOf>[0]) => (measureOf(slide)?.overflow ?? 0) > 0,
    [measureOf],
  );
  const found = useMemo(
    () => findSlides(deck.slides, words, mark, overflows, outdated, untranslated),
    [deck, words, mark, overflows, outdated, untranslated],
  );
  const find = (nextWords: string, nextMark: Mark | "") => {
    setWords(nextWords);
    setMark(nextMark);
    const ids = findSlides(deck.slides, nextWords, nextMark, overflows, outdated, untranslated);
    if (!ids.length) return;
    select([...ids].reverse());
    scrollTo(must(ids[0]));
  };
  return (
    <>
      <label className="input input-xs w-36">
        <span className="sr-only">Select the slides that say</span>
        <input
          ref={input}
          type="search"
          placeholder="Select by words"
          value={words}
          onChange={(event) => find(event.target.value, mark)}
        />
      </label>
      <select
        className="select select-xs w-24"
        aria-label="Select the slides that are"
        value={mark}
        onChange={(event) => find(words, event.target.value as Mark | "")}
      >
        <option value="">any</option>
        {Object.entries(MARKS).map(([name, label]) => (
          <option key={name} value={name}>
            {label}
          </option>
        ))}
      </select>
      <span role="status">{words || mark ? `${found.length} found` : ""}</span>
    </>
  );
}
