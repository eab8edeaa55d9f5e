import { useCommands } from "../keys";
import type { Acts } from "./selection";

/** How far an arrow key moves elements, in points: without Shift, and with it. */
const [STEP, LEAP] = [1, 10];
const MOVES: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * The keys of selected elements: arrows move them, or the picture inside its cropped frame by shares of its size; Escape
 * ends cropping, then the selection. Returns the handler for the stage.
 */
export function useSelectionKeys({
  acts,
  active,
  cropped,
  leave,
}: {
  acts: Acts;
  /** Whether elements are selected that may be changed. */
  active: boolean;
  cropped: { move: (dx: number, dy: number) => void; leave: () => void } | undefined;
  leave: () => void;
}) {
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (!active || event.ctrlKey || event.metaKey || event.altKey) return;
    const move = MOVES[event.key];
    if (!move && event.key !== "Escape") return;
    event.preventDefault();
    event.stopPropagation();
    const step = event.shiftKey ? LEAP : STEP;
    if (!move && cropped) cropped.leave();
    else if (!move) leave();
    else if (cropped) cropped.move((move[0] * step) / 100, (move[1] * step) / 100);
    else acts.nudge(move[0] * step, move[1] * step);
  };
  useCommands(
    active
      ? {
          removeElement: acts.remove,
          duplicateElement: acts.duplicate,
          front: () => acts.order("front"),
          back: () => acts.order("back"),
          group: () => (acts.elements.length > 1 ? acts.group() : undefined),
          ungroup: () => (acts.elements.some(({ groups }) => groups?.length) ? acts.ungroup() : undefined),
        }
      : {},
  );

  return onKeyDown;
}
