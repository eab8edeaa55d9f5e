import type { FigureStyle } from "./figure";

type Measures = Pick<FigureStyle, "size" | "measure">;

/**
 * Returns the number of lines that a text takes when it is broken between words only; undefined when a word is wider
 * than a line.
 */
export function linesOf(text: string, width: number, { size, measure }: Measures): number | undefined {
  let lines = 1;
  let used = 0;
  const space = measure(" ", size);
  for (const word of text.split(/\s+/)) {
    const wide = measure(word, size);
    if (wide > width) return undefined;
    if (used && used + space + wide > width) {
      lines += 1;
      used = wide;
    } else used += (used ? space : 0) + wide;
  }
  return lines;
}

/**
 * How category names are set below a plot: upright in lines or turned, all of them or every nth, and the height that
 * they need.
 */
export interface Naming {
  turn: 0 | -45 | -90;
  every: number;
  height: number;
  /** The longest that a name may be, in points. */
  longest: number;
}

const DIAGONAL = Math.SQRT1_2;
/** The height of a line, and the share of a plot's height that names may take (common practice, no source). */
const [LINE, MOST] = [1.3, 0.4];

/**
 * Chooses how names are set: upright where each fits the width of its category in three lines without a broken word,
 * else turned by 45, else by 90 degrees; where even upright lines are wider than a category, some names are left out.
 * `lead` is how far the first may extend to the left of the plot.
 */
export function naming(names: readonly string[], room: number, tall: number, lead: number, style: Measures): Naming {
  const { size, measure } = style;
  const upright = names.map((name) => linesOf(name, room * 0.96, style));
  const most = tall * MOST;
  if (upright.every((lines) => lines !== undefined && lines <= 3))
    return { turn: 0, every: 1, height: Math.max(1, ...(upright as number[])) * size * LINE, longest: room };
  const widest = Math.max(0, ...names.map((name) => measure(name, size)));
  const across = size * LINE;
  if (room >= across / DIAGONAL && measure(names[0] ?? "", size) * DIAGONAL <= lead) {
    const height = Math.min(most, (widest + across) * DIAGONAL);
    return { turn: -45, every: 1, height, longest: height / DIAGONAL - across * 0.5 };
  }
  return {
    turn: -90,
    every: Math.max(1, Math.ceil(across / room)),
    height: Math.min(most, widest + size * 0.2),
    longest: Math.min(most, widest),
  };
}

/** Shortens a name to a width, leaving out its end where necessary. */
export function shortened(name: string, width: number, { size, measure }: Measures): string {
  if (measure(name, size) <= width) return name;
  const signs = [...name];
  while (signs.length > 1 && measure(`${signs.join("").trimEnd()}…`, size) > width) signs.pop();
  return `${signs.join("").trimEnd()}…`;
}
