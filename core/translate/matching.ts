import { type Piece, wordsOf } from "./coded";
import type { Segment, Target } from "./segments";
import type { ExchangeFile } from "./xliff";

/** The translations of a file for the segments of a deck, and what of the file was not used. */
export interface MatchedTargets {
  targets: Map<string, Target>;
  /** Sentences about translations that could not be used as they are. */
  remarks: string[];
}

const keyOf = (pieces: readonly Piece[]) =>
  pieces
    .map((piece) => (typeof piece === "string" ? piece : `{${piece.code}${piece.at}}`))
    .join("")
    .replace(/\s+/g, " ")
    .trim();
const short = (pieces: readonly Piece[]) => {
  const words = wordsOf(pieces).trim();
  return words.length > 60 ? `${words.slice(0, 59)}…` : words;
};

/** How many texts that are not in the deck are listed; a file for another deck has thousands. */
const LISTED = 50;

/** Translations by their source. When a source has several, they are used in order, and the last one is then repeated. */
class BySource {
  private readonly lists = new Map<string, ExchangeFile["segments"]>();

  constructor(file: ExchangeFile) {
    for (const one of file.segments) {
      if (!one.target) continue;
      const key = keyOf(one.source);
      this.lists.set(key, [...(this.lists.get(key) ?? []), one]);
    }
  }

  next(key: string): ExchangeFile["segments"][number] | undefined {
    const list = this.lists.get(key);
    return list && list.length > 1 ? list.shift() : list?.[0];
  }
}

/**
 * Finds the translations of a file for the segments of a deck: by id where the source is still the same, else by the
 * source. Units that another tool cut differently are taken whole. A translation of another text is never taken.
 */
export function matchTargets(segments: readonly Segment[], file: ExchangeFile): MatchedTargets {
  const targets = new Map<string, Target>();
  const remarks = [...file.problems];
  const byId = new Map(file.segments.map((one) => [one.id, one]));
  const bySource = new BySource(file);
  const wanted = new Set(segments.map(({ source }) => keyOf(source)));
  const used = new Set<string>();
  const open: Segment[] = [];
  for (const segment of segments) {
    const known = byId.get(segment.id);
    const same = known && keyOf(known.source) === keyOf(segment.source);
    const found = same ? known : bySource.next(keyOf(segment.source));
    if (found) used.add(found.id);
    if (found?.target) targets.set(segment.id, { pieces: found.target, state: found.state });
    else if (!same) open.push(segment);
  }
  for (const [unit, parts] of unitsOf(open)) takeWhole(unit, parts, file, targets, used);
  const unused = file.segments.filter(
    ({ id, source, target }) => target && !used.has(id) && !wanted.has(keyOf(source)),
  );
  for (const { source } of unused.slice(0, LISTED))
    remarks.push(`“${short(source)}” is not in the deck any more, or reads otherwise; its translation was not taken.`);
  if (unused.length > LISTED) remarks.push(`The same is true of ${unused.length - LISTED} more texts of the file.`);
  return { targets, remarks };
}

function unitsOf(segments: readonly Segment[]): Map<string, Segment[]> {
  const units = new Map<string, Segment[]>();
  for (const segment of segments) units.set(segment.unit.id, [...(units.get(segment.unit.id) ?? []), segment]);
  return units;
}

/** Takes a unit whose sentences another tool joined or cut differently, where its whole text is the same. */
function takeWhole(
  unit: string,
  parts: readonly Segment[],
  file: ExchangeFile,
  targets: Map<string, Target>,
  used: Set<string>,
): void {
  const others = file.segments.filter(({ id }) => id === unit || id.startsWith(`${unit}.s`));
  const whole = (list: readonly { source: Piece[] }[]) => keyOf(list.flatMap(({ source }) => [...source, " "]));
  const [first, ...rest] = parts;
  if (!first || !others.length || whole(parts) !== whole(others) || others.some(({ target }) => !target)) return;
  for (const { id } of others) used.add(id);
  const pieces = others.flatMap(({ target = [] }, nth): Piece[] => (nth ? [" ", ...target] : target));
  const state = others.some((one) => one.state !== "reviewed") ? "draft" : "reviewed";
  targets.set(first.id, { pieces, state });
  // The others are covered by the first.
  for (const { id } of rest) targets.set(id, { pieces: [], state });
}
