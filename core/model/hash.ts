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

/** A short sum of a text that tells two texts apart: FNV-1a (Fowler, Noll, Vo) twice in 32 bits with different offsets, as 16 hex digits. No protection against intent. */
export function textHash(text: string): string {
  begin();
  add(text);
  return ended();
}

/** The sum of a text that is told piece by piece. */
export function utf16Hash(tell: (add: (text: string) => void) => void): string {
  begin();
  tell(add);
  return ended();
}

/** The sum of the canonical text of a value, without making that text; `as` may give other texts in the place of some. */
export function valueHash(value: unknown, as?: (text: string) => string): string {
  begin();
  addValue(value, as);
  return ended();
}

/** Characters that JSON writes otherwise (RFC 8259, 7), and halves of pairs, which JavaScript escapes where they stand alone. */
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
/** A name of a field in quotes; there are few, and each is asked for again and again. */
function quoted(key: string): string {
  const known = QUOTED.get(key);
  if (known !== undefined) return known;
  const made = JSON.stringify(key);
  if (QUOTED.size < 1000) QUOTED.set(key, made);
  return made;
}

function sortedKeys(held: Record<string, unknown>): string[] {
  const keys = Object.keys(held);
  // Sorting what is sorted costs more than seeing that it is.
  for (let at = 1; at < keys.length; at++) if ((keys[at - 1] as string) > (keys[at] as string)) return keys.sort();
  return keys;
}

/** A value as JSON with its keys in order, so that equal values give equal texts whatever they passed through; what is undefined is left out. */
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
