import { desc, lt } from "drizzle-orm";
import type { Database } from "./database";
import { audit } from "./schema";

type Entry = typeof audit.$inferInsert;

/** How long entries are kept, in milliseconds. */
const KEPT = 365 * 24 * 3600 * 1000;

/** Writes an entry of the audit log. */
export async function note(db: Database, entry: Pick<Entry, "user" | "act" | "deck" | "detail">): Promise<void> {
  await db.insert(audit).values(entry);
}

/** Returns the latest entries of the audit log, newest first. */
export async function auditLog(db: Database, count: number): Promise<(typeof audit.$inferSelect)[]> {
  return db.select().from(audit).orderBy(desc(audit.id)).limit(count);
}

/** Deletes entries older than a year. */
export async function removeOldAudit(db: Database): Promise<void> {
  await db.delete(audit).where(lt(audit.at, new Date(Date.now() - KEPT)));
}
