import {
  type Binding,
  bindingsOn,
  type BoundValue,
  type Cell,
  type ChartElement,
  type Deck,
  type Element,
  formatAddress,
  mapBoundRuns,
  mapSlideTexts,
  must,
  numberIn,
  parseAddress,
  type Run,
  type Slide,
  type TableElement,
  textOf,
} from "@unitext/core/model";
import { chartData, tableRows } from "./build";
import { followAddress, type Followed, headersOf } from "./headers";
import { resolveRange } from "./resolve";
import { MOST_BOUND, problemIn, stored, takeRange, type TakenCell, boundValue } from "./take";
import { sheetNamed, type Workbook } from "./workbook";

/**
 * The state of a binding beside its source: it shows the newest values, others are there, its cells have moved, cannot be
 * found or hold an error, it never changes, or its source is not at hand.
 */
export type BindingState = "current" | "stale" | "moved" | "missing" | "error" | "fixed" | "unknown";

/** A workbook at hand, and the SHA-256 of its bytes. */
export interface SourceAtHand {
  workbook: Workbook;
  version: string;
}

/** Where the newest values come from, and who takes them when. */
export interface RefreshContext {
  /** Returns the workbook of a source name; undefined when it is not at hand. */
  source(name: string): SourceAtHand | undefined;
  language: string;
  takenAt?: string;
  takenBy?: string;
}

/** What became of one binding. `from` and `to` are what was shown and what would be. */
export interface BindingCheck {
  /** Names the binding in its deck: its slide, and its number among the bindings of the slide as it is. */
  key: string;
  /** The number of the slide, from 1, and its id. */
  slide: number;
  slideId: string;
  /** The element; null in the notes. */
  element: string | null;
  binding: Binding;
  state: BindingState;
  reason?: string;
  from: string;
  to: string;
  /** The numbers before and after, where one value is shown. */
  numbers?: { from: number; to: number };
}

/** What a binding shows of the newest version, ready to be taken. */
interface Newest {
  binding: Binding;
  cells: TakenCell[][];
  text?: string;
  headerRows?: number | undefined;
  state: "same" | "moved";
  reason?: string;
}

/**
 * Finds the cells of a binding. Where its sheet is gone, the only other sheet with the same headers at the same place is
 * taken for it.
 */
function resolveBinding(workbook: Workbook, { range, headers }: Binding): ReturnType<typeof resolveRange> {
  const resolved = resolveRange(workbook, range);
  const address = "missing" in resolved ? parseAddress(range) : undefined;
  if (!address || !headers || sheetNamed(workbook, address.sheet) !== undefined) return resolved;
  const named = (texts: readonly string[]) => texts.some((text) => text !== "");
  if (!named(headers.rows) && !named(headers.columns)) return resolved;
  const others = workbook.sheets.filter(
    ({ name }) => followAddress(workbook, { ...address, sheet: name }, { ...headers, open: false }).state === "same",
  );
  const [only, more] = others;
  return only && !more ? { kind: "address", address: { ...address, sheet: only.name } } : resolved;
}

/** Says so when an address is followed to a sheet of another name. */
function followRenamed({ range }: Binding, followed: Followed): Followed {
  const before = parseAddress(range)?.sheet;
  if (
    followed.state === "missing" ||
    before === undefined ||
    before.toLowerCase() === followed.address.sheet.toLowerCase()
  )
    return followed;
  return {
    state: "moved",
    address: followed.address,
    reason: `The sheet “${before}” is now “${followed.address.sheet}”.`,
  };
}

/** Returns the first text among cells where a number was taken before, at the same place; undefined when there is none. */
function textForNumber({ values }: Binding, cells: readonly (readonly TakenCell[])[]): string | undefined {
  for (const [y, row] of cells.entries())
    for (const [x, { content }] of row.entries())
      if (typeof content === "string" && typeof values?.[y]?.[x] === "number") return content;
  return undefined;
}

