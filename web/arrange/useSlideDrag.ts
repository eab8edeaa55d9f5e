import type { DragEndEvent, DragMoveEvent, DragStartEvent } from "@dnd-kit/core";
import { moveTo, type Place, placeOf } from "@unitext/core/edit";
import { type Deck, familyOf, must, slideIndex } from "@unitext/core/model";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { startOf, useDragSensors } from "../ui/dragging";
import { type Landing, landingWords } from "../deck/landing";

/** Returns the place in the deck that a landing means. */
export function placeFor(deck: Deck, { target, side }: Landing): Place {
  const slide = deck.slides[slideIndex(deck, target)];
  if (side === "under")
    return { parent: target, after: deck.slides.findLast(({ parent }) => parent === target)?.id ?? null };
  if (side === "after") return { parent: slide?.parent ?? null, after: target };
  return placeOf(deck.slides, slideIndex(deck, target));
}

/** Returns where dragged slides would land; undefined outside all slides and over the dragged slides themselves. */
function landingOf(deck: Deck, ids: readonly string[], event: DragMoveEvent | DragEndEvent): Landing | undefined {
  const { over, delta, activatorEvent } = event;
  if (!over?.rect) return undefined;
  const target = String(over.id);
  if (ids.some((id) => familyOf(deck.slides, id).some((slide) => slide.id === target))) return undefined;
  const start = startOf(activatorEvent);
  const x = (start.x + delta.x - over.rect.left) / over.rect.width;
  const y = (start.y + delta.y - over.rect.top) / over.rect.height;
  const detail = deck.slides[slideIndex(deck, target)]?.parent !== null;
  if (detail) return { target, side: x < 0.5 ? "before" : "after" };
  return { target, side: x > 0.72 ? "under" : y < 0.5 ? "before" : "after" };
}

/** Dragging slides on the map: what is dragged, where it would land, and the handlers of the drag context. */
export function useSlideDrag() {
  const { deck, session, selected } = useDeck();
  const [landing, setLanding] = useState<Landing>();
  const [dragged, setDragged] = useState<string>();
  const sensors = useDragSensors();
  /** A selected slide takes all selected ones along. */
  const movedWith = (id: string): readonly string[] => (selected.includes(id) ? selected : [id]);
  const stop = () => {
    setDragged(undefined);
    setLanding(undefined);
  };
  const onDragMove = (event: DragMoveEvent) => {
    const next = landingOf(deck, movedWith(String(event.active.id)), event);
    setLanding((now) => (now?.target === next?.target && now?.side === next?.side ? now : next));
  };
  const onDragEnd = (event: DragEndEvent) => {
    const ids = movedWith(String(event.active.id));
    const at = landingOf(deck, ids, event);
    stop();
    if (!at) return;
    const moved = ids.length === 1 ? `Moved slide ${slideIndex(deck, must(ids[0])) + 1}` : `Moved ${ids.length} slides`;
    session.apply(moveTo(deck, ids, placeFor(deck, at)), { words: `${moved} ${landingWords(at, deck.slides)}` });
  };
  return {
    landing,
    dragged,
    moving: dragged ? movedWith(dragged) : [],
    handlers: {
      sensors,
      onDragStart: ({ active }: DragStartEvent) => setDragged(String(active.id)),
      onDragMove,
      onDragEnd,
      onDragCancel: stop,
    },
  };
}
