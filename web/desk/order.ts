import type { DeckRow } from "@unitext/server/api";

/** The columns by which the Desk is sorted. */
export const ORDERS = {
  changed: { label: "Changed", compare: (a, b) => b.changedAt.localeCompare(a.changedAt) },
  title: { label: "Deck", compare: (a, b) => a.title.localeCompare(b.title, undefined, { numeric: true }) },
  slides: { label: "Slides", compare: (a, b) => b.slides - a.slides },
  seconds: { label: "Minutes", compare: (a, b) => b.seconds - a.seconds },
  language: { label: "Language", compare: (a, b) => a.language.localeCompare(b.language) },
} as const satisfies Record<string, { label: string; compare: (a: DeckRow, b: DeckRow) => number }>;
export type Order = keyof typeof ORDERS;

/** Returns decks in an order; `turned` is the other way round. Those that are equal stay as they were. */
export function sorted(rows: readonly DeckRow[], order: Order, turned: boolean): DeckRow[] {
  const { compare } = ORDERS[order];
  return [...rows].sort((a, b) => (turned ? -compare(a, b) : compare(a, b)));
}
