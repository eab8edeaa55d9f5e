import type { Change } from "@unitext/core/edit";
import type { DeckMetadata, RichText, Slide, Theme } from "@unitext/core/model";
import type { TalkState } from "../../api";
import {
  bigint,
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
} from "drizzle-orm/pg-core";
import { sql } from "drizzle-orm";
import { regconfig, tsvector, bytea, schemaVersion, moment } from "./columns";
import { users } from "./people";

/** The audit log: sign-ins, shares, deletions, restores and exports. Entries outlive what they name. */
export const audit = pgTable(
  "audit",
  {
    id: bigint("id", { mode: "number" }).primaryKey().generatedAlwaysAsIdentity(),
    at: moment("at"),
    user: text("user_id").notNull(),
    act: text("act", {
      enum: [
        "sign-in",
        "sign-in-failed",
        "sign-out",
        "account",
        "password",
        "second-factor",
        "share",
        "unshare",
        "delete",
        "restore",
        "export",
      ],
    }).notNull(),
    deck: text("deck_id"),
    detail: text("detail"),
  },
  (table) => [index("audit_at").on(table.at)],
);

export const decks = pgTable(
  "decks",
  {
    id: text("id").primaryKey(),
    owner: text("owner_id")
      .notNull()
      .references(() => users.id),
    metadata: jsonb("metadata").$type<Omit<DeckMetadata, "id">>().notNull(),
    /** The schema version of `metadata`. */
    schema: schemaVersion(),
    version: integer("version").notNull().default(0),
    /** What was typed in Write, and the version of the deck that says the same. */
    text: text("text"),
    textVersion: integer("text_version").notNull().default(-1),
    /**
     * The name of the imported file without extension: people name files by schemes that their content does not follow.
     */
    file: text("file"),
    /** The folder on the owner's Desk that contains it; null outside of folders. */
    folder: text("folder_id").references(() => folders.id, { onDelete: "set null" }),
    /** When it was put into the bin; null for a deck on the Desk. */
    binnedAt: timestamp("binned_at", { withTimezone: true }),
    /** The version whose words are in `slide_words`. */
    wordsVersion: integer("words_version").notNull().default(-1),
    createdAt: moment("created_at"),
    changedAt: moment("changed_at"),
  },
  (table) => [
    index("decks_owner").on(table.owner),
    index("decks_folder").on(table.folder),
    index("decks_original").on(sql`(${table.metadata} -> 'original' ->> 'deck')`),
  ],
);

/** Talks that a phone may follow: a link that ends with the talk. Only a hash of its token is stored. */
export const remotes = pgTable("remotes", {
  hash: text("hash").primaryKey(),
  deck: text("deck_id")
    .notNull()
    .references(() => decks.id, { onDelete: "cascade" }),
  /** The last state that the speaker's window sent; null before the first. */
  state: jsonb("state").$type<TalkState>(),
  expiresAt: timestamp("expires_at", { withTimezone: true }).notNull(),
});

/** Folders of a person's Desk. */
export const folders = pgTable(
  "folders",
  {
    id: text("id").primaryKey(),
    owner: text("owner_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    name: text("name").notNull(),
  },
  (table) => [unique("folders_name").on(table.owner, table.name)],
);

/**
 * The words of slides and notes, to find decks by. They are written when somebody searches, for decks that have changed
 * since, so that changes stay fast.
 */
export const slideWords = pgTable(
  "slide_words",
  {
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    slide: text("slide_id").notNull(),
    number: integer("number").notNull(),
    /** The text search configuration of the deck's language. */
    language: regconfig("language").notNull(),
    words: text("words").notNull(),
    search: tsvector("search").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.deck, table.slide] }),
    index("slide_words_search").using("gin", table.search),
  ],
);

/** Slides, one row each, in running order by a fractional key: a move writes one key. */
export const slides = pgTable(
  "slides",
  {
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    id: text("id").notNull(),
    key: text("key").notNull(),
    parent: text("parent_id"),
    body: jsonb("body").$type<Omit<Slide, "id" | "parent" | "notes">>().notNull(),
    notes: jsonb("notes").$type<RichText>().notNull(),
    /** The schema version of `body` and `notes`. */
    schema: schemaVersion(),
  },
  (table) => [primaryKey({ columns: [table.deck, table.id] }), index("slides_order").on(table.deck, table.key)],
);

/** The log of changes, each with its inverse: the deck at any version follows from it. */
export const changes = pgTable(
  "changes",
  {
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    version: integer("version").notNull(),
    id: text("change_id").notNull(),
    user: text("user_id")
      .notNull()
      .references(() => users.id),
    change: jsonb("change").$type<Change>().notNull(),
    inverse: jsonb("inverse").$type<Change>().notNull(),
    /** The schema version of both. */
    schema: schemaVersion(),
    /** What was done, in the words that the user saw. */
    description: text("description"),
    /** The change that this one undoes or redoes. */
    undoes: text("undoes"),
    redoes: text("redoes"),
    /** Whether it imported a file's content: nobody did it here, so nobody can undo it. */
    arrival: boolean("arrival").notNull().default(false),
    at: moment("at"),
  },
  (table) => [primaryKey({ columns: [table.deck, table.version] }), unique("changes_once").on(table.deck, table.id)],
);

/** Named states of decks. */
export const versions = pgTable(
  "versions",
  {
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    version: integer("version").notNull(),
    name: text("name").notNull(),
    user: text("user_id")
      .notNull()
      .references(() => users.id),
    at: moment("at"),
  },
  (table) => [primaryKey({ columns: [table.deck, table.version] })],
);

/** The documents that decks were generated from, in the text form, as they were when the slides were last made. */
export const documents = pgTable(
  "documents",
  {
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    id: text("id").notNull(),
    name: text("name").notNull(),
    text: text("text").notNull(),
    takenAt: moment("taken_at"),
  },
  (table) => [primaryKey({ columns: [table.deck, table.id] })],
);

/** Picture files by the SHA-256 of their bytes, stored once. */
export const blobs = pgTable("blobs", {
  sha256: text("sha256").primaryKey(),
  mediaType: text("media_type").notNull(),
  bytes: bytea("bytes").notNull(),
  /** When it was last imported: files that no deck names are kept for a while. */ takenAt: moment("taken_at"),
});

/** The decks that a picture file belongs to: who may see one of them may see the file. */
export const deckBlobs = pgTable(
  "deck_blobs",
  {
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    sha256: text("sha256")
      .notNull()
      .references(() => blobs.sha256),
  },
  (table) => [primaryKey({ columns: [table.deck, table.sha256] })],
);

/** The themes that a person has saved, by name. */
export const themes = pgTable(
  "themes",
  {
    owner: text("owner_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    name: text("name").notNull(),
    theme: jsonb("theme").$type<Theme>().notNull(),
    /** The schema version of `theme`. */
    schema: schemaVersion(),
    at: moment("at"),
  },
  (table) => [primaryKey({ columns: [table.owner, table.name] })],
);
