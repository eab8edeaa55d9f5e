import { apply, Change, describeChange, textChanges } from "@unitext/core/edit";
import { type Deck, Failure, readStored, must } from "@unitext/core/model";
import { and, asc, desc, eq, gt, lt, sql } from "drizzle-orm";
import type { History, Steps } from "../api";
import type { Database } from "./database";
import { loadDeck } from "./decks";
import { access, changes, decks, users, versions } from "./schema";

const PAGE = 100;

/** Loads the history of a deck before a version, newest first. */
export async function loadHistory(db: Database, deck: string, before: number | undefined): Promise<History> {
  const [row] = await db.select({ version: decks.version }).from(decks).where(eq(decks.id, deck));
  if (!row) throw new Failure("not-found", deck, "There is no deck at this address. It may have been deleted.");
  const rows = await db
    .select({
      version: changes.version,
      id: changes.id,
      change: changes.change,
      schema: changes.schema,
      description: changes.description,
      undoes: changes.undoes,
      at: changes.at,
      user: users.name,
      name: versions.name,
      undone: sql<boolean>`exists (select 1 from changes u where u.deck_id = ${deck} and u.undoes = ${changes.id} and not exists (select 1 from changes r where r.deck_id = ${deck} and r.redoes = u.undoes and r.version > u.version))`,
    })
    .from(changes)
    .innerJoin(users, eq(users.id, changes.user))
    .leftJoin(versions, and(eq(versions.deck, changes.deck), eq(versions.version, changes.version)))
    .where(before === undefined ? eq(changes.deck, deck) : and(eq(changes.deck, deck), lt(changes.version, before)))
    .orderBy(desc(changes.version))
    .limit(PAGE);
  const entries = rows.map(({ version, change, schema, description: said, at, user, name, undone }) => ({
    version,
    user,
    at: at.toISOString(),
    description: said ?? describeChange(readStored(Change, change, schema, `change ${version} of deck ${deck}`)),
    undone,
    name,
  }));
  return { version: row.version, entries, first: rows.length < PAGE };
}

/**
 * Returns a deck as it was at a version, by undoing later changes. Throws a Failure for a version that it never had.
 */
export async function deckAt(db: Database, id: string, version: number): Promise<Deck> {
  const { deck, version: now } = await loadDeck(db, id);
  if (!Number.isInteger(version) || version < 0 || version > now)
    throw new Failure("not-found", id, `The deck has no version ${version}; it has 0 to ${now}.`);
  const later = await db
    .select({ version: changes.version, inverse: changes.inverse, schema: changes.schema })
    .from(changes)
    .where(and(eq(changes.deck, id), gt(changes.version, version)))
    .orderBy(desc(changes.version));
  return later.reduce(
    (state, { inverse, schema, version: at }) =>
      apply(state, readStored(Change, inverse, schema, `change ${at} of deck ${id}`)).deck,
    deck,
  );
}

/** Whether anybody has changed a deck since its file was imported. */
export async function changedByHand(db: Database, deck: string): Promise<boolean> {
  return (await db.$count(changes, and(eq(changes.deck, deck), eq(changes.arrival, false)))) > 0;
}

/** Names the state of a deck at a version. */
export async function nameVersion(
  db: Database,
  deck: string,
  user: string,
  version: number,
  name: string,
): Promise<void> {
  const [row] = await db.select({ version: decks.version }).from(decks).where(eq(decks.id, deck));
  if (!row || version > row.version) throw new Failure("not-valid", "version", `The deck has no version ${version}.`);
  await db
    .insert(versions)
    .values({ deck, version, name, user })
    .onConflictDoUpdate({ target: [versions.deck, versions.version], set: { name, user, at: new Date() } });
}

/** Removes the name of a version; the version itself stays. */
export async function forgetVersionName(db: Database, deck: string, version: number): Promise<void> {
  await db.delete(versions).where(and(eq(versions.deck, deck), eq(versions.version, version)));
}

