import { emptyDeck, newSlide } from "@unitext/core/model";
import type { DeckRow } from "@unitext/server/api";
import { chosenSlides, found, gatheredOf, ordered } from "./list";

const row = (title: string, file: string | null = null): DeckRow => ({
  id: title,
  title,
  file,
  language: "en",
  slides: 3,
  seconds: 30,
  withoutNotes: 0,
  version: 0,
  changedAt: "2026-11-25T00:00:00.000Z",
  right: "own",
  generated: false,
  folder: null,
  binnedAt: null,
  notes: true,
  owner: null,
});
const rows = ["TB2-10-Avocet", "TB2-2-Wigeon", "TB3-01-Heron", "Course"].map((title) => row(title));

describe("gathering decks by their names", () => {
  it("finds by a pattern whose parts become columns, or by words anywhere", () => {
    expect(found(rows, "tb2-*-*").map(({ row: { title }, parts }) => [title, ...parts])).toEqual([
      ["TB2-10-Avocet", "10", "Avocet"],
      ["TB2-2-Wigeon", "2", "Wigeon"],
    ]);
    expect(found(rows, "heron").map(({ row: { title }, parts }) => [title, parts.length])).toEqual([
      ["TB3-01-Heron", 0],
    ]);
    expect(found(rows, " ")).toHaveLength(4);
    expect(found(rows, "X*")).toEqual([]);
  });

  it("finds and orders by the names of files too, whatever titles stand in them", () => {
    const handed = [row("Presentation", "TB2-3-Curlew"), ...rows, row("Tides of TB2", "TB4-1-Knot")];
    expect(
      ordered(found(handed, "TB2-*-*"), 0).map(({ name, parts, row: { title } }) => [name, title, ...parts]),
    ).toEqual([
      ["TB2-2-Wigeon", "TB2-2-Wigeon", "2", "Wigeon"],
      ["TB2-3-Curlew", "Presentation", "3", "Curlew"],
      ["TB2-10-Avocet", "TB2-10-Avocet", "10", "Avocet"],
    ]);
    expect(found(handed, "tb2").map(({ name }) => name)).toEqual([
      "TB2-3-Curlew",
      "TB2-10-Avocet",
      "TB2-2-Wigeon",
      "Tides of TB2",
    ]);
  });

  it("orders by a part as people count, or by the name", () => {
    const list = found(rows, "TB*-*-*");
    expect(ordered(list, 1).map(({ row: { title } }) => title)).toEqual([
      "TB3-01-Heron",
      "TB2-2-Wigeon",
      "TB2-10-Avocet",
    ]);
    expect(ordered(list, 2).map(({ parts }) => parts[2])).toEqual(["Avocet", "Heron", "Wigeon"]);
    expect(ordered(found(rows, ""), "name").map(({ row: { title } }) => title)).toEqual([
      "Course",
      "TB2-2-Wigeon",
      "TB2-10-Avocet",
      "TB3-01-Heron",
    ]);
  });

  it("takes all slides, or those typed, each once and in that order", () => {
    const deck = { ...emptyDeck("d", "Deck"), slides: ["a", "b", "c"].map((id) => newSlide(id, "points")) };
    expect(chosenSlides(deck, " ")).toBeUndefined();
    expect(chosenSlides(deck, "3, 1-2, 3")).toEqual(["c", "a", "b"]);
    expect(() => chosenSlides(deck, "4")).toThrow(expect.objectContaining({ where: "Deck" }));
    expect(gatheredOf({ deck, version: 4 }, "2")).toEqual({ deck, version: 4, slides: ["b"] });
    expect(gatheredOf({ deck, version: 4 }, "")).toEqual({ deck, version: 4 });
  });
});
