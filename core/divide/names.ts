import { cutText } from "@unitext/core/model";
/** Fields for name patterns: a part's number, the number of parts, its own name, the deck's title, the date. */
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

/**
 * Names a part by a pattern such as `{title} – {part} ({number} of {count})`. Text that is not a field stays as it is.
 */
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
 * Returns the text that each star of a pattern stands for in a name; undefined when it does not match: `TB2-*-*` on
 * `TB2-07-Marsh` gives `07` and `Marsh`. A star takes as little as possible, the last one the rest; `?` is one
 * character; case is ignored.
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
/** Compares names as people sort them: 2 before 10, case ignored. */
export function groupByName(a: string, b: string): number {
  return numeric.compare(a, b);
}
