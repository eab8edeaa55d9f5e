import {
  type Paragraph,
  paragraphText,
  type TableElement,
  textOf,
  type RichText,
  run,
  type CodeElement,
  must,
} from "@unitext/core/model";
import { listNumbers } from "@unitext/core/layout";
import type { Flow } from "./draft";
import { sentenceRanges } from "./points";

/** A piece of a slide's flow that is never broken. */
export interface Atom {
  flow: Flow;
  /** The penalty of a break before it, and after it; 0 is a good place. */
  before: number;
  after: number;
  /** The number of a numbered item in its list. */
  number?: number;
}

const isHeading = ({ kind, runs }: Paragraph) =>
  kind === "plain" && runs.length > 0 && runs.every(({ marks }) => marks?.includes("strong"));

/** The penalty of a break inside a list: a list of which only a few items fit begins on the next slide. */
const LIST = 18;

/** Whether a paragraph continues a list. */
const isInList = (text: RichText, at: number): boolean =>
  text[at]?.kind !== "plain" && text[at - 1]?.kind !== undefined && text[at - 1]?.kind !== "plain";

function textAtoms(flow: Extract<Flow, { kind: "text" }>): Atom[] {
  const numbers = listNumbers(flow.text);
  return flow.text.map((paragraph, at) => {
    const level = paragraph.kind === "plain" && paragraph.level > 0 ? paragraph.level + 1 : paragraph.level;
    const previous = flow.text[at - 1];
    const parent = previous && previous.level < paragraph.level;
    return {
      flow: { ...flow, text: [paragraph], lines: [flow.lines[at] ?? flow.lines[0] ?? 1] },
      ...(paragraph.kind === "number" ? { number: numbers[at] ?? 1 } : {}),
      before: (parent ? 60 : 0) + level * 9 + (isInList(flow.text, at) ? LIST : 0),
      after: isHeading(paragraph) ? 1000 : /[:：]$/.test(paragraphText(paragraph).trim()) ? 400 : 0,
    };
  });
}

/** Divides a table into groups of rows that no cell spans, each a table with the header repeated. */
function tableAtoms(table: Omit<TableElement, "id" | "slot">, line: number): Atom[] {
  const head = table.rows.slice(0, table.header);
  const atoms: Atom[] = [];
  let from = table.header;
  let open = from;
  for (let y = table.header; y < table.rows.length; y++) {
    for (const cell of table.rows[y] ?? []) open = Math.max(open, y + (cell?.rows ?? 1) - 1);
    if (open > y) continue;
    atoms.push({
      flow: { kind: "content", content: { ...table, rows: [...head, ...table.rows.slice(from, y + 1)] }, line },
      before: 0,
      after: 0,
    });
    from = y + 1;
    open = from;
  }
  return atoms;
}

const tableRow = (row: TableElement["rows"][number]) =>
  row.map((cell) => (cell ? textOf(cell.text).replace(/\s+/g, " ").trim() : ""));

/**
 * Returns a table that is too large for any slide as text, a point for each row: every value after the name of its
 * column.
 */
export function tableText(table: Omit<TableElement, "id" | "slot">, line: number): Flow {
  const names = table.header ? tableRow(table.rows[table.header - 1] ?? []) : [];
  const rows = table.header < table.rows.length ? table.rows.slice(table.header) : table.rows;
  const text: RichText = rows.map((row) => {
    const cells = tableRow(row).flatMap((value, at) =>
      value ? [names[at] && at ? `${names[at]}: ${value}` : value] : [],
    );
    return { kind: "bullet", level: 0, runs: [run(cells.join("; "))] };
  });
  return { kind: "text", text: text.filter(({ runs }) => runs[0]?.text), lines: text.map(() => line) };
}

function codeAtoms(code: Omit<CodeElement, "id" | "slot">, line: number): Atom[] {
  const lines = code.text.split("\n");
  return lines.map((text, at) => ({
    flow: { kind: "content", content: { ...code, text }, line: line + at },
    before: lines[at - 1]?.trim() === "" ? 0 : /^\S/.test(text) ? 6 : 12,
    after: 0,
  }));
}

/** Divides a paragraph at the ends of its sentences, or else at words. */
function paragraphAtoms(flow: Extract<Flow, { kind: "text" }>, language: string): Atom[] {
  const paragraph = must(flow.text[0]);
  const text = paragraphText(paragraph);
  let ends = sentenceRanges(text, language).map(({ to }) => to);
  if (ends.length < 2) {
    const words = [...text.matchAll(/\s+/g)].map(({ index }) => index);
    const middle = words.reduce(
      (best, at) => (Math.abs(at - text.length / 2) < Math.abs(best - text.length / 2) ? at : best),
      words[0] ?? Math.floor(text.length / 2),
    );
    ends = [middle || Math.ceil(text.length / 2), text.length];
  }
  if (text.length < 2) return [];
  let from = 0;
  return ends.map((to, nth): Atom => {
    const last = nth === ends.length - 1 ? text.length : to;
    let at = 0;
    const runs = paragraph.runs.flatMap((item) => {
      const start = at;
      at += item.text.length;
      if (item.footnote) return start > from && start <= last ? [item] : [];
      return at > from && start < last
        ? [{ ...item, text: item.text.slice(Math.max(0, from - start), last - start) }]
        : [];
    });
    from = last;
    return {
      flow: {
        ...flow,
        text: [
          {
            ...paragraph,
            runs,
            ...(nth && paragraph.kind !== "plain"
              ? { kind: "plain" as const, level: Math.min(8, paragraph.level + 1) }
              : {}),
          },
        ],
      },
      before: nth ? 20 : 0,
      after: 0,
    };
  });
}