/** Finds the newest values of a binding. Returns the state and the reason when there are none. */
function newest(
  binding: Binding,
  { workbook, version }: SourceAtHand,
  { language, takenAt, takenBy }: RefreshContext,
): Newest | { state: "missing" | "error"; reason: string } {
  const resolved = resolveBinding(workbook, binding);
  if ("missing" in resolved) return { state: "missing", reason: resolved.missing };
  const followed =
    resolved.kind === "address"
      ? followRenamed(binding, followAddress(workbook, resolved.address, binding.headers))
      : ({ state: "same", address: resolved.address } as const);
  if (followed.state === "missing") return followed;
  const { address } = followed;
  const use = binding.use ?? "value";
  const whole = use === "table" || use === "chart";
  const cells = takeRange(
    workbook,
    { ...resolved, address },
    { language, format: whole ? undefined : binding.format, visible: whole },
  );
  const problem = use === "chart" || !whole ? problemIn(cells) : undefined;
  if (problem !== undefined) return { state: "error", reason: `A cell of ${formatAddress(address)} shows ${problem}.` };
  const word = textForNumber(binding, cells);
  const worded =
    word === undefined
      ? undefined
      : `A cell of ${formatAddress(address)} held a number and holds the text “${word.slice(0, 60)}” now.`;
  // A table can show a text; a value or a chart cannot.
  if (worded !== undefined && use !== "table") return { state: "error", reason: worded };
  const few = cells.length * (cells[0]?.length ?? 0) <= MOST_BOUND;
  const values = few ? cells.map((row) => row.map(({ content }): BoundValue => stored(content))) : undefined;
  const before = binding.values?.[0]?.[0];
  const differs =
    use === "change" || use === "percent" ? typeof before === "number" && before !== values?.[0]?.[0] : false;
  const previous = differs ? (before as number) : binding.previous;
  const { problem: _, values: __, previous: ___, ...bare } = binding;
  const next: Binding = {
    ...bare,
    ...(resolved.kind === "address" && binding.headers
      ? { range: formatAddress(address), headers: headersOf(workbook.sheet(address.sheet), address) }
      : {}),
    version,
    ...(takenAt === undefined ? {} : { takenAt }),
    ...(takenBy === undefined ? {} : { takenBy }),
    ...(values ? { values } : {}),
    ...(previous === undefined ? {} : { previous }),
  };
  const found: Newest = {
    binding: next,
    cells,
    headerRows: resolved.headerRows,
    state: followed.state === "moved" ? "moved" : "same",
    ...("reason" in followed && followed.reason ? { reason: followed.reason } : worded ? { reason: worded } : {}),
  };
  if (whole) return found;
  const value = boundValue(cells, use, { language, format: binding.format, previous, date1904: workbook.date1904 });
  return "problem" in value ? { state: "error", reason: value.problem } : { ...found, text: value.text };
}

const plainCell = (cell: Cell | null) => (cell ? textOf(cell.text) : "");
const tableText = ({ rows }: Pick<TableElement, "rows">) => rows.map((row) => row.map(plainCell).join("\t")).join("\n");
const chartText = ({ categories, series }: Pick<ChartElement, "categories" | "series">) =>
  [
    ["", ...series.map(({ name }) => name)],
    ...categories.map((name, at) => [name, ...series.map(({ values }) => values[at] ?? "")]),
  ]
    .map((row) => row.join("\t"))
    .join("\n");

/** Returns what a bound element shows, as text: rows of cells with tabs between. */
export function shownBy(element: Element): string {
  if (element.kind === "table") return tableText(element);
  if (element.kind === "chart") return chartText(element);
  return element.kind === "text" || element.kind === "shape" ? textOf(element.text) : "";
}

/** Returns a cell with new words in the form of those that it had. */
function reworded(cell: Cell, next: Cell | null): Cell {
  const text = next?.text ?? [];
  if (textOf(cell.text) === textOf(text)) return cell;
  const [paragraph] = cell.text;
  const [first] = paragraph?.runs ?? [];
  if (!paragraph || !first) return { ...cell, text };
  const { binding: _, footnote: __, text: ___, ...form } = first;
  return {
    ...cell,
    text: text.map((one) => ({ ...paragraph, runs: one.runs.map(({ text: words }) => ({ ...form, text: words })) })),
  };
}

