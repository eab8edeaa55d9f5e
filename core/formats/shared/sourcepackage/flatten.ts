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

/** Marks a run that is written as superscript, like a footnote number. */
export const RAISED = "raised";

/**
 * Whether a text has content that cannot be read back from its runs: footnotes, formulas, own properties, links into
 * other decks, or an explicit alignment that is the default.
 */
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

/** Returns the text with superscript numbers for footnotes and TeX for formulas; `notes` collects the footnotes. */
export function flattenRuns(text: RichText, notes: Footnote[]): RichText {
  if (!needsExtendedRuns(text)) return text;
  const flat = (item: Run): Run => {
    if (item.footnote) return { text: String(notes.push(item.footnote)), marks: [RAISED as never] };
    return item.marks?.includes("formula") ? run(item.text, ["code", "formula"], item.link, item.properties) : item;
  };
  return text.map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map(flat) }));
}

/** Returns footnotes as paragraphs that start with their numbers. */
export function footnoteText(notes: readonly Footnote[], first = 1): RichText {
  return notes.map((runs, at) => ({
    kind: "plain",
    level: 0,
    runs: [run(`${first + at} `), ...runs.map(({ text, marks, link }) => run(text, marks, link))],
  }));
}

/** Returns the text that represents a textual figure in the file; undefined for other elements. */
export function figureWords(element: Element, notes: Footnote[]): RichText | undefined {
  if (element.kind === "code")
    return element.text
      .split("\n")
      .map((line) => ({ kind: "plain", level: 0, runs: line ? [run(line, ["code"])] : [] }));
  if (element.kind === "formula")
    return element.tex.split("\n").map((line) => ({ kind: "plain", level: 0, runs: [run(line, ["code"])] }));
  return element.kind === "diagram" ? flattenRuns(element.text, notes) : undefined;
}

/** Returns the table that represents a chart in the file. */
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
