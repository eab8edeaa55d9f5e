import { must } from "@unitext/core/model";
const BREAK = /^ {0,3}(?:(?:-[ \t]*){3,}|(?:\*[ \t]*){3,}|(?:_[ \t]*){3,})$/;
const JOIN = /^::join\s*$/;

const blank = (line: string | undefined) => line === undefined || line.trim() === "";

/** Returns the index of the last line before `at` that is not empty, or −1. */
function before(lines: readonly string[], at: number): number {
  let found = at - 1;
  while (found >= 0 && blank(lines[found])) found--;
  return found;
}

/**
 * Removes what starts a slide at a line (counted from 1): a break above it, or, where a rule cuts there, by a line that
 * joins it to the slide before.
 */
export function withoutBreak(text: string, line: number): string {
  const lines = text.split("\n");
  const at = line - 1;
  const above = before(lines, at);
  if (above >= 0 && BREAK.test(must(lines[above]))) {
    // One of the empty lines around the break goes with it.
    const also = blank(lines[above + 1]) && above + 1 < at ? 2 : 1;
    return lines.toSpliced(above, also).join("\n");
  }
  return lines.toSpliced(at, 0, "::join", "").join("\n");
}

/** Starts a slide at a line: by a break above it, or by removing the line that joined it. */
export function withBreak(text: string, line: number): string {
  const lines = text.split("\n");
  const at = Math.min(line - 1, lines.length);
  const above = before(lines, at);
  if (above >= 0 && JOIN.test(must(lines[above])))
    return lines.toSpliced(above, blank(lines[above + 1]) && above + 1 < at ? 2 : 1).join("\n");
  if (above >= 0 && BREAK.test(must(lines[above]))) return text;
  const insert = [...(at > 0 && !blank(lines[at - 1]) ? [""] : []), "---", ""];
  return lines.toSpliced(at, 0, ...insert).join("\n");
}

/** Moves the start of a slide from one line to another. */
export function movedBreak(text: string, from: number, to: number): string {
  if (from === to) return text;
  // The lower change is made first, so that the other line keeps its number.
  return from > to ? withBreak(withoutBreak(text, from), to) : withoutBreak(withBreak(text, to), from);
}
