import { Dialog } from "../ui/Dialog";
import type { Point } from "@unitext/core/generate";
import { type PointChoice, must } from "@unitext/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState } from "react";

export interface SlidePoints {
  title: string;
  line: number;
  points: Point[];
}

interface Edited {
  chosen: boolean;
  point: string;
}

/** Shows the suggested points slide by slide, each beside its sentence, to choose and edit before they are taken. */
export function Points({
  slides,
  choices,
  onTake,
  onClose,
}: {
  slides: readonly SlidePoints[];
  choices: readonly PointChoice[];
  onTake: (choices: PointChoice[]) => void;
  onClose: () => void;
}) {
  const list = useRef<HTMLDivElement>(null);
  const [edits, setEdits] = useState<ReadonlyMap<string, Edited>>(new Map());
  const rows = useVirtualizer({
    count: slides.length,
    getScrollElement: () => list.current,
    estimateSize: () => 220,
    overscan: 3,
  });
  const stateOf = (point: Point): Edited => edits.get(point.sentence) ?? { chosen: point.chosen, point: point.point };
  const edit = (point: Point, change: Partial<Edited>) =>
    setEdits(new Map(edits).set(point.sentence, { ...stateOf(point), ...change }));
  const count = slides.reduce((sum, { points }) => sum + points.filter((point) => stateOf(point).chosen).length, 0);

  function take() {
    const said = new Map(choices.map((choice) => [choice.sentence, choice]));
    for (const [sentence, { chosen, point }] of edits)
      said.set(sentence, { sentence, point: chosen && point.trim() ? point.trim() : null });
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
            {count} points on {slides.length} slides{edits.size ? `, ${edits.size} edited by you` : ""}
          </p>
          <button type="button" className="btn btn-ghost btn-sm" onClick={close}>
            Cancel
          </button>
          <button type="button" className="btn btn-primary btn-sm" onClick={take}>
            Accept the points
          </button>
        </>
      )}
    >
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
                  {points.map((point) => {
                    const { chosen, point: words } = stateOf(point);
                    return (
                      <li
                        key={point.sentence}
                        className="grid grid-cols-[1.5rem_minmax(0,1fr)_minmax(0,1fr)] items-start gap-3 py-1"
                      >
                        <input
                          type="checkbox"
                          className="checkbox checkbox-sm mt-1"
                          checked={chosen}
                          aria-label={`A point from: ${point.sentence}`}
                          onChange={(event) => edit(point, { chosen: event.target.checked })}
                        />
                        <p className={`font-serif ${chosen ? "" : "quiet"}`}>{point.sentence}</p>
                        {chosen && (
                          <input
                            className="input input-sm w-full"
                            value={words}
                            aria-label={`The point from: ${point.sentence}`}
                            maxLength={2000}
                            onChange={(event) => edit(point, { point: event.target.value })}
                          />
                        )}
                      </li>
                    );
                  })}
                </ul>
              </section>
            );
          })}
        </div>
      </div>
    </Dialog>
  );
}
