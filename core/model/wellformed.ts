import { must } from "./must";
const graphemes = new Intl.Segmenter(undefined, { granularity: "grapheme" });
/** How far before a cut the character at the cut can start, in UTF-16 code units. */
const LONGEST = 64;

/** Cuts a text to at most `most` UTF-16 code units, before the character at the cut (UAX #29, grapheme cluster). */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  const from = Math.max(0, most - LONGEST);
  const start = from > 0 && /[\udc00-\udfff]/.test(must(text[from])) ? from - 1 : from;
  const at = graphemes.segment(text.slice(start, most + LONGEST)).containing(most - start);
  const cut = start + (at?.index ?? most - start);
  // A longer cluster is not text that anybody reads, and is cut through.
  return text.slice(0, cut > start ? cut : most).toWellFormed();
}

/**
 * Removes characters of a set from the end of a text, in one pass: a regular expression with `+$` would try every run
 * of them inside the text too.
 */
export function withoutEnd(text: string, characters: string): string {
  let end = text.length;
  while (end > 0 && characters.includes(must(text[end - 1]))) end--;
  return text.slice(0, end);
}

/** Replaces characters that no text may hold. */
const REPLACEMENT = "\ufffd";
const isWell = (text: string) => text.isWellFormed() && !text.includes("\0");
const well = (text: string) => text.toWellFormed().replaceAll("\0", REPLACEMENT);

/**
 * Returns a value with all text made valid Unicode: lone surrogates and NUL, which neither XML nor the database accept,
 * become U+FFFD. Returns the same object when nothing is replaced.
 */
export function wellFormed<T>(value: T): T {
  if (typeof value === "string") return (isWell(value) ? value : well(value)) as T;
  if (typeof value !== "object" || value === null || value instanceof Uint8Array) return value;
  if (Array.isArray(value)) {
    let changed: unknown[] | undefined;
    for (let at = 0; at < value.length; at++) {
      const one = wellFormed(value[at] as unknown);
      if (one !== value[at]) (changed ??= value.slice())[at] = one;
    }
    return (changed ?? value) as T;
  }
  let changed: Record<string, unknown> | undefined;
  for (const [key, held] of Object.entries(value)) {
    const name = isWell(key) ? key : well(key);
    const one = wellFormed(held as unknown);
    if (one === held && name === key) continue;
    changed ??= { ...value } as Record<string, unknown>;
    if (name !== key) delete changed[key];
    changed[name] = one;
  }
  return (changed ?? value) as T;
}

const ESCAPES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" };

/** Escapes text for use as content or as a quoted attribute value in XML, SVG and HTML. Drops characters that XML 1.0, 2.2 forbids and replaces lone surrogates with U+FFFD. */
export function escapeXml(text: string): string {
  if (!/[&<>"'\u0000-\u001F\uD800-\uDFFF\uFFFE\uFFFF]/.test(text)) return text;
  return text
    .toWellFormed()
    .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, "")
    .replace(/[&<>"']/g, (character) => must(ESCAPES[character]));
}

/** Whether a value is an object with fields and not a list. */
export function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
