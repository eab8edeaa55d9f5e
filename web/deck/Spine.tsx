import { moveTo, placeOf } from "@unitext/core/edit";
import { familyOf, hasNotes, nameOf, secondsOf, type Slide, slideIndex, must } from "@unitext/core/model";
import { memo, useMemo, useRef, useState } from "react";
import { useDeck } from "./DeckContext";
import { useMeasures } from "./scenes";
import { clock } from "../ui/time";

interface BlockProps {
  slide: Slide;
  number: number;
  depth: number;
  seconds: number;
  fullness: number;
  overflow: boolean;
  selected: boolean;
  current: boolean;
  onChoose: (id: string, keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  onDrag: (id: string) => void;
  /** Called when something is dragged over it, on its left or right half, or dropped there. */
  onOver: (id: string, after: boolean, drop: boolean) => void;
  landing: "before" | "after" | undefined;
}

const Block = memo(function Block({
  slide,
  number,
  depth,
  seconds,
  fullness,
  overflow,
  selected,
  current,
  onChoose,
  onDrag,
  onOver,
  landing,
}: BlockProps) {
  const half = ({ clientX, currentTarget }: { clientX: number; currentTarget: HTMLElement }) => {
    const { left, width } = currentTarget.getBoundingClientRect();
    return clientX > left + width / 2;
  };
  const marks = [
    slide.hidden ? "hidden" : "",
    hasNotes(slide) || slide.hidden ? "" : "no notes",
    overflow ? "text overflows" : "",
  ].filter(Boolean);
  const name = `${number}. ${nameOf(slide) || "(empty)"}, ${clock(seconds)}${marks.length ? `, ${marks.join(", ")}` : ""}`;
  return (
    <button
      type="button"
      title={name}
      aria-label={name}
      aria-current={current ? "true" : undefined}
      tabIndex={current ? 0 : -1}
      data-spine={slide.id}
      onClick={(event) => onChoose(slide.id, event)}
      draggable
      onDragStart={(event) => {
        event.dataTransfer.effectAllowed = "move";
        event.dataTransfer.setData("text/plain", name);
        onDrag(slide.id);
      }}
      onDragOver={(event) => {
        event.preventDefault();
        onOver(slide.id, half(event), false);
      }}
      onDrop={(event) => {
        event.preventDefault();
        event.stopPropagation();
        onOver(slide.id, half(event), true);
      }}
      style={{ flexGrow: Math.max(seconds, 4), marginTop: `${depth * 8}px` }}
      className={`hairline relative h-7 min-w-px basis-0 cursor-pointer overflow-hidden border-r ${selected ? "outline-2 -outline-offset-2 outline-secondary" : ""} ${slide.hidden ? "opacity-45" : ""}`}
    >
      <span className="bg-primary absolute inset-0" style={{ opacity: 0.16 + Math.min(1, fullness) * 0.6 }} />
      {landing && (
        <span
          className={`bg-secondary absolute inset-y-0 w-1 ${landing === "after" ? "right-0" : "left-0"}`}
          data-landing={landing}
        />
      )}
      {overflow && <span className="bg-error absolute inset-x-0 bottom-0 h-1.5" />}
      {!hasNotes(slide) && !slide.hidden && <span className="bg-warning absolute top-0 left-0 h-1.5 w-1.5" />}
    </button>
  );
});

/**
 * The band across the foot: a block for each slide, as wide as its speaking time, lower for a detail, shaded by how
 * full it is.
 */
export function Spine({ onOpen }: { onOpen?: (id: string) => void }) {
  const { deck, metadata, level, session, selected, select } = useDeck();
  const measureOf = useMeasures(deck, metadata);
  const band = useRef<HTMLDivElement>(null);
  const seconds = useMemo(() => deck.slides.map((slide) => secondsOf(slide, deck.rate)), [deck]);
  const total = seconds.reduce((sum, next) => sum + next, 0);
  const chosen = useMemo(() => new Set(selected), [selected]);
  const current = selected.at(-1);
  const [dragged, setDragged] = useState<string>();
  const [landing, setLanding] = useState<{ id: string; after: boolean }>();
  const numbers = useMemo(() => new Map(deck.slides.map(({ id }, nth) => [id, nth + 1])), [deck]);
  const place = (id: string, after: boolean) => {
    const at = slideIndex(deck, id);
    return after ? { parent: deck.slides[at]?.parent ?? null, after: id } : placeOf(deck.slides, at);
  };
  const said = (id: string, after: boolean) =>
    `${after ? "after" : "before"} ${numbers.get(id)}${after && numbers.get(id) === deck.slides.length ? ", at the end" : ""}`;
  const moving = dragged === undefined ? [] : chosen.has(dragged) ? selected : [dragged];
  const acts = {
    choose(id: string, { shiftKey, ctrlKey, metaKey }: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) {
      const from = current === undefined ? -1 : slideIndex(deck, current);
      const to = slideIndex(deck, id);
      if (shiftKey && from >= 0) {
        const run = deck.slides.slice(Math.min(from, to), Math.max(from, to) + 1).map((slide) => slide.id);
        select(from <= to ? run : run.reverse());
      } else if (ctrlKey || metaKey)
        select(chosen.has(id) ? selected.filter((other) => other !== id) : [...selected, id]);
      else {
        select([id]);
        onOpen?.(id);
      }
    },
    over(id: string, after: boolean, drop: boolean) {
      if (dragged === undefined) return;
      const taken = new Set(moving.flatMap((one) => familyOf(deck.slides, one).map((slide) => slide.id)));
      const inside = taken.has(id);
      if (!drop) {
        setLanding((now) => (inside ? undefined : now?.id === id && now.after === after ? now : { id, after }));
        return;
      }
      setDragged(undefined);
      setLanding(undefined);
      if (!inside)
        session.apply(moveTo(deck, moving, place(id, after)), {
          words: `Moved ${moving.length === 1 ? `slide ${numbers.get(must(moving[0]))}` : `${moving.length} slides`} ${said(id, after)}`,
        });
    },
  };
  const latest = useRef(acts);
  latest.current = acts;
  const choose = useRef<BlockProps["onChoose"]>((id, keys) => latest.current.choose(id, keys)).current;
  const over = useRef<BlockProps["onOver"]>((id, after, drop) => latest.current.over(id, after, drop)).current;
  const drag = useRef((id: string) => setDragged(id)).current;
  const step = (by: number) => {
    const at = deck.slides.findIndex(({ id }) => id === current);
    const next = deck.slides[Math.max(0, Math.min(deck.slides.length - 1, at + by))];
    if (!next) return;
    choose(next.id, { shiftKey: false, ctrlKey: false, metaKey: false });
    band.current?.querySelector<HTMLElement>(`[data-spine="${next.id}"]`)?.focus();
  };
  return (
    <div className="bg-base-200 hairline flex items-start gap-3 border-t px-4 pt-2 pb-1">
      <div
        ref={band}
        role="toolbar"
        aria-label="Spine: the slides by the time they take"
        className="flex min-h-11 min-w-0 flex-1 items-start overflow-hidden p-0.5"
        onDragEnd={() => {
          setDragged(undefined);
          setLanding(undefined);
        }}
        onDragLeave={(event) => event.currentTarget === event.target && setLanding(undefined)}
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
          return (
            <Block
              key={slide.id}
              slide={slide}
              number={nth + 1}
              depth={Math.min(2, level.get(slide.id) ?? 0)}
              seconds={seconds[nth] ?? 0}
              fullness={measure?.fullness ?? 0}
              overflow={(measure?.overflow ?? 0) > 0}
              selected={chosen.has(slide.id)}
              current={slide.id === current}
              onChoose={choose}
              onDrag={drag}
              onOver={over}
              landing={landing?.id === slide.id ? (landing.after ? "after" : "before") : undefined}
            />
          );
        })}
      </div>
      {landing && (
        <p role="status" className="bg-secondary text-secondary-content shrink-0 px-2 py-0.5 text-sm">
          Lands {said(landing.id, landing.after)}
        </p>
      )}
      <p className="shrink-0 pt-1 text-right text-sm leading-tight">
        <strong>{clock(total)}</strong>
        <br />
        <span className="quiet">{deck.slides.length} slides</span>
      </p>
    </div>
  );
}
