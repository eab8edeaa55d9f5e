/** The default delay of a slide when a deck runs by itself, in seconds. */
export const DELAY = 10;

/** The bounds of a delay, in seconds. */
const [SHORTEST, LONGEST] = [0.5, 3600];

/** Reads a typed delay and keeps it within bounds. Returns the default when it is not a number. */
export const delayFrom = (typed: string): number =>
  Math.min(LONGEST, Math.max(SHORTEST, Number(typed.replace(",", ".")) || DELAY));
