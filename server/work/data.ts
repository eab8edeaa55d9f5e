import { createHash } from "node:crypto";
import {
  type BindingCheck,
  type BindRequest,
  type Bound,
  bindCells,
  cellText,
  compareWorkbooks,
  findCells,
  openWorkbook,
  outdatedNumbers,
  refreshDeck,
  type SourceAtHand,
  typedNumbers,
  type Workbook,
  type WorkbookChanges,
} from "@unitext/core/data";
import { type EmbeddedWorkbook, embeddedWorkbooks } from "@unitext/core/formats";
import { type Deck, Failure, formatCells, type Slide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import type { CellsAsked, CellsSought, SheetWindow, TypedNumbers, WorkbookContents } from "../api";
import type { NamedFile } from "./namedfile";

/** The bytes of one version of a source. */
export interface SourceFile extends NamedFile {
  version: string;
}

/** Workbooks that were read last, by the hash of their bytes: a grid asks for the same one again and again. */
const recent = new Map<string, Workbook>();
const MOST_RECENT = 2;

function opened({ bytes, name, csv }: NamedFile): Workbook {
  const key = `${name} ${createHash("sha256").update(bytes).digest("hex")} ${JSON.stringify(csv ?? null)}`;
  const workbook = recent.get(key) ?? openWorkbook(bytes, name, csv ?? undefined);
  recent.delete(key);
  recent.set(key, workbook);
  const [oldest] = recent.keys();
  if (recent.size > MOST_RECENT && oldest !== undefined) recent.delete(oldest);
  return workbook;
}

const atHand = (file: SourceFile): SourceAtHand => ({ workbook: opened(file), version: file.version });

/** Lists the sheets, names, tables and charts of a workbook. */
export function workbookContents(file: NamedFile): WorkbookContents {
  const workbook = opened(file);
  return {
    sheets: workbook.sheets.map(({ name, hidden }) => ({ name, hidden, ...workbook.sheet(name).size })),
    names: workbook.names.map(({ name, text, address }) => ({
      name,
      at: address ? { sheet: address.sheet, cells: formatCells(address) } : null,
      text,
    })),
    tables: workbook.tables.map(({ name, address }) => ({
      name,
      at: { sheet: address.sheet, cells: formatCells(address) },
    })),
    charts: workbook.charts.map(({ name, sheet, type, categories, series }) => ({
      name,
      sheet,
      type,
      areas: [categories, ...series.flatMap(({ nameAt, values }) => [nameAt, values])].flatMap((area) =>
        area ? [{ sheet: area.sheet, cells: formatCells(area) }] : [],
      ),
    })),
    remarks: [...workbook.remarks],
    ...(workbook.csv ? { csv: workbook.csv } : {}),
  };
}

/** Returns what differs between two versions of a workbook. */
export function workbookChanges({
  before,
  after,
  language,
}: {
  before: NamedFile;
  after: NamedFile;
  language: string;
}): WorkbookChanges {
  return compareWorkbooks(opened(before), opened(after), language);
}

/** Returns the texts of some rows and columns of a sheet. */
export function sheetCells({ file, asked }: { file: NamedFile; asked: CellsAsked }): SheetWindow {
  const workbook = opened(file);
  const sheet = workbook.sheet(asked.sheet);
  const { rows, columns } = sheet.size;
  const last = { row: Math.min(asked.top + asked.rows, rows), column: Math.min(asked.left + asked.columns, columns) };
  const cells: SheetWindow["cells"] = [];
  for (let row = asked.top; row < last.row; row++) {
    const line: SheetWindow["cells"][number] = [];
    for (let column = asked.left; column < last.column; column++) {
      const text = cellText(sheet, row, column, asked.language, workbook.date1904);
      line.push(typeof sheet.content(row, column) === "number" ? { text, number: true } : { text });
    }
    cells.push(line);
  }
  return { rows, columns, cells };
}

/** Returns the range of a workbook that has the texts of a block; null where there is none, or more than one. */
export const cellsLike = ({ file, rows, languages }: { file: NamedFile } & CellsSought): string | null =>
  findCells(opened(file), rows, languages) ?? null;

/** Takes cells of a workbook, ready to be put on a slide. */
export function bindRange({
  file,
  request,
  language,
  takenAt,
  takenBy,
}: {
  file: SourceFile;
  request: BindRequest;
  language: string;
  takenAt: string;
  takenBy: string;
}): Bound {
  return bindCells(atHand(file), request, { language, newId: () => nanoid(10), takenAt, takenBy });
}

/** What comparing a deck with its sources found, and the slides with the values that were taken. */
export interface Compared {
  checks: BindingCheck[];
  slides: Slide[];
  /** Sources that could not be read, each with the reason. */
  unread: { source: string; reason: string }[];
}

/** Lists the workbooks inside the file of a deck, with their bytes. */
export const workbooksInside = ({
  deck,
  blobs,
}: {
  deck: Deck;
  blobs: ReadonlyMap<string, Uint8Array>;
}): EmbeddedWorkbook[] => embeddedWorkbooks(deck, (sha256) => blobs.get(sha256));

/** Finds typed numbers that repeat a cell, and those that repeat one of the version before. */
export function findTyped({
  deck,
  now,
  before,
}: {
  deck: Deck;
  now: NamedFile;
  before: NamedFile | undefined;
}): TypedNumbers {
  const newest = opened(now);
  const repeated = typedNumbers(deck, newest);
  const places = new Set(
    repeated.map(({ slideId, element, text, paragraph, from }) =>
      JSON.stringify([slideId, element, text, paragraph, from]),
    ),
  );
  const outdated = before ? outdatedNumbers(deck, opened(before), newest) : [];
  return {
    repeated,
    outdated: outdated.filter(
      ({ slideId, element, text, paragraph, from }) =>
        !places.has(JSON.stringify([slideId, element, text, paragraph, from])),
    ),
  };
}

/** The bindings whose values are taken: those with these keys, those that follow by themselves, or all. */
export type Taking = readonly string[] | "latest" | "all";

function choiceOf(take: Taking): (check: BindingCheck) => boolean {
  // Cells that have moved are proposed and never followed without being asked.
  if (take === "latest") return ({ binding, state }) => binding.mode === "latest" && state !== "moved";
  if (take === "all") return () => true;
  const wanted = new Set(take);
  return ({ key }) => wanted.has(key);
}

/** Compares the bindings of a deck with the newest versions of its sources, and takes the values that are asked for. */
export function compareBindings({
  deck,
  files,
  take,
  takenAt,
  takenBy,
}: {
  deck: Deck;
  files: readonly SourceFile[];
  take: Taking;
  takenAt: string;
  takenBy: string;
}): Compared {
  const unread: Compared["unread"] = [];
  const sources = new Map<string, SourceAtHand>();
  for (const file of files) {
    try {
      sources.set(file.name, atHand(file));
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      unread.push({ source: file.name, reason: error.message });
    }
  }
  const { slides, checks } = refreshDeck(
    deck,
    { source: (name) => sources.get(name), language: deck.language, takenAt, takenBy },
    choiceOf(take),
  );
  const before = new Set(deck.slides);
  return { checks, slides: slides.filter((slide) => !before.has(slide)), unread };
}

/** Compares several decks with the newest versions of the same sources; the answers are in the order of the decks. */
export const compareDecks = ({
  decks,
  ...rest
}: Omit<Parameters<typeof compareBindings>[0], "deck"> & { decks: readonly Deck[] }): Compared[] =>
  decks.map((deck) => compareBindings({ deck, ...rest }));
