import { NAME_FIELDS, rangesOf } from "@unitext/core/divide";
import { must } from "@unitext/core/model";
import { Begun } from "@unitext/server/api";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Plus, X } from "lucide-react";
import { useRef, useState } from "react";
import { mutate } from "swr";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { clock } from "../ui/time";
import { isOpen, JobLine, useJobs } from "../jobs";
import { DeckFrame } from "../shell/DeckFrame";
import { ArrangeViews } from "../shell/ArrangeViews";
import { measured } from "./parts";
import { RangeField } from "./RangeField";
import { CELL, ROW, SplitRow } from "./SplitRow";
import { SuggestParts } from "./SuggestParts";
import { useSplitTable } from "./useSplitTable";

/**
 * The split table: slides as rows, parts as columns. Marks are set one by one, by dragging, or by typing numbers; parts
 * can be suggested and then corrected.
 */
export default function Split() {
  const { deck } = useDeck();
  const table = useSplitTable();
  const { columns, opening, closing, names, plan, every, unplaced, remarks, refused } = table;
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

  return (
    <DeckFrame place="Split" tools={<ArrangeViews />}>
      <div className="flex h-full flex-col">
        <div className="hairline bg-base-200 flex flex-wrap items-center gap-x-5 gap-y-2 border-b px-4 py-2 text-sm">
          <SuggestParts onSuggest={table.suggest} />
          <div className="flex items-start gap-2">
            <span className="pt-0.5">In every part: opening</span>
            <RangeField
              label="Opening slides"
              className="w-20"
              value={opening}
              count={deck.slides.length}
              placeholder="1"
              onNumbers={(_, text) => table.setOpening(text)}
            />
            <span className="pt-0.5">closing</span>
            <RangeField
              label="Closing slides"
              className="w-20"
              value={closing}
              count={deck.slides.length}
              placeholder={String(deck.slides.length)}
              onNumbers={(_, text) => table.setClosing(text)}
            />
          </div>
          <label className="flex items-center gap-2">
            Name pattern
            <input
              className="input input-xs w-52"
              value={names}
              title={`May hold ${NAME_FIELDS.map((field) => `{${field}}`).join(", ")}`}
              onChange={(event) => table.setNames(event.target.value)}
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
              ? "Mark slides in the columns, type their numbers, or have parts suggested. This deck stays as it is."
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
                      onChange={(event) => table.setColumn(at, { name: event.target.value })}
                    />
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`Take part ${at + 1} out of the table`}
                      title="Remove this part"
                      onClick={() => table.remove(at)}
                    >
                      <X size={14} aria-hidden="true" />
                    </button>
                  </span>
                  <RangeField
                    label={`Slides of part ${at + 1}`}
                    value={rangesOf(numbers)}
                    count={deck.slides.length}
                    placeholder="2-8, 12"
                    onNumbers={(next) => table.setColumn(at, { numbers: next })}
                  />
                </div>
              ))}
              <div role="columnheader" className="hairline shrink-0 border-l p-1.5" style={{ width: CELL }}>
                <button type="button" className="btn btn-ghost btn-xs" onClick={table.add}>
                  <Plus size={14} aria-hidden="true" /> Part
                </button>
              </div>
            </div>
            <div role="rowgroup" style={{ height: rows.getTotalSize(), position: "relative" }}>
              {rows.getVirtualItems().map(({ index, start }) => {
                const slide = must(deck.slides[index]);
                return (
                  <SplitRow
                    key={slide.id}
                    slide={slide}
                    number={index + 1}
                    columns={columns}
                    every={table.roleOf(index + 1)}
                    top={start}
                    onMark={table.mark}
                    onOver={table.extend}
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
