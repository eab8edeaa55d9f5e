import { type Deck, Failure } from "@unitext/core/model";
import {
  type ExchangeFile,
  type Piece,
  piecesOf,
  placeholderKinds,
  placeOf,
  type Proposal,
  SEGMENT_STATES,
  type Segment,
  type SegmentState,
  type Target,
  typedText,
} from "@unitext/core/translate";

/** The segments of a deck with what is translated of them, to be written as a table. */
export interface SegmentTable {
  deck: Deck;
  to: string;
  segments: readonly Segment[];
  targetOf?: (segment: Segment) => Target | undefined;
  /** Returns what a memory proposes; only XLIFF has a place for it. */
  proposalsOf?: (segment: Segment) => readonly Proposal[];
}

/** The columns of a table of segments. Languages follow in brackets. */
const COLUMNS = ["Place", "Source", "Translation", "State", "Id"] as const;

/** Returns the rows of a table of segments, a header first. Placeholders are numbers in angle brackets. */
export function rowsOf({ deck, to, segments, targetOf }: SegmentTable): string[][] {
  const [place, source, translation, state, id] = COLUMNS;
  return [
    [place, `${source} (${deck.language})`, `${translation} (${to})`, state, id],
    ...segments.map((segment) => {
      const target = targetOf?.(segment);
      return [
        placeOf(segment, deck),
        typedText(segment.source),
        target ? typedText(target.pieces) : "",
        target?.state ?? "untranslated",
        segment.id,
      ];
    }),
  ];
}

const languageIn = (head: string) => /\(([A-Za-z0-9-]+)\)\s*$/.exec(head)?.[1] ?? "";

/** Returns a coded text that was typed in a cell; marks that are no placeholders of the source are words. */
function typed(text: string, source: readonly Piece[]): Piece[] {
  return piecesOf(text, placeholderKinds(source));
}

/** Returns the coded source: a number with an end is a pair, another one a single mark. */
function sourceOf(text: string): Piece[] {
  const numbers = [...text.matchAll(/⟨(\d+)⟩/g)].map(([, number = ""]) => number);
  const kinds = Object.fromEntries(numbers.map((number) => [number, { single: !text.includes(`⟨/${number}⟩`) }]));
  return piecesOf(text, kinds);
}

/**
 * Reads the rows of a table of segments. The columns are found by their names. Throws a Failure `not-readable` when there
 * is no column of sources and of translations.
 */
export function readRows(rows: readonly (readonly string[])[], file: string): ExchangeFile {
  const isHead = (row: readonly string[]) =>
    row.some((cell) => /^source\b/i.test(cell.trim())) && row.some((cell) => /^translation\b/i.test(cell.trim()));
  const at = rows.findIndex(isHead);
  if (at < 0)
    throw new Failure(
      "not-readable",
      file,
      "It has no table with the columns “Source” and “Translation”. Use a table that was written here.",
    );
  const head = rows[at] ?? [];
  const column = (name: (typeof COLUMNS)[number]) =>
    head.findIndex((cell) => cell.trim().toLowerCase().startsWith(name.toLowerCase()));
  const [source, translation, state, id] = [column("Source"), column("Translation"), column("State"), column("Id")];
  const segments = rows.slice(at + 1).flatMap((row, nth): ExchangeFile["segments"] => {
    const text = row[source] ?? "";
    if (!text.trim() || isHead(row)) return [];
    const pieces = sourceOf(text);
    const target = (row[translation] ?? "").trim();
    const said = SEGMENT_STATES.find((one) => one === row[state]?.trim());
    const taken: SegmentState = !target ? "untranslated" : !said || said === "untranslated" ? "draft" : said;
    return [
      {
        id: row[id]?.trim() || `row ${nth + 1}`,
        source: pieces,
        ...(target ? { target: typed(target, pieces) } : {}),
        state: taken,
      },
    ];
  });
  return { from: languageIn(head[source] ?? ""), to: languageIn(head[translation] ?? ""), segments, problems: [] };
}
