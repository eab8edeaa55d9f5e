import { Failure } from "@unitext/core/model";
import { and, desc, eq, gt, inArray, lt, or, sql } from "drizzle-orm";
import type { Job } from "../api";
import { type Database, JOB_CHANNEL } from "./database";
import { jobInputs, jobOutputs, jobs } from "./schema";

/** How long an ended job stays on the list, in milliseconds. */
const LISTED = 24 * 3600 * 1000;
type Row = typeof jobs.$inferSelect;

function jobOf({ id, deck, kind, name, state, slides, page, pages, message, report, result, createdAt }: Row): Job {
  return {
    id,
    deck,
    kind,
    name,
    state,
    slides,
    page,
    pages,
    message,
    report,
    result,
    createdAt: createdAt.toISOString(),
  };
}

/** Creates a job, stores the file that it reads, and notifies the servers. */
export async function createJob(
  db: Database,
  job: Pick<Row, "id" | "owner" | "deck" | "kind" | "name">,
  bytes: Uint8Array,
): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.insert(jobs).values(job);
    await tx.insert(jobInputs).values({ job: job.id, bytes: Buffer.from(bytes) });
    await tx.execute(sql`select pg_notify(${JOB_CHANNEL}, ${`${job.owner} ${job.id} waiting`})`);
  });
}

/** Loads a job, with its file unless this server has it. Throws a Failure `not-found`. */
export async function loadJob(db: Database, id: string, file = true): Promise<Row & { bytes: Uint8Array | null }> {
  if (!file) {
    const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
    if (!row) throw new Failure("not-found", id, "There is no such job.");
    return { ...row, bytes: null };
  }
  const [row] = await db
    .select({ job: jobs, bytes: jobInputs.bytes })
    .from(jobs)
    .leftJoin(jobInputs, eq(jobInputs.job, jobs.id))
    .where(eq(jobs.id, id));
  if (!row) throw new Failure("not-found", id, "There is no such job.");
  return { ...row.job, bytes: row.bytes };
}

/** Stores the file that a job wrote. */
export async function keepOutput(
  db: Database,
  job: string,
  { name, bytes }: { name: string; bytes: Uint8Array },
): Promise<void> {
  await db
    .insert(jobOutputs)
    .values({ job, name, bytes: Buffer.from(bytes) })
    .onConflictDoNothing();
}

/** Returns the file that a user's job wrote. Throws a Failure `not-found`. */
export async function outputOf(db: Database, owner: string, job: string): Promise<{ name: string; bytes: Uint8Array }> {
  const [row] = await db
    .select({ name: jobOutputs.name, bytes: jobOutputs.bytes })
    .from(jobOutputs)
    .innerJoin(jobs, eq(jobs.id, jobOutputs.job))
    .where(and(eq(jobs.id, job), eq(jobs.owner, owner)));
  if (!row) throw new Failure("not-found", job, "The file is not kept any more. Write the decks again.");
  return row;
}

/** A server that has not reported on a job for this many seconds has ended, and another takes the job over. */
const SILENT = 10;
/** How often a job is started: one that ended its server this often is not tried again. */
export const MOST_TRIES = 3;
/** How many jobs of one user run at the same time. */
const EACH = 2;

/**
 * Claims a job for a server: a waiting one, or one whose server has ended. The user with the fewest running jobs comes
 * first, then who has waited longest. Returns undefined when there is none.
 */
export async function claimJob(db: Database, server: string): Promise<string | undefined> {
  const silent = sql`now() - make_interval(secs => ${SILENT})`;
  const busy = sql`(select count(*) from jobs r where r.owner_id = j.owner_id and r.state = 'running' and r.beat_at >= ${silent})`;
  const { rows } = await db.execute<{ id: string }>(sql`
    update jobs set state = 'running', server = ${server}, beat_at = now(), tries = tries + 1
    where id = (
      select j.id from jobs j
      where (j.state = 'waiting' or (j.state = 'running' and (j.beat_at is null or j.beat_at < ${silent}))) and ${busy} < ${EACH}
      order by ${busy}, j.created_at
      limit 1 for update of j skip locked)
    returning id`);
  return rows[0]?.id;
}

