import { Failure, must } from "@unitext/core/model";
import { and, asc, eq, isNotNull, lt, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { BIN_NEWS, type Folder } from "../api";
import { CHANNEL, type Database } from "./database";
import { summaries } from "./decklist";
import { applyChanges } from "./deckchanges";
import { decks, folders } from "./schema";

/** How long a deck stays in the bin, in days. */
export const BIN_DAYS = 30;

/** Puts a deck into the bin, or takes it out again, and tells the pages that show it. Nothing of it is lost. */
export async function setBinned(db: Database, id: string, binned: boolean): Promise<void> {
  await db
    .update(decks)
    .set({ binnedAt: binned ? new Date() : null })
    .where(eq(decks.id, id));
  const news = binned ? BIN_NEWS.binned : BIN_NEWS.restored;
  await db.execute(sql`select pg_notify(${CHANNEL}, ${`${id} ${news}`})`);
}

/** Deletes the decks that have been in the bin for longer than it keeps them. */
export async function emptyOldBin(db: Database): Promise<void> {
  const before = new Date(Date.now() - BIN_DAYS * 24 * 3600 * 1000);
  const gone = await db
    .delete(decks)
    .where(and(isNotNull(decks.binnedAt), lt(decks.binnedAt, before)))
    .returning({ id: decks.id });
  for (const { id } of gone) summaries.delete(id);
}

/** Gives a deck another title, as a change that can be undone in it. */
export async function renameDeck(db: Database, id: string, user: string, title: string): Promise<void> {
  const [row] = await db.select().from(decks).where(eq(decks.id, id));
  const { metadata, version } = must(row);
  const change = { kind: "setProperties" as const, properties: { ...metadata.properties, title } };
  const description = `Named the deck “${title}”`;
  await applyChanges(db, id, user, { base: version, changes: [{ id: nanoid(12), change, description }] });
}

export async function listFolders(db: Database, owner: string): Promise<Folder[]> {
  return db
    .select({ id: folders.id, name: folders.name })
    .from(folders)
    .where(eq(folders.owner, owner))
    .orderBy(asc(sql`lower(${folders.name})`));
}

/** Throws a Failure where a person has another folder of this name. */
async function requireFreeName(db: Database, owner: string, name: string, own?: string): Promise<void> {
  const [taken] = await db
    .select({ id: folders.id })
    .from(folders)
    .where(and(eq(folders.owner, owner), eq(folders.name, name)));
  if (taken && taken.id !== own)
    throw new Failure("conflict", name, `There is a folder “${name}” already. Choose another name.`);
}

/** Makes a folder. Returns its id. Throws a Failure `conflict` where there is one of this name. */
export async function createFolder(db: Database, owner: string, name: string): Promise<string> {
  await requireFreeName(db, owner, name);
  const id = nanoid(12);
  await db.insert(folders).values({ id, owner, name });
  return id;
}

/** Throws a Failure `not-found` unless the folder is this person's. */
async function requireFolder(db: Database, owner: string, id: string): Promise<void> {
  const [found] = await db
    .select({ id: folders.id })
    .from(folders)
    .where(and(eq(folders.id, id), eq(folders.owner, owner)));
  if (!found) throw new Failure("not-found", id, "This folder is not here any more.");
}

export async function renameFolder(db: Database, owner: string, id: string, name: string): Promise<void> {
  await requireFolder(db, owner, id);
  await requireFreeName(db, owner, name, id);
  await db.update(folders).set({ name }).where(eq(folders.id, id));
}

/** Deletes a folder; its decks are on the Desk again, in none. */
export async function deleteFolder(db: Database, owner: string, id: string): Promise<void> {
  await requireFolder(db, owner, id);
  await db.delete(folders).where(eq(folders.id, id));
}

/** Puts a deck into a folder of its owner, or into none. */
export async function putInFolder(db: Database, deck: string, owner: string, folder: string | null): Promise<void> {
  if (folder !== null) await requireFolder(db, owner, folder);
  await db.update(decks).set({ folder }).where(eq(decks.id, deck));
}
