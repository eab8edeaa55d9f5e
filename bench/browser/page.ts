import { type Deck, must } from "@unitext/core/model";
import type { Page } from "@playwright/test";
import type { Row } from "../core";
import { deckOf } from "../material";

export const ADDRESS = process.env.UNITEXT_ADDRESS ?? "http://127.0.0.1:4280";

/** Stores a deck of as many slides. Returns its id. */
export const make = (page: Page, slides: number) => store(page, deckOf(slides));

/** Stores a deck. Returns its id. */
export async function store(page: Page, made: Deck): Promise<string> {
  const deck = { ...made, id: `bench-${made.slides.length}-${Math.floor(performance.now())}` };
  const response = await page.request.post(`${ADDRESS}/api/files?name=bench.json`, {
    headers: { "content-type": "application/octet-stream" },
    data: Buffer.from(JSON.stringify({ format: "unitext-deck", version: 1, deck, blobs: {} })),
  });
  return ((await response.json()) as { id: string }).id;
}

export async function remove(page: Page, deck: string): Promise<void> {
  await page.request.delete(`${ADDRESS}/api/decks/${deck}`);
}

/** A measured value that must not be above its target. */
export const atMost = (name: string, value: number, target: number, unit: string): Row => ({
  name,
  ratio: Math.round(value * 10) / 10,
  target,
  holds: value <= target,
  unit,
});

/** The median of three values. */
export const middle = (list: readonly number[]): number => must([...list].sort((a, b) => a - b)[1]);
