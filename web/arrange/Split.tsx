import { NAME_FIELDS, suggestParts, rangesOf, type SplitBy } from "@unitext/core/divide";
import { nameOf, secondsOf, type Slide, must } from "@unitext/core/model";
import { Begun } from "@unitext/server/api";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Plus, X } from "lucide-react";
import { nanoid } from "nanoid";
import { memo, useMemo, useRef, useState } from "react";
import { mutate } from "swr";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { clock } from "../ui/time";
import { isOpen, JobLine, useJobs } from "../jobs";
import { DeckFrame } from "../shell/DeckFrame";
import { type Column, columnsOf, foreseen, marked, measured, planFrom, typedNumbers } from "./parts";
import { SmallSlide } from "../deck/SmallSlide";
import { ArrangeViews } from "../shell/ArrangeViews";

const ROW = 76;
const CELL = 152;

/** A field for slide numbers: what cannot be read stays, with the reason. */
function RangeField({
  label,
  value,
  count,
  placeholder,
  className = "",
  onNumbers,
}: {
  label: string;
  value: string;
  count: number;
  placeholder: string;
  className?: string;
  onNumbers: (numbers: number[], text: string) => void;
}) {
  const [text, setText] = useState(value);
  const [from, setFrom] = useState(value);
  if (from !== value) {
    setFrom(value);
    setText(value);
  }
  const read = typedNumbers(text, count);
  const problem = "problem" in read ? read.problem : undefined;
  return (
    <span className={`block ${className}`}>
      <input
        className={`input input-xs w-full font-mono ${problem ? "border-error" : ""}`}
        aria-label={label}
        aria-invalid={problem ? true : undefined}
        title={problem ?? "Numbers and ranges, such as 1-8, 12, 30-"}
        placeholder={placeholder}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          const next = typedNumbers(event.target.value, count);
          if ("numbers" in next) onNumbers(next.numbers, event.target.value);
        }}
      />
      {problem && (
        <span role="alert" className="text-error block text-xs">
          {problem}
        </span>
      )}
    </span>
  );
}

interface RowProps {
  slide: Slide;
  number: number;
  columns: readonly Column[];
  every: "opening" | "closing" | undefined;
  top: number;
  onMark: (column: number, number: number) => void;
  onOver: (column: number, number: number) => void;
}

const Row = memo(function Row({ slide, number, columns, every, top, onMark, onOver }: RowProps) {
  const { deck, metadata } = useDeck();
  const placed = every !== undefined || columns.some(({ numbers }) => numbers.includes(number));
  return (
    <div
      role="row"
      data-row={number}
      className={`hairline absolute inset-x-0 flex items-center border-t ${placed ? "" : "bg-warning/15"}`}
      style={{ height: ROW, transform: `translateY(${top}px)` }}
    >
      <div
        role="rowheader"
        className={`bg-base-100 sticky left-0 z-10 flex h-full w-80 shrink-0 items-center gap-2 border-l-4 pl-2 ${placed ? "border-transparent" : "border-warning"}`}
      >
        <span className="w-8 shrink-0 text-right text-sm tabular-nums">{number}</span>
        <SmallSlide
          slide={slide}
          number={number}
          metadata={metadata}
          deck={deck.id}
          width={96}
          className={slide.parent === null ? "" : "ml-3"}
        />
        <span className="min-w-0 text-sm leading-tight">
          <span className={`line-clamp-2 ${slide.arrangement === "section" ? "font-semibold" : ""}`}>
            {nameOf(slide) || "(empty)"}
          </span>
          <span className="quiet text-xs">{every ?? (placed ? "" : "in no part")}</span>
        </span>
      </div>
      {columns.map(({ key, name, numbers }, at) => {
        const on = every !== undefined || numbers.includes(number);
        return (
          <div key={key} role="gridcell" className="hairline h-full shrink-0 border-l p-1" style={{ width: CELL }}>
            <button
              type="button"
              role="checkbox"
              aria-checked={on}
              aria-disabled={every !== undefined}
              aria-label={`Slide ${number} in ${name || `part ${at + 1}`}`}
              data-cell={`${at}/${number}`}
              className={`flex h-full w-full items-center justify-center text-sm ${every ? "text-base-content/60" : on ? "bg-primary text-primary-content" : "hover:bg-base-200"}`}
              onPointerDown={(event) => {
                event.currentTarget.releasePointerCapture(event.pointerId);
                if (!every) onMark(at, number);
              }}
              onPointerEnter={(event) => event.buttons === 1 && onOver(at, number)}
              onKeyDown={(event) => {
                if (event.key === " " || event.key === "Enter") {
                  event.preventDefault();
                  if (!every) onMark(at, number);
                }
              }}
            >
              {every ? every : on ? number : ""}
            </button>
          </div>
        );
      })}
    </div>
  );
});

/**
 * The split table: slides as rows, parts as columns. Marks are set one by one, by dragging, or by typing numbers; parts
 * can be suggested and then corrected.
 */
