import {
  type Deck,
  type Element,
  emptyDeck,
  metadataOf,
  newSlide,
  type Paragraph,
  type TextStyle,
  must,
} from "@unitext/core/model";

import { shippedFonts } from "@unitext/core/testing/fonts";
import { drawableCharacter, isSymbolFont, symbolsAsText } from "./symbols";
import { faceFor, familyNamed, facesNeeded, layoutSlide, leavesOf } from "./index";

const fonts = shippedFonts();
const style: TextStyle = [{ run: { size: 20, font: "Arimo", colour: "#000000" } }];
const metadata = { ...metadataOf({ ...emptyDeck("d", "D"), slides: [] } as Deck), styles: { s: style } };
const slideWith = (text: Paragraph[]) => ({
  ...newSlide("s", "blank"),
  elements: [
    {
      kind: "text",
      id: "b",
      slot: null,
      frame: { x: 0, y: 0, width: 400, height: 300 },
      style: "s",
      box: { insets: [0, 0, 0, 0] },
      text,
    } as Element,
  ],
});
const runsOf = (text: Paragraph[]) =>
  leavesOf(layoutSlide(slideWith(text), { metadata, number: 1, fonts }).nodes).flatMap((node) =>
    node.kind === "text" ? node.lines.flatMap(({ runs }) => runs) : [],
  );
const item = (sign: string, font: string | undefined, words = "word"): Paragraph => ({
  kind: "bullet",
  level: 0,
  properties: { bullet: { character: sign, ...(font ? { font } : {}) } },
  runs: [{ text: words }],
});

describe("signs of fonts that have signs in the place of letters", () => {
  // The signs that lists usually have (common practice, no source); their characters by The Unicode Standard 7.0, which took in the signs of these fonts.
  it.each([
    ["Wingdings", "§", "▪"],
    ["Wingdings", "\uF0A7", "▪"],
    ["Wingdings", "v", "❖"],
    ["Wingdings", "q", "❑"],
    ["Wingdings", "ü", "✓"],
    ["Wingdings", "\uF0FC", "✓"],
    ["Wingdings", "Ø", "⮚"],
    ["Wingdings", "n", "◼"],
    ["Wingdings", "l", "⚫"],
    ["Wingdings", "\uF0E0", "🡪"],
    ["Symbol", "\uF0B7", "•"],
    ["Symbol", "b", "β"],
    ["WINGDINGS", "v", "❖"],
    ["Arial", "v", "v"],
    ["Arial", "•", "•"],
    [undefined, "–", "–"],
  ])("of %s, %s is drawn as %s", (font, sign, wanted) => {
    expect(drawableCharacter(sign, font)).toBe(wanted);
  });

  it("of a private area that nobody knows are drawn as a round one, not as an empty box", () => {
    expect(drawableCharacter("\uE00A", "StarSymbol")).toBe("•");
    expect(drawableCharacter("\uE00C", undefined)).toBe("•");
  });

  it("are drawn by a face that has them", () => {
    for (const sign of ["▪", "❖", "❑", "✓", "⮚", "◼", "⚫", "🡪", "•"]) {
      const code = must(sign.codePointAt(0));
      const { id } = faceFor(familyNamed("Noto Sans"), code, false, false, "");
      expect(fonts.face(id).word(sign, false, "en").glyphs[0]).toBeGreaterThan(0);
    }
  });

  it("stand before items and in words; what the file says stays", () => {
    const text = [
      item("§", "Wingdings"),
      {
        kind: "plain",
        level: 0,
        runs: [{ text: "high " }, { text: "à", properties: { font: "Wingdings" } }, { text: " low" }],
      } satisfies Paragraph,
    ];
    const runs = runsOf(text);
    expect(runs.filter(({ marker }) => marker).map(({ text: words }) => words)).toEqual(["▪"]);
    expect(
      runs
        .filter(({ marker }) => !marker)
        .map(({ text: words }) => words)
        .join(""),
    ).toBe("wordhigh 🡪 low");
    expect(symbolsAsText("à", "Arial")).toBe("à");
  });

  it("have their faces loaded before they are drawn", () => {
    const needed = facesNeeded([slideWith([item("v", "Wingdings")])], metadata);
    expect(needed).toContain(faceFor(familyNamed("Noto Sans"), must("❖".codePointAt(0)), false, false, "").id);
  });

  it("are known by the names of their fonts", () => {
    expect(["Wingdings", "Wingdings 2", "Webdings", "Symbol", "StarSymbol", "Zapf Dingbats"].every(isSymbolFont)).toBe(
      true,
    );
    expect(["Arial", "Noto Sans", undefined].some(isSymbolFont)).toBe(false);
  });
});

// Common practice, no source: an empty line of a list has no sign.
describe("an item without words", () => {
  it("has no sign, and the numbers around it go on", () => {
    const markers = (text: Paragraph[]) =>
      runsOf(text)
        .filter(({ marker }) => marker)
        .map(({ text: words }) => words);
    expect(markers([item("•", undefined), item("•", undefined, ""), item("•", undefined)])).toEqual(["•", "•"]);
    const number = (words: string): Paragraph => ({
      kind: "number",
      level: 0,
      properties: { bullet: { scheme: "1." } },
      runs: [{ text: words }],
    });
    expect(markers([number("one"), number(""), number("two")])).toEqual(["1.", "3."]);
  });
});
