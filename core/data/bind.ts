import {
  type Binding,
  type BindingMode,
  type BindingUse,
  type ChartType,
  type Deck,
  type Element,
  Failure,
  formatAddress,
  lineOf,
  lineText,
  type LineValues,
  newSlide,
  paragraphOf,
  plainText,
  run,
  type Run,
  type Series,
  type Slide,
  slotsOf,
  textOf,
  textSlot,
  titleElement,
} from "@unitext/core/model";
import { chartOf, headingRows, tableOf } from "./build";
import { headersOf } from "./headers";
import { columnHeader, type ResolvedRange, resolveRange, rowHeader } from "./resolve";
import { MOST_BOUND, stored, takeRange, type TakenCell, boundValue } from "./take";
import type { SourceAtHand } from "./refresh";

/** Cells that are to be put on a slide. */
export interface BindRequest {
  /** The name of the workbook's file, by which the deck knows it. */
  source: string;
  range: string;
  /** What becomes of the cells; what fits them unless given. */
  use?: BindingUse | undefined;
  chartType?: ChartType | undefined;
  mode: BindingMode;
  format?: string | undefined;
}

/** What was made of cells: an element without a place, or a run with a value and the words that name it. */
export type Bound = { kind: "element"; element: Element; name: string } | { kind: "value"; run: Run; name: string };

interface BindContext {
  language: string;
  newId: () => string;
  takenAt?: string;
  takenBy?: string;
}

/** Returns what fits cells: a value for one, a chart for numbers with names, else a table. */
export function fittingUse(cells: readonly (readonly TakenCell[])[], { chart, headerRows }: ResolvedRange): BindingUse {
  if (chart) return "chart";
  const [row, more] = cells;
  if (row && !more && row.length === 1) return "value";
  // Below the headings and beside the names.
  const body = cells.slice(headerRows ?? headingRows(cells));
  const values = body.flatMap((line) => line.slice(1)).filter(({ content }) => content !== undefined);
  const numbers = values.filter(({ content }) => typeof content === "number").length;
  // Numbers with names are a chart; words, or more series and names than can be told apart, are a table.
  const few = (row?.length ?? 0) <= 7 && body.length >= 3 && body.length <= 40;
  return few && numbers > 0 && numbers >= values.length * 0.8 ? "chart" : "table";
}

/** Returns the words that name cells: their name or table, the row and column of one cell, or their sheet. */
function nameOfCells({ workbook }: SourceAtHand, resolved: ResolvedRange, range: string): string {
  const { kind, address, chart } = resolved;
  if (chart) return chart.name;
  if (kind !== "address") return range.replaceAll("_", " ").replace(/\[(.+)\]$/, ", $1");
  const sheet = workbook.sheet(address.sheet);
  if (address.top !== address.bottom || address.left !== address.right) return address.sheet;
  const names = [rowHeader(sheet, address.top, address.left), columnHeader(sheet, address.left, address.top)];
  const words = [...new Set(names.filter((name) => name !== undefined))].join(", ");
  return words || address.sheet;
}

/**
 * Binds cells of a workbook: takes their values and returns what is to be put on a slide. Throws a Failure `not-found`
 * for a range that leads nowhere, and `not-valid` for cells that make no such thing.
 */