/** Returns a table with new rows; cells keep their form, and added rows have that of the last one. */
function retabled(table: TableElement, rows: readonly (readonly (Cell | null)[])[], binding: Binding): TableElement {
  const width = rows[0]?.length ?? 0;
  const kept = table.rows[0]?.length === width;
  if (!kept) {
    const align = Array.from({ length: width }, (_, nth) => table.align[nth] ?? "end");
    const { widths: _, heights: __, ...rest } = table;
    return {
      ...rest,
      rows: rows.map((row) => [...row]),
      align,
      header: Math.min(table.header, rows.length - 1),
      binding,
    };
  }
  const next = rows.map((row, y) => {
    const like = table.rows[Math.min(y, table.rows.length - 1)] ?? [];
    return row.map((cell, x): Cell | null => {
      const old = like[x];
      if (!old) return cell;
      return cell && reworded(old, cell);
    });
  });
  const { heights, ...rest } = table;
  return {
    ...rest,
    rows: next,
    header: Math.min(table.header, rows.length - 1),
    ...(heights && next.length === table.rows.length ? { heights } : {}),
    binding,
  };
}

/** Returns a chart with new data; series keep their colours and types by their place. */
function recharted(chart: ChartElement, found: Newest): ChartElement | undefined {
  const data = chartData(found.cells, found.headerRows);
  if (!data) return undefined;
  return {
    ...chart,
    categories: data.categories,
    series: data.series.map((one, nth) => {
      const { points: _, ...old } = chart.series[nth] ?? { name: "", values: [] };
      const { points } = chart.series[nth] ?? {};
      const same = points && one.values.length === chart.series[nth]?.values.length;
      return { ...old, ...(same ? { points } : {}), name: one.name || old.name, values: one.values };
    }),
    binding: found.binding,
  };
}

/** Returns a bound element with the newest values; undefined when they make no such element. */
function renewed(element: Element, found: Newest, workbook: Workbook): Element | undefined {
  if (element.kind === "chart") return recharted(element, found);
  if (element.kind !== "table") return { ...element, binding: found.binding };
  const address = parseAddress(found.binding.range) ?? resolveAddress(workbook, found.binding.range);
  return address && retabled(element, tableRows(found.cells, workbook, address), found.binding);
}

function resolveAddress(workbook: Workbook, range: string) {
  const resolved = resolveRange(workbook, range);
  return "missing" in resolved ? undefined : resolved.address;
}

/** Decides about each binding that shows something else than its source: whether the new values are taken. */
export type TakeChoice = (check: BindingCheck) => boolean;

/** Whether a binding shows something else than its source has, or cannot be compared with it. */
export const isOutOfDate = ({ state }: Pick<BindingCheck, "state">): boolean =>
  state === "stale" || state === "moved" || state === "missing" || state === "error";

/** Checks the bindings of one slide, and makes the slide with the new values that a choice takes. */
class SlideRefresh {
  readonly checks: BindingCheck[] = [];

  constructor(
    private readonly slide: Slide,
    private readonly number: number,
    private readonly context: RefreshContext,
    private readonly choose: TakeChoice,
  ) {}

  run(): Slide {
    const { slide } = this;
    const elements = slide.elements.map((element) => this.element(element));
    const whole = elements.every((element, at) => element === slide.elements[at]) ? slide : { ...slide, elements };
    return mapSlideTexts(whole, (text, { element }) => mapBoundRuns(text, (item) => this.boundRun(item, element)));
  }

