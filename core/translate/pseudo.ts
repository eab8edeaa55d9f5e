import type { Piece } from "./coded";

/** Letters with accents, by which a text stays readable and shows that every letter of the font is there. */
const ACCENTED: Readonly<Record<string, string>> = {
  a: "á",
  e: "é",
  i: "í",
  o: "ö",
  u: "ü",
  y: "ý",
  c: "ç",
  n: "ñ",
  s: "š",
  z: "ž",
  A: "Å",
  E: "É",
  I: "Î",
  O: "Ø",
  U: "Û",
  C: "Ç",
  N: "Ñ",
  S: "Š",
  Z: "Ž",
};

/** Letters of Arabic and Hebrew in the places of Latin ones, to see a deck from right to left before it is translated. */
const SCRIPTS: Readonly<Record<string, string>> = {
  ar: "ابتثجحخدذرزسشصضطظعغفقكلمنهو",
  he: "אבגדהוזחטיכלמנסעפצקרשת",
};
const RIGHT_TO_LEFT = /^(ar|fa|ur|he|yi)\b/i;

/** How much longer translations from English commonly are (common practice, no source). */
const LONGER = 0.3;

function lettered(text: string, letters: string): string {
  return text.replace(
    /[a-z]/gi,
    (letter) => letters[(letter.toLowerCase().charCodeAt(0) - 97) % letters.length] ?? letter,
  );
}

/**
 * Returns a text that stands for its translation: longer and with accents, or in the letters of a language that is
 * written from right to left. Placeholders and numbers stay. It shows what will not fit before anybody translates.
 */
export function pseudoTranslation(source: readonly Piece[], language: string): Piece[] {
  const letters = RIGHT_TO_LEFT.test(language) ? (SCRIPTS[/^(he|yi)/i.test(language) ? "he" : "ar"] ?? "") : "";
  let owed = 0;
  const pieces = source.map((piece): Piece => {
    if (typeof piece !== "string") return piece;
    if (letters) return lettered(piece, letters);
    return piece.replace(/\p{L}/gu, (letter) => {
      const next = ACCENTED[letter] ?? letter;
      owed += LONGER;
      // Vowels are drawn out, so that words and lines grow as they would.
      if (owed < 1 || !/[aeiouy]/i.test(letter)) return next;
      owed -= 1;
      return next + next.toLowerCase();
    });
  });
  return letters ? pieces : ["⟦", ...pieces, "⟧"];
}
