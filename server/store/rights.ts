import { must } from "@unitext/core/model";
import { and, eq, inArray, sql } from "drizzle-orm";
import { type Access, type Right, type SharedRight, SHARED_RIGHTS } from "../access";
import { type Database, RIGHTS_CHANNEL } from "./database";
import type { Reader } from "./rows";
import { access, decks } from "./schema";

/** What is shared: a deck or a folder. */
export type Shared = { deck: string } | { folder: string };

/** The name under which changes of rights are announced that may concern any deck. */
export const EVERY_DECK = "*";

export const sharedRow = (shared: Shared) => ("deck" in shared ? { deck: shared.deck } : { folder: shared.folder });

/** Tells the pages of a deck, or of any deck of a folder, that rights have changed. */
export async function announceRights(db: Reader, shared: Shared): Promise<void> {
  const about = "deck" in shared ? shared.deck : EVERY_DECK;
  await db.execute(sql`select pg_notify(${RIGHTS_CHANNEL}, ${about})`);
}

/** Returns the pairs of deck and user that still have a right, as `deck user`. */
export async function stillPermitted(
  db: Database,
  pairs: readonly { deck: string; user: string }[],
): Promise<Set<string>> {
  if (!pairs.length) return new Set();
  const wanted = new Set(pairs.map(({ deck, user }) => `${deck} ${user}`));
  const ids = [...new Set(pairs.map(({ deck }) => deck))];
  const people = [...new Set(pairs.map(({ user }) => user))];
  const owned = await db
    .select({ deck: decks.id, user: decks.owner })
    .from(decks)
    .where(and(inArray(decks.id, ids), inArray(decks.owner, people)));
  const given = await db
    .select({ deck: access.deck, user: access.user })
    .from(access)
    .where(and(inArray(access.deck, ids), inArray(access.user, people)));
  return new Set([...owned, ...given].map(({ deck, user }) => `${deck} ${user}`).filter((pair) => wanted.has(pair)));
}

/** Returns the right of a place in `SHARED_RIGHTS`, counted from 1. */
export const rightOfRank = (rank: number): SharedRight => must(SHARED_RIGHTS[rank - 1]);

/** Returns a user's access to a deck; undefined when the user may not see it. */
export async function accessOn(db: Reader, deck: string, user: string): Promise<Access | undefined> {
  const [row] = await db
    .select({ owner: decks.owner, rank: access.rank, notes: access.notes })
    .from(decks)
    .leftJoin(access, and(eq(access.deck, decks.id), eq(access.user, user)))
    .where(eq(decks.id, deck));
  if (!row) return undefined;
  if (row.owner === user) return { right: "own", notes: true };
  return row.rank === null ? undefined : { right: rightOfRank(row.rank), notes: row.notes ?? false };
}

/**
 * Returns a user's right on a deck with its notes; undefined when the user may not see it, or only without notes.
 */
export async function rightOn(db: Reader, deck: string, user: string): Promise<Right | undefined> {
  const found = await accessOn(db, deck, user);
  return found?.notes ? found.right : undefined;
}
