import { languageOfTag, type Term } from "@unitext/core/translate";
import { and, eq, sql } from "drizzle-orm";
import type { Database } from "./database";
import type { Reader } from "./rows";
import { memory, termLists } from "./schema";

/** Stores the terms of a person in a pair of languages, in place of those before. */
export async function storeTerms(
  db: Database,
  owner: string,
  { from, to, terms }: { from: string; to: string; terms: Term[] },
): Promise<void> {
  await db
    .insert(termLists)
    .values({ owner, from: languageOfTag(from), to: languageOfTag(to), terms })
    .onConflictDoUpdate({
      target: [termLists.owner, termLists.from, termLists.to],
      set: { terms: sql`excluded.terms`, at: sql`now()` },
    });
}

/** Returns the pairs of languages in which a person has terms or a memory. */
export async function languagePairs(db: Reader, owner: string): Promise<{ from: string; to: string }[]> {
  const pairs = await db
    .select({ from: termLists.from, to: termLists.to })
    .from(termLists)
    .where(eq(termLists.owner, owner))
    .union(db.select({ from: memory.from, to: memory.to }).from(memory).where(eq(memory.owner, owner)));
  return pairs.sort((one, other) => (one.from + one.to < other.from + other.to ? -1 : 1));
}

/** Returns the terms of a person in a pair of languages. */
export async function storedTerms(db: Reader, owner: string, from: string, to: string): Promise<Term[]> {
  const [row] = await db
    .select({ terms: termLists.terms })
    .from(termLists)
    .where(
      and(eq(termLists.owner, owner), eq(termLists.from, languageOfTag(from)), eq(termLists.to, languageOfTag(to))),
    );
  return row?.terms ?? [];
}
