import { type Deck, emptyDeck, newSlide, plainText, type Slide } from "@unitext/core/model";
import { lengthOf, spokenRate } from "./rehearsal";

const said = (id: string, words: number, more: Partial<Slide> = {}): Slide => ({
  ...newSlide(id, "points"),
  notes: plainText(Array.from({ length: words }, () => "word").join(" ")),
  ...more,
});
const deck = (slides: Slide[]): Deck => ({ ...emptyDeck("d", "Talk"), rate: 120, slides });

describe("what a rehearsal tells", () => {
  it("is the words a minute of the notes that were spoken, once there are enough of them", () => {
    const slides = [said("a", 60), said("b", 40), said("c", 50), said("d", 200)];
    const spent = new Map([
      ["a", 30],
      ["b", 20],
      ["c", 25],
      ["d", 1],
    ]);
    expect(spokenRate(slides, spent)).toBe(120);
    expect(spokenRate(slides, new Map([["a", 30]]))).toBeUndefined();
  });

  it("is which slides to shorten for a target: the longest, and none where the talk fits", () => {
    const talk = deck([
      said("a", 20),
      said("b", 240),
      said("c", 20),
      said("x", 400, { parent: "b" }),
      said("h", 400, { hidden: true }),
    ]);
    const { seconds, over, longest } = lengthOf(talk, new Map([["a", 30]]), 100);
    // 30 s as rehearsed, 240 words and 20 words at 120 a minute: 120 s and 10 s. Details and hidden slides are not counted.
    expect([seconds, over, longest.map(({ slide }) => slide.id)]).toEqual([160, 60, ["b"]]);
    expect(lengthOf(talk, new Map(), 600).longest).toEqual([]);
  });
});
