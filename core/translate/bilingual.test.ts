import { tailorDeck } from "@unitext/core/divide";
import { must, plainText, textOf } from "@unitext/core/model";
import { everything, idSource } from "@unitext/core/testing";
import { joinPieces, pairSlides, pseudoTranslation, translateDeck, withNotesOf } from "./index";

describe("a deck with the notes of another language", () => {
  const english = everything({});
  const made = translateDeck(english, "de", ({ source }) => ({
    pieces: joinPieces(pseudoTranslation(source, "de")),
    state: "reviewed",
  })).deck;
  const german = tailorDeck({ deck: made, version: 1 }, "german", "German", idSource("g"));
  const notesOf = (deck: typeof english) => deck.slides.map(({ notes }) => textOf(notes));

  it("has its own slides and the notes of the other, either way", () => {
    const forGermans = withNotesOf(english, german, "other");
    expect(notesOf(forGermans)).toEqual(notesOf(german));
    expect(forGermans.slides.map(({ elements }) => elements)).toEqual(english.slides.map(({ elements }) => elements));
    expect(notesOf(withNotesOf(german, english, "other"))).toEqual(notesOf(english));
  });

  it("has both, its own first, and names the language of the other", () => {
    const spoken = must(english.slides.find(({ notes }) => notes.length > 0));
    const both = must(withNotesOf(english, german, "both").slides.find(({ id }) => id === spoken.id));
    expect(both.notes.slice(0, spoken.notes.length)).toEqual(spoken.notes);
    expect(both.notes.at(-1)?.runs.every(({ properties }) => properties?.language === "de")).toBe(true);
  });

  it("keeps its own notes on a slide that the other does not have", () => {
    const own = { ...must(english.slides[0]), id: "only-here", notes: plainText("Only here") };
    const longer = { ...english, slides: [own, ...english.slides] };
    expect(textOf(must(withNotesOf(longer, german, "other").slides[0]).notes)).toBe("Only here");
  });

  it("is paired with it slide by slide, also where one of them has a slide of its own", () => {
    const numbers = (left: typeof english, right: typeof english) =>
      pairSlides(left, right).map((pair) => [
        pair.left ? left.slides.indexOf(pair.left) : null,
        pair.right ? right.slides.indexOf(pair.right) : null,
      ]);
    const all = english.slides.map((_, nth) => [nth, nth]);
    expect(numbers(english, german)).toEqual(all);
    const own = { ...must(german.slides[0]), id: "only-here" };
    const { origin: _, ...added } = own;
    const longer = { ...german, slides: [must(german.slides[0]), added, ...german.slides.slice(1)] };
    expect(numbers(english, longer).slice(0, 3)).toEqual([
      [0, 0],
      [null, 1],
      [1, 2],
    ]);
    expect(numbers(longer, english).slice(0, 3)).toEqual([
      [0, 0],
      [1, null],
      [2, 1],
    ]);
  });
});
