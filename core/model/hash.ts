/** A short sum of a text that tells two texts apart: FNV-1a (Fowler, Noll, Vo) twice in 32 bits with different offsets, as 16 hex digits. No protection against intent. */
export function textHash(text: string): string {
  let a = 0x811c9dc5;
  let b = 0x9747b28c;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ ((code << 7) | (code >> 9)), 0x01000193);
  }
  return (a >>> 0).toString(16).padStart(8, "0") + (b >>> 0).toString(16).padStart(8, "0");
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
  const keys = Object.keys(held);
  if (keys.length > 1) keys.sort();
  let inside = "";
  for (const key of keys) if (held[key] !== undefined) inside += `${inside ? "," : ""}${quoted(key)}:${canonical(held[key])}`;
  return `{${inside}}`;
}
