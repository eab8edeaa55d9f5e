import { type BindingUse, type BoundValue, must, type SheetAddress } from "@unitext/core/model";
import { formatContent, isDateCode } from "./format";
import { CellProblem, type CellContent, type Sheet, type SheetChart, sheetNamed, type Workbook } from "./workbook";

/** A cell that was taken: what it holds, its number format, and its text in the deck's language. */
export interface TakenCell {
  content: CellContent;
  code: string;
  text: string;
}

/** The most cells that one binding takes. */
export const MOST_BOUND = 10_000;

/** Returns what a cell holds as it is stored with a binding. */
export const stored = (content: CellContent): BoundValue =>
  content === undefined ? null : content instanceof CellProblem ? content.code : content;

/**
 * Takes the cells of an address row by row, without hidden rows and columns where `visible` is set. `format` replaces the
 * cells' own number formats.
 */
export function takeCells(
  workbook: Workbook,
  address: SheetAddress,
  { language, format, visible = false }: { language: string; format?: string | undefined; visible?: boolean },
): TakenCell[][] {
  const sheet: Sheet = workbook.sheet(address.sheet);
  const rows: TakenCell[][] = [];
  const { date1904 } = workbook;
  for (let row = address.top; row <= address.bottom; row++) {
    if (visible && sheet.hiddenRows.has(row)) continue;
    const cells: TakenCell[] = [];
    for (let column = address.left; column <= address.right; column++) {
      if (visible && sheet.hiddenColumns.has(column)) continue;
      const content = sheet.content(row, column);
      const own = sheet.format(row, column);
      const code = format !== undefined && typeof content === "number" ? format : own;
      cells.push({ content, code, text: formatContent(content, code, { language, date1904 }) });
    }
    rows.push(cells);
  }
  return rows;
}

/** Takes the cells of a chart of the workbook as columns: categories first, then a series each, below their names. */
function takeChart(workbook: Workbook, { categories, series }: SheetChart, language: string): TakenCell[][] {
  const line = (address: SheetAddress | undefined): TakenCell[] =>
    address && sheetNamed(workbook, address.sheet) !== undefined
      ? takeCells(
          workbook,
          { ...address, sheet: must(sheetNamed(workbook, address.sheet)) },
          { language, visible: true },
        ).flat()
      : [];
  const empty: TakenCell = { content: undefined, code: "General", text: "" };
  const word = (text: string): TakenCell => ({ content: text, code: "General", text });
  const names = line(categories);
  const columns = series.map(({ name, nameAt, values }) => ({
    title: line(nameAt)[0] ?? word(name),
    cells: line(values),
  }));
  const count = Math.max(names.length, ...columns.map(({ cells }) => cells.length));
  return [
    [empty, ...columns.map(({ title }) => title)],
    ...Array.from({ length: count }, (_, nth) => [
      names[nth] ?? word(String(nth + 1)),
      ...columns.map(({ cells }) => cells[nth] ?? empty),
    ]),
  ];
}

/** Takes the cells of a resolved range. Throws a Failure when its sheet is damaged. */
export function takeRange(
  workbook: Workbook,
  { address, chart }: { address: SheetAddress; chart?: SheetChart },
  options: { language: string; format?: string | undefined; visible?: boolean },
): TakenCell[][] {
  return chart ? takeChart(workbook, chart, options.language) : takeCells(workbook, address, options);
}

/** The errors among cells: the first one as its code, or undefined. */
export function problemIn(cells: readonly (readonly TakenCell[])[]): string | undefined {
  for (const row of cells) for (const { content } of row) if (content instanceof CellProblem) return content.code;
  return undefined;
}

const numbers = (cells: readonly (readonly TakenCell[])[]) =>
  cells.flatMap((row) => row.flatMap(({ content }) => (typeof content === "number" ? [content] : [])));

const AGGREGATES: Partial<Record<BindingUse, (values: readonly number[]) => number>> = {
  sum: (values) => values.reduce((total, value) => total + value, 0),
  mean: (values) => values.reduce((total, value) => total + value, 0) / values.length,
  min: (values) => values.reduce((least, value) => Math.min(least, value), Number.POSITIVE_INFINITY),
  max: (values) => values.reduce((most, value) => Math.max(most, value), Number.NEGATIVE_INFINITY),
  count: (values) => values.length,
};

/** A number that a binding shows, as a value and as text; or the reason why it has none. */
export type TakenValue = { value: BoundValue; text: string } | { problem: string };

/** The number format of a difference in percent. */
const PERCENT = "0.0%";

/**
 * Returns the one value that a binding makes of its cells. For `change` and `percent`, `previous` is the number of the
 * version before; without it the difference is not known yet and shown as a dash.
 */
export function boundValue(
  cells: readonly (readonly TakenCell[])[],
  use: BindingUse,
  {
    language,
    format,
    previous,
    date1904 = false,
  }: { language: string; format?: string | undefined; previous?: number | undefined; date1904?: boolean },
): TakenValue {
  const problem = problemIn(cells);
  if (problem !== undefined) return { problem: `A cell shows ${problem}.` };
  const [first] = cells[0] ?? [];
  if (!first) return { problem: "There are no cells." };
  const aggregate = AGGREGATES[use];
  if (aggregate) {
    const values = numbers(cells);
    if (!values.length && use !== "count") return { problem: "There is no number among the cells." };
    const value = aggregate(values);
    const own = format ?? cells.flat().find(({ content }) => typeof content === "number")?.code ?? "General";
    const shown = use === "count" ? (format ?? "0") : own;
    return { value, text: formatContent(rounded(value), shown, { language, date1904 }) };
  }
  if (use === "change" || use === "percent") {
    if (typeof first.content !== "number") return { problem: "The cell holds no number." };
    if (previous === undefined) return { value: first.content, text: "–" };
    const difference = first.content - previous;
    if (use === "percent" && previous === 0)
      return { problem: "The earlier value is 0; a change in percent has no meaning." };
    const shown = use === "change" ? rounded(difference) : difference / Math.abs(previous);
    const text = formatContent(Math.abs(shown), format ?? (use === "change" ? first.code : PERCENT), { language });
    return { value: first.content, text: shown < 0 ? `−${text}` : `+${text}` };
  }
  return { value: stored(first.content), text: first.text };
}

/** Removes the digits that binary fractions leave behind: 15 significant digits are what cells hold. */
const rounded = (value: number) => Number(value.toPrecision(15));

/** Whether the numbers of a cell are dates. */
export const isDate = ({ content, code }: TakenCell): boolean => typeof content === "number" && isDateCode(code);
