import { Failure } from "@unitext/core/model";
import { and, eq, gt, lt, sql } from "drizzle-orm";
import type { TalkNews, TalkState } from "../api";
import { CHANNEL, type Database } from "./database";
import { remotes } from "./schema";
import { hashOfToken, newToken } from "./users";

/** How long a link for a phone lasts, in hours. */
const HOURS = 6;

/** The name under which news of a talk is announced. */
export const newsOf = (hash: string): string => `remote:${hash}`;

/** Makes a link for a phone to follow a talk. Returns its token, which is stored nowhere, and when it ends. */
export async function createRemote(db: Database, deck: string): Promise<{ token: string; expiresAt: Date }> {
  const token = newToken();
  const expiresAt = new Date(Date.now() + HOURS * 3600 * 1000);
  await db.insert(remotes).values({ hash: hashOfToken(token), deck, expiresAt });
  return { token, expiresAt };
}

/** Returns the talk of a token. Throws a Failure `not-found` where it has ended. */
export async function remoteOf(
  db: Database,
  token: string,
): Promise<{ hash: string; deck: string; state: TalkState | null }> {
  const [row] = await db
    .select()
    .from(remotes)
    .where(and(eq(remotes.hash, hashOfToken(token)), gt(remotes.expiresAt, new Date())));
  if (!row) throw new Failure("not-found", "link", "This talk has ended. Ask the speaker for a new link.");
  return row;
}

/** Announces news of a talk to the speaker's window and its phones, on whichever server they are. */
export async function announceTalk(db: Database, hash: string, news: TalkNews): Promise<void> {
  const text = Buffer.from(JSON.stringify(news)).toString("base64url");
  await db.execute(sql`select pg_notify(${CHANNEL}, ${`${newsOf(hash)} ${text}`})`);
}

/** Keeps what the speaker's window shows, for phones that join later, and announces it. */
export async function setTalkState(db: Database, hash: string, state: TalkState): Promise<void> {
  await db.update(remotes).set({ state }).where(eq(remotes.hash, hash));
  await announceTalk(db, hash, { kind: "state", state });
}

/** Ends a talk: its link leads nowhere from now on. */
export async function endRemote(db: Database, hash: string): Promise<void> {
  await db.delete(remotes).where(eq(remotes.hash, hash));
  await announceTalk(db, hash, { kind: "ended" });
}

export async function removeOldRemotes(db: Database): Promise<void> {
  await db.delete(remotes).where(lt(remotes.expiresAt, new Date()));
}
