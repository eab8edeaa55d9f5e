import { createHash } from "node:crypto";
import { and, eq, isNull, lt, ne, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { Me, Session } from "../api";
import type { Database } from "./database";
import { sessions, users } from "./schema";

/** The user of the demo, who is signed in without a password. */
export const DEMO_USER: Me = { id: "demo", name: "Course team", role: "owner", demo: true };

/** How long a session lasts, in milliseconds; one that is used is renewed when half of it has passed. */
export const SESSION_LENGTH = 30 * 24 * 3600 * 1000;
/** How exactly the last use of a session is known, in milliseconds. */
const USE_STEP = 60_000;

/** The state of a token: of a user's session, ended or expired, or unknown. */
export type SessionState = { state: "open"; user: Me; renew: boolean } | { state: "ended" } | { state: "unknown" };

/** Returns the hash under which a token is stored. */
export const hashOfToken = (token: string): string => createHash("sha256").update(token).digest("hex");
/** How much of the hash names a session in a list: enough to differ, too little to be one. */
const SESSION_ID = 16;

/** Returns a new secret for a session's cookie; nothing is stored yet. */
export const newToken = (): string => nanoid(40);

/** Whether a text has the form of a token. */
export const isToken = (text: string): boolean => /^[\w-]{40}$/.test(text);

/** Adds a person who is not in the table yet. */
export async function ensureUser(
  db: Database,
  { id, name, role = "member" }: Pick<Me, "id" | "name"> & Partial<Me>,
): Promise<void> {
  await db.insert(users).values({ id, name, role }).onConflictDoNothing();
}

/** Adds a guest, who came by a link. Returns the id. */
export async function createGuest(db: Database, name: string): Promise<Me> {
  const id = nanoid(12);
  await db.insert(users).values({ id, name, role: "guest" });
  return { id, name, role: "guest", demo: false };
}

/** Returns the name of a person; the id itself for one who is not in the table. */
export async function userName(db: Database, id: string): Promise<string> {
  const [row] = await db.select({ name: users.name }).from(users).where(eq(users.id, id));
  return row?.name ?? id;
}

/** Opens a session under a token, which is stored as a hash. Returns whether it is new. */
export async function openSession(db: Database, user: string, token: string, device = ""): Promise<boolean> {
  const made = await db
    .insert(sessions)
    .values({ hash: hashOfToken(token), user, device, expiresAt: new Date(Date.now() + SESSION_LENGTH) })
    .onConflictDoNothing()
    .returning({ hash: sessions.hash });
  return made.length > 0;
}

/** Returns what a session's token leads to: a person, or that it has ended or is unknown. */
export async function sessionOf(db: Database, token: string): Promise<SessionState> {
  const [found] = await db
    .select({
      id: users.id,
      name: users.name,
      role: users.role,
      closedAt: users.closedAt,
      usedAt: sessions.usedAt,
      expiresAt: sessions.expiresAt,
    })
    .from(sessions)
    .innerJoin(users, eq(users.id, sessions.user))
    .where(eq(sessions.hash, hashOfToken(token)));
  if (!found) return { state: "unknown" };
  const { id, name, role, closedAt, usedAt, expiresAt } = found;
  const left = expiresAt.getTime() - Date.now();
  if (left <= 0 || closedAt !== null) return { state: "ended" };
  if (Date.now() - usedAt.getTime() > USE_STEP)
    await db
      .update(sessions)
      .set({ usedAt: new Date() })
      .where(eq(sessions.hash, hashOfToken(token)));
  return {
    state: "open",
    user: { id, name, role, demo: id === DEMO_USER.id },
    renew: left < SESSION_LENGTH / 2,
  };
}

/** Extends a session to its full length from now. */
export async function renewSession(db: Database, token: string): Promise<void> {
  await db
    .update(sessions)
    .set({ expiresAt: new Date(Date.now() + SESSION_LENGTH) })
    .where(eq(sessions.hash, hashOfToken(token)));
}

/** Ends a session. The row stays for a while, so that the token is known to have ended. */
export async function endSession(db: Database, token: string): Promise<void> {
  await db
    .update(sessions)
    .set({ expiresAt: sql`now()` })
    .where(eq(sessions.hash, hashOfToken(token)));
}

/** Lists the open sessions of a person, last used first; `token` is the one that asks. */
export async function listSessions(db: Database, user: string, token: string): Promise<Session[]> {
  const own = hashOfToken(token);
  const rows = await db
    .select()
    .from(sessions)
    .where(and(eq(sessions.user, user), sql`${sessions.expiresAt} > now()`))
    .orderBy(sql`${sessions.usedAt} desc`);
  return rows.map(({ hash, device, createdAt, usedAt }) => ({
    id: hash.slice(0, SESSION_ID),
    device,
    createdAt: createdAt.toISOString(),
    usedAt: usedAt.toISOString(),
    current: hash === own,
  }));
}

/** Ends a session of a person by its id in the list. */
export async function endSessionById(db: Database, user: string, id: string): Promise<void> {
  await db
    .update(sessions)
    .set({ expiresAt: sql`now()` })
    .where(and(eq(sessions.user, user), sql`left(${sessions.hash}, ${SESSION_ID}) = ${id}`));
}

/** Ends the sessions of a person, but for the one of a token where it is given. */
export async function endSessions(db: Database, user: string, but?: string): Promise<void> {
  await db
    .update(sessions)
    .set({ expiresAt: sql`now()` })
    .where(and(eq(sessions.user, user), but === undefined ? undefined : ne(sessions.hash, hashOfToken(but))));
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

/** Deletes guests who have no session any more and have changed nothing. */
export async function removeOldGuests(db: Database): Promise<void> {
  await db.execute(sql`
    delete from users u where u.role = 'guest'
      and not exists (select 1 from sessions s where s.user_id = u.id)
      and not exists (select 1 from changes c where c.user_id = u.id)
      and not exists (select 1 from versions v where v.user_id = u.id)`);
}

/** Lists the people of the house who can sign in, by name. */
export async function listPeople(db: Database): Promise<{ id: string; name: string }[]> {
  return db
    .select({ id: users.id, name: users.name })
    .from(users)
    .where(and(ne(users.role, "guest"), isNull(users.closedAt)))
    .orderBy(sql`lower(${users.name})`);
}