  /** Reports a binding; returns the newest values when they are to be taken. */
  private check(
    binding: Binding,
    element: string | null,
    from: string,
    show: (found: Newest) => string,
  ): { found: Newest } | { failed: Binding } | undefined {
    const key = `${this.slide.id}/${this.checks.length}`;
    const base = { key, slide: this.number, slideId: this.slide.id, element, binding, from };
    const source = this.context.source(binding.source);
    if (binding.mode === "fixed" || !source) {
      const state: BindingState =
        binding.mode === "fixed" ? "fixed" : binding.problem ? binding.problem.state : "unknown";
      this.checks.push({ ...base, state, to: from, ...(binding.problem ? { reason: binding.problem.reason } : {}) });
      return undefined;
    }
    const found = newest(binding, source, this.context);
    if (!("binding" in found)) {
      const one: BindingCheck = { ...base, state: found.state, reason: found.reason, to: from };
      this.checks.push(one);
      const known = binding.problem?.state === found.state && binding.problem.reason === found.reason;
      return known || !this.choose(one)
        ? undefined
        : { failed: { ...binding, problem: { state: found.state, reason: found.reason } } };
    }
    const to = show(found);
    const state = found.state === "moved" ? "moved" : from === to ? "current" : "stale";
    const numbers = oneNumber(binding, found.binding, from);
    const one: BindingCheck = {
      ...base,
      state,
      to,
      ...(found.reason ? { reason: found.reason } : {}),
      ...(numbers ? { numbers } : {}),
    };
    this.checks.push(one);
    const same = state === "current" && binding.version === found.binding.version && !binding.problem;
    return same || !this.choose(one) ? undefined : { found };
  }

  private element(element: Element): Element {
    const { binding } = element;
    if (!binding) return element;
    const source = this.context.source(binding.source);
    let next: Element | undefined;
    const taken = this.check(binding, element.id, shownBy(element), (found) => {
      next = source && renewed(element, found, source.workbook);
      return next ? shownBy(next) : "";
    });
    if (!taken) return element;
    if ("failed" in taken) return { ...element, binding: taken.failed };
    return next ?? element;
  }

  private boundRun(item: Run, element: string | null): Run {
    const taken = this.check(must(item.binding), element, item.text, ({ text = "" }) => text);
    if (!taken) return item;
    if ("failed" in taken) return { ...item, binding: taken.failed };
    return { ...item, text: taken.found.text ?? item.text, binding: taken.found.binding };
  }
}

/**
 * Returns a slide with one of its bindings changed, by its number as in the keys of checks; undefined unlinks the values,
 * which stay as they are.
 */
export function withBindingAt(slide: Slide, nth: number, change: (binding: Binding) => Binding | undefined): Slide {
  let at = -1;
  const next = <T extends { binding?: Binding | undefined }>(holder: T): T => {
    if (!holder.binding) return holder;
    at += 1;
    if (at !== nth) return holder;
    const { binding, ...rest } = holder;
    const changed = change(binding);
    return (changed ? { ...rest, binding: changed } : rest) as T;
  };
  const elements = slide.elements.map((element) => next(element));
  return mapSlideTexts({ ...slide, elements }, (text) => mapBoundRuns(text, (item) => next(item)));
}

/** Returns the numbers of two states of a binding of one cell; the first as it is shown where it was not taken here. */
function oneNumber(before: Binding, after: Binding, shown: string): { from: number; to: number } | undefined {
  const only = ({ values }: Binding) => (values?.length === 1 && values[0]?.length === 1 ? values[0][0] : undefined);
  const [from, to] = [before.values ? only(before) : numberIn(shown), only(after)];
  return typeof from === "number" && typeof to === "number" ? { from, to } : undefined;
}

/**
 * Compares every binding of a deck with its source and takes the new values that `choose` accepts. Slides on which
 * nothing is taken are the same objects. What cannot be found keeps its last values and says so.
 */
export function refreshDeck(
  deck: Deck,
  context: RefreshContext,
  choose: TakeChoice = () => true,
): { slides: Slide[]; checks: BindingCheck[] } {
  const checks: BindingCheck[] = [];
  const slides = deck.slides.map((slide, nth) => {
    if (!bindingsOn(slide).length) return slide;
    const one = new SlideRefresh(slide, nth + 1, context, choose);
    const next = one.run();
    checks.push(...one.checks);
    return next;
  });
  return { slides, checks };
}

/** Compares every binding of a deck with its source. Sources that are not at hand leave their bindings unknown. */
export const checkBindings = (deck: Deck, context: RefreshContext): BindingCheck[] =>
  refreshDeck(deck, context, () => false).checks;
