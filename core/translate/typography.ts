import type { TranslationFinding } from "./findings";
import { languageOfTag } from "./languagetag";

/**
 * The quotation marks of languages, outer before inner (CLDR, delimiters; from memory, with further pairs that are in common
 * use).
 */
const QUOTATION: Readonly<Record<string, string>> = {
  ar: "“”«»‘’",
  cs: "„“‚‘»«",
  da: "”“„»«’",
  de: "„“‚‘»«›‹",
  en: "“”‘’",
  es: "«»“”‘’",
  fi: "”’»",
  fr: "«»‹›“”",
  he: "”“„״",
  hu: "„”»«",
  it: "«»“”",
  ja: "「」『』“”",
  ko: "“”‘’",
  nb: "«»‘’“”",
  nl: "“”‘’„",
  pl: "„”«»‚’",
  pt: "“”«»‘’",
  ru: "«»„“",
  sv: "”’»",
  zh: "“”‘’「」『』",
};
const ANY_QUOTATION = /["“”„«»「」『』]/gu;

/** Languages in which certain marks stand apart from the word before them (Imprimerie nationale; common practice). */
const SPACED_MARKS = new Set(["fr"]);
const HAN = new Set(["zh", "ja"]);
/** Languages whose letters have no capitals, or whose sentences are much shorter than those in Latin letters. */
const COMPACT = new Set(["zh", "ja", "ko", "th"]);
/** Unit symbols, which all languages written in Latin letters share (SI Brochure, section 5). */
const UNIT =
  /(\d)[ \u00A0\u202F]?(%|‰|°C|°|km²|m²|km|cm|mm|µm|nm|m|kg|mg|g|hPa|kPa|MPa|Pa|kHz|MHz|GHz|Hz|kW|MW|W|kV|V|kJ|J|N|l|ml|h|min|s|ms|€|\$|£)(?![\p{L}\d])/gu;

interface Words {
  source: string;
  target: string;
  from: string;
  to: string;
}

const marksOf = (text: string): readonly string[] => text.match(ANY_QUOTATION) ?? [];

function quotation({ source, target, to }: Words): TranslationFinding[] {
  const own = QUOTATION[languageOfTag(to)];
  if (!own) return [];
  const straight = marksOf(source).includes('"');
  const foreign = [...new Set(marksOf(target).filter((mark) => !own.includes(mark) && !(mark === '"' && straight)))];
  if (!foreign.length) return [];
  return [
    {
      fault: "quotation",
      sentence: `“${foreign.join("")}” is no quotation mark of this language; it has ${own.slice(0, 2)}.`,
    },
  ];
}

function spacing({ source, target, to }: Words): TranslationFinding[] {
  const language = languageOfTag(to);
  if (SPACED_MARKS.has(language)) {
    const tight = /[\p{L}\p{N})»]([;!?])(?=\s|$)|\p{L}(:)(?=\s|$)|«(\p{L})|\p{L}(»)/u.exec(target);
    const mark = tight?.[1] ?? tight?.[2] ?? (tight?.[3] ? "«" : tight?.[4]);
    return mark ? [{ fault: "spacing", sentence: `“${mark}” stands apart from its word by a narrow space.` }] : [];
  }
  if (HAN.has(language)) {
    const narrow = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]([,;:?!])/u.exec(target)?.[1];
    return narrow ? [{ fault: "spacing", sentence: `“${narrow}” after an ideograph has a full-width form.` }] : [];
  }
  const apart = /\s[,;:!?](?=\s|$)/u.exec(target)?.[0];
  return apart && !/\s[,;:!?](?=\s|$)/u.test(source)
    ? [{ fault: "spacing", sentence: `There is a space before “${apart.trim()}”.` }]
    : [];
}

function openingMarks({ target, to }: Words): TranslationFinding[] {
  if (languageOfTag(to) !== "es") return [];
  for (const [open, close] of ["¿?", "¡!"] as const)
    if ((target.split(close as string).length ?? 0) > target.split(open as string).length)
      return [{ fault: "spacing", sentence: `A sentence that ends with “${close}” begins with “${open}”.` }];
  return [];
}

const firstLetter = (text: string) => /\p{L}/u.exec(text)?.[0] ?? "";
const isCapital = (letter: string) => letter !== letter.toLowerCase() && letter === letter.toUpperCase();
const hasCase = (letter: string) => letter.toLowerCase() !== letter.toUpperCase();

function capitals({ source, target }: Words): TranslationFinding[] {
  const [was, is] = [firstLetter(source), firstLetter(target)];
  if (!was || !is || !hasCase(is)) return [];
  const shouts = (text: string) => /\p{Lu}{4}/u.test(text) && text === text.toUpperCase();
  if (shouts(target) && !shouts(source))
    return [{ fault: "capitals", sentence: "The translation is all in capitals." }];
  return isCapital(was) && !isCapital(is)
    ? [{ fault: "capitals", sentence: `The source begins with a capital letter, the translation with “${is}”.` }]
    : [];
}

function lengths({ source, target, from, to }: Words): TranslationFinding[] {
  if (COMPACT.has(languageOfTag(from)) !== COMPACT.has(languageOfTag(to))) return [];
  const [was, is] = [[...source.trim()].length, [...target.trim()].length];
  if (was < 12) return [];
  const longer = is > was * 2;
  // Twice as long, or less than half (common practice, no source).
  return longer || is < was * 0.45
    ? [
        {
          fault: "length",
          sentence: `The translation is ${longer ? "more than twice" : "less than half"} as long as the source.`,
        },
      ]
    : [];
}

function units({ source, target }: Words): TranslationFinding[] {
  if (!/\p{Script=Latin}/u.test(target)) return [];
  const unitsIn = (text: string) => [...text.matchAll(UNIT)].map(([, , unit]) => unit);
  const left = unitsIn(target);
  const missed = unitsIn(source).filter((unit) => {
    const at = left.indexOf(unit);
    if (at >= 0) left.splice(at, 1);
    return at < 0;
  });
  return missed.length ? [{ fault: "unit", sentence: `The unit “${missed[0]}” of the source is missing here.` }] : [];
}

/** The checks of what a language asks of its marks, spaces, letters and units. */
export const TYPOGRAPHY: readonly ((words: Words) => TranslationFinding[])[] = [
  units,
  quotation,
  spacing,
  openingMarks,
  capitals,
  lengths,
];
