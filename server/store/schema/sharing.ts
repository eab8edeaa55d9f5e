import type { Tally } from "@unitext/core/tally";
import { SHARED_RIGHTS } from "../../access";
import type { CollectionAsked, NamePart, PageAsked } from "../../api";
import {
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  pgView,
  primaryKey,
  text,
  timestamp,
  unique,
} from "drizzle-orm/pg-core";
import { moment } from "./columns";
import { users } from "./people";
import { decks, folders } from "./decks";
import { jobs } from "./jobs";

/** What a share or a link gives a right on: a deck, a deck with its translations, or the decks of a folder. */
const sharedThing = {
  deck: text("deck_id").references(() => decks.id, { onDelete: "cascade" }),
  folder: text("folder_id").references(() => folders.id, { onDelete: "cascade" }),
  /** Whether the translations of the deck are shared with it. */
  translations: boolean("translations").notNull().default(false),
  right: text("right", { enum: SHARED_RIGHTS }).notNull(),
  /** Whether the speaker's notes are shared too. Whoever may edit sees them in any case. */
  notes: boolean("notes").notNull().default(true),
};

/** Rights of people of the house on decks and folders of others. */
export const shares = pgTable(
  "shares",
  {
    ...sharedThing,
    user: text("user_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    by: text("created_by").references(() => users.id, { onDelete: "set null" }),
    at: moment("at"),
  },
  (table) => [
    unique("shares_deck_user").on(table.deck, table.user),
    unique("shares_folder_user").on(table.folder, table.user),
    index("shares_user").on(table.user),
  ],
);

/**
 * Links that give a right to whoever opens them. The token follows from the id, the number of renewals and the key of
 * this house, so that its owner can copy the address again; stored is only its hash.
 */
export const links = pgTable(
  "links",
  {
    id: text("id").primaryKey(),
    hash: text("hash").notNull().unique(),
    ...sharedThing,
    /** How often it was renewed. Whoever came by an earlier address has lost the right. */
    renewals: integer("renewals").notNull().default(0),
    /** The hash of the pass phrase (argon2id); null without one. */
    phrase: text("phrase"),
    expiresAt: timestamp("expires_at", { withTimezone: true }),
    by: text("created_by")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    createdAt: moment("created_at"),
  },
  (table) => [index("links_deck").on(table.deck), index("links_folder").on(table.folder)],
);

/** Who has opened a link, and when. */
export const linkUses = pgTable(
  "link_uses",
  {
    link: text("link_id")
      .notNull()
      .references(() => links.id, { onDelete: "cascade" }),
    user: text("user_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    /** The number of renewals of the link when it was opened. */
    renewals: integer("renewals").notNull(),
    firstAt: moment("first_at"),
    lastAt: moment("last_at"),
    times: integer("times").notNull().default(1),
  },
  (table) => [primaryKey({ columns: [table.link, table.user] }), index("link_uses_user").on(table.user)],
);

/**
 * The rights that people have on decks of others, from shares and links that hold now: one row for each deck and user.
 * `rank` is the place of the right in `SHARED_RIGHTS`, from 1. The owner's own right is not in it.
 */
export const access = pgView("access", {
  deck: text("deck_id").notNull(),
  user: text("user_id").notNull(),
  rank: integer("rank").notNull(),
  notes: boolean("notes").notNull(),
}).existing();

/** Decks that are published as pages of their own, for everybody who has the address. */
export const pages = pgTable(
  "pages",
  {
    id: text("id").primaryKey(),
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    /** The version that it always shows; null where it follows the deck. */
    version: integer("version"),
    notes: boolean("notes").notNull(),
    turning: jsonb("turning").$type<PageAsked["turning"]>(),
    /** The sites that may show it in a frame. */
    origins: jsonb("origins").$type<string[]>().notNull(),
    /** How often it was opened; nobody is followed. */
    views: integer("views").notNull().default(0),
    createdAt: moment("created_at"),
  },
  (table) => [index("pages_deck").on(table.deck)],
);

/** Collections: others hand in decks by a link, under names of one scheme. */
export const collections = pgTable(
  "collections",
  {
    id: text("id").primaryKey(),
    owner: text("owner_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    /** The hash of the token in its address. */
    hash: text("hash").notNull().unique(),
    title: text("title").notNull(),
    parts: jsonb("parts").$type<NamePart[]>().notNull(),
    formats: jsonb("formats").$type<CollectionAsked["formats"]>().notNull(),
    dueAt: timestamp("due_at", { withTimezone: true }),
    expected: jsonb("expected").$type<string[]>().notNull(),
    /** The folder of the owner's Desk into which the decks go. */
    folder: text("folder_id").references(() => folders.id, { onDelete: "set null" }),
    closed: boolean("closed").notNull().default(false),
    createdAt: moment("created_at"),
  },
  (table) => [index("collections_owner").on(table.owner)],
);

/** What was handed in to collections. */
export const handIns = pgTable(
  "hand_ins",
  {
    id: text("id").primaryKey(),
    collection: text("collection_id")
      .notNull()
      .references(() => collections.id, { onDelete: "cascade" }),
    /** The hash of the code of its receipt. */
    hash: text("hash").notNull().unique(),
    name: text("name").notNull(),
    /** Which one of this name it is, from 1. */
    nth: integer("nth").notNull(),
    file: text("file").notNull(),
    sha256: text("sha256").notNull(),
    size: integer("size").notNull(),
    deck: text("deck_id").references(() => decks.id, { onDelete: "set null" }),
    job: text("job_id").references(() => jobs.id, { onDelete: "set null" }),
    late: boolean("late").notNull(),
    /** What was in the deck when it had been read. */
    tally: jsonb("tally").$type<Tally>(),
    at: moment("at"),
  },
  (table) => [unique("hand_ins_nth").on(table.collection, table.name, table.nth)],
);
