import { isObject } from "./wellformed";

/** What an object is, where the names of its fields depend on it. */
type Context = "plain" | "typed" | "series" | "axis" | "bullet" | "rule" | "sourceShape" | "sourcePart";

/** Field names of version 2 of the stored data, each with its name in version 3. */
const NAMES: Record<Context, readonly (readonly [string, string])[]> = {
  plain: [
    ["look", "properties"],
    ["sum", "hash"],
    ["secondAxis", "secondaryAxis"],
    ["moves", "unsupportedMotion"],
  ],
  typed: [
    ["form", "type"],
    ["look", "properties"],
    ["secondAxis", "secondaryAxis"],
  ],
  series: [
    ["form", "type"],
    ["by", "axis"],
  ],
  axis: [
    ["least", "min"],
    ["most", "max"],
  ],
  bullet: [["sign", "character"]],
  rule: [
    ["body", "placement"],
    ["rest", "overflow"],
    ["cards", "names"],
  ],
  sourceShape: [
    ["sum", "hash"],
    ["place", "frameHash"],
    ["text", "textHash"],
    ["looks", "appearanceHash"],
    ["more", "unsupported"],
  ],
  sourcePart: [
    ["sum", "hash"],
    ["notes", "notesHash"],
    ["background", "backgroundHash"],
    ["transition", "transitionHash"],
    ["motion", "motionHash"],
  ],
};

/** Values of version 2 by the new name of their field, each with its value in version 3. */
const VALUES: Record<string, readonly (readonly [string, string])[]> = {
  axis: [["second", "secondary"]],
  overflow: [["keep", "leave"]],
  kind: [
    ["setLook", "setSlideProperties"],
    ["setBroughtTheme", "setImportedTheme"],
  ],
};

const TYPED: ReadonlySet<unknown> = new Set(["chart", "diagram", "media"]);
const BY_KEY: Record<string, Context> = {
  series: "series",
  xAxis: "axis",
  yAxis: "axis",
  secondAxis: "axis",
  secondaryAxis: "axis",
  bullet: "bullet",
};

/** Tells what an object is by the field that holds it, or holds its list, and by its own fields. */
function contextOf(key: string, fields: Record<string, unknown>): Context {
  if (Array.isArray(fields.cuts)) return "rule";
  if (key === "kept" || key === "sourceShape" || key === "sourcePart")
    return "part" in fields ? "sourcePart" : "sourceShape";
  return BY_KEY[key] ?? (TYPED.has(fields.kind) ? "typed" : "plain");
}

/** Renames the fields of an object or list, and of those inside it. Returns the same object when nothing is renamed. */
function renamed(value: unknown, key: string, from: 0 | 1, to: 0 | 1): unknown {
  if (Array.isArray(value)) {
    let changed = false;
    const list = value.map((item) => {
      const next = renamed(item, key, from, to);
      changed ||= next !== item;
      return next;
    });
    return changed ? list : value;
  }
  if (!isObject(value)) return value;
  const names = NAMES[contextOf(key, value)];
  let changed = false;
  const entries: [string, unknown][] = [];
  for (const [name, held] of Object.entries(value)) {
    const pair = names.find((one) => one[from] === name);
    const next =
      name === "kept" && isObject(held) ? ("part" in held ? "sourcePart" : "sourceShape") : pair ? pair[to] : name;
    const values = VALUES[to === 1 ? next : name];
    const known = typeof held === "string" ? values?.find((one) => one[from] === held)?.[to] : undefined;
    const current = known ?? renamed(held, name, from, to);
    changed ||= next !== name || current !== held;
    entries.push([next, current]);
  }
  return changed ? Object.fromEntries(entries) : value;
}

/** Returns JSON of version 2 with the names of version 3; the same object when it has them already. */
export const withCurrentNames = (value: unknown): unknown => renamed(value, "", 0, 1);

/**
 * Returns a value with the names of version 2. Stored hashes of slides and elements are computed on such values, so
 * that hashes from before the renaming still match.
 */
export const withFormerNames = <T>(value: T): T => renamed(value, "", 1, 0) as T;