/** Returns the named states of a deck, newest first. */
export async function namedVersions(
  db: Database,
  deck: string,
): Promise<{ version: number; name: string; user: string; at: string }[]> {
  const rows = await db
    .select({ version: versions.version, name: versions.name, at: versions.at, user: users.name })
    .from(versions)
    .innerJoin(users, eq(users.id, versions.user))
    .where(eq(versions.deck, deck))
    .orderBy(desc(versions.version));
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

interface Logged {
  id: string;
  version: number;
  description: string | null;
  undoes: string | null;
  redoes: string | null;
}

/**
 * Returns the steps of a user that can be undone and redone, according to the log: an action is a step; undoing removes
 * it, redoing adds it again, and a new action clears what could be redone.
 */
export function stepsOf(log: readonly Logged[]): { undo: Logged[]; redo: Logged[] } {
  // A step is identified by the action that started it; its present state is the last entry that did it.
  const undo: { root: string; entry: Logged }[] = [];
  const redo: { root: string; entry: Logged }[] = [];
  for (const entry of log) {
    if (entry.undoes !== null) {
      const at = undo.findLastIndex(({ root }) => root === entry.undoes);
      if (at >= 0) redo.push({ root: must(undo.splice(at, 1)[0]?.root), entry });
    } else if (entry.redoes !== null) {
      const at = redo.findLastIndex(({ root }) => root === entry.redoes);
      if (at >= 0) undo.push({ root: must(redo.splice(at, 1)[0]?.root), entry });
    } else {
      undo.push({ root: entry.id, entry });
      redo.length = 0;
    }
  }
  return {
    undo: undo.map(({ root, entry }) => ({ ...entry, id: root, version: entry.version })),
    redo: redo.map(({ root, entry }) => ({ ...entry, id: root, version: entry.version })),
  };
}

/**
 * Returns the last steps of a user on a deck with the changes that undo or redo them; the first `skip` of those to be
 * undone are known already.
 */
export async function loadSteps(db: Database, deck: string, user: string, skip: number): Promise<Steps> {
  const log = await db
    .select({
      id: changes.id,
      version: changes.version,
      description: changes.description,
      undoes: changes.undoes,
      redoes: changes.redoes,
    })
    .from(changes)
    .where(and(eq(changes.deck, deck), eq(changes.user, user), eq(changes.arrival, false)))
    .orderBy(asc(changes.version));
  const { undo, redo } = stepsOf(log);
  const wanted = undo.slice(Math.max(0, undo.length - skip - PAGE), undo.length - skip).reverse();
  const again = skip === 0 ? redo.slice(-PAGE).reverse() : [];
  const numbers = [...wanted, ...again].map(({ version }) => version);
  const rows = numbers.length
    ? await db
        .select({ version: changes.version, change: changes.change, inverse: changes.inverse, schema: changes.schema })
        .from(changes)
        .where(and(eq(changes.deck, deck), sql`${changes.version} in ${numbers}`))
    : [];
  const byVersion = new Map(rows.map((row) => [row.version, row]));
  const step = ({ id, version, description: said }: Logged) => {
    const row = byVersion.get(version);
    const stored = (value: unknown) => readStored(Change, value, row?.schema ?? 1, `change ${version} of deck ${deck}`);
    return {
      id,
      change: stored(row?.inverse),
      made: textChanges(stored(row?.change)),
      description: (said ?? describeChange(stored(row?.change))).replace(/^(Undone|Done again): /, ""),
    };
  };
  return { undo: wanted.map(step), redo: again.map(step), more: undo.length > skip + wanted.length };
}

/** Returns the versions of a deck that a user may see. */
export async function followersOf(
  db: Database,
  deck: string,
  user: string,
): Promise<{ id: string; title: string; language: string; isTranslation: boolean }[]> {
  const rows = await db
    .selectDistinct({ id: decks.id, metadata: decks.metadata, changedAt: decks.changedAt })
    .from(decks)
    .leftJoin(access, and(eq(access.deck, decks.id), eq(access.user, user)))
    .where(sql`${decks.metadata} -> 'original' ->> 'deck' = ${deck} and (${decks.owner} = ${user} or ${access.notes})`)
    .orderBy(asc(decks.changedAt));
  return rows.map(({ id, metadata }) => ({
    id,
    title: metadata.properties.title,
    language: metadata.language,
    isTranslation: metadata.original?.language !== undefined,
  }));
}
