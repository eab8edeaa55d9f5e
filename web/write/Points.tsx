import type { Point } from "@unitext/core/generate";
import { must, type PointChoice } from "@unitext/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { PenLine } from "lucide-react";
import { useRef, useState } from "react";
import { Dialog } from "../ui/Dialog";
import type { SlidePoints } from "./slidepoints";
import { faultWords, type Rewritten, useRewriting } from "./useRewriting";

interface Edited {
  chosen: boolean;
  point: string;
  /** Set where a service wrote the point. */
  by?: "service" | undefined;
}

/** Shows the suggested points slide by slide, each beside its sentence, to choose and edit before they are taken. */
export function Points({
  slides,
  language,
  choices,
  onTake,
  onClose,
}: {
  slides: readonly SlidePoints[];
  language: string;
  choices: readonly PointChoice[];
  onTake: (choices: PointChoice[]) => void;
  onClose: () => void;
}) {
  const list = useRef<HTMLDivElement>(null);
  const [edits, setEdits] = useState<ReadonlyMap<string, Edited>>(new Map());
  const [refused, setRefused] = useState<ReadonlyMap<string, string>>(new Map());
  const rows = useVirtualizer({
    count: slides.length,
    getScrollElement: () => list.current,
    estimateSize: () => 220,
    overscan: 3,
  });
  const stateOf = (point: Point): Edited => edits.get(point.sentence) ?? point;
  const edit = (point: Point, change: Partial<Edited>) =>
    setEdits((before) => new Map(before).set(point.sentence, { ...(before.get(point.sentence) ?? point), ...change }));
  const putBack = ({ sentence }: Point) =>
    setEdits((before) => new Map([...before].filter(([other]) => other !== sentence)));
  const count = slides.reduce((sum, { points }) => sum + points.filter((point) => stateOf(point).chosen).length, 0);
  const byPerson = [...edits.values()].filter(({ by }) => !by).length;

  const all = new Map(slides.flatMap(({ points }) => points.map((point) => [point.sentence, point])));
  /** Takes what a service wrote for the sentences that are chosen, where it says it in other words. */
  function takeRewritten(made: ReadonlyMap<string, Rewritten>): { taken: number; refused: number } {
    const chosen = [...made].flatMap(([sentence, one]) => {
      const point = all.get(sentence);
      return point && stateOf(point).chosen ? [{ sentence, one, words: stateOf(point).point }] : [];
    });
    const faulty = chosen.flatMap(({ sentence, one }) =>
      "faults" in one ? [[sentence, faultWords(one.faults)] as const] : [],
    );
    const next = chosen.flatMap(({ sentence, one, words }) =>
      "point" in one && one.point !== words
        ? [[sentence, { chosen: true, point: one.point, by: "service" }] as const]
        : [],
    );
    setRefused((before) => new Map([...before, ...faulty]));
    setEdits((before) => new Map<string, Edited>([...before, ...next]));
    return { taken: next.length, refused: faulty.length };
  }
  const { host, progress, remark, rewrite, cancel } = useRewriting(slides, language, takeRewritten);

  function take() {
    const said = new Map(choices.map((choice) => [choice.sentence, choice]));
    for (const [sentence, { chosen, point, by }] of edits)
      said.set(sentence, { sentence, point: chosen && point.trim() ? point.trim() : null, ...(by ? { by } : {}) });
    onTake([...said.values()]);
  }

  return (
    <Dialog
      title="Points from the text"
      lead="Each point is part of the sentence beside it. Choose the sentences that give one, and edit the points; the whole text stays in the notes."
      width="page"
      tall
      onClose={onClose}
      actions={(close) => (
        <>
          <p className="quiet mr-auto self-center text-sm" role="status">
            {count} points on {slides.length} slides{byPerson ? `, ${byPerson} edited by you` : ""}
          </p>
          <button type="button" className="btn btn-ghost btn-sm" onClick={close}>
            Cancel
          </button>
          <button type="button" className="btn btn-primary btn-sm" disabled={progress !== undefined} onClick={take}>
            Accept the points
          </button>
        </>
      )}
    >
      {host && slides.length > 0 && (
        <div className="mb-3 flex flex-wrap items-center gap-3 text-sm">
          {progress ? (
            <>
              <progress
                className="progress progress-primary w-40"
                value={progress.done}
                max={progress.all}
                aria-label="Paragraphs with points"
              />
              <span>
                {progress.done} of {progress.all} paragraphs
              </span>
              <button type="button" className="btn btn-ghost btn-xs" onClick={cancel}>
                Stop
              </button>
            </>
          ) : (
            <>
              <button
                type="button"
                className="btn btn-sm"
                title={`Sends the sentences to ${host}, which writes the chosen points in other words`}
                onClick={() => void rewrite()}
              >
                <PenLine size={16} aria-hidden="true" /> Rewrite with the service
              </button>
              <span className="quiet">The sentences are sent to {host}. Numbers, names and negations are checked.</span>
            </>
          )}
          <span role="status">{remark}</span>
        </div>
      )}
      <div
        ref={list}
        className="hairline min-h-0 flex-1 overflow-auto border-y"
        tabIndex={0}
        role="region"
        aria-label="Points, slide by slide"
      >
        {slides.length === 0 && <p className="py-8">No slide has prose that points could be taken from.</p>}
        <div style={{ height: rows.getTotalSize(), position: "relative" }}>
          {rows.getVirtualItems().map(({ index, start, key }) => {
            const { title, points, line } = must(slides[index]);
            return (
              <section
                key={key}
                ref={rows.measureElement}
                data-index={index}
                className="hairline absolute inset-x-0 border-b py-3"
                style={{ transform: `translateY(${start}px)` }}
                aria-label={title || `Line ${line}`}
              >
                <h3 className="mb-1 font-semibold">{title || "Without a title"}</h3>
                <ul>
                  {points.map((point) => (
                    <PointRow
                      key={point.sentence}
                      point={point}
                      state={stateOf(point)}
                      refused={refused.get(point.sentence)}
                      onEdit={(change) => edit(point, change)}
                      onPutBack={edits.has(point.sentence) ? () => putBack(point) : undefined}
                    />
                  ))}
                </ul>
              </section>
            );
          })}
        </div>
      </div>
    </Dialog>
  );
}

