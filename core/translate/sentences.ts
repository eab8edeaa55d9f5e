import type { Piece } from "./coded";

/** Abbreviations after which no sentence ends, by language, in lower case and without their last full stop. */
const ABBREVIATIONS: Readonly<Record<string, readonly string[]>> = {
  en: "mr mrs ms dr prof st no nos vs etc e.g i.e cf fig figs eq eqs ch sec vol p pp ed eds approx ca jan feb mar apr jun jul aug sep sept oct nov dec a.m p.m u.s inc ltd co dept est min max".split(
    " ",
  ),
  de: "hr fr dr prof st nr z.b d.h u.a u.ä bzw ca vgl s.o s.u abb tab kap bd hrsg evtl ggf inkl max min mio mrd jan feb mär apr jun jul aug sep sept okt nov dez str usw v.a i.d.r o.ä sog".split(
    " ",
  ),
  fr: "m mm mme mlle dr st p pp fig chap vol cf ex etc éd env av apr janv févr avr juil sept oct nov déc n no art".split(
    " ",
  ),
  es: "sr sra srta dr dra d p pp pág págs fig cap vol cf ej etc ed aprox núm ene feb mar abr jun jul ago sept oct nov dic ee.uu".split(
    " ",
  ),
  it: "sig dott prof p pp pag fig cap vol cfr es ecc ed ca n gen feb mar apr mag giu lug ago set ott nov dic".split(
    " ",
  ),
  nl: "dhr mevr dr prof nr bijv d.w.z enz fig hfdst blz ca o.a m.a.w jan feb mrt apr jun jul aug sep okt nov dec".split(
    " ",
  ),
};

/** The first of the characters that stand for placeholders while sentences are found. */
const FIRST_CODE = 0xe000;

const isCode = (letter: string) => {
  const at = letter.charCodeAt(0);
  return at >= FIRST_CODE && at < FIRST_CODE + 4000;
};

/** Whether a sentence cannot end where a stretch of text ends, by what is before the break and after it. */
function joins(before: string, after: string, language: string): boolean {
  const end = before.replace(/[\s\ue000-\uefff]+$/u, "");
  const next = after.replace(/^[\s\ue000-\uefff]+/u, "");
  if (!end.endsWith(".")) return /[,;:(–-]$/.test(end);
  // SRX 2.0, 5: rules that forbid a break come before those that make one.
  const word =
    /(\S+)\.$/u
      .exec(end)?.[1]
      ?.toLowerCase()
      .replace(/^[("'„“‘«¿¡[]+/u, "") ?? "";
  const list = ABBREVIATIONS[language.slice(0, 2).toLowerCase()] ?? ABBREVIATIONS.en ?? [];
  if (list.includes(word)) return true;
  // A single letter is an initial, as in “J. Tern”, or a part of “z. B.”, but not the unit of “4.6 m.”.
  if (/^\p{L}$/u.test(word)) return !/\d\s*\p{Ll}\.$/u.test(end);
  // An ordinal, as in “3. März”.
  if (/^\d{1,2}$/.test(word) && /^(de|nl|da|nb|fi|cs|pl|hu)/.test(language) && /^\p{L}/u.test(next)) return true;
  return /^\p{Ll}/u.test(next);
}

/** A sentence with what separates it from the next one. */
export interface Sentence {
  pieces: Piece[];
  /** The white space after it. */
  after: string;
}

/**
 * Divides a coded text into sentences (UAX #29 as `Intl.Segmenter` has it, with rules for abbreviations, initials and
 * ordinals by language). A pair of placeholders is never cut.
 */
export function sentencesOf(pieces: readonly Piece[], language: string): Sentence[] {
  const codes: Exclude<Piece, string>[] = [];
  const text = pieces
    .map((piece) => (typeof piece === "string" ? piece : String.fromCharCode(FIRST_CODE + codes.push(piece) - 1)))
    .join("");
  const piecesOf = (part: string): Piece[] => {
    const found: Piece[] = [];
    let words = "";
    for (const letter of part) {
      if (!isCode(letter)) {
        words += letter;
        continue;
      }
      if (words) found.push(words);
      words = "";
      const code = codes[letter.charCodeAt(0) - FIRST_CODE];
      if (code) found.push(code);
    }
    if (words) found.push(words);
    return found;
  };
  const sentences: Sentence[] = [];
  let held = "";
  const segments = [...new Intl.Segmenter(language, { granularity: "sentence" }).segment(text)];
  segments.forEach(({ segment }, nth) => {
    held += segment;
    const rest = segments[nth + 1]?.segment;
    if (rest !== undefined && (joins(held, rest, language) || !balanced(piecesOf(held)))) return;
    const [, words = "", after = ""] = /^([\s\S]*?)(\s*)$/u.exec(held) ?? [];
    held = "";
    const last = sentences.at(-1);
    // What holds no word belongs to the sentence before it.
    if (last && !/[\p{L}\p{N}]/u.test(words)) {
      last.pieces = [...last.pieces, ...(last.after ? [last.after] : []), ...piecesOf(words)];
      last.after = after;
    } else sentences.push({ pieces: piecesOf(words), after });
  });
  return sentences;
}

function balanced(pieces: readonly Piece[]): boolean {
  const open = new Set<number>();
  for (const piece of pieces) {
    if (typeof piece === "string") continue;
    if (piece.at === "open") open.add(piece.code);
    else if (piece.at === "close") open.delete(piece.code);
  }
  return open.size === 0;
}
