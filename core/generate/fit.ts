import { type FontSet, overflowOf as overflowOfSlide } from "@unitext/core/layout";
import {
  type BreakRule,
  type CodeElement,
  type DeckMetadata,
  joinRuns,
  type Paragraph,
  paragraphText,
  type RichText,
  run,
  type TableElement,
  textOf,
  must,
} from "@unitext/core/model";
import { type Problem, recogniseParts } from "@unitext/core/text";
import { type Composed, partsOfDraft, shortTitle, slideOf } from "./compose";
import type { Flow } from "./draft";
import { sentenceRanges } from "./points";

/** What fitting needs: the deck's theme and its fonts. */
export interface FitContext {
  metadata: DeckMetadata;
  fonts: FontSet;
}

/** A piece of a slide's flow that is never broken. */
interface Atom {
  flow: Flow;
  /** The penalty of a break before it, and after it; 0 is a good place. */
  before: number;
  after: number;
}

const NUMBER_OF: Record<string, string> = {
  en: "of",
  de: "von",
  es: "de",
  fr: "sur",
  it: "di",
  pt: "de",
  nl: "van",
  da: "af",
  sv: "av",
  nb: "av",
  fi: "/",
  pl: "z",
  cs: "z",
  el: "από",
  ru: "из",
  uk: "з",
  tr: "/",
  ar: "من",
  he: "מתוך",
};

const numberFormats = new Map<string, Intl.NumberFormat>();
function numberFormat(language: string): Intl.NumberFormat {
  let format = numberFormats.get(language);
  if (!format) numberFormats.set(language, (format = new Intl.NumberFormat(language)));
  return format;
}

const numberedOnce = new WeakMap<RichText, Map<string, RichText>>();

/**
 * Returns a title with its number among the slides that it continues over, in the deck's language. Cached: the same
 * title and number give the same object.
 */
export function titleWithNumber(title: RichText | null, nth: number, count: number, language: string): RichText | null {
  if (!title || count < 2) return title;
  const held = numberedOnce.get(title) ?? new Map<string, RichText>();
  numberedOnce.set(title, held);
  const key = `${nth}/${count}/${language}`;
  const made = held.get(key) ?? withNumber(title, nth, count, language);
  held.set(key, made);
  return made;
}

function withNumber(title: RichText, nth: number, count: number, language: string): RichText {
  const digits = numberFormat(language);
  const word = NUMBER_OF[language.slice(0, 2).toLowerCase()] ?? "/";
  const text =
    word === "/"
      ? `${digits.format(nth)}/${digits.format(count)}`
      : `${digits.format(nth)} ${word} ${digits.format(count)}`;
  return title.map((paragraph, at) =>
    at === title.length - 1 ? { ...paragraph, runs: joinRuns([...paragraph.runs, run(` (${text})`)]) } : paragraph,
  );
}

const isHeading = ({ kind, runs }: Paragraph) =>
  kind === "plain" && runs.length > 0 && runs.every(({ marks }) => marks?.includes("strong"));