export function bindCells(source: SourceAtHand, request: BindRequest, context: BindContext): Bound {
  const { workbook, version } = source;
  const resolved = resolveRange(workbook, request.range);
  if ("missing" in resolved) throw new Failure("not-found", request.range, resolved.missing);
  const { address, headerRows } = resolved;
  const { language, takenAt, takenBy } = context;
  const probe = takeRange(workbook, resolved, { language, visible: true });
  const use = request.use ?? fittingUse(probe, resolved);
  const whole = use === "table" || use === "chart";
  const cells = whole ? probe : takeRange(workbook, resolved, { language, format: request.format });
  if (whole && cells.length * (cells[0]?.length ?? 0) > MOST_BOUND)
    throw new Failure(
      "too-large",
      request.range,
      `The range has more than ${MOST_BOUND.toLocaleString("en")} cells, the most that a slide takes. Choose fewer rows or columns.`,
    );
  const few = cells.length * (cells[0]?.length ?? 0) <= MOST_BOUND;
  const range = resolved.kind === "address" ? formatAddress(address) : request.range.trim();
  const binding: Binding = {
    source: request.source,
    range,
    mode: request.mode,
    ...(use === "value" ? {} : { use }),
    ...(request.format === undefined ? {} : { format: request.format }),
    ...(resolved.kind === "address" ? { headers: headersOf(workbook.sheet(address.sheet), address) } : {}),
    version,
    ...(takenAt === undefined ? {} : { takenAt }),
    ...(takenBy === undefined ? {} : { takenBy }),
    ...(few ? { values: cells.map((row) => row.map(({ content }) => stored(content))) } : {}),
  };
  const name = nameOfCells(source, resolved, request.range.trim());
  const place = { workbook, address, headerRows, binding, id: context.newId(), slot: null };
  if (use === "table") return { kind: "element", element: tableOf(cells, place), name };
  if (use === "chart") {
    const chart = chartOf(cells, place, request.chartType);
    if (!chart)
      throw new Failure(
        "not-valid",
        request.range,
        "There is no number among the cells, so they make no chart. Put them on the slide as a table.",
      );
    return { kind: "element", element: chart, name };
  }
  const value = boundValue(cells, use, { language, format: request.format, date1904: workbook.date1904 });
  if ("problem" in value) throw new Failure("not-valid", request.range, value.problem);
  return { kind: "value", run: run(value.text, [], undefined, undefined, binding), name };
}

const textElement = (id: string, slot: string | null, runs: readonly Run[]): Element => ({
  kind: "text",
  id,
  slot,
  text: [paragraphOf(runs)],
});

/** Returns a new slide with what was bound: a figure below its name, or a key figure above it. */
export function slideWithBound(bound: Bound, newId: () => string): Slide {
  if (bound.kind === "value") {
    const slide = newSlide(newId(), "number");
    return {
      ...slide,
      elements: [
        textElement(newId(), "number", [bound.run]),
        { kind: "text", id: newId(), slot: "caption", text: plainText(bound.name) },
      ],
    };
  }
  const { kind } = bound.element;
  const arrangement = kind === "chart" ? "chart" : "table";
  return {
    ...newSlide(newId(), arrangement),
    elements: [
      { kind: "text", id: newId(), slot: "title", text: plainText(bound.name) },
      { ...bound.element, slot: arrangement },
    ],
  };
}

const isBare = (element: Element) => element.kind === "text" && textOf(element.text).trim() === "";

/** Returns a slide with a figure beside its text: in an empty slot for it, in the second column, or in its lower half. */
function withFigure(slide: Slide, element: Element, deck: Pick<Deck, "page">): Slide {
  const filled = new Set(slide.elements.filter((one) => !isBare(one)).map(({ slot }) => slot));
  const slots = slotsOf(slide.arrangement);
  const free = slots.find(([name, role]) => (role === "figure" || role === "picture") && !filled.has(name));
  const others = (slot: string) => slide.elements.filter((one) => one.slot !== slot || !isBare(one));
  if (free) return { ...slide, elements: [...others(free[0]), { ...element, slot: free[0] }] };
  const body = slots.find(([, role]) => role === "body")?.[0];
  if (slide.arrangement === "title" || (slide.arrangement === "points" && body && !filled.has(body))) {
    const arrangement = element.kind === "chart" ? "chart" : "table";
    return { ...slide, arrangement, elements: [...others(body ?? ""), { ...element, slot: arrangement }] };
  }
  if (slide.arrangement === "points")
    return {
      ...slide,
      arrangement: "comparison",
      elements: [
        ...slide.elements.map((one) => (one.slot === "body" ? { ...one, slot: "left" } : one)),
        { ...element, slot: "right" },
      ],
    };
  const column = slots.find(([name, role]) => role === "body" && !filled.has(name));
  if (column) return { ...slide, elements: [...others(column[0]), { ...element, slot: column[0] }] };
  const { width, height } = deck.page;
  const frame = { x: width * 0.52, y: height * 0.3, width: width * 0.42, height: height * 0.6 };
  return { ...slide, elements: [...slide.elements, { ...element, frame }] };
}

