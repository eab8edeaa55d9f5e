import { and, eq, inArray, or, sql } from "drizzle-orm";
import type { Right } from "../access";
import { note } from "./audit";
import { type Database, RIGHTS_CHANNEL } from "./database";
import { decks, shares } from "./schema";

/** Gives a user a right on a deck, or takes it away with null. The user's open pages are told. */
export async function share(
  db: Database,
  { deck, user, right, by }: { deck: string; user: string; right: Exclude<Right, "own"> | null; by: string },
): Promise<void> {
  await db.transaction(async (tx) => {
    if (right === null) await tx.delete(shares).where(and(eq(shares.deck, deck), eq(shares.user, user)));
    else
      await tx
        .insert(shares)
        .values({ deck, user, right })
        .onConflictDoUpdate({ target: [shares.deck, shares.user], set: { right } });
    await tx.execute(sql`select pg_notify(${RIGHTS_CHANNEL}, ${`${deck} ${user}`})`);
  });
  await note(db, {
    user: by,
    act: right === null ? "unshare" : "share",
    deck,
    detail: right === null ? user : `${user} ${right}`,
  });
}

/** Returns the pairs of deck and user that still have a right, as `deck user`. */
export async function stillPermitted(
  db: Database,
  pairs: readonly { deck: string; user: string }[],
): Promise<Set<string>> {
  if (!pairs.length) return new Set();
  const wanted = new Set(pairs.map(({ deck, user }) => `${deck} ${user}`));
  const rows = await db
    .select({ deck: decks.id, owner: decks.owner, user: shares.user })
    .from(decks)
    .leftJoin(shares, eq(shares.deck, decks.id))
    .where(
      and(
        inArray(decks.id, [...new Set(pairs.map(({ deck }) => deck))]),
        or(
          inArray(
            decks.owner,
            pairs.map(({ user }) => user),
          ),
          inArray(
            shares.user,
            pairs.map(({ user }) => user),
          ),
        ),
      ),
    );
  const found = rows.flatMap(({ deck, owner, user }) => [`${deck} ${owner}`, `${deck} ${user}`]);
  return new Set(found.filter((pair) => wanted.has(pair)));
}
