import { emptyDeck } from "@unitext/core/model";
import { isSpokenByCharacters, translateDeck, translatedRate } from "./index";

describe("the speaking rate of a translation", () => {
  // Trauzettel-Klosinski and Dietz 2012: 228 words in English and 179 in German a minute, 255 characters in Chinese.
  it("is slower or faster as readers of its language are", () => {
    expect(translatedRate(130, "en", "de")).toBe(Math.round((130 * 179) / 228));
    expect(translatedRate(130, "en-GB", "zh-Hant") * 2).toBe(2 * Math.round((130 * 255) / 2 / 228));
    expect(translatedRate(translatedRate(130, "en", "es"), "es", "en")).toBe(130);
  });
  it("stays where nothing is known of a language, and within what a deck may have", () => {
    expect(translatedRate(130, "en", "cy")).toBe(130);
    expect(translatedRate(400, "ar", "en")).toBe(400);
  });
  it("is that of the translated deck, counted in characters in Chinese and Japanese", () => {
    const deck = emptyDeck("d", "Deck");
    expect(translateDeck(deck, "ja", () => undefined).deck.rate).toBe(translatedRate(deck.rate, deck.language, "ja"));
    expect(["zh", "ja-JP", "ko", "en"].map(isSpokenByCharacters)).toEqual([true, true, false, false]);
  });
});
