import { sql } from "drizzle-orm";
import { PRESENCE_NEWS, type PresenceNews } from "../api";
import { CHANNEL, type Database } from "./database";

/** Tells the pages of a deck where somebody is in it. It is stored nowhere. */
export async function announcePresence(db: Database, deck: string, news: PresenceNews): Promise<void> {
  const text = Buffer.from(JSON.stringify(news)).toString("base64url");
  await db.execute(sql`select pg_notify(${CHANNEL}, ${`${deck} ${PRESENCE_NEWS}${text}`})`);
}