/** Reports that a server is working on its jobs. Returns those that are still its own. */
export async function beat(db: Database, server: string, ids: readonly string[]): Promise<Set<string>> {
  if (!ids.length) return new Set();
  const kept = await db
    .update(jobs)
    .set({ beatAt: new Date() })
    .where(and(inArray(jobs.id, [...ids]), eq(jobs.server, server), eq(jobs.state, "running")))
    .returning({ id: jobs.id });
  return new Set(kept.map(({ id }) => id));
}

/** Returns the jobs of a server that shuts down to the queue. */
export async function releaseJobs(db: Database, server: string): Promise<void> {
  await db
    .update(jobs)
    .set({ state: "waiting", server: null, beatAt: null })
    .where(and(eq(jobs.server, server), eq(jobs.state, "running")));
}

/** Counts the jobs of a user that have not ended. */
export async function openJobs(db: Database, owner: string): Promise<number> {
  return db.$count(jobs, and(eq(jobs.owner, owner), inArray(jobs.state, ["waiting", "running"])));
}

/** Deletes jobs that ended too long ago to be listed, with their files. Returns how many. */
export async function removeOldJobs(db: Database): Promise<number> {
  return (
    await db
      .delete(jobs)
      .where(lt(jobs.endedAt, new Date(Date.now() - LISTED)))
      .returning({ id: jobs.id })
  ).length;
}

/**
 * Stores the progress of a job and notifies its owner's pages. An ended job is not changed; returns whether it was
 * still open.
 */
export async function updateJob(
  db: Database,
  id: string,
  change: Partial<Pick<Row, "state" | "slides" | "page" | "pages" | "message" | "report" | "result" | "deck">>,
): Promise<boolean> {
  const ends = change.state !== undefined && change.state !== "running" && change.state !== "waiting";
  const written = await db
    .update(jobs)
    .set({ ...change, ...(ends ? { endedAt: new Date() } : {}) })
    .where(and(eq(jobs.id, id), inArray(jobs.state, ["waiting", "running"])))
    .returning({ owner: jobs.owner });
  if (!written[0]) return false;
  if (ends) await db.delete(jobInputs).where(eq(jobInputs.job, id));
  await db.execute(sql`select pg_notify(${JOB_CHANNEL}, ${`${written[0].owner} ${id} ${change.state ?? ""}`})`);
  return true;
}

/** Lists the jobs of a user that run, or that ended within a day. */
export async function listJobs(db: Database, owner: string): Promise<Job[]> {
  const rows = await db
    .select()
    .from(jobs)
    .where(
      and(
        eq(jobs.owner, owner),
        or(inArray(jobs.state, ["waiting", "running"]), gt(jobs.endedAt, new Date(Date.now() - LISTED))),
      ),
    )
    .orderBy(desc(jobs.createdAt))
    .limit(50);
  return rows.map(jobOf);
}

/** Removes an ended job from the list. Throws a Failure `not-found` for one that is not the user's. */
export async function forgetJob(db: Database, owner: string, id: string): Promise<void> {
  await jobOfOwner(db, owner, id);
  await db
    .delete(jobs)
    .where(and(eq(jobs.id, id), eq(jobs.owner, owner), inArray(jobs.state, ["done", "cancelled", "failed"])));
}

/** Returns a job of a person. Throws a Failure `not-found` when it is somebody else's or not there. */
export async function jobOfOwner(db: Database, owner: string, id: string): Promise<Job> {
  const [row] = await db
    .select()
    .from(jobs)
    .where(and(eq(jobs.id, id), eq(jobs.owner, owner)));
  if (!row) throw new Failure("not-found", id, "There is no such job.");
  return jobOf(row);
}
