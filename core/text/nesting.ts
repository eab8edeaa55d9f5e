import { MOST } from "@unitext/core/model";
import type { Problem } from "./manuscript";
import { fenceAfter } from "./segments";

/** A mark that opens a quotation or a list item, with the spaces before it (CommonMark 0.31, 5.1 and 5.2). */
const MARK = /[ \t]*(?:(>)|([-*+])(?=[ \t])|(\d{1,9})([.)])(?=[ \t]))/y;

/** A line that may nest deeper than the limit. */
const DEEP = new RegExp(`^(?:[ \\t]*(?:>|[-*+]|\\d{1,9}[.)])){${MOST.nesting + 1}}`);
const CONTAINER = /^[ \t>]*(:{3,})[ \t]*(.*)$/;
const BREAK = /^[ \t]*(?:(?:-[ \t]*){3,}|(?:\*[ \t]*){3,}|(?:_[ \t]*){3,})$/;

/** More leading columns than fifty levels of items need. */
const INDENT = MOST.nesting * 4;

/** Marks of emphasis and links: the parser compares each with those before it in its paragraph. */
const INLINE = /[*_~]+|\[/g;

/** A paragraph with more marks than this is kept as typed. */
const MOST_INLINE = 1000;

/** A line that continues a paragraph starts with no mark and is not empty. */
const BEGINS = /^[ \t]*(?:$|>|[-*+][ \t]|\d{1,9}[.)][ \t]|#{1,6}[ \t]|\|)/;

/** Escapes the mark on a line that would open a level beyond the limit. */
function escaped(line: string): string {
  MARK.lastIndex = 0;
  let at = 0;
  for (let level = 0; level < MOST.nesting; level++) {
    if (!MARK.test(line)) return line;
    at = MARK.lastIndex;
  }
  const next = MARK.exec(line);
  if (!next) return line;
  const mark = at + next[0].length - 1;
  return `${line.slice(0, mark)}\\${line.slice(mark)}`;
}

/**
 * Turns what nests deeper than fifty levels into text, and reports it. Quotations, lists and containers are parsed
 * recursively, in time quadratic in their depth.
 */
export function boundNesting(lines: readonly string[]): { lines: readonly string[]; problems: Problem[] } {
  let changed: string[] | undefined;
  const problems: Problem[] = [];
  const replace = (at: number, line: string) => {
    changed ??= lines.slice();
    changed[at] = line;
    if (!problems.length)
      problems.push({
        line: at + 1,
        message: `This is nested more than ${MOST.nesting} levels deep; what is deeper is kept as text.`,
      });
  };
  let fence: string | undefined;
  let containers = 0;
  for (const [at, line] of lines.entries()) {
    const code = fenceAfter(line, fence);
    if (code.within) {
      fence = code.fence;
      continue;
    }
    if (DEEP.test(line) && !BREAK.test(line)) replace(at, escaped(line));
    else if (line.length > INDENT && line.slice(0, INDENT).trim() === "" && line.trim() !== "")
      replace(at, `${" ".repeat(INDENT)}${line.trimStart()}`);
    const container = line.includes(":::") ? CONTAINER.exec(line) : null;
    if (!container) continue;
    const opens = container[2] !== "";
    if (opens) containers += 1;
    if (containers > MOST.nesting) replace(at, line.replace(":", "\\:"));
    if (!opens && containers > 0) containers -= 1;
  }
  return { lines: changed ?? lines, problems };
}

/** Returns whether any paragraph of a text has more emphasis and link marks than are parsed. The parser compares each mark with all those before it, which takes quadratic time. */
export function isCrowded(text: string): boolean {
  let marks = 0;
  for (const line of text.split("\n")) {
    if (BEGINS.test(line)) marks = 0;
    marks += line.match(INLINE)?.length ?? 0;
    if (marks > MOST_INLINE) return true;
  }
  return false;
}
