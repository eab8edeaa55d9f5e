import { must } from "@unitext/core/model";
import { type PointerEvent as ReactPointerEvent, type RefObject, useState } from "react";
import { useDeck } from "../deck/DeckContext";

export interface Band {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Drawing a frame over empty space selects what it touches; with Shift or Ctrl it adds to the selection. */
export function useBand(scroller: RefObject<HTMLDivElement | null>): {
  band: Band | undefined;
  frame: (event: ReactPointerEvent<HTMLDivElement>) => void;
} {
  const { deck, selected, select } = useDeck();
  const [band, setBand] = useState<Band>();
  function frame(event: ReactPointerEvent<HTMLDivElement>) {
    const ground = event.target as HTMLElement;
    if (
      event.button !== 0 ||
      event.pointerType === "touch" ||
      ground.closest("[data-thumb]") ||
      ground.closest("button")
    )
      return;
    const box = scroller.current as HTMLDivElement;
    const from = { x: event.clientX, y: event.clientY };
    if (from.x > box.getBoundingClientRect().left + box.clientWidth) return;
    const before = event.shiftKey || event.ctrlKey || event.metaKey ? selected : [];
    let drawn = false;
    const move = (next: PointerEvent) => {
      const rect = {
        left: Math.min(from.x, next.clientX),
        top: Math.min(from.y, next.clientY),
        right: Math.max(from.x, next.clientX),
        bottom: Math.max(from.y, next.clientY),
      };
      if (!drawn && rect.right - rect.left < 5 && rect.bottom - rect.top < 5) return;
      drawn = true;
      const home = box.getBoundingClientRect();
      setBand({
        left: rect.left - home.left,
        top: rect.top - home.top,
        width: rect.right - rect.left,
        height: rect.bottom - rect.top,
      });
      const hit = [...box.querySelectorAll<HTMLElement>("[data-thumb]")].flatMap((thumb) => {
        const own = thumb.getBoundingClientRect();
        return own.left < rect.right && own.right > rect.left && own.top < rect.bottom && own.bottom > rect.top
          ? [must(thumb.dataset.thumb)]
          : [];
      });
      const order = new Set([...before, ...hit]);
      if (order.size) select(deck.slides.flatMap(({ id }) => (order.has(id) ? [id] : [])));
    };
    const end = () => {
      setBand(undefined);
      window.removeEventListener("pointermove", move);
      window.removeEventListener("pointerup", end);
      window.removeEventListener("pointercancel", end);
    };
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", end);
    window.addEventListener("pointercancel", end);
    event.preventDefault();
    box.focus({ preventScroll: true });
  }
  return { band, frame };
}
