/** The decimal and grouping separators of a language. */
interface Signs {
  decimal: string;
  group: string;
}

const known = new Map<string, Signs>();
function signsOf(language: string): Signs {
  let signs = known.get(language);
  if (!signs) {
    const parts = new Intl.NumberFormat(language, { useGrouping: true }).formatToParts(1234567.5);
    const sign = (type: string) => parts.find((part) => part.type === type)?.value ?? "";
    signs = { decimal: sign("decimal") || ".", group: sign("group") };
    known.set(language, signs);
  }
  return signs;
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** Spaces that group digits: the plain space, the no-break space and the narrow no-break space. */
const SPACES = "[ \\u00a0\\u202f\\u2009]";
const groupPattern = (group: string) => (/^\s$/u.test(group) ? SPACES : group === "’" ? "[’']" : escaped(group));

/** Returns a pattern that finds numbers as a language writes them, with their sign. */
function numberPattern(language: string): RegExp {
  const { decimal, group } = signsOf(language);
  const grouped = group ? `\\d{1,3}(?:${groupPattern(group)}\\d{3})+` : "";
  return new RegExp(
    `(?<![\\p{L}\\d.,_])(?:${[grouped, "\\d+"].filter(Boolean).join("|")})(?:${escaped(decimal)}\\d+)?(?![\\p{L}\\d])`,
    "gu",
  );
}

/** A number that is written in a text: its value, how many decimals it shows, and where it is. */
export interface WrittenNumber {
  value: number;
  decimals: number;
  grouped: boolean;
  text: string;
  from: number;
}

/** Returns the numbers in a text as its language writes them; dates, versions and the like are not numbers. */
export function numbersIn(text: string, language: string): WrittenNumber[] {
  const { decimal, group } = signsOf(language);
  return [...text.matchAll(numberPattern(language))].flatMap(({ 0: found, index }) => {
    // A part of a date, a time, a version or an address.
    const [before, after] = [
      text.slice(Math.max(0, index - 1), index),
      text.slice(index + found.length, index + found.length + 2),
    ];
    if (/[:/\\@#_-]/.test(before) && /\d/.test(text.slice(Math.max(0, index - 2), index - 1))) return [];
    if (/^(?:[.:/_-]\d|@)/.test(after)) return [];
    const grouped = group !== "" && new RegExp(groupPattern(group)).test(found);
    const bare = grouped ? found.replace(new RegExp(groupPattern(group), "g"), "") : found;
    const [whole = "", fraction = ""] = bare.split(decimal);
    return [
      { value: Number(`${whole}.${fraction || 0}`), decimals: fraction.length, grouped, text: found, from: index },
    ];
  });
}

/** Writes a number as another language does, with the same number of decimals. */
function written({ value, decimals, grouped, text }: WrittenNumber, language: string): string {
  // Codes such as 007 and years keep their digits.
  if (!decimals && !grouped) return text;
  return new Intl.NumberFormat(language, {
    minimumFractionDigits: decimals,
    maximumFractionDigits: decimals,
    useGrouping: grouped,
    numberingSystem: "latn",
  }).format(value);
}

/** Returns a text with its numbers as another language writes them: 1,234.5 becomes 1.234,5. */
export function relocalised(text: string, from: string, to: string): string {
  let next = "";
  let at = 0;
  for (const number of numbersIn(text, from)) {
    next += text.slice(at, number.from) + written(number, to);
    at = number.from + number.text.length;
  }
  return next + text.slice(at);
}
