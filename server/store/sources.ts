import { type CsvReading, Failure } from "@unitext/core/model";
import { and, asc, desc, eq, inArray, isNotNull, isNull, lt, ne, or, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { SourceSummary } from "../api";
import type { Database } from "./database";
import type { Reader } from "./rows";
import { bindings, decks, sources, sourceVersions } from "./schema";

/** How many versions of a source are kept; older ones go unless a binding still names them. */
const KEPT = 50;

/** Stores a state of a source under its name. Returns whether the source was known, and whether the bytes are new. */
export async function storeSource(
  db: Database,
  owner: string,
  { name, bytes, sha256, from }: { name: string; bytes: Uint8Array; sha256: string; from: string },
): Promise<{ id: string; known: boolean; fresh: boolean }> {
  return db.transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(sources)
      .where(and(eq(sources.owner, owner), eq(sources.name, name)))
      .for("update");
    const id = row?.id ?? nanoid(12);
    if (row?.newest === sha256) return { id, known: true, fresh: false };
    if (row) await tx.update(sources).set({ newest: sha256 }).where(eq(sources.id, id));
    else await tx.insert(sources).values({ id, owner, name, newest: sha256 });
    await tx
      .insert(sourceVersions)
      .values({ source: id, sha256, from, bytes: Buffer.from(bytes) })
      .onConflictDoUpdate({ target: [sourceVersions.source, sourceVersions.sha256], set: { at: sql`now()`, from } });
    await tx.execute(sql`
      delete from source_versions v where v.source_id = ${id}
        and v.sha256 not in (select sha256 from source_versions where source_id = ${id} order by at desc limit ${KEPT})
        and not exists (
          select 1 from bindings b join decks d on d.id = b.deck_id
          where d.owner_id = ${owner} and b.source = ${name} and b.version = v.sha256)`);
    return { id, known: row !== undefined, fresh: true };
  });
}

/** Records where a source is fetched from, and what became of the last try; a problem of undefined clears it. */
export async function recordFetch(
  db: Database,
  id: string,
  {
    address,
    etag,
    modified,
    problem,
  }: { address: string; etag?: string | undefined; modified?: string | undefined; problem?: string | undefined },
): Promise<void> {
  await db
    .update(sources)
    .set({
      address,
      checkedAt: new Date(),
      problem: problem ?? null,
      ...(problem === undefined ? { etag: etag ?? null, modified: modified ?? null } : {}),
    })
    .where(eq(sources.id, id));
}

/** Returns the sources with an address that were not asked for since a moment, the longest waiting first. */
export async function sourcesToFetch(db: Reader, before: Date) {
  return db
    .select()
    .from(sources)
    .where(and(isNotNull(sources.address), or(isNull(sources.checkedAt), lt(sources.checkedAt, before))))
    .orderBy(asc(sources.checkedAt))
    .limit(100);
}

/** Returns a source of a person. Throws a Failure `not-found` when it is somebody else's or not there. */
export async function sourceOf(db: Reader, owner: string, id: string) {
  const [row] = await db
    .select()
    .from(sources)
    .where(and(eq(sources.id, id), eq(sources.owner, owner)));
  if (!row) throw new Failure("not-found", id, "There is no such source. It may have been deleted.");
  return row;
}

/** Returns the source of a person with a name; undefined when there is none. */
export async function sourceNamed(db: Reader, owner: string, name: string) {
  const [row] = await db
    .select()
    .from(sources)
    .where(and(eq(sources.owner, owner), eq(sources.name, name)));
  return row;
}

/** Records how a .csv is read; null lets it be recognised. */
export async function recordReading(db: Database, id: string, csv: CsvReading | null): Promise<void> {
  await db.update(sources).set({ csv }).where(eq(sources.id, id));
}

/** Records that a source is a sheet that is typed in Unitext. */
export async function recordTyped(db: Database, id: string): Promise<void> {
  await db.update(sources).set({ typed: true }).where(eq(sources.id, id));
}

/** Counts the values that are updated automatically from a source, and the decks that contain them. */
export async function following(db: Reader, owner: string, name: string): Promise<{ values: number; decks: number }> {
  const [row] = await db
    .select({ values: sql<number>`count(*)::int`, decks: sql<number>`count(distinct ${bindings.deck})::int` })
    .from(bindings)
    .innerJoin(decks, eq(decks.id, bindings.deck))
    .where(and(eq(decks.owner, owner), eq(bindings.source, name), eq(bindings.mode, "latest")));
  return row ?? { values: 0, decks: 0 };
}