/** Divides an atom that does not fit alone; an empty list when it cannot be divided. */
export function smaller({ flow }: Atom, language: string, say: (message: string) => void): Atom[] {
  if (flow.kind === "text") return paragraphAtoms(flow, language);
  const { content, line } = flow;
  switch (content.kind) {
    case "table": {
      const rows = tableAtoms(content, line);
      if (rows.length > 1) return rows;
      say("The table has more than a slide can show at a readable size; its rows became points.");
      return textAtoms(tableText(content, line) as Extract<Flow, { kind: "text" }>);
    }
    case "code": {
      const lines = codeAtoms(content, line);
      if (lines.length > 1) return lines;
      return textAtoms({
        kind: "text",
        text: [{ kind: "plain", level: 0, runs: [run(content.text, ["code"])] }],
        lines: [line],
      });
    }
    case "diagram":
      say("The diagram has more than a slide can show at a readable size; its items became points.");
      return textAtoms({ kind: "text", text: content.text, lines: content.text.map(() => line) });
    case "chart": {
      say("The chart has more than a slide can show at a readable size; its values became points.");
      const text: RichText = content.categories.map((name, at) => ({
        kind: "bullet",
        level: 0,
        runs: [
          run(
            [name, ...content.series.map(({ name: of, values }) => `${of ? `${of}: ` : ""}${values[at] ?? "–"}`)].join(
              "; ",
            ),
          ),
        ],
      }));
      return textAtoms({ kind: "text", text, lines: text.map(() => line) });
    }
    case "formula":
      say("The formula is wider than a slide at a readable size; it is shown as it was typed.");
      return textAtoms({
        kind: "text",
        text: content.tex.split("\n").map((text) => ({ kind: "plain", level: 0, runs: [run(text, ["code"])] })),
        lines: [line],
      });
    default:
      return [];
  }
}

/** Splits the content of a draft into its smallest pieces, which are never split further. */
export function atomsOf(flow: readonly Flow[]): Atom[] {
  return flow.flatMap((item): Atom[] => {
    if (item.kind === "text") return textAtoms(item);
    // A picture and its caption belong together.
    return [{ flow: item, before: item.content.kind === "picture" ? 8 : 0, after: 0 }];
  });
}

/** Returns atoms in which the first item of a list that continues one keeps its number. */
function withNumbers(atoms: readonly Atom[]): Atom[] {
  const open: boolean[] = [];
  return atoms.map((atom) => {
    const paragraph = atom.flow.kind === "text" ? atom.flow.text[0] : undefined;
    if (!paragraph || atom.flow.kind !== "text") return atom;
    open.length = Math.min(open.length, paragraph.kind === "plain" ? paragraph.level : paragraph.level + 1);
    if (paragraph.kind === "plain") return atom;
    const isFirst = !open[paragraph.level];
    open[paragraph.level] = true;
    const { number = 1 } = atom;
    if (!isFirst || number === 1 || paragraph.start !== undefined) return atom;
    return { ...atom, flow: { ...atom.flow, text: [{ ...paragraph, start: number }] } };
  });
}

/** Joins rows and lines that follow each other into one table or code block, and texts into one text. */
export function flowOfAtoms(atoms: readonly Atom[]): Flow[] {
  const flows: Flow[] = [];
  for (const { flow } of withNumbers(atoms)) {
    const last = flows.at(-1);
    if (
      last?.kind === "text" &&
      flow.kind === "text" &&
      !last.heading &&
      !flow.heading &&
      last.quote === flow.quote &&
      last.steps === flow.steps
    )
      flows[flows.length - 1] = { ...last, text: [...last.text, ...flow.text], lines: [...last.lines, ...flow.lines] };
    else if (
      last?.kind === "content" &&
      flow.kind === "content" &&
      last.content.kind === "code" &&
      flow.content.kind === "code" &&
      last.line <= flow.line &&
      last.content.language === flow.content.language &&
      flow.line === last.line + last.content.text.split("\n").length
    )
      flows[flows.length - 1] = {
        ...last,
        content: { ...last.content, text: `${last.content.text}\n${flow.content.text}` },
      };
    else if (
      last?.kind === "content" &&
      flow.kind === "content" &&
      last.content.kind === "table" &&
      flow.content.kind === "table" &&
      last.line === flow.line
    )
      flows[flows.length - 1] = {
        ...last,
        content: { ...last.content, rows: [...last.content.rows, ...flow.content.rows.slice(flow.content.header)] },
      };
    else flows.push(flow);
  }
  return flows;
}
