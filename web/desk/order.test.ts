import type { DeckRow } from "@unitext/server/api";
import { sorted } from "./order";

const row = (title: string, slides: number, changedAt: string) =>
  ({ id: title, title, slides, changedAt, seconds: slides * 10, language: "en" }) as DeckRow;
const rows = [row("Day 10", 4, "2026-03-01"), row("Day 2", 9, "2026-03-03"), row("Tides", 4, "2026-03-02")];
const titles = (list: readonly DeckRow[]) => list.map(({ title }) => title);

it("decks are sorted by date, by name as people count, and by numbers, either way round", () => {
  expect(titles(sorted(rows, "changed", false))).toEqual(["Day 2", "Tides", "Day 10"]);
  expect(titles(sorted(rows, "title", false))).toEqual(["Day 2", "Day 10", "Tides"]);
  expect(titles(sorted(rows, "slides", false))).toEqual(["Day 2", "Day 10", "Tides"]);
  expect(titles(sorted(rows, "slides", true))).toEqual(["Day 10", "Tides", "Day 2"]);
});
