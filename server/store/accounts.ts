import { Failure } from "@unitext/core/model";
import { and, asc, count, eq, gt, isNotNull, isNull, ne, or, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { AccountLink, Invitation, Person, PersonChange } from "../api";
import type { Database, Transaction } from "./database";
import { accountLinks, decks, sessions, users } from "./schema";
import { endSessions, hashOfToken, newToken } from "./users";

/** An account as signing in needs it. */
export type StoredAccount = typeof users.$inferSelect;

/** How long a link that sets a new password lasts, in hours. */
const RESET_HOURS = 24;

const byName = (name: string) =>
  and(eq(sql`lower(${users.name})`, name.toLowerCase()), ne(users.role, "guest"), isNotNull(users.password));

/** Returns the account of a name, whatever its case; undefined for none. */
export async function accountNamed(db: Database, name: string): Promise<StoredAccount | undefined> {
  const [row] = await db.select().from(users).where(byName(name));
  return row;
}

export async function accountOf(db: Database, id: string): Promise<StoredAccount | undefined> {
  const [row] = await db.select().from(users).where(eq(users.id, id));
  return row;
}

/** Whether somebody has an account with a password already. */
export async function hasAccounts(db: Database): Promise<boolean> {
  const [row] = await db.select({ id: users.id }).from(users).where(isNotNull(users.password)).limit(1);
  return row !== undefined;
}

/** Returns the id of the owner who has been here longest; undefined for a house without one. */
export async function firstOwner(db: Database): Promise<string | undefined> {
  const [row] = await db
    .select({ id: users.id })
    .from(users)
    .where(and(eq(users.role, "owner"), isNotNull(users.password), isNull(users.closedAt)))
    .orderBy(asc(users.createdAt))
    .limit(1);
  return row?.id;
}

async function insertAccount(
  tx: Transaction,
  { name, password, role }: { name: string; password: string; role: "owner" | "member" },
): Promise<string> {
  const [taken] = await tx.select({ id: users.id }).from(users).where(byName(name));
  if (taken) throw new Failure("conflict", "name", `There is an account “${name}” already. Choose another name.`);
  const id = nanoid(12);
  await tx.insert(users).values({ id, name, role, password });
  return id;
}

/** Makes the first account of a house, which owns it. Throws a Failure `conflict` where there is an account already. */
export async function createFirstAccount(db: Database, name: string, password: string): Promise<string> {
  return db.transaction(async (tx) => {
    await tx.execute(sql`lock table users in share row exclusive mode`);
    const [there] = await tx.select({ id: users.id }).from(users).where(isNotNull(users.password)).limit(1);
    if (there)
      throw new Failure("conflict", "house", "This house has an owner already. Sign in, or ask for an invitation.");
    return insertAccount(tx, { name, password, role: "owner" });
  });
}

const isOpen = () => and(gt(accountLinks.expiresAt, new Date()), gt(accountLinks.uses, 0));
const GONE = "This link has expired, was used, or was taken back. Ask an owner of the house for a new one.";

/** Returns what an account link is for. Throws a Failure `not-found` for one that does not hold. */
export async function accountLinkOf(db: Database, token: string): Promise<AccountLink> {
  const [row] = await db
    .select({ kind: accountLinks.kind, name: users.name, expiresAt: accountLinks.expiresAt })
    .from(accountLinks)
    .leftJoin(users, eq(users.id, accountLinks.user))
    .where(and(eq(accountLinks.hash, hashOfToken(token)), isOpen()));
  if (!row) throw new Failure("not-found", "link", GONE);
  return { ...row, expiresAt: row.expiresAt.toISOString() };
}

/** Makes an account by an invitation. Returns its id. Throws a Failure where the link does not hold or the name is taken. */
export async function acceptInvitation(db: Database, token: string, name: string, password: string): Promise<string> {
  return db.transaction(async (tx) => {
    const [link] = await tx
      .update(accountLinks)
      .set({ uses: sql`${accountLinks.uses} - 1` })
      .where(and(eq(accountLinks.hash, hashOfToken(token)), eq(accountLinks.kind, "invitation"), isOpen()))
      .returning({ role: accountLinks.role });
    if (!link) throw new Failure("not-found", "link", GONE);
    return insertAccount(tx, { name, password, role: link.role });
  });
}

/** Sets a password by a reset link, which turns the second factor off and ends all sessions. Returns the person's id. */
export async function resetPassword(db: Database, token: string, password: string): Promise<string> {
  return db.transaction(async (tx) => {
    const [link] = await tx
      .update(accountLinks)
      .set({ uses: 0 })
      .where(and(eq(accountLinks.hash, hashOfToken(token)), eq(accountLinks.kind, "reset"), isOpen()))
      .returning({ user: accountLinks.user });
    if (!link?.user) throw new Failure("not-found", "link", GONE);
    await tx.update(users).set({ password, totp: null, totpStep: null }).where(eq(users.id, link.user));
    await tx.update(sessions).set({ expiresAt: sql`now()` }).where(eq(sessions.user, link.user));
    return link.user;
  });
}

/** Makes a link for an invitation or a reset. Returns its token, which is not stored. */
export async function createAccountLink(
  db: Database,
  asked: { by: string; role?: "owner" | "member"; uses?: number; hours?: number; user?: string },
): Promise<{ token: string; expiresAt: Date }> {
  const { by, role = "member", uses = 1, hours = RESET_HOURS, user } = asked;
  const token = newToken();
  const expiresAt = new Date(Date.now() + hours * 3600 * 1000);
  // An earlier reset link of the same person ends.
  if (user !== undefined) await db.delete(accountLinks).where(eq(accountLinks.user, user));
  await db.insert(accountLinks).values({
    id: nanoid(12),
    hash: hashOfToken(token),
    kind: user === undefined ? "invitation" : "reset",
    user: user ?? null,
    role,
    uses,
    by,
    expiresAt,
  });
  return { token, expiresAt };
}

export async function removeAccountLink(db: Database, id: string): Promise<void> {
  await db.delete(accountLinks).where(eq(accountLinks.id, id));
}

/** Deletes account links that do not hold any more. */
export async function removeOldAccountLinks(db: Database): Promise<void> {
  await db.delete(accountLinks).where(or(sql`${accountLinks.expiresAt} < now()`, sql`${accountLinks.uses} <= 0`));
}

/** Lists the invitations that still hold. */
export async function listInvitations(db: Database): Promise<Invitation[]> {
  const rows = await db
    .select({
      id: accountLinks.id,
      role: accountLinks.role,
      uses: accountLinks.uses,
      by: users.name,
      expiresAt: accountLinks.expiresAt,
    })
    .from(accountLinks)
    .innerJoin(users, eq(users.id, accountLinks.by))
    .where(and(eq(accountLinks.kind, "invitation"), isOpen()))
    .orderBy(asc(accountLinks.expiresAt));
  return rows.map((row) => ({ ...row, expiresAt: row.expiresAt.toISOString() }));
}

/** Lists everybody with an account, for the owners of the house. */
export async function listAccounts(db: Database): Promise<Person[]> {
  const rows = await db
    .select({
      id: users.id,
      name: users.name,
      role: users.role,
      totp: users.totp,
      closedAt: users.closedAt,
      usedAt: sql<Date | null>`(select max(s.used_at) from ${sessions} s where s.user_id = "users"."id")`.mapWith(
        sessions.usedAt,
      ),
      decks: sql<number>`(select ${count()} from ${decks} d where d.owner_id = "users"."id")`.mapWith(Number),
    })
    .from(users)
    .where(ne(users.role, "guest"))
    .orderBy(asc(sql`lower(${users.name})`));
  return rows.map(({ id, name, role, totp, closedAt, usedAt, decks: number }) => ({
    id,
    name,
    role: role === "owner" ? "owner" : "member",
    secondFactor: totp !== null,
    closed: closedAt !== null,
    usedAt: usedAt?.toISOString() ?? null,
    decks: number,
  }));
}

/** Changes the role of a person, or closes or opens the account. Throws a Failure where no owner would be left. */
export async function changeAccount(db: Database, id: string, change: PersonChange): Promise<void> {
  const closing = "closed" in change;
  await db.transaction(async (tx) => {
    await tx.execute(sql`lock table users in share row exclusive mode`);
    const [found] = await tx
      .update(users)
      .set(closing ? { closedAt: change.closed ? new Date() : null } : { role: change.role })
      .where(and(eq(users.id, id), ne(users.role, "guest")))
      .returning({ id: users.id });
    if (!found) throw new Failure("not-found", "person", "There is no such person in this house.");
    const [owner] = await tx
      .select({ id: users.id })
      .from(users)
      .where(and(eq(users.role, "owner"), isNull(users.closedAt)))
      .limit(1);
    if (!owner)
      throw new Failure("conflict", "owner", "This house would have no owner. Make somebody else an owner first.");
  });
  if (closing && change.closed) await endSessions(db, id);
}

/** Sets the password of a person and ends all sessions but the one of `token`. */
export async function setPassword(db: Database, id: string, password: string, token: string): Promise<void> {
  await db.update(users).set({ password }).where(eq(users.id, id));
  await endSessions(db, id, token);
}

/** Sets the encrypted secret of the second factor, or none, and the time step of the code that confirmed it. */
export async function setSecondFactor(
  db: Database,
  id: string,
  secret: string | null,
  step: number | null,
): Promise<void> {
  await db.update(users).set({ totp: secret, totpStep: step }).where(eq(users.id, id));
}

/** Notes that the code of a time step was used. Returns whether it was the first time. */
export async function spendCode(db: Database, id: string, step: number): Promise<boolean> {
  const used = await db
    .update(users)
    .set({ totpStep: step })
    .where(and(eq(users.id, id), or(isNull(users.totpStep), sql`${users.totpStep} < ${step}`)))
    .returning({ id: users.id });
  return used.length > 0;
}
