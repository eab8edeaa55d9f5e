import type { StoredTarget } from "@unitext/core/translate";
import { eq, sql } from "drizzle-orm";
import type { Database } from "./database";
import type { Reader } from "./rows";
import { segments } from "./schema";

/** Returns the stored translations of a deck. */
export async function storedTargets(db: Reader, deck: string): Promise<StoredTarget[]> {
  return db
    .select({ id: segments.id, source: segments.source, target: segments.target, state: segments.state })
    .from(segments)
    .where(eq(segments.deck, deck));
}

/** Stores translations; those that are there already are replaced. */
export async function storeTargets(
  db: Database,
  deck: string,
  user: string,
  targets: readonly StoredTarget[],
): Promise<void> {
  for (let at = 0; at < targets.length; at += 500)
    await db
      .insert(segments)
      .values(targets.slice(at, at + 500).map((one) => ({ deck, user, ...one })))
      .onConflictDoUpdate({
        target: [segments.deck, segments.id],
        set: {
          source: sql`excluded.source`,
          target: sql`excluded.target`,
          state: sql`excluded.state`,
          user: sql`excluded.user_id`,
          at: sql`now()`,
        },
      });
}
