/** A stretch of the text that can be read by itself: its lines, and the number of the first. */
export interface Segment {
  text: string;
  from: number;
}

const FENCE = /^ {0,3}(`{3,}|~{3,})/;
const CONTAINER = /^ {0,3}(:{3,})(.*)$/;
const HEADING = /^#{1,6}(?:[ \t]|$)/;
const BREAK = /^(?:(?:-[ \t]*){3,}|(?:\*[ \t]*){3,}|(?:_[ \t]*){3,})$/;

/**
 * Cuts a text before every heading and thematic break at the left margin that stands outside code fences, containers
 * and comments. Such cuts never change how CommonMark reads either side, so that each piece can be parsed alone, when
 * it is needed, and kept while the rest is being typed.
 */
export function* segments(lines: readonly string[], first = 0): Generator<Segment> {
  let start = first;
  let fence: string | undefined;
  let containers = 0;
  let comment = false;
  for (let at = first; at < lines.length; at++) {
    const line = lines[at] as string;
    if (comment) {
      if (line.includes("-->")) comment = false;
      continue;
    }
    const mark = FENCE.exec(line)?.[1];
    if (fence !== undefined) {
      if (mark && mark[0] === fence[0] && mark.length >= fence.length && line.trim() === mark) fence = undefined;
      continue;
    }
    if (mark) {
      fence = mark;
      continue;
    }
    const container = CONTAINER.exec(line);
    if (container) {
      containers += container[2]?.trim() ? 1 : containers > 0 ? -1 : 0;
      continue;
    }
    if (/^ {0,3}<!--/.test(line)) comment = !line.includes("-->");
    const blankBefore = at === first || (lines[at - 1] as string).trim() === "";
    if (containers === 0 && at > start && (HEADING.test(line) || (blankBefore && BREAK.test(line)))) {
      yield { text: lines.slice(start, at).join("\n"), from: start + 1 };
      start = at;
    }
  }
  if (start < lines.length) yield { text: lines.slice(start).join("\n"), from: start + 1 };
}

const DEFINITION = /^ {0,3}\[[^\]\n]+\]:[ \t]*\S/;
const FOOTNOTE = /^ {0,3}\[\^([^\]\s]+)\]:/;

/** The link and footnote definitions of a text, which any of its segments may refer to, with the lines that continue a footnote. */
export function definitions(lines: readonly string[]): string {
  const found: string[] = [];
  let open = false;
  let fence: string | undefined;
  for (const [at, line] of lines.entries()) {
    const mark = FENCE.exec(line)?.[1];
    if (fence) {
      if (mark && mark[0] === fence[0] && mark.length >= fence.length && line.trim() === mark) fence = undefined;
      continue;
    }
    if (mark && !open) {
      fence = mark;
      continue;
    }
    if (DEFINITION.test(line)) {
      const note = FOOTNOTE.test(line);
      if (note || open) found.push("");
      found.push(line);
      open = note;
    } else if (open && line.trim() === "" && /^( {4}|\t)/.test(lines[at + 1] ?? "")) found.push("");
    else if (open && line.trim() !== "" && (/^( {4}|\t)/.test(line) || (lines[at - 1] ?? "").trim() !== "")) found.push(line);
    else open = false;
  }
  return found.join("\n");
}
