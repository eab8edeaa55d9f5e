import { type RichText, joinRuns, run } from "@unitext/core/model";

const NUMBER_OF: Record<string, string> = {
  en: "of",
  de: "von",
  es: "de",
  fr: "sur",
  it: "di",
  pt: "de",
  nl: "van",
  da: "af",
  sv: "av",
  nb: "av",
  fi: "/",
  pl: "z",
  cs: "z",
  el: "από",
  ru: "из",
  uk: "з",
  tr: "/",
  ar: "من",
  he: "מתוך",
};
const numberFormats = new Map<string, Intl.NumberFormat>();

function numberFormat(language: string): Intl.NumberFormat {
  let format = numberFormats.get(language);
  if (!format) numberFormats.set(language, (format = new Intl.NumberFormat(language)));
  return format;
}

const numberedOnce = new WeakMap<RichText, Map<string, RichText>>();

/**
 * Returns a title with its number among the slides that it continues over, in the deck's language. Cached: the same
 * title and number give the same object.
 */
export function titleWithNumber(title: RichText | null, nth: number, count: number, language: string): RichText | null {
  if (!title || count < 2) return title;
  const held = numberedOnce.get(title) ?? new Map<string, RichText>();
  numberedOnce.set(title, held);
  const key = `${nth}/${count}/${language}`;
  const made = held.get(key) ?? withNumber(title, nth, count, language);
  held.set(key, made);
  return made;
}

function withNumber(title: RichText, nth: number, count: number, language: string): RichText {
  const digits = numberFormat(language);
  const word = NUMBER_OF[language.slice(0, 2).toLowerCase()] ?? "/";
  const text =
    word === "/"
      ? `${digits.format(nth)}/${digits.format(count)}`
      : `${digits.format(nth)} ${word} ${digits.format(count)}`;
  return title.map((paragraph, at) =>
    at === title.length - 1 ? { ...paragraph, runs: joinRuns([...paragraph.runs, run(` (${text})`)]) } : paragraph,
  );
}
