import {
  DndContext,
  type DragEndEvent,
  type DragMoveEvent,
  pointerWithin,
  useDraggable,
  useDroppable,
} from "@dnd-kit/core";
import { moveTo, placeOf } from "@unitext/core/edit";
import {
  familyOf,
  hasNotes,
  nameOf,
  openCommentsOn,
  secondsOf,
  type Slide,
  slideIndex,
  must,
} from "@unitext/core/model";
import { memo, useDeferredValue, useMemo, useRef, useState } from "react";
import { useDeck } from "./DeckContext";
import { colourOf } from "./presence";
import { useMeasures } from "./scenes";
import { languageName } from "../ui/languages";
import { useOutOfDate } from "./useOutOfDate";
import { useUntranslated } from "./useUntranslated";
import { DRAG_ANNOUNCEMENTS, startOf, useDragSensors } from "../ui/dragging";
import { clock } from "../ui/time";

/** A slide that took this much longer than planned is marked. */
const LATE = 1.25;

interface BlockProps {
  slide: Slide;
  number: number;
  depth: number;
  seconds: number;
  fullness: number;
  overflow: boolean;
  /** Whether linked values on it are out of date. */
  outdated: boolean;
  /** Whether some of its texts are untranslated. */
  untranslated: boolean;
  /** Whether a check found something on it. */
  advised: boolean;
  selected: boolean;
  current: boolean;
  onChoose: (id: string, keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  landing: "before" | "after" | undefined;
  /** The seconds that it took in the last rehearsal. */
  spent: number | undefined;
  /** The colour of somebody else who is on it. */
  person: string | undefined;
}

const Block = memo(function Block({
  slide,
  number,
  depth,
  seconds,
  fullness,
  overflow,
  outdated,
  untranslated,
  advised,
  selected,
  current,
  onChoose,
  landing,
  spent,
  person,
}: BlockProps) {
  const data = { name: `${number}. ${nameOf(slide)}` };
  const drag = useDraggable({ id: slide.id, data });
  const drop = useDroppable({ id: slide.id, data });
  const comments = openCommentsOn(slide);
  const marks = [
    slide.hidden ? "hidden" : "",
    hasNotes(slide) || slide.hidden ? "" : "no notes",
    overflow ? "text overflows" : "",
    outdated ? "linked data out of date" : "",
    untranslated ? "not all translated" : "",
    advised ? "see Check" : "",
    comments === 0 ? "" : comments === 1 ? "1 open comment" : `${comments} open comments`,
    spent === undefined ? "" : `took ${clock(spent)}`,
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
      ref={(node) => {
        drag.setNodeRef(node);
        drop.setNodeRef(node);
      }}
      {...drag.listeners}
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
      {outdated && <span className="bg-secondary absolute top-0 right-0 h-2 w-2 rounded-full" data-outdated />}
      {untranslated && <span className="bg-accent absolute bottom-0 left-0 h-2 w-2" data-untranslated />}
      {advised && <span className="bg-warning absolute right-0 bottom-0 h-1.5 w-1.5 rounded-full" data-advised />}
      {comments > 0 && (
        <span
          className="bg-base-100 text-base-content absolute inset-x-0 top-1.5 mx-auto w-fit px-0.5 text-[0.6rem] leading-3"
          data-comments
        >
          {comments}
        </span>
      )}
      {person && (
        <span className="absolute inset-x-0 bottom-0 h-1" style={{ backgroundColor: person }} data-person-on />
      )}
      {overflow && <span className="bg-error absolute inset-x-0 bottom-0 h-1.5" />}
      {spent !== undefined && (
        <span
          className={`absolute top-0 left-0 h-1.5 ${spent > seconds * LATE ? "bg-error" : "bg-success"}`}
          style={{ width: `${Math.min(100, (spent / Math.max(seconds, 1)) * 100)}%` }}
          data-spent
        />
      )}
      {!hasNotes(slide) && !slide.hidden && <span className="bg-warning absolute top-0 left-0 h-1.5 w-1.5" />}
    </button>
  );
});

/**
 * The band across the foot: a block for each slide, as wide as its speaking time, lower for a detail, shaded by how
 * full it is.
 */
export const Spine = memo(function Spine({
  onOpen,
  spent,
}: {
  onOpen?: (id: string) => void;
  /** The seconds that slides took in the last rehearsal, by id. */
  spent?: ReadonlyMap<string, number>;
}) {
  const { deck: now, metadata, level, session, advice, selected, select, others } = useDeck();
  const people = useMemo(() => new Map(others.map(({ slide, user }) => [slide, colourOf(user)])), [others]);
  // The place where a change is made is drawn first; the spine follows.
  const deck = useDeferredValue(now);
  const measureOf = useMeasures(deck, metadata);
  const outdated = useOutOfDate(deck);
  const untranslated = useUntranslated(deck);
  const advised = useMemo(
    () => new Set(advice.found.filter(({ check }) => check !== "overflow").map(({ slide }) => slide)),
    [advice],
  );
  const band = useRef<HTMLDivElement>(null);
  const seconds = useMemo(() => deck.slides.map((slide) => secondsOf(slide, deck.rate)), [deck]);
  const total = seconds.reduce((sum, next) => sum + next, 0);
  const chosen = useMemo(() => new Set(selected), [selected]);
  const current = selected.at(-1);
  const [landing, setLanding] = useState<{ id: string; after: boolean }>();
  const numbers = useMemo(() => new Map(deck.slides.map(({ id }, nth) => [id, nth + 1])), [deck]);
  const place = (id: string, after: boolean) => {
    const at = slideIndex(deck, id);
    return after ? { parent: deck.slides[at]?.parent ?? null, after: id } : placeOf(deck.slides, at);
  };
  const said = (id: string, after: boolean) =>
    `${after ? "after" : "before"} ${numbers.get(id)}${after && numbers.get(id) === deck.slides.length ? ", at the end" : ""}`;
  const sensors = useDragSensors();
  const movedWith = (id: string) => (chosen.has(id) ? selected : [id]);
  /** Returns where a dragged block lands: before or after the one under the pointer, unless that is dragged too. */
  const landingOf = ({ active, over, activatorEvent, delta }: DragMoveEvent): typeof landing => {
    if (!over) return undefined;
    const id = String(over.id);
    const taken = movedWith(String(active.id)).flatMap((one) => familyOf(deck.slides, one).map((slide) => slide.id));
    if (taken.includes(id)) return undefined;
    const x = startOf(activatorEvent).x + delta.x;
    return { id, after: x > over.rect.left + over.rect.width / 2 };
  };
  const move = (event: DragEndEvent) => {
    const at = landingOf(event);
    setLanding(undefined);
    if (!at) return;
    const moving = movedWith(String(event.active.id));
    const what = moving.length === 1 ? `slide ${numbers.get(must(moving[0]))}` : `${moving.length} slides`;
    session.apply(moveTo(now, moving, place(at.id, at.after)), { words: `Moved ${what} ${said(at.id, at.after)}` });
  };
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
  };
  const latest = useRef(acts);
  latest.current = acts;
  const choose = useRef<BlockProps["onChoose"]>((id, keys) => latest.current.choose(id, keys)).current;
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
        onKeyDown={(event) => {
          if (event.altKey || event.ctrlKey || event.metaKey) return;
          if (event.key === "ArrowRight") step(1);
          else if (event.key === "ArrowLeft") step(-1);
          else return;
          event.preventDefault();
          event.stopPropagation();
        }}
      >
        <DndContext
          sensors={sensors}
          collisionDetection={pointerWithin}
          accessibility={{ announcements: DRAG_ANNOUNCEMENTS }}
          onDragMove={(event) => setLanding(landingOf(event))}
          onDragCancel={() => setLanding(undefined)}
          onDragEnd={move}
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
                outdated={outdated.has(slide.id)}
                untranslated={untranslated.has(slide.id)}
                advised={advised.has(slide.id)}
                selected={chosen.has(slide.id)}
                current={slide.id === current}
                onChoose={choose}
                spent={spent?.get(slide.id)}
                person={people.get(slide.id)}
                landing={landing?.id === slide.id ? (landing.after ? "after" : "before") : undefined}
              />
            );
          })}
        </DndContext>
      </div>
      {landing && (
        <p role="status" className="bg-secondary text-secondary-content shrink-0 px-2 py-0.5 text-sm">
          Lands {said(landing.id, landing.after)}
        </p>
      )}
      <p className="shrink-0 pt-1 text-right text-sm leading-tight">
        <strong>{clock(total)}</strong>
        <br />
        <span className="quiet" title={languageName(deck.language)}>
          {deck.slides.length} slides · {deck.language}
        </span>
      </p>
    </div>
  );
});
