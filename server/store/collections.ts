import { Failure, must } from "@unitext/core/model";
import { type Tally, tally } from "@unitext/core/tally";
import { and, asc, desc, eq, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { Collection, CollectionAsked, CollectionFace, CollectionList, HandIn, NamePart, Receipt } from "../api";
import { type Database, JOB_CHANNEL } from "./database";
import { loadDeck } from "./decks";
import { createFolder } from "./desk";
import type { TokenMaker } from "./links";
import { collections, decks, folders, handIns, jobs, slides, users } from "./schema";
import { hashOfToken, newToken } from "./users";

export type StoredCollection = typeof collections.$inferSelect;

const tokenOf = (make: TokenMaker, id: string) => make(`collection ${id}`);
const gone = (id: string) => new Failure("not-found", id, "This collection is not here any more.");

/** Returns a folder name that the person has not used: the title, or the title with a number. */
async function freeFolder(db: Database, owner: string, title: string): Promise<string> {
  const taken = new Set(
    (await db.select({ name: folders.name }).from(folders).where(eq(folders.owner, owner))).map(({ name }) => name),
  );
  for (let nth = 1; ; nth++) {
    const name = nth === 1 ? title : `${title} ${nth}`;
    if (!taken.has(name)) return name;
  }
}

/** Makes a collection with a folder of its own for what is handed in. Returns its id. */
export async function createCollection(
  db: Database,
  owner: string,
  { dueAt, ...terms }: CollectionAsked,
  make: TokenMaker,
): Promise<string> {
  const id = nanoid(12);
  const folder = await createFolder(db, owner, await freeFolder(db, owner, terms.title));
  const hash = hashOfToken(tokenOf(make, id));
  await db
    .insert(collections)
    .values({ id, owner, hash, folder, ...terms, dueAt: dueAt === null ? null : new Date(dueAt) });
  return id;
}

/** Returns a collection of its owner. Throws a Failure `not-found`. */
export async function ownCollection(db: Database, owner: string, id: string): Promise<StoredCollection> {
  const [row] = await db
    .select()
    .from(collections)
    .where(and(eq(collections.id, id), eq(collections.owner, owner)));
  if (!row) throw gone(id);
  return row;
}

export async function changeCollection(
  db: Database,
  id: string,
  change: CollectionAsked | { closed: boolean },
): Promise<void> {
  const set = "closed" in change ? change : { ...change, dueAt: change.dueAt === null ? null : new Date(change.dueAt) };
  await db.update(collections).set(set).where(eq(collections.id, id));
}

/** Deletes a collection with its list of hand-ins; the decks stay in their folder. */
export async function deleteCollection(db: Database, id: string): Promise<void> {
  await db.delete(collections).where(eq(collections.id, id));
}

export async function listCollections(db: Database, owner: string): Promise<CollectionList["collections"]> {
  const rows = await db
    .select({
      collection: collections,
      names:
        sql<number>`(select count(distinct h.name) from ${handIns} h where h.collection_id = "collections"."id")`.mapWith(
          Number,
        ),
    })
    .from(collections)
    .where(eq(collections.owner, owner))
    .orderBy(desc(collections.createdAt));
  return rows.map(({ collection: { id, title, dueAt, closed, expected }, names }) => ({
    id,
    title,
    dueAt: dueAt?.toISOString() ?? null,
    closed,
    names,
    expected: expected.length,
  }));
}

/** Returns names without case, accents of typing, and the signs between their parts, to compare them. */
const comparable = (name: string) =>
  name
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[\s\-_.,]+/g, " ")
    .trim();

/** Returns the expected names under which nothing was handed in. A name is there if all its words are in one that came. */
export function missingNames(expected: readonly string[], names: readonly string[]): string[] {
  const there = names.map((name) => new Set(comparable(name).split(" ")));
  return expected.filter((name) => {
    const words = comparable(name).split(" ");
    return !there.some((found) => words.every((word) => found.has(word)));
  });
}

const stateOf = (deck: string | null, job: { state: string; message: string | null } | null): HandIn["state"] => {
  if (job?.state === "failed" || job?.state === "cancelled") return "failed";
  if (job?.state === "waiting" || job?.state === "running") return "waiting";
  return deck === null ? "failed" : "read";
};

/** Returns a collection with what was handed in, in the order of the names, the newest of each first. */
export async function collectionWithHandIns(
  db: Database,
  row: StoredCollection,
  make: TokenMaker,
): Promise<Collection> {
  const found = await db
    .select({
      handIn: handIns,
      jobState: jobs.state,
      message: jobs.message,
      version: decks.version,
      slides: sql<number>`(select count(*) from ${slides} s where s.deck_id = "hand_ins"."deck_id")`.mapWith(Number),
    })
    .from(handIns)
    .leftJoin(jobs, eq(jobs.id, handIns.job))
    .leftJoin(decks, eq(decks.id, handIns.deck))
    .where(eq(handIns.collection, row.id))
    .orderBy(asc(sql`${handIns.name} collate "und-x-icu"`), desc(handIns.nth));
  const token = tokenOf(make, row.id);
  const seen = new Set<string>();
  const list = found.map(({ handIn, jobState, message, version, slides: count }): HandIn => {
    const { id, name, file, at, late, nth, deck } = handIn;
    const newest = !seen.has(name);
    seen.add(name);
    return {
      id,
      name,
      file,
      at: at.toISOString(),
      late,
      nth,
      newest,
      deck,
      state: stateOf(deck, jobState === null ? null : { state: jobState, message }),
      message,
      slides: count,
      version: version ?? 0,
    };
  });
  const { id, title, parts, formats, dueAt, expected, closed, folder } = row;
  return {
    id,
    title,
    parts,
    formats,
    dueAt: dueAt?.toISOString() ?? null,
    expected,
    closed,
    folder,
    path: hashOfToken(token) === row.hash ? `/hand-in/${token}` : null,
    handIns: list,
    missing: missingNames(expected, [...seen]),
  };
}

