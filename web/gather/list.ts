import { groupByName, type MergeSource, matchName, parseRanges } from "@unitext/core/divide";
import { type Deck, must } from "@unitext/core/model";
import type { DeckRow, DeckState } from "@unitext/server/api";

/** A deck of the list: all of its slides, or the typed ones. */
export interface Listed {
  id: string;
  slides: string;
}

/** A deck whose title or file name matches the pattern, with what the stars stand for. */
export interface Found {
  row: DeckRow;
  name: string;
  parts: string[];
}

/** Returns the decks whose names match a pattern; a pattern without a star matches anywhere in the name. */
export function found(rows: readonly DeckRow[], pattern: string): Found[] {
  const wanted = pattern.trim();
  if (!wanted) return rows.map((row) => ({ row, name: row.title, parts: [] }));
  const whole = /[*?]/.test(wanted);
  return rows.flatMap((row) => {
    for (const name of row.file === null ? [row.title] : [row.title, row.file]) {
      const parts = matchName(whole ? wanted : `*${wanted}*`, name);
      if (parts) return [{ row, name, parts: whole ? parts : [] }];
    }
    return [];
  });
}

/** Orders decks by a part of the name, or by the whole name. */
export function ordered(list: readonly Found[], column: number | "name"): Found[] {
  const key = ({ name, parts }: Found) => (column === "name" ? name : (parts[column] ?? ""));
  return [...list].sort((a, b) => groupByName(key(a), key(b)) || groupByName(a.name, b.name));
}

/**
 * Returns the ids of the slides in a list of numbers; undefined for all. Throws a Failure for numbers that the deck
 * does not have.
 */
export function chosenSlides(deck: Deck, slides: string): string[] | undefined {
  if (!slides.trim()) return undefined;
  return [...new Set(parseRanges(slides, deck.slides.length, deck.properties.title))].map((number) =>
    must(deck.slides[number - 1]?.id),
  );
}

/** Returns what a deck gives to a merge by the typed slide numbers. Throws a Failure when they cannot be read. */
export function gatheredOf(state: { deck: Deck; version: number }, slides: string): MergeSource {
  const chosen = chosenSlides(state.deck, slides);
  return { deck: state.deck, version: state.version, ...(chosen ? { slides: chosen } : {}) };
}

/** Returns what the decks of a list give to a merge; undefined until all are loaded, with the problem where one is. */
export function gatheredFrom(
  list: readonly Listed[],
  states: ReadonlyMap<string, DeckState>,
): { gathered: MergeSource[] | undefined; problem: string | undefined } {
  const all: MergeSource[] = [];
  for (const { id, slides } of list) {
    const state = states.get(id);
    if (!state) return { gathered: undefined, problem: undefined };
    try {
      all.push(gatheredOf(state, slides));
    } catch (error) {
      return { gathered: undefined, problem: `${state.deck.properties.title}: ${(error as Error).message}` };
    }
  }
  return { gathered: all.length ? all : undefined, problem: undefined };
}