/** Returns a slide with a value in it: as its key figure, or as a sentence below its text. */
function withValue(slide: Slide, value: Run, name: string, newId: () => string): Slide {
  const empty = slotsOf(slide.arrangement).find(
    ([slot, role]) => role === "number" && !slide.elements.some((one) => one.slot === slot && !isBare(one)),
  );
  if (empty)
    return {
      ...slide,
      elements: [...slide.elements.filter(({ slot }) => slot !== empty[0]), textElement(newId(), empty[0], [value])],
    };
  const sentence = [run(`${name}: `), value];
  const title = titleElement(slide);
  const slot = textSlot(slide.arrangement);
  const target = slide.elements.find((one) => one !== title && one.kind === "text" && one.slot === slot);
  if (target?.kind === "text") {
    const last = target.text.at(-1);
    const paragraph = {
      ...paragraphOf(sentence, last?.kind ?? "plain", last?.level ?? 0),
      ...(last?.properties ? { properties: last.properties } : {}),
    };
    return {
      ...slide,
      elements: slide.elements.map((one) => (one === target ? { ...target, text: [...target.text, paragraph] } : one)),
    };
  }
  return { ...slide, elements: [...slide.elements, textElement(newId(), slot ?? null, sentence)] };
}

/** Returns a slide with what was bound put beside what it shows. */
export function putOnSlide(slide: Slide, bound: Bound, deck: Pick<Deck, "page">, newId: () => string): Slide {
  return bound.kind === "value"
    ? withValue(slide, bound.run, bound.name, newId)
    : withFigure(slide, bound.element, deck);
}

/**
 * Returns a table or chart with the content and the binding of what was bound in its place: its appearance, its place and
 * its type of chart stay. Other elements, and what is of another kind, are returned as they are.
 */
export function withBoundContent(element: Element, bound: Bound): Element {
  const made = bound.kind === "element" ? bound.element : undefined;
  if (element.kind === "chart" && made?.kind === "chart" && made.binding)
    return {
      ...element,
      categories: made.categories,
      series: made.series.map((one, nth) => ({ ...one, ...appearanceOf(element.series[nth]) })),
      binding: made.binding,
    };
  if (element.kind === "table" && made?.kind === "table" && made.binding) {
    const { widths, heights: _, ...rest } = element;
    const same = widths?.length === made.rows[0]?.length;
    return {
      ...rest,
      rows: made.rows,
      header: made.header,
      align: made.align,
      ...(widths && same ? { widths } : {}),
      binding: made.binding,
    };
  }
  return element;
}

/** Returns how a series is drawn, without its data. */
function appearanceOf(series: Series | undefined): Partial<Series> {
  if (!series) return {};
  const { name: _, values: __, x: ___, points: ____, ...appearance } = series;
  return appearance;
}

/** Returns an element with a value at the end of its title or caption; undefined when it has neither. */
export function withLineValue(element: Element, bound: Bound): Element | undefined {
  if (bound.kind !== "value") return undefined;
  const add = (words: string, values: LineValues | undefined) =>
    lineOf([{ kind: "plain", level: 0, runs: [...(lineText(words, values)[0]?.runs ?? []), run(" "), bound.run] }]);
  if (element.kind === "chart" && element.title) {
    const { words, values } = add(element.title, element.titleValues);
    return { ...element, title: words, titleValues: values };
  }
  if ((element.kind === "table" || element.kind === "picture") && element.caption) {
    const { words, values } = add(element.caption, element.captionValues);
    return { ...element, caption: words, captionValues: values };
  }
  return undefined;
}
