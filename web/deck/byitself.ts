/** The delay of slides that have none of their own when a deck runs by itself, in seconds. */
export const DELAY = 10;

/** The shortest and the longest delay, in seconds. */
const [SHORTEST, LONGEST] = [0.5, 3600];

/** Returns a delay that was typed, within bounds; the usual one where it is no number. */
export const delayFrom = (typed: string): number =>
  Math.min(LONGEST, Math.max(SHORTEST, Number(typed.replace(",", ".")) || DELAY));
