import type { Context, Piece, SegmentState, Term } from "@unitext/core/translate";
import { index, jsonb, pgTable, primaryKey, text } from "drizzle-orm/pg-core";
import { moment } from "./columns";
import { users } from "./people";
import { decks } from "./decks";

/** Translations of the segments of a translated deck, by their ids in its original. */
export const segments = pgTable(
  "segments",
  {
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    id: text("id").notNull(),
    /** The source that the translation is of, and the translation, as words with placeholders. */
    source: jsonb("source").$type<Piece[]>().notNull(),
    target: jsonb("target").$type<Piece[]>().notNull(),
    state: text("state").$type<SegmentState>().notNull(),
    user: text("user_id").references(() => users.id, { onDelete: "set null" }),
    at: moment("at"),
  },
  (table) => [primaryKey({ columns: [table.deck, table.id] })],
);

/** The terms of a person in a pair of languages. */
export const termLists = pgTable(
  "term_lists",
  {
    owner: text("owner_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    /** The languages, without regions: “en”, “de”. */
    from: text("from_language").notNull(),
    to: text("to_language").notNull(),
    terms: jsonb("terms").$type<Term[]>().notNull(),
    at: moment("at"),
  },
  (table) => [primaryKey({ columns: [table.owner, table.from, table.to] })],
);

/**
 * Translations that a person has confirmed or brought in, proposed again for similar texts. Candidates are found by
 * the trigrams of the source's words (pg_trgm).
 */
export const memory = pgTable(
  "memory",
  {
    /** A hash of owner, languages, words and context, so that each text has one translation in each context. */
    id: text("id").primaryKey(),
    owner: text("owner_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    /** The languages, without regions: “en”, “de”. */
    from: text("from_language").notNull(),
    to: text("to_language").notNull(),
    /** The words of the source, without placeholders, in lower case. */
    words: text("words").notNull(),
    source: jsonb("source").$type<Piece[]>().notNull(),
    target: jsonb("target").$type<Piece[]>().notNull(),
    /** The words before and after the source when it was translated; null where they are not known. */
    context: jsonb("context").$type<Context>(),
    /** The deck that it comes from; null for one that was brought in. */
    deck: text("deck_id").references(() => decks.id, { onDelete: "set null" }),
    at: moment("at"),
  },
  (table) => [
    index("memory_owner").on(table.owner, table.from, table.to),
    index("memory_words").using("gin", table.words.op("gin_trgm_ops")),
  ],
);
