import type { CompareRow, CompareState, Comparison, Difference } from "@unitext/core/diff";
import { type Deck, metadataOf, nameOf, type Slide, must } from "@unitext/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type ReactNode, useMemo, useRef, useState } from "react";
import { SmallSlide } from "../deck/SmallSlide";

const STATES: Record<CompareState, { label: string; tone: string }> = {
  same: { label: "Same", tone: "border-transparent" },
  changed: { label: "Changed", tone: "border-primary" },
  moved: { label: "Moved", tone: "border-primary" },
  here: { label: "Only here", tone: "border-success" },
  there: { label: "Only there", tone: "border-warning" },
};
const DIFFERS: Record<Difference, string> = {
  words: "words",
  notes: "notes",
  appearance: "appearance",
  data: "tables, pictures or data",
};
const FACES = ["differing", "changed", "moved", "here", "there", "all"] as const;

interface Props {
  comparison: Comparison;
  here: { deck: Deck; label: string };
  there: { deck: Deck; label: string };
  /** What can be done with a row, such as taking its slide back. */
  act?: (row: CompareRow) => ReactNode;
}

/** Compares two decks, or two states of one, slide by slide: what is the same, changed, moved, or only on one side. */
export function CompareView({ comparison, here, there, act }: Props) {
  const { rows, counts } = comparison;
  const differing = rows.length - counts.same;
  const [face, setFace] = useState<(typeof FACES)[number]>("differing");
  const shown = useMemo(
    () => rows.filter(({ state }) => face === "all" || (face === "differing" ? state !== "same" : state === face)),
    [rows, face],
  );
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 168,
    overscan: 4,
  });
  const heads = useMemo(
    () => ({ here: metadataOf(here.deck), there: metadataOf(there.deck) }),
    [here.deck, there.deck],
  );
  const numbers = useMemo(
    () => ({
      here: new Map(here.deck.slides.map(({ id }, nth) => [id, nth + 1])),
      there: new Map(there.deck.slides.map(({ id }, nth) => [id, nth + 1])),
    }),
    [here.deck, there.deck],
  );
  const side = (slide: Slide | null, where: "here" | "there") =>
    slide ? (
      <figure>
        <SmallSlide
          slide={slide}
          number={numbers[where].get(slide.id) ?? 1}
          metadata={heads[where]}
          deck={(where === "here" ? here : there).deck.id}
          width={224}
          label={`${where === "here" ? here.label : there.label}: ${nameOf(slide)}`}
        />
        <figcaption className="quiet text-xs">slide {numbers[where].get(slide.id)}</figcaption>
      </figure>
    ) : (
      <div className="hairline quiet grid aspect-video place-items-center border border-dashed text-sm">not there</div>
    );
  return (
    <section aria-label="Comparison" className="flex h-full min-h-0 flex-col" data-comparison>
      <div role="group" aria-label="Show" className="flex flex-wrap items-center gap-1 px-4 py-2">
        <span className="mr-2 text-sm">
          {differing === 0
            ? `All ${rows.length} slides are the same.`
            : `${differing} of ${rows.length} slides differ.`}
        </span>
        {FACES.map((name) => {
          const count = name === "all" ? rows.length : name === "differing" ? differing : counts[name];
          return (
            <button
              key={name}
              type="button"
              aria-pressed={face === name}
              disabled={!count}
              className={`btn btn-xs ${face === name ? "btn-primary" : ""}`}
              onClick={() => setFace(name)}
            >
              {name === "all" ? "All" : name === "differing" ? "What differs" : STATES[name].label} {count}
            </button>
          );
        })}
      </div>
      <div className="quiet hairline grid grid-cols-[15rem_15rem_1fr] max-lg:grid-cols-2 gap-4 border-b px-5 pb-1 text-sm">
        <span className="truncate">{here.label}</span>
        <span className="truncate">{there.label}</span>
      </div>
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-auto"
        tabIndex={0}
        role="region"
        aria-label="Slides side by side"
      >
        <div style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = must(shown[index]);
            const { label, tone } = STATES[row.state];
            const slide = (row.here ?? row.there) as Slide;
            return (
              <article
                key={`${row.here?.id}/${row.there?.id}`}
                ref={virtual.measureElement}
                data-index={index}
                data-state={row.state}
                className="hairline absolute inset-x-0 border-b px-4 py-2"
                style={{ transform: `translateY(${start}px)` }}
              >
                <div
                  className={`grid grid-cols-[15rem_15rem_1fr] max-lg:grid-cols-2 items-start gap-4 border-l-4 pl-2 ${tone}`}
                >
                  {side(row.here, "here")}
                  {side(row.there, "there")}
                  <div className="text-sm max-lg:col-span-2">
                    <h3 className="font-semibold">{nameOf(slide) || "(empty)"}</h3>
                    <p>
                      {label}
                      {row.differs.length > 0 && `: ${row.differs.map((one) => DIFFERS[one]).join(", ")}`}
                      {row.moved && row.state === "changed" ? "; also moved" : ""}
                    </p>
                    {act?.(row)}
                  </div>
                </div>
              </article>
            );
          })}
        </div>
      </div>
    </section>
  );
}
