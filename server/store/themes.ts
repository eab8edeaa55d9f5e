import { readStored, SCHEMA_VERSION, Theme } from "@unitext/core/model";
import { and, asc, eq, sql } from "drizzle-orm";
import type { Database } from "./database";
import type { Reader } from "./rows";
import { decks, themes } from "./schema";

/** A saved theme, and how many decks of its owner have a theme of this name. */
export interface SavedTheme {
  theme: Theme;
  decks: number;
}

/** Stores a theme of a person under its name, in place of the one before. */
export async function storeTheme(db: Database, owner: string, theme: Theme): Promise<void> {
  await db
    .insert(themes)
    .values({ owner, name: theme.name, theme, schema: SCHEMA_VERSION })
    .onConflictDoUpdate({
      target: [themes.owner, themes.name],
      set: { theme: sql`excluded.theme`, schema: sql`excluded.schema`, at: sql`now()` },
    });
}

/** Returns the themes that a person has saved, by name. */
export async function storedThemes(db: Reader, owner: string): Promise<SavedTheme[]> {
  const rows = await db
    .select({
      theme: themes.theme,
      schema: themes.schema,
      decks: sql<number>`(select count(*)::int from decks d where d.owner_id = themes.owner_id and d.metadata->'theme'->>'name' = themes.name)`,
    })
    .from(themes)
    .where(eq(themes.owner, owner))
    .orderBy(asc(themes.name));
  return rows.map(({ theme, schema, decks: count }) => ({
    theme: readStored(Theme, theme, schema, "a saved theme"),
    decks: count,
  }));
}

/** Deletes a saved theme. The decks that have it keep it. */
export async function deleteTheme(db: Database, owner: string, name: string): Promise<void> {
  await db.delete(themes).where(and(eq(themes.owner, owner), eq(themes.name, name)));
}

/** Returns the ids of a person's decks whose theme has a name. */
export async function decksInTheme(db: Reader, owner: string, name: string): Promise<string[]> {
  const rows = await db
    .select({ id: decks.id })
    .from(decks)
    .where(and(eq(decks.owner, owner), sql`${decks.metadata}->'theme'->>'name' = ${name}`));
  return rows.map(({ id }) => id);
}
