import { merge } from "@unitext/core/divide";
import { apply } from "@unitext/core/edit";
import {
  type Deck,
  deckFor,
  emptyDeck,
  filesOf,
  must,
  newSlide,
  plainText,
  type RecordedVoice,
} from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { translateDeck } from "@unitext/core/translate";
import { idSource } from "@unitext/core/testing";

const voice: RecordedVoice = { source: "voice-1", seconds: 4.2, notesHash: "h" };
const asset = (sum: string) => ({ sha256: sum.repeat(64), mediaType: "audio/webm" as const, width: 1, height: 1 });
const deckOf = (id: string, sum: string): Deck => ({
  ...emptyDeck(id, id),
  assets: { "voice-1": asset(sum) },
  slides: [{ ...newSlide("s", "points"), notes: plainText("Said here."), voice }],
});

describe("a recorded voice", () => {
  it("is put on a slide and taken off again, each time with its inverse", () => {
    const deck = deckOf("d", "a");
    const without = apply(deck, { kind: "setVoice", slide: "s", voice: null });
    expect(must(without.deck.slides[0]).voice).toBeUndefined();
    expect(apply(without.deck, without.inverse).deck).toEqual(deck);
    expect([tally(deck).voices, tally(without.deck).voices]).toEqual([1, 0]);
    expect(filesOf(must(deck.slides[0]), deck)).toEqual(["voice-1"]);
  });

  it("is withheld with the notes that it reads", () => {
    const [slide] = deckFor(deckOf("d", "a"), { notes: false, comments: true }).slides;
    expect(slide).not.toHaveProperty("voice");
    expect(deckFor(deckOf("d", "a"), { notes: true, comments: false }).slides[0]?.voice).toEqual(voice);
  });

  it("stays with its slide when decks whose files have the same name are gathered", () => {
    const { deck } = merge(
      [
        { deck: deckOf("one", "a"), version: 0 },
        { deck: deckOf("two", "b"), version: 0 },
      ],
      { title: "Both", appearance: "keep", sections: false, contents: false, openingsOnce: false },
      { newId: idSource("m"), deckId: () => "merged" },
    );
    const sums = deck.slides.map(({ voice: own }) => deck.assets[own?.source ?? ""]?.sha256[0]);
    expect(sums).toEqual(["a", "b"]);
  });

  it("is left out of a translation, which says so", () => {
    const { deck, adapted } = translateDeck(deckOf("d", "a"), "es", () => undefined);
    expect(deck.slides[0]).not.toHaveProperty("voice");
    expect(adapted).toEqual([
      { slide: 1, what: "the voice recorded for it", how: "left out: it speaks the other language" },
    ]);
  });
});
