import { and, eq } from "drizzle-orm";
import type { Database, Transaction } from "./database";
import { documents } from "./schema";

/** Stores the text of the document that a deck's slides come from. */
export async function writeDocument(
  db: Database | Transaction,
  deck: string,
  id: string,
  name: string | undefined,
  text: string,
): Promise<void> {
  await db
    .insert(documents)
    .values({ deck, id, name: name ?? "text", text })
    .onConflictDoUpdate({
      target: [documents.deck, documents.id],
      set: { text, takenAt: new Date(), ...(name === undefined ? {} : { name }) },
    });
}

/** Returns the text that a deck's slides were made from; null when there is none. */
export async function documentText(db: Database | Transaction, deck: string, id: string): Promise<string | null> {
  const [row] = await db
    .select({ text: documents.text })
    .from(documents)
    .where(and(eq(documents.deck, deck), eq(documents.id, id)));
  return row?.text ?? null;
}

/** Returns the documents of a deck, for its copy. */
export async function loadDocuments(db: Database, deck: string): Promise<(typeof documents.$inferSelect)[]> {
  return db.select().from(documents).where(eq(documents.deck, deck));
}
