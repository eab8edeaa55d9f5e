import { type Footnote, type RichText, type Run, run } from "@unitext/core/model";

/** A run that is written raised, as a footnote's number is. */
export const RAISED = "raised";

/** Whether a text holds what cannot be read back from its runs: footnotes, formulas, a side that is said though it is the usual one. */
export function isSpecial(text: RichText): boolean {
  return text.some(({ runs, align }) => align === "start" || runs.some(({ footnote, marks }) => footnote || marks?.includes("formula")));
}

/** The text with a raised number for each footnote and formulas as their TeX; `notes` gathers what the footnotes say. */
export function flattened(text: RichText, notes: Footnote[]): RichText {
  const flat = (item: Run): Run => {
    if (item.footnote) return { text: String(notes.push(item.footnote)), marks: [RAISED as never] };
    return item.marks?.includes("formula") ? run(item.text, ["code"], item.link) : item;
  };
  return text.map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map(flat) }));
}

/** Footnotes as paragraphs that begin with their numbers. */
export function footnoteText(notes: readonly Footnote[], first = 1): RichText {
  return notes.map((runs, at) => ({ kind: "plain", level: 0, runs: [run(`${first + at} `), ...runs.map(({ text, marks, link }) => run(text, marks, link))] }));
}
