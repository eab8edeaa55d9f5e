import { eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { Me } from "../api";
import type { Database } from "./database";
import { sessions, users } from "./schema";

/** The user of the demo, who is signed in without a password. */
export const DEMO_USER: Me = { id: "demo", name: "Course team" };

export async function ensureUser(db: Database, user: Me): Promise<void> {
  await db.insert(users).values(user).onConflictDoNothing();
}

/** Opens a session; the token is the secret that its cookie carries. */
export async function openSession(db: Database, user: string): Promise<string> {
  const token = nanoid(40);
  await db.insert(sessions).values({ token, user });
  return token;
}

export async function userOf(db: Database, token: string): Promise<Me | undefined> {
  const [found] = await db.select({ id: users.id, name: users.name }).from(sessions).innerJoin(users, eq(users.id, sessions.user)).where(eq(sessions.token, token));
  return found;
}