/** Returns the bytes of a version of a source; of the newest unless one is named. Throws a Failure `not-found`. */
export async function sourceBytes(
  db: Reader,
  { id, newest }: { id: string; newest: string },
  version = newest,
): Promise<Uint8Array> {
  const [row] = await db
    .select({ bytes: sourceVersions.bytes })
    .from(sourceVersions)
    .where(and(eq(sourceVersions.source, id), eq(sourceVersions.sha256, version)));
  if (!row) throw new Failure("not-found", id, "This version of the source is not kept any more.");
  return row.bytes;
}

/** Returns the bytes of the version before the newest of a source; undefined when there is none. */
export async function bytesBefore(
  db: Reader,
  { id, newest }: { id: string; newest: string },
): Promise<Uint8Array | undefined> {
  const [row] = await db
    .select({ bytes: sourceVersions.bytes })
    .from(sourceVersions)
    .where(and(eq(sourceVersions.source, id), ne(sourceVersions.sha256, newest)))
    .orderBy(desc(sourceVersions.at))
    .limit(1);
  return row?.bytes;
}

/** Returns the sources of a person by name, each with its versions and the decks that use it. */
export async function listSources(db: Reader, owner: string): Promise<SourceSummary[]> {
  const rows = await db.select().from(sources).where(eq(sources.owner, owner)).orderBy(asc(sources.name));
  if (!rows.length) return [];
  const versions = await db
    .select({
      source: sourceVersions.source,
      version: sourceVersions.sha256,
      at: sourceVersions.at,
      from: sourceVersions.from,
      size: sql<number>`octet_length(${sourceVersions.bytes})`,
    })
    .from(sourceVersions)
    .where(
      inArray(
        sourceVersions.source,
        rows.map(({ id }) => id),
      ),
    )
    .orderBy(desc(sourceVersions.at));
  const used = await db
    .select({
      name: bindings.source,
      id: decks.id,
      title: sql<string>`${decks.metadata} -> 'properties' ->> 'title'`,
      bindings: sql<number>`count(*)::int`,
      behind: sql<number>`(count(*) filter (where ${bindings.mode} <> 'fixed' and ${bindings.version} is distinct from ${sources.newest}))::int`,
    })
    .from(bindings)
    .innerJoin(decks, eq(decks.id, bindings.deck))
    .innerJoin(sources, and(eq(sources.owner, decks.owner), eq(sources.name, bindings.source)))
    .where(eq(decks.owner, owner))
    .groupBy(bindings.source, decks.id);
  return rows.map(({ id, name, address, problem, csv, typed }) => ({
    id,
    name,
    address,
    problem,
    csv,
    typed,
    versions: versions
      .filter(({ source }) => source === id)
      .map(({ version, at, from, size }) => ({ version, at: at.toISOString(), from, size })),
    decks: used.filter((one) => one.name === name).map(({ name: _, ...deck }) => deck),
  }));
}

/** Deletes a source with its versions; decks keep the values that they show. */
export async function deleteSource(db: Database, owner: string, id: string): Promise<void> {
  await sourceOf(db, owner, id);
  await db.delete(sources).where(eq(sources.id, id));
}

/** Returns the sources that a deck names among those of its owner, with the bytes of their newest versions. */
export async function sourcesOfDeck(
  db: Reader,
  deck: string,
  names: readonly string[],
): Promise<{ name: string; version: string; bytes: Uint8Array; csv: CsvReading | null }[]> {
  if (!names.length) return [];
  return db
    .select({ name: sources.name, version: sources.newest, bytes: sourceVersions.bytes, csv: sources.csv })
    .from(decks)
    .innerJoin(sources, eq(sources.owner, decks.owner))
    .innerJoin(sourceVersions, and(eq(sourceVersions.source, sources.id), eq(sourceVersions.sha256, sources.newest)))
    .where(and(eq(decks.id, deck), inArray(sources.name, [...names])));
}

/**
 * Returns the decks of a person that show values of a source and are behind its newest version; without a version, all
 * that show values of it that may change.
 */
export async function decksBehind(db: Reader, owner: string, name: string, newest?: string): Promise<string[]> {
  const rows = await db
    .selectDistinct({ id: decks.id })
    .from(bindings)
    .innerJoin(decks, eq(decks.id, bindings.deck))
    .where(
      and(
        eq(decks.owner, owner),
        eq(bindings.source, name),
        ne(bindings.mode, "fixed"),
        newest === undefined ? undefined : sql`${bindings.version} is distinct from ${newest}`,
      ),
    );
  return rows.map(({ id }) => id);
}
