import { languageOfTag, type Term } from "@unitext/core/translate";
import { and, eq, sql } from "drizzle-orm";
import type { Database } from "./database";
import type { Reader } from "./rows";
import { termLists } from "./schema";

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
