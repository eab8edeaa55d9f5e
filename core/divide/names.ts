import { cutText } from "@unitext/core/model";
/** What a pattern for names may say of a part: its number and how many there are, its own name, the deck's title, the day. */
export interface NameParts {
  number: number;
  count: number;
  part: string;
  title: string;
  date: string;
}

export const NAME_PATTERN = "{title} – {part}";
const FIELDS: Record<string, (parts: NameParts) => string> = {
  number: ({ number, count }) => String(number).padStart(String(count).length, "0"),
  count: ({ count }) => String(count),
  part: ({ part }) => part,
  title: ({ title }) => title,
  date: ({ date }) => date,
};
export const NAME_FIELDS = Object.keys(FIELDS);

/** A part's name by a pattern such as `{title} – {part} ({number} of {count})`; what is no field stays as it is written. */
export function nameBy(pattern: string, parts: NameParts): string {
  return cutText(
    pattern
      .replace(/\{(\w+)\}/g, (whole, field: string) => FIELDS[field]?.(parts) ?? whole)
      .replace(/\s+/g, " ")
      .trim(),
    500,
  );
}

/**
 * What the stars of a pattern stand for in a name, or undefined where it does not match: `TB2-*-*` on
 * `TB2-07-Marsh` gives `07` and `Marsh`. A star takes as little as it can, the last one the rest; `?` is one
 * character; capitals are not told apart.
 */
export function matchName(pattern: string, name: string): string[] | undefined {
  const stars = pattern.split("*").length - 1;
  let nth = 0;
  const source = pattern
    .replace(/[.+^${}()|[\]\\]/g, "\\$&")
    .replace(/\?/g, ".")
    .replace(/\*/g, () => (++nth === stars ? "(.*)" : "(.*?)"));
  const found = new RegExp(`^${source}$`, "isu").exec(name.trim());
  return found ? found.slice(1).map((part) => part.trim()) : undefined;
}

const numeric = new Intl.Collator("en", { numeric: true, sensitivity: "base" });
/** Orders names and their parts as people do: 2 before 10, capitals with small letters. */
export function groupByName(a: string, b: string): number {
  return numeric.compare(a, b);
}
