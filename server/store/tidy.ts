import { sql } from "drizzle-orm";
import { removeOldAccountLinks } from "./accounts";
import { removeOldAudit } from "./audit";
import type { Database } from "./database";
import { emptyOldBin } from "./desk";
import { removeOldFilmParts } from "./films";
import { removeOldJobs } from "./jobs";
import { removeOldRemotes } from "./remotes";
import { removeOldGuests, removeOldSessions } from "./users";

/** How long a picture that no deck names is kept, in hours: it may be on its way into one. */
const KEPT_HOURS = 24;

/** Deletes old jobs with their files, expired sessions, old audit entries, and pictures that belong to no deck and no saved theme. Pictures that only a deck's history uses are kept. Returns how many were deleted. */
export async function tidy(db: Database): Promise<{ jobs: number; sessions: number; pictures: number }> {
  const jobs = await removeOldJobs(db);
  const sessions = await removeOldSessions(db);
  await removeOldAudit(db);
  await removeOldFilmParts(db);
  await emptyOldBin(db);
  await removeOldRemotes(db);
  await removeOldAccountLinks(db);
  await removeOldGuests(db);
  await db.execute(sql`delete from rate_limits where expire < ${Date.now()}`);
  const { rowCount } = await db.execute(sql`
    delete from blobs b where b.taken_at < now() - make_interval(hours => ${KEPT_HOURS})
    and not exists (select 1 from deck_blobs d where d.sha256 = b.sha256)
    and not exists (select 1 from themes t where t.theme->'logo'->'asset'->>'sha256' = b.sha256)`);
  return { jobs, sessions, pictures: rowCount ?? 0 };
}
