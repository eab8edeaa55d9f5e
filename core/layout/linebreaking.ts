import { must } from "@unitext/core/model";
import LineBreaker from "linebreak";
import { SPACE, type ShapedParagraph } from "./shapedparagraph";

/** Returns where lines may break by UAX #14, and where the visible text of such a line ends. */
export function lineBreaks(text: string): ShapedParagraph["breaks"] {
  const breaks: ShapedParagraph["breaks"] = [];
  if (text === "") return breaks;
  const breaker = new LineBreaker(text);
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    let visible = next.position;
    while (visible > 0 && SPACE.test(must(text[visible - 1])) && text[visible - 1] !== "\u00A0") visible--;
    breaks.push({ at: next.position, visible, required: next.required === true && text[next.position - 1] === "\n" });
  }
  if (breaks.at(-1)?.at !== text.length) breaks.push({ at: text.length, visible: text.length, required: false });
  if (text.endsWith("\n")) breaks.push({ at: text.length, visible: text.length, required: false });
  return breaks;
}

/** A line as a range of the paragraph's text; `visible` leaves out the spaces at its end. */
export interface LineRange {
  start: number;
  end: number;
  visible: number;
}

/**
 * Breaks a paragraph into lines of at most `width` em, first fit. Text without a break opportunity that is wider than
 * the line is broken between characters, so nothing overflows at the side. The first line starts `first` em further in.
 */
export function breakLines(paragraph: ShapedParagraph, width: number, first = 0): LineRange[] {
  const { breaks, upTo, text } = paragraph;
  const lines: LineRange[] = [];
  let start = 0;
  let last: LineRange | undefined;
  const room = width + 1e-4;
  for (const next of breaks) {
    const fits = () => (upTo[next.visible] ?? 0) - (upTo[start] ?? 0) <= (first && start === 0 ? room - first : room);
    if (!fits() && last) {
      lines.push(last);
      start = last.end;
      last = undefined;
    }
    while (!fits()) {
      let end = start + 1;
      while (end < next.visible && (upTo[end + 1] ?? 0) - (upTo[start] ?? 0) <= room) end++;
      while (end < text.length && /[\uDC00-\uDFFF]/.test(must(text[end]))) end++;
      if (end >= next.visible) break;
      lines.push({ start, end, visible: end });
      start = end;
    }
    last = { start, end: next.at, visible: Math.max(start, next.visible) };
    if (next.required) {
      lines.push(last);
      start = next.at;
      last = undefined;
    }
  }
  if (last) lines.push(last);
  return lines.length ? lines : [{ start: 0, end: 0, visible: 0 }];
}

/** Returns the items of a line in visual order, from their levels (rule L2 of UAX #9). */
export function visualOrder<T extends { level: number }>(items: readonly T[]): T[] {
  const ordered = [...items];
  const highest = Math.max(0, ...ordered.map((item) => item.level));
  const odd = ordered.filter((item) => item.level % 2 === 1).map((item) => item.level);
  const lowest = odd.length ? Math.min(...odd) : highest + 1;
  for (let level = highest; level >= lowest; level--) {
    let at = 0;
    while (at < ordered.length) {
      if (must(ordered[at]).level < level) {
        at++;
        continue;
      }
      let end = at;
      while (end < ordered.length && must(ordered[end]).level >= level) end++;
      ordered.splice(at, end - at, ...ordered.slice(at, end).reverse());
      at = end;
    }
  }
  return ordered;
}
