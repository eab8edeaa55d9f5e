import { must } from "@unitext/core/model";
import { codePoint } from "dingbat-to-unicode";
import { FAMILIES } from "./fonts";

const SYMBOL_FONT = /symbol|wingding|webding|dingbat/i;
/** Whether a font has symbols in place of letters. */
export const isSymbolFont = (font: string | undefined): font is string => font !== undefined && SYMBOL_FONT.test(font);

const drawable = new Map<number, boolean>();
function isDrawn(code: number): boolean {
  const known = drawable.get(code) ?? FAMILIES.some(({ faces }) => faces.some(({ covers }) => covers(code)));
  drawable.set(code, known);
  return known;
}

function standsFor(letter: string, font: string): string {
  const code = must(letter.codePointAt(0));
  // Files write the characters of symbol fonts by their code in the font, with or without U+F000 added.
  return codePoint(font, code >= 0xf000 && code <= 0xf0ff ? code - 0xf000 : code)?.string ?? letter;
}

/**
 * Returns text in a symbol font as the characters that its symbols stand for (the mapping of dingbat-to-unicode, which
 * follows Unicode 7.0); other text unchanged.
 */
export function symbolsAsText(text: string, font: string | undefined): string {
  return isSymbolFont(font) ? Array.from(text, (letter) => standsFor(letter, font)).join("") : text;
}

/**
 * Returns a bullet that the shipped faces can draw; characters that none of them has, such as those of private areas,
 * become a round bullet.
 */
export function drawableCharacter(sign: string, font: string | undefined): string {
  return Array.from(symbolsAsText(sign, font), (letter) => (isDrawn(must(letter.codePointAt(0))) ? letter : "•")).join(
    "",
  );
}