export default function Split() {
  const { deck } = useDeck();
  const [columns, setColumns] = useState<Column[]>(() => [
    { key: nanoid(6), name: "Part 1", numbers: [] },
    { key: nanoid(6), name: "Part 2", numbers: [] },
  ]);
  const [opening, setOpening] = useState("");
  const [closing, setClosing] = useState("");
  const [names, setNames] = useState("{title} – {part}");
  const [minutes, setMinutes] = useState(() =>
    Math.max(1, Math.ceil(deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0) / 240)),
  );
  const [count, setCount] = useState(10);
  const [groups, setGroups] = useState(4);
  const [job, setJob] = useState<string>();
  const [problem, setProblem] = useState("");
  const jobs = useJobs();
  const running = jobs.find(({ id }) => id === job);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: deck.slides.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
  });
  const drag = useRef(true);

  const openingNumbers = useMemo(
    () =>
      "numbers" in typedNumbers(opening, deck.slides.length)
        ? (typedNumbers(opening, deck.slides.length) as { numbers: number[] }).numbers
        : [],
    [opening, deck.slides.length],
  );
  const closingNumbers = useMemo(
    () =>
      "numbers" in typedNumbers(closing, deck.slides.length)
        ? (typedNumbers(closing, deck.slides.length) as { numbers: number[] }).numbers
        : [],
    [closing, deck.slides.length],
  );
  const every = useMemo(() => [...openingNumbers, ...closingNumbers], [openingNumbers, closingNumbers]);
  const plan = planFrom(columns, opening, closing, names);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the plan is made anew at every render from these values.
  const { remarks, problem: refused } = useMemo(() => foreseen(deck, plan), [deck, columns, opening, closing, names]);
  const inParts = useMemo(() => new Set([...every, ...columns.flatMap(({ numbers }) => numbers)]), [columns, every]);
  const unplaced = deck.slides.map((_, nth) => nth + 1).filter((number) => !inParts.has(number));

  const set = (at: number, change: Partial<Column>) =>
    setColumns((now) => now.with(at, { ...must(now[at]), ...change }));
  const mark = useRef((at: number, number: number) => {
    setColumns((now) => {
      const column = must(now[at]);
      drag.current = !column.numbers.includes(number);
      return now.with(at, { ...column, numbers: marked(column.numbers, number, drag.current) });
    });
  }).current;
  const over = useRef((at: number, number: number) =>
    setColumns((now) =>
      now.with(at, { ...must(now[at]), numbers: marked(must(now[at]).numbers, number, drag.current) }),
    ),
  ).current;
  const pick = (numbers: readonly number[]) => numbers.flatMap((number) => deck.slides[number - 1] ?? []);
  const suggest = (by: SplitBy) =>
    setColumns(columnsOf(deck, suggestParts(deck, by, pick(openingNumbers), pick(closingNumbers)), () => nanoid(6)));

  async function make() {
    setProblem("");
    try {
      const { job: begun } = await post(
        `/decks/${deck.id}/parts`,
        { plan, date: new Date().toISOString().slice(0, 10) },
        Begun,
      );
      setJob(begun);
      await mutate("/jobs");
    } catch (error) {
      setProblem((error as Error).message);
    }
  }

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
    <DeckFrame place="Split" tools={<ArrangeViews />}>
      <div className="flex h-full flex-col">
        <div className="hairline bg-base-200 flex flex-wrap items-center gap-x-5 gap-y-2 border-b px-4 py-2 text-sm">
          <div role="group" aria-label="Suggest parts" className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <strong className="font-semibold">Suggest parts</strong>
            <span className="flex items-center gap-1.5">
              <button type="button" className="btn btn-xs" onClick={() => suggest({ minutes })}>
                By minutes
              </button>
              {number("Minutes per part", minutes, setMinutes, 1)}
            </span>
            <button type="button" className="btn btn-xs" onClick={() => suggest({ section: true })}>
              By section
            </button>
            <span className="flex items-center gap-1.5">
              <button type="button" className="btn btn-xs" onClick={() => suggest({ count })}>
                By count
              </button>
              {number("Slides per part", count, setCount, 1)}
            </span>
            <span className="flex items-center gap-1.5">
              <button type="button" className="btn btn-xs" onClick={() => suggest({ deal: groups })}>
                Distribute to groups
              </button>
              {number("Groups", groups, setGroups, 2)}
            </span>
          </div>
          <div className="flex items-start gap-2">
            <span className="pt-0.5">In every part: opening</span>
            <RangeField
              label="Opening slides"
              className="w-20"
              value={opening}
              count={deck.slides.length}
              placeholder="1"
              onNumbers={(_, text) => setOpening(text)}
            />
            <span className="pt-0.5">closing</span>
            <RangeField
              label="Closing slides"
              className="w-20"
              value={closing}
              count={deck.slides.length}
              placeholder={String(deck.slides.length)}
              onNumbers={(_, text) => setClosing(text)}
            />
          </div>
          <label className="flex items-center gap-2">
            Name pattern
            <input
              className="input input-xs w-52"
              value={names}
              title={`May hold ${NAME_FIELDS.map((field) => `{${field}}`).join(", ")}`}
              onChange={(event) => setNames(event.target.value)}
            />
          </label>
          <button
            type="button"
            className="btn btn-primary btn-sm ml-auto"
            disabled={refused !== undefined || (running !== undefined && isOpen(running))}
            onClick={() => void make()}
          >
            Make {columns.filter(({ numbers }) => numbers.length).length} decks
          </button>
        </div>
        {(running || problem) && (
          <div className="hairline max-h-64 overflow-auto border-b px-4 pt-2">
            {running && <JobLine job={running} />}
            {problem && (
              <p role="alert" className="border-error mb-2 border-l-4 px-3">
                {problem}
              </p>
            )}
          </div>
        )}
        <p
          role="status"
          className={`px-4 py-1 text-sm ${unplaced.length && unplaced.length < deck.slides.length ? "border-warning border-l-4" : ""}`}
        >
          {unplaced.length === 0
            ? "Every slide is in a part."
            : unplaced.length === deck.slides.length
              ? "Mark slides in the columns, type their numbers, or let parts be proposed. This deck stays as it is."
              : `In no part: ${rangesOf(unplaced)}.`}{" "}
          {unplaced.length < deck.slides.length && remarks.join(" ")} {unplaced.length < deck.slides.length && refused}
        </p>
        <div
          ref={scroller}
          role="grid"
          aria-label="Slides and parts"
          aria-rowcount={deck.slides.length}
          className="min-h-0 flex-1 overflow-auto"
          data-split
        >
          <div style={{ width: 320 + (columns.length + 1) * CELL }}>
            <div role="row" className="bg-base-100 hairline sticky top-0 z-20 flex border-b">
              <div
                role="columnheader"
                className="bg-base-100 sticky left-0 z-10 w-80 shrink-0 px-4 py-2 text-sm font-semibold"
              >
                Slides
              </div>
              {columns.map(({ key, name, numbers }, at) => (
                <div
                  key={key}
                  role="columnheader"
                  className="hairline shrink-0 space-y-1 border-l p-1.5"
                  style={{ width: CELL }}
                >
                  <span className="flex gap-1">
                    <input
                      className="input input-xs min-w-0 flex-1"
                      aria-label={`Name of part ${at + 1}`}
                      value={name}
                      onChange={(event) => set(at, { name: event.target.value })}
                    />
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`Take part ${at + 1} out of the table`}
                      title="Remove this part"
                      onClick={() => setColumns((now) => now.toSpliced(at, 1))}
                    >
                      <X size={14} aria-hidden="true" />
                    </button>
                  </span>
                  <RangeField
                    label={`Slides of part ${at + 1}`}
                    value={rangesOf(numbers)}
                    count={deck.slides.length}
                    placeholder="2-8, 12"
                    onNumbers={(next) => set(at, { numbers: next })}
                  />
                </div>
              ))}
              <div role="columnheader" className="hairline shrink-0 border-l p-1.5" style={{ width: CELL }}>
                <button
                  type="button"
                  className="btn btn-ghost btn-xs"
                  onClick={() =>
                    setColumns((now) => [...now, { key: nanoid(6), name: `Part ${now.length + 1}`, numbers: [] }])
                  }
                >
                  <Plus size={14} aria-hidden="true" /> Part
                </button>
              </div>
            </div>
            <div role="rowgroup" style={{ height: rows.getTotalSize(), position: "relative" }}>
              {rows.getVirtualItems().map(({ index, start }) => {
                const slide = must(deck.slides[index]);
                return (
                  <Row
                    key={slide.id}
                    slide={slide}
                    number={index + 1}
                    columns={columns}
                    every={
                      openingNumbers.includes(index + 1)
                        ? "opening"
                        : closingNumbers.includes(index + 1)
                          ? "closing"
                          : undefined
                    }
                    top={start}
                    onMark={mark}
                    onOver={over}
                  />
                );
              })}
            </div>
            <div role="row" className="bg-base-200 hairline sticky bottom-0 z-20 flex border-t text-sm">
              <div role="rowheader" className="bg-base-200 sticky left-0 w-80 shrink-0 px-4 py-1">
                With opening and closing
              </div>
              {columns.map(({ key, numbers }) => {
                const { slides, seconds, words } = measured(deck, numbers, every);
                return (
                  <div
                    key={key}
                    role="gridcell"
                    className="hairline shrink-0 border-l px-2 py-1 text-right leading-tight"
                    style={{ width: CELL }}
                    data-foot={key}
                  >
                    <strong>{clock(numbers.length ? seconds : 0)}</strong>
                    <br />
                    <span className="quiet text-xs">
                      {numbers.length ? `${slides} slides, ${words} words` : "empty: not made"}
                    </span>
                  </div>
                );
              })}
            </div>
          </div>
        </div>
      </div>
    </DeckFrame>
  );
}
