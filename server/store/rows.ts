import { DeckMetadata, readStored, SCHEMA_VERSION, Slide } from "@unitext/core/model";
import { sql } from "drizzle-orm";
import type { Database, Transaction } from "./database";
import { type decks, slides } from "./schema";

export type Reader = Database | Transaction;

/** Keys are compared byte by byte, whatever the language of the database. */
export const runningOrder = sql`${slides.key} collate "C"`;

export type SlideRow = typeof slides.$inferSelect;

/** Returns a stored slide, upgraded and checked. */
export function slideOf({ deck, id, parent, body, notes, schema }: SlideRow): Slide {
  return readStored(Slide, { ...body, id, parent, notes }, schema, `slide ${id} of deck ${deck}`);
}

/** Returns a deck's stored metadata, upgraded and checked. */
export function metadataIn({
  id,
  metadata,
  schema,
}: Pick<typeof decks.$inferSelect, "id" | "metadata" | "schema">): DeckMetadata {
  return readStored(DeckMetadata, { ...metadata, id }, schema, `deck ${id}`);
}

/** Returns the row of a slide; `key` is its place in running order. */
export function rowOf(deck: string, { id, parent, notes, ...body }: Slide, key: string): typeof slides.$inferInsert {
  return { deck, id, key, parent, body, notes, schema: SCHEMA_VERSION };
}
