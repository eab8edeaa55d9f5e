import type { Reveal } from "@unitext/core/model";
import { FRAME_RATE, type SlideTimes } from "./timing";

/** A picture of a slide that stays for some frames. */
export interface Moment {
  frames: number;
  /** How far each entrance is, in the order of the reveals: 0 before it, 1 once it has ended. */
  entered: number[];
  /** How far the transition is: 1 once the slide is there. */
  arrived: number;
}

/** The cubic curve of a timing function between its two control points (CSS Easing Functions Level 1, 2.2). */
function eased([x1, y1, x2, y2]: readonly [number, number, number, number], progress: number): number {
  const curve = (a: number, b: number, t: number) => 3 * a * t * (1 - t) ** 2 + 3 * b * t ** 2 * (1 - t) + t ** 3;
  let [low, high] = [0, 1];
  for (let step = 0; step < 24; step++) {
    const middle = (low + high) / 2;
    if (curve(x1, x2, middle) < progress) low = middle;
    else high = middle;
  }
  return curve(y1, y2, (low + high) / 2);
}

/** The timing functions `ease` and `ease-out`, by which the drawings of pages move too. */
const [EASE, EASE_OUT] = [
  [0.25, 0.1, 0.25, 1],
  [0, 0, 0.58, 1],
] as const;

const share = (time: number, start: number, seconds: number): number =>
  time < start - 1e-9 ? 0 : seconds <= 0 ? 1 : Math.min(1, (time - start) / seconds);
const rounded = (value: number) => Math.round(value * 1000) / 1000;

/** Returns the pictures of a slide in order; frames that show the same are one moment. */
export function momentsOf(reveals: readonly Reveal[], times: SlideTimes): Moment[] {
  const moments: Moment[] = [];
  let before = "";
  for (let frame = 0; frame < times.frames; frame++) {
    const time = frame / FRAME_RATE;
    const entered = reveals.map(({ press, start, seconds, effect }) => {
      const begins = (press ? (times.presses[press - 1] ?? 0) : times.transition) + start;
      const progress = share(time, begins, effect === "appear" ? 0 : seconds);
      return rounded(progress === 0 || progress === 1 ? progress : eased(EASE_OUT, progress));
    });
    const arrived = times.transition ? rounded(eased(EASE, share(time, 0, times.transition))) : 1;
    const key = `${entered} ${arrived}`;
    const last = moments.at(-1);
    if (last && key === before) last.frames += 1;
    else moments.push({ frames: 1, entered, arrived });
    before = key;
  }
  return moments;
}