/** Returns the collection of a token. Throws a Failure `not-found`. */
export async function collectionWith(db: Database, token: string): Promise<StoredCollection> {
  const [row] = await db
    .select()
    .from(collections)
    .where(eq(collections.hash, hashOfToken(token)));
  if (!row)
    throw new Failure("not-found", "link", "This link leads nowhere: the collection is over. Ask whoever sent it.");
  return row;
}

/** Returns what the page of a collection says to whoever hands in. */
export async function collectionFace(db: Database, row: StoredCollection): Promise<CollectionFace> {
  const [owner] = await db.select({ name: users.name }).from(users).where(eq(users.id, row.owner));
  const { title, parts, formats, dueAt, closed } = row;
  return { title, parts, formats, dueAt: dueAt?.toISOString() ?? null, closed, by: must(owner).name };
}

/** Returns the name that its parts make. Throws a Failure `not-valid` for a part that is not of its kind. */
export function nameOfParts(scheme: readonly NamePart[], given: readonly string[]): string {
  return scheme
    .map(({ label, kind }, nth) => {
      const said = (given[nth] ?? "").normalize("NFKC").replace(/\s+/g, " ").trim();
      if (!said) throw new Failure("not-valid", label, `Say the ${label.toLowerCase()}.`);
      if (kind === "number" && !/^\d{1,9}$/.test(said))
        throw new Failure("not-valid", label, `The ${label.toLowerCase()} has digits alone.`);
      if (!/^[\p{L}\p{M}\p{N} .’'_]{1,80}$/u.test(said))
        throw new Failure("not-valid", label, `The ${label.toLowerCase()} has letters, digits and spaces alone.`);
      return said;
    })
    .join("-");
}

/** Notes that something was handed in. Returns the code of its receipt, which is stored nowhere. */
export async function noteHandIn(
  db: Database,
  collection: StoredCollection,
  given: { name: string; file: string; sha256: string; size: number; deck: string; job: string | null },
): Promise<string> {
  const code = newToken();
  const late = collection.dueAt !== null && Date.now() > collection.dueAt.getTime();
  await db.transaction(async (tx) => {
    // Two hand-ins of one name at the same time get different numbers.
    await tx.execute(sql`select 1 from ${collections} where id = ${collection.id} for update`);
    const [last] = await tx
      .select({ nth: sql<number>`coalesce(max(${handIns.nth}), 0)`.mapWith(Number) })
      .from(handIns)
      .where(and(eq(handIns.collection, collection.id), eq(handIns.name, given.name)));
    const [there] = await tx.select({ id: decks.id }).from(decks).where(eq(decks.id, given.deck)).for("key share");
    await tx.insert(handIns).values({
      id: nanoid(12),
      collection: collection.id,
      hash: hashOfToken(code),
      nth: must(last).nth + 1,
      late,
      ...given,
      // A file that could not be read may have failed already, and its deck with it.
      deck: there ? given.deck : null,
    });
    await tx.update(decks).set({ folder: collection.folder }).where(eq(decks.id, given.deck));
    await tx.execute(sql`select pg_notify(${JOB_CHANNEL}, ${collection.owner})`);
  });
  return code;
}

/** Returns the receipt of a code, with the tally of the deck once it is read. Throws a Failure `not-found`. */
export async function receiptOf(db: Database, code: string): Promise<Receipt> {
  const [row] = await db
    .select({ handIn: handIns, title: collections.title, state: jobs.state, message: jobs.message })
    .from(handIns)
    .innerJoin(collections, eq(collections.id, handIns.collection))
    .leftJoin(jobs, eq(jobs.id, handIns.job))
    .where(eq(handIns.hash, hashOfToken(code)));
  if (!row) throw new Failure("not-found", "receipt", "There is no receipt of this code.");
  const { handIn, title, message } = row;
  const { name, file, at, late, nth, sha256, size, deck } = handIn;
  const state = stateOf(deck, row.state === null ? null : { state: row.state, message });
  let counted: Tally | null = handIn.tally;
  // Counted once: a receipt says what was handed in, whatever becomes of the deck.
  if (!counted && state === "read" && deck !== null) {
    counted = tally((await loadDeck(db, deck)).deck);
    await db.update(handIns).set({ tally: counted }).where(eq(handIns.id, handIn.id));
  }
  return {
    code,
    collection: title,
    name,
    file,
    at: at.toISOString(),
    late,
    nth,
    sha256,
    size,
    state,
    message,
    tally: counted,
  };
}
