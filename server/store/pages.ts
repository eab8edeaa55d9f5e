import { type Deck, Failure } from "@unitext/core/model";
import { and, desc, eq, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { PageAsked, PublishedPage } from "../api";
import { note } from "./audit";
import { CHANNEL, type Database } from "./database";
import { loadDeck } from "./decks";
import { deckAt } from "./history";
import { pages } from "./schema";

export type StoredPage = typeof pages.$inferSelect;

/** The name under which news of a page is announced. */
export const pageNews = (id: string): string => `page:${id}`;

/** Tells the pages that are open that something about them has changed. */
async function announce(db: Database, id: string): Promise<void> {
  await db.execute(sql`select pg_notify(${CHANNEL}, ${`${pageNews(id)} changed`})`);
}

export async function listPages(db: Database, deck: string): Promise<PublishedPage[]> {
  const rows = await db.select().from(pages).where(eq(pages.deck, deck)).orderBy(desc(pages.createdAt));
  return rows.map(({ id, version, notes, turning, origins, views, createdAt }) => ({
    id,
    version,
    notes,
    turning,
    origins,
    views,
    createdAt: createdAt.toISOString(),
  }));
}

/** Publishes a deck. Returns the id of the page, which is in its address. */
export async function createPage(db: Database, deck: string, asked: PageAsked, by: string): Promise<string> {
  const id = nanoid(16);
  await db.insert(pages).values({ id, deck, ...asked });
  await note(db, { user: by, act: "share", deck, detail: `page ${id}` });
  return id;
}

export async function changePage(db: Database, deck: string, id: string, asked: PageAsked): Promise<void> {
  await db
    .update(pages)
    .set(asked)
    .where(and(eq(pages.id, id), eq(pages.deck, deck)));
  await announce(db, id);
}

/** Takes a page back: its address leads nowhere, and open pages close at once. */
export async function removePage(db: Database, deck: string, id: string, by: string): Promise<void> {
  await db.delete(pages).where(and(eq(pages.id, id), eq(pages.deck, deck)));
  await announce(db, id);
  await note(db, { user: by, act: "unshare", deck, detail: `page ${id}` });
}

/** Returns a published page. Throws a Failure `not-found`. */
export async function pageOf(db: Database, id: string): Promise<StoredPage> {
  const [row] = await db.select().from(pages).where(eq(pages.id, id));
  if (!row)
    throw new Failure("not-found", "page", "This page was taken back, or never was. Ask whoever showed it to you.");
  return row;
}

/** Returns the deck that a page shows, and its version. */
export async function deckOfPage(
  db: Database,
  { deck, version }: StoredPage,
): Promise<{ deck: Deck; version: number }> {
  return version === null ? loadDeck(db, deck) : { deck: await deckAt(db, deck, version), version };
}

/** Counts that a page was opened. */
export async function countView(db: Database, id: string): Promise<void> {
  await db
    .update(pages)
    .set({ views: sql`${pages.views} + 1` })
    .where(eq(pages.id, id));
}
