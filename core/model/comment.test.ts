import { quoteOf, rangeOfQuote } from "./comment";

const TEXT = "The moon pulls the near side more than the far side. The sun pulls the near side too, but less.";
const on = (words: string, nth = 0) => {
  let start = TEXT.indexOf(words);
  for (let count = 0; count < nth; count++) start = TEXT.indexOf(words, start + 1);
  return quoteOf(TEXT, start, start + words.length);
};
const found = (text: string, quote: ReturnType<typeof on>) => {
  const range = rangeOfQuote(text, quote);
  return range && text.slice(range.start, range.end);
};

describe("words that a comment is on", () => {
  it("are found where they are", () => {
    expect(found(TEXT, on("far side"))).toBe("far side");
  });

  it("are the ones that were meant, where the text has them twice", () => {
    const second = on("the near side", 1);
    expect(rangeOfQuote(TEXT, second)?.start).toBe(TEXT.lastIndexOf("the near side"));
    const moved = `Tides are late. ${TEXT}`;
    expect(rangeOfQuote(moved, second)?.start).toBe(moved.lastIndexOf("the near side"));
    expect(rangeOfQuote(moved, on("the near side"))?.start).toBe(moved.indexOf("the near side"));
  });

  it("are followed when text comes before and after them", () => {
    expect(found(`As everybody knows: ${TEXT} And so on.`, on("far side"))).toBe("far side");
  });

  it("are followed when they are reworded", () => {
    const now = TEXT.replace("the near side more than", "the side that faces it harder than");
    expect(found(now, on("the near side more than"))).toBe("the side that faces it harder than");
  });

  it("are followed when a part of them is left in another place", () => {
    expect(found("In short: pulls the near side more than anything.", on("The moon pulls the near side more"))).toBe(
      "pulls the near side more",
    );
  });

  it("are gone when nothing like them is there", () => {
    expect(found("Dunes begin with a plant.", on("far side"))).toBeUndefined();
    expect(found("", on("far side"))).toBeUndefined();
  });

  it("are whole characters of any script", () => {
    const text = "潮は一日に二度満ちる。🌊 月が引く。";
    const start = text.indexOf("🌊");
    expect(rangeOfQuote(`まず、${text}`, quoteOf(text, start, start + 2))).toEqual({
      start: start + 3,
      end: start + 5,
    });
  });
});
