import { must } from "@unitext/core/model";
/** A piece of the text that can be parsed by itself: its lines, and the number of the first. */
export interface Segment {
  text: string;
  from: number;
}

const FENCE = /^ {0,3}(`{3,}|~{3,})/;
const CONTAINER = /^ {0,3}(:{3,})(.*)$/;
const HEADING = /^#{1,6}(?:[ \t]|$)/;
const BREAK = /^(?:(?:-[ \t]*){3,}|(?:\*[ \t]*){3,}|(?:_[ \t]*){3,})$/;

/**
 * Returns the code fence that is open after a line (CommonMark 0.31, 4.5), given the one before it, and whether the
 * line belongs to a fenced block.
 */
export function fenceAfter(line: string, open: string | undefined): { within: boolean; fence: string | undefined } {
  const mark = FENCE.exec(line)?.[1];
  if (open === undefined) return { within: mark !== undefined, fence: mark };
  const closes = mark !== undefined && mark[0] === open[0] && mark.length >= open.length && line.trim() === mark;
  return { within: true, fence: closes ? undefined : open };
}

/**
 * Cuts a text before every heading and thematic break at the left margin that is outside code fences, containers and
 * comments. Such cuts never change how CommonMark reads either side, so each piece can be parsed alone when it is
 * needed, and cached while the rest is being typed.
 */
export function* segments(lines: readonly string[], first = 0): Generator<Segment> {
  let start = first;
  let fence: string | undefined;
  let containers = 0;
  let comment = false;
  for (let at = first; at < lines.length; at++) {
    const line = must(lines[at]);
    if (comment) {
      if (line.includes("-->")) comment = false;
      continue;
    }
    const code = fenceAfter(line, fence);
    if (code.within) {
      fence = code.fence;
      continue;
    }
    const container = CONTAINER.exec(line);
    if (container) {
      containers += container[2]?.trim() ? 1 : containers > 0 ? -1 : 0;
      continue;
    }
    if (/^ {0,3}<!--/.test(line)) comment = !line.includes("-->");
    const blankBefore = at === first || must(lines[at - 1]).trim() === "";
    if (containers === 0 && at > start && (HEADING.test(line) || (blankBefore && BREAK.test(line)))) {
      yield { text: lines.slice(start, at).join("\n"), from: start + 1 };
      start = at;
    }
  }
  if (start < lines.length) yield { text: lines.slice(start).join("\n"), from: start + 1 };
}

const DEFINITION = /^ {0,3}\[((?:\\.|[^\]\n\\])+)\]:[ \t]*\S/;
/**
 * A definition whose label, address or title spans lines (CommonMark 0.31, 4.7); the second group is what follows its
 * address.
 */
const LONG_DEFINITION =
  /^ {0,3}\[(?!\^)((?:\\.|[^[\]\\])+)\]:[ \t]*\n?[ \t]*(?:<[^<>\n]*>|[^\s<]\S*)([ \t]*\n?[ \t]+(?:"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\((?:\\.|[^()\\])*\))|[ \t]*\n[ \t]*(?:"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\((?:\\.|[^()\\])*\)))?[ \t]*(?:\n|$)/;
/** The most lines that such a definition may have. */
const LONGEST_DEFINITION = 12;

/** Returns the label and the lines of a definition that spans lines; undefined where none starts. */
function longDefinition(lines: readonly string[], at: number): { label: string; lines: number } | undefined {
  let end = at;
  while (end < lines.length && end - at < LONGEST_DEFINITION && must(lines[end]).trim() !== "") end++;
  const found = end - at > 1 ? LONG_DEFINITION.exec(lines.slice(at, end).join("\n")) : null;
  if (!found) return undefined;
  const count = (found[0].replace(/\n$/, "").match(/\n/g)?.length ?? 0) + 1;
  return count > 1 ? { label: must(found[1]), lines: count } : undefined;
}

/**
 * The link and footnote definitions of a text by label, footnotes with their continuation lines. The first of several
 * with one label counts.
 */
export type Definitions = ReadonlyMap<string, string>;

/** Normalises a label: case and white space do not count (CommonMark 0.31, 4.7). */
export const labelOf = (label: string) => label.trim().replace(/\s+/g, " ").toLowerCase().toUpperCase();

/** Lines that end a paragraph: a definition cannot interrupt one (CommonMark 0.31, 4.7). */
const ENDS = /^ {0,3}(?:#{1,6}(?:\s|$)|(?:[-*_] *){3,}$|`{3,}|~{3,})/;

/** Lines at the margin that start a block of their own, and so end a footnote that spans lines. */
const BEGINS =
  /^ {0,3}(?:#{1,6}(?:\s|$)|(?:[-*_] *){3,}$|`{3,}|~{3,}|>|[-*+](?:\s|$)|\d{1,9}[.)](?:\s|$)|<|\$\$|:{2,}|=+\s*$|\|)/;

/** Returns the definitions of a text, which any of its segments may refer to. */
export function definitions(lines: readonly string[]): Definitions {
  const found = new Map<string, string>();
  let label: string | undefined;
  let held: string[] = [];
  let fence: string | undefined;
  /** The line of the last link definition: the next one may follow it at once. */
  let ended = -2;
  const close = () => {
    if (label !== undefined && !found.has(label)) found.set(label, held.join("\n").trimEnd());
    label = undefined;
    held = [];
  };
  for (const [at, line] of lines.entries()) {
    const mark = FENCE.exec(line)?.[1];
    if (fence) {
      if (mark && mark[0] === fence[0] && mark.length >= fence.length && line.trim() === mark) fence = undefined;
      continue;
    }
    if (label !== undefined && BEGINS.test(line)) close();
    if (mark && label === undefined) {
      fence = mark;
      continue;
    }
    const begun = DEFINITION.exec(line)?.[1];
    const after = lines[at - 1] ?? "";
    const fresh = after.trim() === "" || ended === at - 1 || ENDS.test(after);
    const long = fresh && /^ {0,3}\[/.test(line) ? longDefinition(lines, at) : undefined;
    if (long) {
      close();
      const key = labelOf(long.label);
      if (!found.has(key)) found.set(key, lines.slice(at, at + long.lines).join("\n"));
      ended = at + long.lines - 1;
      continue;
    }
    if (begun !== undefined && (begun.startsWith("^") || fresh)) {
      if (!begun.startsWith("^")) ended = at;
      close();
      held = [line];
      label = labelOf(begun);
      // Only a footnote spans further lines.
      if (!begun.startsWith("^")) close();
    } else if (
      label !== undefined &&
      (line.trim() === ""
        ? /^( {4}|\t)/.test(lines[at + 1] ?? "")
        : /^( {4}|\t)/.test(line) || (lines[at - 1] ?? "").trim() !== "")
    )
      held.push(line);
    else close();
  }
  close();
  return found;
}

const LABEL = /\[((?:\\.|[^[\]\\])+)\]/g;

/** Returns the definitions that a text refers to, directly or through others, as a text. */
export function definitionsFor(text: string, all: Definitions): string {
  const needed = new Map<string, string>();
  const waiting = [text];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    for (const [, label] of next.matchAll(LABEL)) {
      const key = labelOf(must(label));
      const definition = needed.has(key) ? undefined : all.get(key);
      if (definition === undefined) continue;
      needed.set(key, definition);
      waiting.push(definition);
    }
  }
  return [...needed.values()].join("\n\n");
}
