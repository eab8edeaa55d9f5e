import { must } from "./must";
let [sumA, sumB] = [0, 0];
const begin = () => void ([sumA, sumB] = [0x811c9dc5, 0x9747b28c]);
function add(text: string): void {
  let [a, b] = [sumA, sumB];
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ ((code << 7) | (code >> 9)), 0x01000193);
  }
  [sumA, sumB] = [a, b];
}
const ended = () => (sumA >>> 0).toString(16).padStart(8, "0") + (sumB >>> 0).toString(16).padStart(8, "0");

/**
 * Returns a short hash of a text: FNV-1a (Fowler, Noll, Vo) twice in 32 bits with different offsets, as 16 hex digits.
 * No protection against deliberate collisions.
 */
export function textHash(text: string): string {
  begin();
  add(text);
  return ended();
}

/** Hashes a text that is given piece by piece. */
export function utf16Hash(tell: (add: (text: string) => void) => void): string {
  begin();
  tell(add);
  return ended();
}

/** Returns the hash of a value's canonical text without building that text. `as` may substitute strings. */
export function valueHash(value: unknown, as?: (text: string) => string): string {
  begin();
  addValue(value, as);
  return ended();
}

/** Characters that JSON escapes (RFC 8259, 7), and lone surrogates, which JavaScript escapes. */
const ESCAPED = /["\\\u0000-\u001f\ud800-\udfff]/;

function addValue(value: unknown, as: ((text: string) => string) | undefined): void {
  if (typeof value === "string") {
    const text = as ? as(value) : value;
    if (ESCAPED.test(text)) return add(JSON.stringify(text));
    add('"');
    add(text);
    return add('"');
  }
  if (typeof value !== "object" || value === null) return add(canonical(value));
  if (Array.isArray(value)) {
    add("[");
    for (let at = 0; at < value.length; at++) {
      if (at) add(",");
      addValue(value[at] ?? null, as);
    }
    return add("]");
  }
  const held = value as Record<string, unknown>;
  let first = true;
  add("{");
  for (const key of sortedKeys(held)) {
    if (held[key] === undefined) continue;
    if (!first) add(",");
    first = false;
    add(quoted(key));
    add(":");
    addValue(held[key], as);
  }
  add("}");
}

const QUOTED = new Map<string, string>();
/** Returns a field name in quotes. Cached: there are few names, each used again and again. */
function quoted(key: string): string {
  const known = QUOTED.get(key);
  if (known !== undefined) return known;
  const made = JSON.stringify(key);
  if (QUOTED.size < 1000) QUOTED.set(key, made);
  return made;
}

function sortedKeys(held: Record<string, unknown>): string[] {
  const keys = Object.keys(held);
  // Checking the order first is cheaper than sorting keys that are sorted already.
  for (let at = 1; at < keys.length; at++) if (must(keys[at - 1]) > must(keys[at])) return keys.sort();
  return keys;
}

/** Returns a value as JSON with sorted keys, so that equal values give equal texts. Undefined fields are left out. */
export function canonical(value: unknown): string {
  if (typeof value === "number") return Number.isFinite(value) ? String(value) : "null";
  if (typeof value !== "object" || value === null) return JSON.stringify(value) ?? "";
  if (Array.isArray(value)) {
    let list = "";
    for (const item of value) list += `${list ? "," : ""}${canonical(item ?? null)}`;
    return `[${list}]`;
  }
  const held = value as Record<string, unknown>;
  let inside = "";
  for (const key of sortedKeys(held))
    if (held[key] !== undefined) inside += `${inside ? "," : ""}${quoted(key)}:${canonical(held[key])}`;
  return `{${inside}}`;
}
