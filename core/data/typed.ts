import {
  bindingsOn,
  type Deck,
  formatAddress,
  mapSlideTexts,
  type Paragraph,
  type Slide,
  titleOf,
} from "@unitext/core/model";
import { columnHeader, rowHeader } from "./resolve";
import type { Sheet, Workbook } from "./workbook";

/** A number in a text that somebody typed, and the cell that it most likely repeats. */
export interface TypedNumber {
  slide: number;
  slideId: string;
  element: string | null;
  /** The how-manyth rich text of the element, the paragraph in it, and where the number begins. */
  text: number;
  paragraph: number;
  from: number;
  /** The number as it is written, and its paragraph. */
  shown: string;
  sentence: string;
  range: string;
  /** A number format that writes the cell as the number is written. */
  format: string;
  /** The value of the cell. */
  value: number;
}

/** Numeric cells beyond which a workbook is not searched: a text does not repeat raw data. */
const MOST_CELLS = 50_000;

/** A number as people write it: digits with groups, one decimal sign, not part of a word, a date or a code. */
const NUMBER =
  /(?<![\p{L}\p{N}.,:/–-])[-−]?\d{1,3}(?:[   ',.]\d{3})+(?:[.,]\d+)?(?![\p{L}\p{N}:/-]|[.,]\d)|(?<![\p{L}\p{N}.,:/–-])[-−]?\d+(?:[.,]\d+)?(?![\p{N}:/-]|[.,]\d)/gu;

/** Returns the value and the decimals of a written number in a language; undefined when it can be read in two ways. */
function written(text: string, comma: boolean): { value: number; decimals: number } | undefined {
  const [decimal, group] = comma ? [",", "."] : [".", ","];
  const plain = text.replace(/[   ']/g, "").replace("−", "-");
  const groups = plain.split(group);
  if (groups.length > 1 && !groups.slice(1).every((part) => /^\d{3}(?!\d)/.test(part))) return undefined;
  const digits = groups.join("").replace(decimal, ".");
  const value = Number(digits);
  return Number.isFinite(value) ? { value, decimals: digits.split(".")[1]?.length ?? 0 } : undefined;
}

interface NamedCell {
  range: string;
  value: number;
  row: string;
  column: string | undefined;
  /** Whether its format shows a share, so that 0.45 is written as 45. */
  percent: boolean;
}

function cellsOf(sheet: Sheet): NamedCell[] {
  const cells: NamedCell[] = [];
  const { rows, columns } = sheet.size;
  for (let row = 0; row < rows && cells.length < MOST_CELLS; row++) {
    const name = rowHeader(sheet, row, columns - 1);
    if (name === undefined || name.length < 2) continue;
    for (let column = 0; column < columns; column++) {
      const value = sheet.content(row, column);
      if (typeof value !== "number" || sheet.hiddenRows.has(row) || sheet.hiddenColumns.has(column)) continue;
      cells.push({
        range: formatAddress({ sheet: sheet.name, top: row, left: column, bottom: row, right: column }),
        value,
        row: name.toLowerCase(),
        column: columnHeader(sheet, column, row)?.toLowerCase(),
        percent: sheet.format(row, column).includes("%"),
      });
    }
  }
  return cells;
}

const mentions = (words: string, name: string | undefined): boolean => {
  if (name === undefined || name === "") return false;
  const at = words.indexOf(name);
  if (at < 0) return false;
  const [before, after] = [words[at - 1] ?? " ", words[at + name.length] ?? " "];
  return !/[\p{L}\p{N}]/u.test(before) && !/[\p{L}\p{N}]/u.test(after);
};

/**
 * Finds numbers in texts and notes that most likely repeat a cell: they equal it as they are written, and the sentence
 * names its row, and its column in the sentence or the slide's title. A number that could be two cells is left out.
 */
export function typedNumbers(deck: Deck, workbook: Workbook): TypedNumber[] {
  const cells = workbook.sheets.filter(({ hidden }) => !hidden).flatMap(({ name }) => cellsOf(workbook.sheet(name)));
  if (!cells.length || cells.length > MOST_CELLS) return [];
  const comma = new Intl.NumberFormat(deck.language).format(1.5).includes(",");
  return deck.slides.flatMap((slide, nth) => inSlide(slide, nth + 1, cells, comma));
}

function inSlide(slide: Slide, number: number, cells: readonly NamedCell[], comma: boolean): TypedNumber[] {
  const found: TypedNumber[] = [];
  const title = titleOf(slide).toLowerCase();
  const whole = new Set(bindingsOn(slide).flatMap(({ element, shown }) => (shown === undefined ? [element] : [])));
  mapSlideTexts(slide, (text, place) => {
    if (!whole.has(place.element))
      for (const [paragraph, one] of text.entries())
        for (const match of inParagraph(one, title, cells, comma))
          found.push({ slide: number, slideId: slide.id, ...place, paragraph, ...match });
    return text;
  });
  return found;
}

type Match = Pick<TypedNumber, "from" | "shown" | "sentence" | "range" | "format" | "value">;

function inParagraph({ runs }: Paragraph, title: string, cells: readonly NamedCell[], comma: boolean): Match[] {
  const sentence = runs.map(({ text }) => text).join("");
  if (!/\d/.test(sentence)) return [];
  const words = sentence.toLowerCase();
  const named = cells.filter(({ row }) => mentions(words, row));
  if (!named.length) return [];
  const free = runs.map(({ text, binding, marks, footnote }) => {
    const typed = !binding && !footnote && !marks?.includes("code") && !marks?.includes("formula");
    return typed ? text : " ".repeat(text.length);
  });
  return [...free.join("").matchAll(NUMBER)].flatMap(({ 0: shown, index }): Match[] => {
    const number = written(shown, comma);
    if (!number) return [];
    const percent = /^\s?%/.test(sentence.slice(index + shown.length));
    const equal = named.filter(({ value, percent: share, column }) => {
      const scaled = percent && share ? value * 100 : value;
      if (percent !== share && share) return false;
      return (
        Math.abs(scaled - number.value) <= 0.5 * 10 ** -number.decimals * 1.0000001 &&
        Number(scaled.toFixed(number.decimals)) === number.value &&
        (mentions(words, column) || mentions(title, column))
      );
    });
    const [only, more] = equal;
    if (!only || more) return [];
    const digits = number.decimals ? `0.${"0".repeat(number.decimals)}` : "0";
    const format = /[   ',.]\d{3}/.test(shown) && Math.abs(number.value) >= 1000 ? `#,##${digits}` : digits;
    return [{ from: index, shown, sentence, range: only.range, format, value: only.value }];
  });
}

/**
 * Finds numbers in texts and notes that repeat a cell of the version before and not of the newest one: they are most
 * likely out of date.
 */
export function outdatedNumbers(deck: Deck, before: Workbook, now: Workbook): (TypedNumber & { newest: number })[] {
  return typedNumbers(deck, before).flatMap((one) => {
    const newest = newestOf(one.range, before, now);
    return newest === undefined || newest === one.value ? [] : [{ ...one, newest }];
  });
}

/** Returns the value that a cell of one version has in another, found by the names of its row and column. */
function newestOf(range: string, before: Workbook, now: Workbook): number | undefined {
  const cell = before.sheets.flatMap(({ name }) => cellsOf(before.sheet(name))).find((one) => one.range === range);
  if (!cell) return undefined;
  const same = now.sheets
    .flatMap(({ name }) => cellsOf(now.sheet(name)))
    .filter(({ row, column }) => row === cell.row && column === cell.column);
  const [only, more] = same;
  return more ? same.find((one) => one.range === range)?.value : only?.value;
}
