import { createHash } from "node:crypto";
import { languageOfTag, lookupWords, type MemoryUnit, type Piece } from "@unitext/core/translate";
import { and, asc, desc, eq, like, or, sql } from "drizzle-orm";
import type { Database } from "./database";
import type { Reader } from "./rows";
import { decks, memory } from "./schema";

/** Returns the text that is searched, no longer than an index of trigrams should hold. */
const memoryWords = (pieces: readonly Piece[]): string => lookupWords(pieces).slice(0, 2000);

/** How many units are stored with one statement. */
const BATCH = 5000;

/** A row of the memory as it is sent to the database. */
interface UnitRow extends MemoryUnit {
  id: string;
  words: string;
}

/** Stores units in a person's memory. A unit replaces an earlier one with the same words in the same context. */
export async function remember(
  db: Database,
  owner: string,
  units: Iterable<MemoryUnit>,
  deck: string | null = null,
): Promise<number> {
  const rows = new Map<string, UnitRow>();
  let stored = 0;
  const flush = async () => {
    if (!rows.size) return;
    // All rows are one JSON parameter, which is several times as fast as nine parameters for each row.
    await db.execute(sql`
      insert into memory (id, owner_id, from_language, to_language, words, source, target, context, deck_id)
      select id, ${owner}, "from", "to", words, source, target, context, ${deck}
      from jsonb_to_recordset(${JSON.stringify([...rows.values()])}::jsonb)
        as rows(id text, "from" text, "to" text, words text, source jsonb, target jsonb, context jsonb)
      on conflict (id) do update
        set source = excluded.source, target = excluded.target, deck_id = excluded.deck_id, at = now()`);
    stored += rows.size;
    rows.clear();
  };
  for (const { from, to, source, target, context } of units) {
    const words = memoryWords(source);
    if (!words) continue;
    const key = [owner, languageOfTag(from), languageOfTag(to), words];
    if (context) key.push(context.before, context.after);
    const id = createHash("sha256").update(JSON.stringify(key)).digest("base64url").slice(0, 24);
    rows.set(id, { id, from: languageOfTag(from), to: languageOfTag(to), words, source, target, context });
    if (rows.size >= BATCH) await flush();
  }
  await flush();
  return stored;
}

/** How many candidates are compared word by word. */
const CANDIDATES = 50;

/** Returns units of a person's memory whose words are most like those of a text, by their trigrams. */
export async function recall(
  db: Reader,
  owner: string,
  { from, to, source }: { from: string; to: string; source: readonly Piece[] },
): Promise<MemoryUnit[]> {
  const words = memoryWords(source);
  if (!words) return [];
  const rows = await db
    .select({ source: memory.source, target: memory.target, context: memory.context })
    .from(memory)
    .where(
      and(
        eq(memory.owner, owner),
        eq(memory.from, languageOfTag(from)),
        eq(memory.to, languageOfTag(to)),
        sql`${memory.words} % ${words}`,
      ),
    )
    .orderBy(sql`similarity(${memory.words}, ${words}) desc`, asc(memory.at))
    .limit(CANDIDATES);
  return rows.map(({ context, ...row }) => ({ from, to, ...row, ...(context ? { context } : {}) }));
}

/** A unit of a memory with where it comes from, for the person who looks for words in it. */
export interface RememberedUnit {
  id: string;
  source: Piece[];
  target: Piece[];
  deck: { id: string; title: string } | null;
  at: Date;
}

/** How many units a search returns. */
const FOUND = 100;

/** The words of a translation without its placeholders, in lower case. */
const targetWords = sql`(
  select lower(string_agg(part.value #>> '{}', '' order by part.nth))
  from jsonb_array_elements(${memory.target}) with ordinality as part(value, nth)
  where jsonb_typeof(part.value) = 'string'
)`;

/** Finds the units of a person's memory that have words in their source or translation, the newest first. */
export async function searchMemory(
  db: Reader,
  owner: string,
  { from, to, words }: { from: string; to: string; words: string },
): Promise<RememberedUnit[]> {
  const pattern = `%${words.toLowerCase().replace(/[\\%_]/g, "\\$&")}%`;
  const rows = await db
    .select({
      id: memory.id,
      source: memory.source,
      target: memory.target,
      deck: memory.deck,
      metadata: decks.metadata,
      at: memory.at,
    })
    .from(memory)
    .leftJoin(decks, eq(decks.id, memory.deck))
    .where(
      and(
        eq(memory.owner, owner),
        eq(memory.from, languageOfTag(from)),
        eq(memory.to, languageOfTag(to)),
        or(like(memory.words, pattern), sql`${targetWords} like ${pattern}`),
      ),
    )
    .orderBy(desc(memory.at), asc(memory.words))
    .limit(FOUND);
  return rows.map(({ deck, metadata, ...row }) => ({
    ...row,
    deck: deck && metadata ? { id: deck, title: metadata.properties.title } : null,
  }));
}

/** Corrects the translation of a unit in a person's memory. Returns whether there is such a unit. */
export async function correctUnit(db: Database, owner: string, id: string, target: Piece[]): Promise<boolean> {
  const changed = await db
    .update(memory)
    .set({ target, at: sql`now()` })
    .where(and(eq(memory.id, id), eq(memory.owner, owner)))
    .returning({ id: memory.id });
  return changed.length > 0;
}

/** Removes a unit from a person's memory. Returns whether there was such a unit. */
export async function forgetUnit(db: Database, owner: string, id: string): Promise<boolean> {
  const removed = await db
    .delete(memory)
    .where(and(eq(memory.id, id), eq(memory.owner, owner)))
    .returning({ id: memory.id });
  return removed.length > 0;
}

/** Returns the units of a person's memory in a pair of languages, by their words. */
export async function memoryUnits(db: Reader, owner: string, from: string, to: string): Promise<MemoryUnit[]> {
  const rows = await db
    .select({ source: memory.source, target: memory.target, context: memory.context })
    .from(memory)
    .where(and(eq(memory.owner, owner), eq(memory.from, languageOfTag(from)), eq(memory.to, languageOfTag(to))))
    .orderBy(asc(memory.words));
  return rows.map(({ context, ...row }) => ({ from, to, ...row, ...(context ? { context } : {}) }));
}
