import { type Deck, secondsOf, type Slide } from "@unitext/core/model";
import { clock } from "../ui/time";

/**
 * Compares elapsed seconds with the plan: the time that the main slides before this one need, and the time to its end.
 * Undefined seconds mean that the talk has not started. `total` is the whole plan in seconds.
 */
export function paceOf(
  { slides, rate }: Deck,
  current: Slide | undefined,
  elapsed: number | undefined,
): { total: number; pace: string; late: boolean } {
  const main = slides.filter(({ parent }) => parent === null);
  const length = (some: readonly Slide[]) => some.reduce((sum, slide) => sum + secondsOf(slide, rate), 0);
  const nth = current ? main.findIndex(({ id }) => id === (current.parent ?? current.id)) : 0;
  const begin = length(main.slice(0, Math.max(0, nth)));
  const end = begin + (current ? secondsOf(current, rate) : 0);
  const total = length(main);
  if (elapsed === undefined) return { total, pace: "Not started", late: false };
  if (elapsed > end) return { total, pace: `${clock(elapsed - end)} behind the plan`, late: true };
  if (elapsed < begin) return { total, pace: `${clock(begin - elapsed)} ahead of the plan`, late: false };
  return { total, pace: "On time", late: false };
}