function textAtoms(flow: Extract<Flow, { kind: "text" }>): Atom[] {
  return flow.text.map((paragraph, at) => {
    const level = paragraph.kind === "plain" && paragraph.level > 0 ? paragraph.level + 1 : paragraph.level;
    const previous = flow.text[at - 1];
    const parent = previous && previous.level < paragraph.level;
    return {
      flow: { ...flow, text: [paragraph], lines: [flow.lines[at] ?? flow.lines[0] ?? 1] },
      before: (parent ? 60 : 0) + level * 9,
      after: isHeading(paragraph) ? 1000 : /[:：]$/.test(paragraphText(paragraph).trim()) ? 40 : 0,
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
function tableText(table: Omit<TableElement, "id" | "slot">, line: number): Flow {
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
function smaller({ flow }: Atom, language: string, say: (message: string) => void): Atom[] {
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

function atomsOf(flow: readonly Flow[]): Atom[] {
  return flow.flatMap((item): Atom[] => {
    if (item.kind === "text") return textAtoms(item);
    // A picture and its caption belong together.
    return [{ flow: item, before: item.content.kind === "picture" ? 8 : 0, after: 0 }];
  });
}

/** Joins rows and lines that follow each other into one table or code block, and texts into one text. */
function flowOfAtoms(atoms: readonly Atom[]): Flow[] {
  const flows: Flow[] = [];
  for (const { flow } of atoms) {
    const last = flows.at(-1);
    if (last?.kind === "text" && flow.kind === "text" && last.quote === flow.quote && last.steps === flow.steps)
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

const noId = () => "x";

/** Returns by how many points a composed slide overflows; 0 when everything fits. */
function overflowOf(composed: Composed, { metadata, fonts }: FitContext): number {
  return overflowOfSlide(slideOf({ ...composed, notes: [] }, "x", counter()), { metadata, number: 1, fonts });
}
function counter(): () => string {
  let next = 0;
  return () => `${noId()}${next++}`;
}

/** Returns a page of the flow as a slide of its own. */
function paginate(composed: Composed, flow: readonly Flow[], nth: number): Composed {
  const depth = nth ? (composed.depth === null ? null : 2) : composed.depth;
  const draft = { title: composed.title, depth, flow, slots: new Map() };
  const found = recogniseParts(partsOfDraft(draft, false));
  const keep = nth === 0 && composed.named === true && composed.slots.size === 0;
  return {
    ...composed,
    ...draft,
    notes: nth ? [] : composed.notes,
    arrangement: keep ? composed.arrangement : found.arrangement,
    reason: keep ? composed.reason : nth ? "continued" : found.reason,
  };
}

/**
 * Returns the places to break at or before `end`, the best first: near it, not inside a list item or after a heading,
 * with no small rest.
 */
function breaksBefore(atoms: readonly Atom[], start: number, end: number): number[] {
  if (end >= atoms.length) return [atoms.length];
  const lowest = Math.max(start + 1, start + Math.ceil((end - start) * 0.4));
  const places: { at: number; cost: number }[] = [];
  for (let at = end; at >= lowest; at--) {
    const crumb = atoms.length - at === 1 && end - start > 2 ? 15 : 0;
    places.push({ at, cost: (end - at) * 5 + must(atoms[at]).before + must(atoms[at - 1]).after + crumb });
  }
  return places.sort((a, b) => a.cost - b.cost).map(({ at }) => at);
}

/**
 * Makes a composition fit. First by the theme's steps of size and a title on two lines; then a title that is too long
 * is shortened, and all of it goes to the notes; then columns get slides of their own and the flow continues on next
 * slides, cut at the best places, with the notes on the first; or what is left goes to the notes. Titles are numbered
 * when all continuations are known.
 */
export function fitComposition(
  composed: Composed,
  rule: BreakRule,
  context: FitContext,
  line: number,
  problems: Problem[],
): Composed[] {
  if (rule.overflow === "leave" || overflowOf(composed, context) === 0) return [composed];
  const say = (message: string) => problems.push({ line, message });
  const { language } = context.metadata;
  let whole = composed;
  const bare = (title: RichText | null): Composed => ({
    ...whole,
    title,
    flow: [],
    slots: new Map(),
    arrangement: whole.arrangement === "opening" || whole.arrangement === "section" ? whole.arrangement : "title",
  });
  if (whole.title && overflowOf(bare(whole.title), context) > 0) {
    let most = 16;
    let title = shortTitle(whole.title, most);
    while (most > 3 && overflowOf(bare(title), context) > 0) title = shortTitle(whole.title, (most -= 3));
    say("The heading is longer than a title can be; the title has its beginning, the notes have all of it.");
    whole = {
      ...whole,
      title,
      notes: [...whole.title.map((paragraph) => ({ ...paragraph, runs: paragraph.runs })), ...whole.notes],
    };
    if (overflowOf(whole, context) === 0) return [whole];
  }
  let flow = whole.flow;
  if (whole.slots.size) {
    say("The columns hold more than fits side by side; they stand one after the other.");
    flow = [...flow, ...[...whole.slots.values()].flat()];
  }
  let atoms = atomsOf(flow);
  const pages: Composed[] = [];
  let start = 0;
  let guess = 6;
  const page = (from: number, to: number) => paginate(whole, flowOfAtoms(atoms.slice(from, to)), pages.length);
  const fits = (to: number) => overflowOf(page(start, to), context) === 0;
  let rounds = 0;
  while (start < atoms.length && rounds++ < 5000) {
    // Finds the largest number of atoms that fits, by doubling and halving from the last page's number.
    let low = start;
    let high = Math.min(atoms.length, start + guess);
    while (high < atoms.length && fits(high)) {
      low = high;
      high = Math.min(atoms.length, start + (high - start) * 2);
    }
    if (high > low && fits(high)) low = high;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (fits(middle)) low = middle;
      else high = middle;
    }
    if (low === start) {
      const parts = smaller(must(atoms[start]), language, say);
      if (parts.length > 1 || (parts.length === 1 && parts[0]?.flow.kind !== atoms[start]?.flow.kind)) {
        atoms = atoms.toSpliced(start, 1, ...parts);
        continue;
      }
      low = start + 1;
    } else if (low < atoms.length && low - start > 0) {
      // A table or piece of code that no longer fits fills the page with as much as fits.
      const next = must(atoms[low]);
      const content = next.flow.kind === "content" ? next.flow.content : undefined;
      if (
        content &&
        (content.kind === "code" || (content.kind === "table" && content.rows.length - content.header > 1)) &&
        overflowOf(page(low, low + 1), context) > 0
      ) {
        const parts = smaller(next, language, say);
        if (parts.length > 1) {
          atoms = atoms.toSpliced(low, 1, ...parts);
          continue;
        }
      }
    }
    // The rest of a page may be arranged differently and take more room: the break is put where the page fits.
    const end = breaksBefore(atoms, start, low).find((at) => at === low || fits(at)) ?? low;
    guess = Math.max(2, end - start);
    pages.push(page(start, end));
    start = end;
  }
  if (!pages.length) return [whole];
  const [first, ...rest] = pages as [Composed, ...Composed[]];
  if (rule.overflow === "notes" && rest.length) {
    const left = rest.flatMap((one) =>
      one.flow.flatMap(
        (item): RichText =>
          item.kind === "text"
            ? item.text
            : item.content.kind === "table"
              ? (tableText(item.content, line) as Extract<Flow, { kind: "text" }>).text
              : item.content.kind === "code"
                ? item.content.text
                    .split("\n")
                    .map((text) => ({ kind: "plain" as const, level: 0, runs: text ? [run(text, ["code"])] : [] }))
                : [],
      ),
    );
    const drawn = rest.filter((one) =>
      one.flow.some((item) => item.kind === "content" && !["table", "code"].includes(item.content.kind)),
    );
    const shown = drawn
      .map((one) => ({
        ...one,
        flow: one.flow.filter((item) => item.kind === "content" && !["table", "code"].includes(item.content.kind)),
      }))
      .map((one, at) => paginate(whole, one.flow, at + 1));
    say("What does not fit on the slide is in its notes.");
    return [{ ...first, notes: [...first.notes, ...left] }, ...shown];
  }
  return pages;
}

const bareTitle = (composed: Composed): Composed => ({ ...composed, flow: [], slots: new Map() });

/**
 * Shortens a numbered title that no longer fits, before its number. What is below has its place whatever the title
 * says.
 */
export function fitTitle(
  numbered: Composed,
  plain: Composed,
  nth: number,
  count: number,
  context: FitContext,
): Composed {
  if (!plain.title || overflowOf(bareTitle(numbered), context) === 0) return numbered;
  for (let most = 12; most > 2; most -= 2) {
    const shorter = {
      ...numbered,
      title: titleWithNumber(shortTitle(plain.title, most), nth, count, context.metadata.language),
    };
    if (overflowOf(bareTitle(shorter), context) === 0) return shorter;
  }
  return numbered;
}
