import {
  type ChartElement,
  deckLink,
  type Element,
  type Footnote,
  plainText,
  type RichText,
  type Run,
  run,
  type TableElement,
} from "@unitext/core/model";

/** A run that is written raised, as a footnote's number is. */
export const RAISED = "raised";

/** Whether a text holds what cannot be read back from its runs: footnotes, formulas, looks, links into other decks, a side that is said though it is the usual one. */
export function needsExtendedRuns(text: RichText): boolean {
  return text.some(
    ({ runs, align, properties }) =>
      align === "start" ||
      properties ||
      runs.some(
        ({ footnote, marks, link, properties: own }) =>
          footnote || own || (link && deckLink(link)) || marks?.includes("formula"),
      ),
  );
}

/** The text with a raised number for each footnote and formulas as their TeX; `notes` gathers what the footnotes say. */
export function flattenRuns(text: RichText, notes: Footnote[]): RichText {
  if (!needsExtendedRuns(text)) return text;
  const flat = (item: Run): Run => {
    if (item.footnote) return { text: String(notes.push(item.footnote)), marks: [RAISED as never] };
    return item.marks?.includes("formula") ? run(item.text, ["code", "formula"], item.link, item.properties) : item;
  };
  return text.map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map(flat) }));
}

/** Footnotes as paragraphs that begin with their numbers. */
export function footnoteText(notes: readonly Footnote[], first = 1): RichText {
  return notes.map((runs, at) => ({
    kind: "plain",
    level: 0,
    runs: [run(`${first + at} `), ...runs.map(({ text, marks, link }) => run(text, marks, link))],
  }));
}

/** The words that stand in the file for a figure made of text; undefined for any other element. */
export function figureWords(element: Element, notes: Footnote[]): RichText | undefined {
  if (element.kind === "code")
    return element.text
      .split("\n")
      .map((line) => ({ kind: "plain", level: 0, runs: line ? [run(line, ["code"])] : [] }));
  if (element.kind === "formula")
    return element.tex.split("\n").map((line) => ({ kind: "plain", level: 0, runs: [run(line, ["code"])] }));
  return element.kind === "diagram" ? flattenRuns(element.text, notes) : undefined;
}

/** The table that stands in the file for a chart. */
export function chartTable({
  categories,
  series,
}: Pick<ChartElement, "categories" | "series">): Pick<TableElement, "rows" | "header" | "align"> {
  const cell = (text: string) => ({ text: plainText(text) });
  const rows = [
    [cell(""), ...series.map(({ name }) => cell(name))],
    ...categories.map((name, at) => [
      cell(name),
      ...series.map(({ values }) => cell(values[at] === null || values[at] === undefined ? "" : String(values[at]))),
    ]),
  ];
  return { rows, header: 1, align: ["start", ...series.map(() => "end" as const)] };
}
