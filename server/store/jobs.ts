import { Failure } from "@unitext/core/model";
import { and, desc, eq, gt, inArray, or, sql } from "drizzle-orm";
import type { Job } from "../api";
import { type Database, JOB_CHANNEL } from "./database";
import { jobInputs, jobOutputs, jobs } from "./schema";

type Row = typeof jobs.$inferSelect;

function jobOf({ id, deck, kind, name, state, slides, page, pages, message, report, result, createdAt }: Row): Job {
  return { id, deck, kind, name, state, slides, page, pages, message, report, result, createdAt: createdAt.toISOString() };
}

/** Notes a job and keeps the file that it reads. */
export async function createJob(db: Database, job: Pick<Row, "id" | "owner" | "deck" | "kind" | "name">, bytes: Uint8Array): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.insert(jobs).values(job);
    await tx.insert(jobInputs).values({ job: job.id, bytes: Buffer.from(bytes) });
  });
}

/** A job, with its file unless that is here already. Throws a Failure `not-found`. */
export async function loadJob(db: Database, id: string, file = true): Promise<Row & { bytes: Uint8Array | null }> {
  if (!file) {
    const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
    if (!row) throw new Failure("not-found", id, "There is no such job.");
    return { ...row, bytes: null };
  }
  const [row] = await db.select({ job: jobs, bytes: jobInputs.bytes }).from(jobs).leftJoin(jobInputs, eq(jobInputs.job, jobs.id)).where(eq(jobs.id, id));
  if (!row) throw new Failure("not-found", id, "There is no such job.");
  return { ...row.job, bytes: row.bytes };
}

/** Keeps the file that a job wrote. */
export async function keepOutput(db: Database, job: string, { name, bytes }: { name: string; bytes: Uint8Array }): Promise<void> {
  await db.insert(jobOutputs).values({ job, name, bytes: Buffer.from(bytes) }).onConflictDoNothing();
}

/** The file that a job of a user wrote. Throws a Failure `not-found`. */
export async function outputOf(db: Database, owner: string, job: string): Promise<{ name: string; bytes: Uint8Array }> {
  const [row] = await db.select({ name: jobOutputs.name, bytes: jobOutputs.bytes }).from(jobOutputs).innerJoin(jobs, eq(jobs.id, jobOutputs.job)).where(and(eq(jobs.id, job), eq(jobs.owner, owner)));
  if (!row) throw new Failure("not-found", job, "The file is not kept any more. Write the decks again.");
  return row;
}

/** Writes how far a job is and tells the pages of its owner. A job that has ended stays as it ended; returns whether it was still open. */
export async function updateJob(db: Database, id: string, change: Partial<Pick<Row, "state" | "slides" | "page" | "pages" | "message" | "report" | "result" | "deck">>): Promise<boolean> {
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

/** The jobs of a user that run, and those that ended within a day. */
export async function listJobs(db: Database, owner: string): Promise<Job[]> {
  const rows = await db
    .select()
    .from(jobs)
    .where(and(eq(jobs.owner, owner), or(inArray(jobs.state, ["waiting", "running"]), gt(jobs.endedAt, new Date(Date.now() - 24 * 3600 * 1000)))))
    .orderBy(desc(jobs.createdAt))
    .limit(50);
  return rows.map(jobOf);
}

/** Forgets a job that has ended. */
export async function forgetJob(db: Database, owner: string, id: string): Promise<void> {
  await db.delete(jobs).where(and(eq(jobs.id, id), eq(jobs.owner, owner), inArray(jobs.state, ["done", "cancelled", "failed"])));
}

export async function jobOfOwner(db: Database, owner: string, id: string): Promise<Job> {
  const [row] = await db.select().from(jobs).where(and(eq(jobs.id, id), eq(jobs.owner, owner)));
  if (!row) throw new Failure("not-found", id, "There is no such job.");
  return jobOf(row);
}
