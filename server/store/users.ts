import { createHash } from "node:crypto";
import { eq, lt, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { Me } from "../api";
import type { Database } from "./database";
import { sessions, users } from "./schema";

/** The user of the demo, who is signed in without a password. */
export const DEMO_USER: Me = { id: "demo", name: "Course team" };

/** How long a session lasts, in milliseconds; one that is used is renewed when half of it has passed. */
export const SESSION_LENGTH = 30 * 24 * 3600 * 1000;

/** The state of a token: of a user's session, ended or expired, or unknown. */
export type SessionState = { state: "open"; user: Me; renew: boolean } | { state: "ended" } | { state: "unknown" };

const hashOf = (token: string) => createHash("sha256").update(token).digest("hex");

/** Returns a new secret for a session's cookie; nothing is stored yet. */
export const newToken = (): string => nanoid(40);

/** Whether a text has the form of a token. */
export const isToken = (text: string): boolean => /^[\w-]{40}$/.test(text);

/** Adds a person who is not in the table yet. */
export async function ensureUser(db: Database, user: Me): Promise<void> {
  await db.insert(users).values(user).onConflictDoNothing();
}

/** Returns the name of a person; the id itself for one who is not in the table. */
export async function userName(db: Database, id: string): Promise<string> {
  const [row] = await db.select({ name: users.name }).from(users).where(eq(users.id, id));
  return row?.name ?? id;
}

/** Opens a session under a token, which is stored as a hash. Returns whether it is new. */
export async function openSession(db: Database, user: string, token: string): Promise<boolean> {
  const made = await db
    .insert(sessions)
    .values({ hash: hashOf(token), user, expiresAt: new Date(Date.now() + SESSION_LENGTH) })
    .onConflictDoNothing()
    .returning({ hash: sessions.hash });
  return made.length > 0;
}

/** Returns what a session's token leads to: a person, or that it has ended or is unknown. */
export async function sessionOf(db: Database, token: string): Promise<SessionState> {
  const [found] = await db
    .select({ id: users.id, name: users.name, expiresAt: sessions.expiresAt })
    .from(sessions)
    .innerJoin(users, eq(users.id, sessions.user))
    .where(eq(sessions.hash, hashOf(token)));
  if (!found) return { state: "unknown" };
  const left = found.expiresAt.getTime() - Date.now();
  return left > 0
    ? { state: "open", user: { id: found.id, name: found.name }, renew: left < SESSION_LENGTH / 2 }
    : { state: "ended" };
}

/** Extends a session to its full length from now. */
export async function renewSession(db: Database, token: string): Promise<void> {
  await db
    .update(sessions)
    .set({ expiresAt: new Date(Date.now() + SESSION_LENGTH) })
    .where(eq(sessions.hash, hashOf(token)));
}

/** Ends a session. The row stays for a while, so that the token is known to have ended. */
export async function endSession(db: Database, token: string): Promise<void> {
  await db
    .update(sessions)
    .set({ expiresAt: sql`now()` })
    .where(eq(sessions.hash, hashOf(token)));
}

/** Deletes sessions that ended long ago. Returns how many. */
export async function removeOldSessions(db: Database): Promise<number> {
  return (
    await db
      .delete(sessions)
      .where(lt(sessions.expiresAt, new Date(Date.now() - SESSION_LENGTH)))
      .returning({ hash: sessions.hash })
  ).length;
}
