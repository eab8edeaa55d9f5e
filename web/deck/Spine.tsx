import { hasNotes, nameOf, secondsOf, type Slide } from "@unitext/core/model";
import { memo, useMemo, useRef } from "react";
import { useDeck } from "./DeckContext";
import { useMeasures } from "./scenes";
import { clock } from "./time";

interface BlockProps {
  slide: Slide;
  number: number;
  depth: number;
  seconds: number;
  fullness: number;
  overflow: boolean;
  selected: boolean;
  current: boolean;
  onChoose: (id: string) => void;
}

const Block = memo(function Block({ slide, number, depth, seconds, fullness, overflow, selected, current, onChoose }: BlockProps) {
  const marks = [slide.hidden ? "hidden" : "", hasNotes(slide) || slide.hidden ? "" : "no notes", overflow ? "text stands out" : ""].filter(Boolean);
  const name = `${number}. ${nameOf(slide) || "(empty)"}, ${clock(seconds)}${marks.length ? `, ${marks.join(", ")}` : ""}`;
  return (
    <button
      type="button"
      title={name}
      aria-label={name}
      aria-current={current ? "true" : undefined}
      tabIndex={current ? 0 : -1}
      data-spine={slide.id}
      onClick={() => onChoose(slide.id)}
      style={{ flexGrow: Math.max(seconds, 4), marginTop: `${depth * 8}px` }}
      className={`hairline relative h-7 min-w-px basis-0 cursor-pointer overflow-hidden border-r ${selected ? "outline-2 -outline-offset-2 outline-secondary" : ""} ${slide.hidden ? "opacity-45" : ""}`}
    >
      <span className="bg-primary absolute inset-0" style={{ opacity: 0.16 + Math.min(1, fullness) * 0.6 }} />
      {overflow && <span className="bg-error absolute inset-x-0 bottom-0 h-1.5" />}
      {!hasNotes(slide) && !slide.hidden && <span className="bg-warning absolute top-0 left-0 h-1.5 w-1.5" />}
    </button>
  );
});

/** The band across the foot: a block a slide, as wide as the time it takes to say, lower where it is a detail, shaded by how full it is. */
export function Spine({ onOpen }: { onOpen?: (id: string) => void }) {
  const { deck, head, level, selected, select } = useDeck();
  const measureOf = useMeasures(deck, head);
  const band = useRef<HTMLDivElement>(null);
  const seconds = useMemo(() => deck.slides.map((slide) => secondsOf(slide, deck.rate)), [deck]);
  const total = seconds.reduce((sum, next) => sum + next, 0);
  const chosen = useMemo(() => new Set(selected), [selected]);
  const current = selected.at(-1);
  const choose = useRef((id: string) => {
    select([id]);
    onOpen?.(id);
  });
  choose.current = (id) => {
    select([id]);
    onOpen?.(id);
  };
  const stable = useRef((id: string) => choose.current(id));
  const step = (by: number) => {
    const at = deck.slides.findIndex(({ id }) => id === current);
    const next = deck.slides[Math.max(0, Math.min(deck.slides.length - 1, at + by))];
    if (!next) return;
    stable.current(next.id);
    band.current?.querySelector<HTMLElement>(`[data-spine="${next.id}"]`)?.focus();
  };
  return (
    <div className="bg-base-200 hairline flex items-start gap-3 border-t px-4 pt-2 pb-1">
      <div
        ref={band}
        role="toolbar"
        aria-label="Spine: the slides by the time they take"
        className="flex min-h-11 min-w-0 flex-1 items-start overflow-hidden p-0.5"
        onKeyDown={(event) => {
          if (event.altKey || event.ctrlKey || event.metaKey) return;
          if (event.key === "ArrowRight") step(1);
          else if (event.key === "ArrowLeft") step(-1);
          else return;
          event.preventDefault();
          event.stopPropagation();
        }}
      >
        {deck.slides.map((slide, nth) => {
          const measure = measureOf(slide);
          return <Block key={slide.id} slide={slide} number={nth + 1} depth={Math.min(2, level.get(slide.id) ?? 0)} seconds={seconds[nth] ?? 0} fullness={measure?.fullness ?? 0} overflow={(measure?.overflow ?? 0) > 0} selected={chosen.has(slide.id)} current={slide.id === current} onChoose={stable.current} />;
        })}
      </div>
      <p className="shrink-0 pt-1 text-right text-sm leading-tight">
        <strong>{clock(total)}</strong>
        <br />
        <span className="quiet">{deck.slides.length} slides</span>
      </p>
    </div>
  );
}
