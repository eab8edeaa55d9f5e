import { type SplitBy, suggestParts } from "@unitext/core/divide";
import { must } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { type Column, columnsOf, foreseen, marked, planFrom, typedNumbers } from "./parts";

/** Reads slide numbers that were typed; none where they cannot be read. */
function useTypedNumbers(text: string): readonly number[] {
  const count = useDeck().deck.slides.length;
  return useMemo(() => {
    const read = typedNumbers(text, count);
    return "numbers" in read ? read.numbers : [];
  }, [text, count]);
}

/** The split table of the open deck: its parts, what is in every part, and the plan that they make. */
export function useSplitTable() {
  const { deck } = useDeck();
  const [columns, setColumns] = useState<Column[]>(() => [
    { key: nanoid(6), name: "Part 1", numbers: [] },
    { key: nanoid(6), name: "Part 2", numbers: [] },
  ]);
  const [opening, setOpening] = useState("");
  const [closing, setClosing] = useState("");
  const [names, setNames] = useState("{title} – {part}");
  // Whether the drag that goes on adds marks or removes them.
  const drag = useRef(true);

  const openingNumbers = useTypedNumbers(opening);
  const closingNumbers = useTypedNumbers(closing);
  const every = useMemo(() => [...openingNumbers, ...closingNumbers], [openingNumbers, closingNumbers]);
  const plan = planFrom(columns, opening, closing, names);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the plan is computed at every render from these values.
  const { remarks, problem: refused } = useMemo(() => foreseen(deck, plan), [deck, columns, opening, closing, names]);
  const inParts = useMemo(() => new Set([...every, ...columns.flatMap(({ numbers }) => numbers)]), [columns, every]);
  const unplaced = deck.slides.map((_, nth) => nth + 1).filter((number) => !inParts.has(number));

  const setColumn = (at: number, change: Partial<Column>) =>
    setColumns((now) => now.with(at, { ...must(now[at]), ...change }));
  const mark = useRef((at: number, number: number) => {
    setColumns((now) => {
      const column = must(now[at]);
      drag.current = !column.numbers.includes(number);
      return now.with(at, { ...column, numbers: marked(column.numbers, number, drag.current) });
    });
  }).current;
  const extend = useRef((at: number, number: number) =>
    setColumns((now) =>
      now.with(at, { ...must(now[at]), numbers: marked(must(now[at]).numbers, number, drag.current) }),
    ),
  ).current;
  const pick = (numbers: readonly number[]) => numbers.flatMap((number) => deck.slides[number - 1] ?? []);
  const suggest = (by: SplitBy) =>
    setColumns(columnsOf(deck, suggestParts(deck, by, pick(openingNumbers), pick(closingNumbers)), () => nanoid(6)));

  const add = () => setColumns((now) => [...now, { key: nanoid(6), name: `Part ${now.length + 1}`, numbers: [] }]);
  const remove = (at: number) => setColumns((now) => now.toSpliced(at, 1));
  /** Whether a slide opens or closes every part. */
  const roleOf = (number: number): "opening" | "closing" | undefined =>
    openingNumbers.includes(number) ? "opening" : closingNumbers.includes(number) ? "closing" : undefined;

  return {
    columns,
    opening,
    setOpening,
    closing,
    setClosing,
    names,
    setNames,
    plan,
    remarks,
    refused,
    every,
    unplaced,
    setColumn,
    mark,
    extend,
    suggest,
    add,
    remove,
    roleOf,
  };
}
