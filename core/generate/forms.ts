import {
  countWords,
  joinRuns,
  type Paragraph,
  paragraphText,
  type RichText,
  type Run,
  textOf,
} from "@unitext/core/model";
import type { Composed } from "./compose";
import type { Flow } from "./draft";
import { type FitContext, fitsAtSize, fitsBeside } from "./fit";

/** Another form for a list on its slide; undefined where the list is not of its kind. */
type Form = (page: Composed, list: RichText, line: number) => Composed | undefined;

/** How many items a form takes (common practice, no source). */
const STEPS = { least: 3, most: 5, words: 9 } as const;
const TERMS = { least: 3, most: 7, words: 4, explanation: 3 } as const;
const SHORT = { least: 6, most: 12, characters: 26 } as const;

const isOneLevel = (list: RichText, kind: Paragraph["kind"]): boolean =>
  list.every((item) => item.kind === kind && item.level === 0);
const isWithin = (count: number, { least, most }: { least: number; most: number }): boolean =>
  count >= least && count <= most;
/** Links and footnotes are not carried by the words of a diagram. */
const isPlain = ({ runs }: Paragraph): boolean => runs.every(({ link, footnote }) => !link && !footnote);

/** A numbered list of few short items, from the first on, as a row of steps. */
const asSteps: Form = (page, list, line) => {
  const isSequence =
    isOneLevel(list, "number") && isWithin(list.length, STEPS) && (list[0]?.start ?? 1) === 1 && list.every(isPlain);
  if (!isSequence || list.some((item) => countWords(paragraphText(item)) > STEPS.words)) return undefined;
  const text = list.map(({ runs }) => ({ kind: "bullet" as const, level: 0, runs }));
  const content: Flow = { kind: "content", content: { kind: "diagram", type: "steps", text }, line };
  return { ...page, flow: [content], arrangement: "diagram", reason: "short-steps" };
};

/** Where a term ends and its explanation begins. */
const COLON = /^([^.:!?]{2,40}):\s+(?=\S)/u;

/** Returns the runs before and after a place in their text. */
function dividedRuns(runs: readonly Run[], at: number): [Run[], Run[]] {
  const [before, after]: [Run[], Run[]] = [[], []];
  let from = 0;
  for (const run of runs) {
    const cut = Math.min(Math.max(at - from, 0), run.text.length);
    if (cut > 0) before.push({ ...run, text: run.text.slice(0, cut) });
    if (cut < run.text.length) after.push({ ...run, text: run.text.slice(cut) });
    from += run.text.length;
  }
  return [before, after];
}

/** Returns an item's term, without its colon, and its explanation; undefined where it has none. */
function termOf({ runs }: Paragraph): { term: Run[]; explanation: Run[] } | undefined {
  const words = runs.map(({ text }) => text).join("");
  const [lead = "", name = ""] = COLON.exec(words) ?? [];
  if (!lead || countWords(name) > TERMS.words) return undefined;
  const [, explanation] = dividedRuns(runs, lead.length);
  return { term: dividedRuns(runs, name.length)[0], explanation };
}

/** A list of terms with their explanations as two columns: terms in bold, explanations beside them. */
const asTerms: Form = (page, list, line) => {
  if (!isOneLevel(list, "bullet") || !isWithin(list.length, TERMS)) return undefined;
  const pairs = list.flatMap((item) => termOf(item) ?? []);
  if (pairs.length !== list.length) return undefined;
  if (pairs.some(({ explanation }) => countWords(explanation.map(({ text }) => text).join("")) < TERMS.explanation))
    return undefined;
  const paragraph = (runs: Run[]): RichText => [{ kind: "plain", level: 0, runs: joinRuns(runs) }];
  const rows = pairs.map(({ term, explanation }) => [
    {
      text: paragraph(term.map((run) => ({ ...run, marks: [...new Set([...(run.marks ?? []), "strong" as const])] }))),
    },
    { text: paragraph(explanation) },
  ]);
  const content: Flow = {
    kind: "content",
    content: { kind: "table", header: 0, align: ["start", "start"], rows },
    line,
  };
  return { ...page, flow: [content], arrangement: "table", reason: "terms-explained" };
};

/** A long list of short items as two columns side by side, the first half before the second. */
const asColumns: Form = (page, list) => {
  const isShort = list.every((item) => paragraphText(item).length <= SHORT.characters);
  if (!isOneLevel(list, "bullet") || !isWithin(list.length, SHORT) || !isShort) return undefined;
  const [only] = page.flow;
  if (only?.kind !== "text") return undefined;
  const half = Math.ceil(list.length / 2);
  const part = (from: number, to: number): Flow => ({
    ...only,
    text: list.slice(from, to),
    lines: only.lines.slice(from, to),
  });
  return {
    ...page,
    flow: [part(0, half)],
    slots: new Map([["right", [part(half, list.length)]]]),
    arrangement: "comparison",
    reason: "short-list",
  };
};

/** A point alone needs no bullet. */
const asSentence: Form = (page, list) => {
  const [only] = page.flow;
  const [point] = list;
  if (list.length !== 1 || point?.kind !== "bullet" || point.level !== 0 || only?.kind !== "text") return undefined;
  return { ...page, flow: [{ ...only, text: [{ ...point, kind: "plain" }] }] };
};

/** The forms, in the order in which they are tried. */
const FORMS: readonly Form[] = [asSteps, asTerms, asSentence];

/**
 * Returns a slide of points in the form that suits its list, where that fits at a size that the last row reads: steps as
 * a diagram, terms with explanations as two columns, a point alone as a sentence.
 */
export function inForm(page: Composed, context: FitContext): Composed {
  const only = listOf(page);
  if (!only) return page;
  const line = only.lines[0] ?? 1;
  for (const form of FORMS) {
    const formed = form(page, only.text, line);
    if (formed && fitsBeside(formed, context)) return formed;
  }
  return page;
}

/**
 * Returns a slide with a list of short items in two columns, where one is too long and two fit at the size of the theme;
 * undefined for any other. Asked before the list is divided over slides.
 */
export function inColumns(page: Composed, context: FitContext): Composed | undefined {
  const only = listOf(page);
  const formed = only && !fitsAtSize(page, 1, context) ? asColumns(page, only.text, only.lines[0] ?? 1) : undefined;
  return formed && fitsAtSize(formed, 1, context) ? formed : undefined;
}

/** Returns the text of a slide that has a title and one list; undefined for any other, and where the text says its form. */
function listOf(page: Composed): Extract<Flow, { kind: "text" }> | undefined {
  const [only, ...more] = page.flow;
  const isPlain = page.arrangement === "points" && !page.named && !page.steps && page.title && page.slots.size === 0;
  if (!isPlain || more.length || only?.kind !== "text" || only.quote || only.heading || only.steps) return undefined;
  return textOf(only.text).trim() ? only : undefined;
}
