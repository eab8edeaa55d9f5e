import { sql } from "drizzle-orm";
import { removeOldAudit } from "./audit";
import type { Database } from "./database";
import { removeOldJobs } from "./jobs";
import { removeOldSessions } from "./users";

/** How long a picture that no deck names is kept, in hours: it may just be on its way into one. */
const KEPT_HOURS = 24;

/** Removes what nobody needs any more: jobs that ended and their files, sessions, and pictures that no deck has. What a deck or its history names is kept with the deck. */
export async function tidy(db: Database): Promise<{ jobs: number; sessions: number; pictures: number }> {
  const jobs = await removeOldJobs(db);
  const sessions = await removeOldSessions(db);
  await removeOldAudit(db);
  const { rowCount } = await db.execute(sql`
    delete from blobs b where b.taken_at < now() - make_interval(hours => ${KEPT_HOURS})
    and not exists (select 1 from deck_blobs d where d.sha256 = b.sha256)`);
  return { jobs, sessions, pictures: rowCount ?? 0 };
}
