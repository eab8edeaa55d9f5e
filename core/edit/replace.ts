import {
  type Deck,
  type Element,
  joinRuns,
  mapElementTexts,
  type Paragraph,
  type RichText,
  type Run,
} from "@unitext/core/model";
import { type Change, type SingleChange, batch } from "./change";

/** The text to find, and where. */
export interface Search {
  words: string;
  matchCase: boolean;
  slides: boolean;
  notes: boolean;
}

/** Returns a pattern that matches the words literally. */
export function searchPattern({ words, matchCase }: Pick<Search, "words" | "matchCase">): RegExp | undefined {
  return words ? new RegExp(words.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"), matchCase ? "gu" : "giu") : undefined;
}

/**
 * Returns the paragraph with every occurrence replaced, including those that span runs. The replacement takes the
 * properties of the first character it replaces.
 */
function inParagraph(
  paragraph: Paragraph,
  pattern: RegExp,
  replacement: string,
): { paragraph: Paragraph; count: number } {
  const text = paragraph.runs.map((run) => run.text).join("");
  const found = [...text.matchAll(pattern)];
  if (!found.length) return { paragraph, count: 0 };
  const runs: Run[] = [];
  let at = 0;
  for (const run of paragraph.runs) {
    const end = at + run.text.length;
    if (run.footnote) {
      runs.push(run);
      continue;
    }
    let kept = "";
    let from = at;
    for (const match of found) {
      const stop = match.index + match[0].length;
      if (stop <= at || match.index >= end) continue;
      if (match.index > from) kept += text.slice(from, match.index);
      if (match.index >= at) kept += replacement;
      from = Math.max(from, Math.min(stop, end));
    }
    kept += text.slice(from, end);
    runs.push({ ...run, text: kept });
    at = end;
  }
  return { paragraph: { ...paragraph, runs: joinRuns(runs) }, count: found.length };
}

function inText(text: RichText, pattern: RegExp, replacement: string): { text: RichText; count: number } {
  let count = 0;
  const next = text.map((paragraph) => {
    const made = inParagraph(paragraph, pattern, replacement);
    count += made.count;
    return made.paragraph;
  });
  return { text: count ? next : text, count };
}

/**
 * Replaces words on slides and in notes. `count` is the number of occurrences; without a replacement they are only
 * counted. `change` is undefined when there are none.
 */
export function replaceWords(
  deck: Deck,
  search: Search,
  replacement: string | undefined,
): { change: Change | undefined; count: number; slides: string[] } {
  const pattern = searchPattern(search);
  const changes: SingleChange[] = [];
  const slides: string[] = [];
  let total = 0;
  if (!pattern) return { change: undefined, count: 0, slides };
  for (const slide of deck.slides) {
    let here = 0;
    if (search.slides) {
      for (const element of slide.elements) {
        let count = 0;
        const next: Element = mapElementTexts(element, (text) => {
          const made = inText(text, pattern, replacement ?? "");
          count += made.count;
          return made.text;
        });
        here += count;
        if (!count || replacement === undefined) continue;
        changes.push(
          next.kind === "text"
            ? { kind: "setText", slide: slide.id, element: next.id, text: next.text }
            : { kind: "setElement", slide: slide.id, element: next },
        );
      }
    }
    if (search.notes) {
      const { text, count } = inText(slide.notes, pattern, replacement ?? "");
      here += count;
      if (count && replacement !== undefined) changes.push({ kind: "setNotes", slide: slide.id, notes: text });
    }
    if (here) slides.push(slide.id);
    total += here;
  }
  return { change: changes.length ? batch(changes) : undefined, count: total, slides };
}
