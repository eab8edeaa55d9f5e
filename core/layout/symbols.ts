import { codePoint } from "dingbat-to-unicode";
import { FAMILIES } from "./fonts";

const SYMBOL_FONT = /symbol|wingding|webding|dingbat/i;
/** Whether a font has signs where others have letters. */
export const isSymbolFont = (font: string | undefined): font is string => font !== undefined && SYMBOL_FONT.test(font);

const drawable = new Map<number, boolean>();
function isDrawn(code: number): boolean {
  const known = drawable.get(code) ?? FAMILIES.some(({ faces }) => faces.some(({ covers }) => covers(code)));
  drawable.set(code, known);
  return known;
}

function standsFor(letter: string, font: string): string {
  const code = letter.codePointAt(0) as number;
  // Files write the signs of such fonts by their place in the font, from U+F000 on or without it.
  return codePoint(font, code >= 0xf000 && code <= 0xf0ff ? code - 0xf000 : code)?.string ?? letter;
}

/** Text in a font of signs as the characters that its signs stand for (the mapping of dingbat-to-unicode, which follows Unicode 7.0); other text as it is. */
export function symbolsAsText(text: string, font: string | undefined): string {
  return isSymbolFont(font) ? Array.from(text, (letter) => standsFor(letter, font)).join("") : text;
}

/** The sign before an item as the shipped faces draw it: one that none of them has, as those of a font's private area, is a round one. */
export function drawableCharacter(sign: string, font: string | undefined): string {
  return Array.from(symbolsAsText(sign, font), (letter) =>
    isDrawn(letter.codePointAt(0) as number) ? letter : "•",
  ).join("");
}