/** A sentence with its point, and where the words of the point come from when a service wrote them. */
function PointRow({
  point,
  state: { chosen, point: words, by },
  refused,
  onEdit,
  onPutBack,
}: {
  point: Point;
  state: Edited;
  refused: string | undefined;
  onEdit: (change: Partial<Edited>) => void;
  onPutBack: (() => void) | undefined;
}) {
  return (
    <li className="grid grid-cols-[1.5rem_minmax(0,1fr)_minmax(0,1fr)] items-start gap-3 py-1">
      <input
        type="checkbox"
        className="checkbox checkbox-sm mt-1"
        checked={chosen}
        aria-label={`A point from: ${point.sentence}`}
        onChange={(event) => onEdit({ chosen: event.target.checked })}
      />
      <p className={`font-serif ${chosen ? "" : "quiet"}`}>{point.sentence}</p>
      {chosen && (
        <div>
          <input
            className="input input-sm w-full"
            value={words}
            aria-label={`The point from: ${point.sentence}`}
            maxLength={2000}
            onChange={(event) => onEdit({ point: event.target.value, by: undefined })}
          />
          {by === "service" && (
            <p className="mt-1 flex items-center gap-2 text-xs">
              <span className="badge badge-sm">written by the service</span>
              {onPutBack && (
                <button type="button" className="link" onClick={onPutBack}>
                  Put back
                </button>
              )}
            </p>
          )}
          {refused && !by && <p className="mt-1 text-xs">The service's point was not taken: {refused}.</p>}
        </div>
      )}
    </li>
  );
}
