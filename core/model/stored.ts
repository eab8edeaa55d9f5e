import type { z } from "zod";
import { Failure } from "./failure";
import { PathData } from "./look";
import { withCurrentNames } from "./names";
import { withDesigns } from "./theme/former";
import { wellFormed } from "./wellformed";

/**
 * The version of the schema in which decks, slides and changes are stored and sent. Raise it with every model change
 * that older data would not pass, and add a step that upgrades them.
 */
export const SCHEMA_VERSION = 6;

/** Replaces outlines that are not path data by empty ones. */
function withPathData(value: unknown): unknown {
  if (Array.isArray(value)) {
    const list = value.map(withPathData);
    return list.some((one, at) => one !== value[at]) ? list : value;
  }
  if (typeof value !== "object" || value === null) return value;
  const entries = Object.entries(value).map(([key, held]): [string, unknown] => [
    key,
    key === "d" && typeof held === "string" && !PathData.safeParse(held).success ? "" : withPathData(held),
  ]);
  return entries.some(([key, held]) => held !== (value as Record<string, unknown>)[key])
    ? Object.fromEntries(entries)
    : value;
}

/** Gives the fields of bindings their names of version 4. */
function withBindings(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withBindings);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, held]): [string, unknown] => {
      if (key !== "binding" || typeof held !== "object" || held === null) return [key, withBindings(held)];
      const { taken, mode, ...binding } = held as Record<string, unknown>;
      return [
        key,
        { ...binding, mode: mode === "moment" ? "fixed" : mode, ...(taken === undefined ? {} : { takenAt: taken }) },
      ];
    }),
  );
}

/** Gives the comments of slides ids, by their place on the slide: they had none up to version 5. */
function withCommentIds(value: unknown): unknown {
  if (Array.isArray(value)) {
    const list = value.map(withCommentIds);
    return list.some((one, at) => one !== value[at]) ? list : value;
  }
  if (typeof value !== "object" || value === null) return value;
  const entries = Object.entries(value).map(([key, held]): [string, unknown] => [
    key,
    key === "comments" && Array.isArray(held) && held.some((one) => numberedComment(one, 0) !== one)
      ? held.map(numberedComment)
      : withCommentIds(held),
  ]);
  return entries.some(([key, held]) => held !== (value as Record<string, unknown>)[key])
    ? Object.fromEntries(entries)
    : value;
}

/** Returns a comment with an id by its place, unless it has one. */
const numberedComment = (comment: unknown, nth: number): unknown =>
  typeof comment === "object" && comment !== null && !("id" in comment) ? { id: `c${nth + 1}`, ...comment } : comment;

/**
 * Upgrades from each version to the next, the first from version 1. Each takes the JSON of a deck, a slide or a change.
 */
const STEPS: readonly ((value: unknown) => unknown)[] = [
  // 1 to 2: texts are well-formed Unicode, outlines are path data.
  (value) => withPathData(wellFormed(value)),
  // 2 to 3: fields have the names of docs/glossary.md.
  (value) => withCurrentNames(value),
  // 3 to 4: a binding that stays as it is has the mode “fixed”; when its values were taken is `takenAt`.
  (value) => withBindings(value),
  // 4 to 5: a theme has a design in place of an ornament, and colours for fields.
  (value) => withDesigns(value),
  // 5 to 6: comments have ids.
  (value) => withCommentIds(value),
];

/**
 * Upgrades what earlier versions wrote into the user-defined tags of a file, which name no version. What is of the
 * present version stays as it is.
 */
export const upgradeTags = (value: unknown): unknown => withCommentIds(withDesigns(withCurrentNames(value)));

/**
 * Upgrades JSON of an earlier version to the present one. Throws a Failure `not-supported` for a version newer than
 * this program.
 */
export function upgrade(value: unknown, version: number, where: string): unknown {
  if (version > SCHEMA_VERSION)
    throw new Failure(
      "not-supported",
      where,
      "This was saved by a newer version of Unitext. Bring the program up to date to open it.",
    );
  return STEPS.slice(version - 1).reduce((current, step) => step(current), value);
}

/**
 * Upgrades and checks stored JSON. Throws a Failure `not-readable` that names the invalid field, or `not-supported` for
 * a newer version.
 */
export function readStored<S extends z.ZodType>(
  schema: S,
  value: unknown,
  version: number,
  where: string,
): z.output<S> {
  const result = schema.safeParse(upgrade(value, version, where));
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  throw new Failure(
    "not-readable",
    where,
    `What is stored of ${where} is damaged at ${issue?.path.map(String).join(".") || "its root"}: ${issue?.message ?? "it is not valid"}. Nothing was changed; restore a backup, or tell who runs the service.`,
  );
}
