import {
  type Deck,
  elementWords,
  emptyDeck,
  must,
  newSlide,
  plainText,
  quoteOf,
  rangeOfQuote,
} from "@unitext/core/model";
import { translateDeck, wordsOf } from ".";

const TEXT = "The tide is late. The moon is the reason.\nLow water is at noon.";
const GERMAN: Record<string, string> = {
  "The tide is late.": "Die Flut kommt spät.",
  "The moon is the reason.": "Der Grund ist der Mond.",
  "Low water is at noon.": "Niedrigwasser ist am Mittag.",
};

/** Returns a deck with a comment on some words of its text. */
function commented(words: string): Deck {
  const start = TEXT.indexOf(words);
  const comment = {
    id: "c1",
    author: "A",
    text: "Why?",
    element: "t",
    quote: quoteOf(TEXT, start, start + words.length),
  };
  const slide = {
    ...newSlide("a", "points"),
    elements: [{ kind: "text" as const, id: "t", slot: "body", text: plainText(TEXT) }],
    comments: [comment],
  };
  return { ...emptyDeck("d", "Tides"), slides: [slide] };
}
/** Returns the words on which the comment is after a translation into German. */
function quotedIn(deck: Deck): string | undefined {
  const [slide] = translateDeck(deck, "de", ({ source }) => ({
    pieces: [GERMAN[wordsOf(source)] ?? ""],
    state: "draft",
  })).deck.slides;
  const words = elementWords(must(slide?.elements[0]));
  const range = rangeOfQuote(words, must(slide?.comments?.[0]?.quote));
  return range && words.slice(range.start, range.end);
}

it.each([
  ["moon", "Der Grund ist der Mond."],
  ["is late. The moon", "Die Flut kommt spät. Der Grund ist der Mond."],
  ["noon", "Niedrigwasser ist am Mittag."],
])("a comment on “%s” is on the translation of its sentences", (words, wanted) => {
  expect(quotedIn(commented(words))).toBe(wanted);
});

it("a comment on what stays untranslated keeps its words", () => {
  const [slide] = translateDeck(commented("noon"), "de", () => undefined).deck.slides;
  expect(slide?.comments?.[0]?.quote?.exact).toBe("noon");
});
