import type { Change } from "@unitext/core/edit";
import type { DeckHead, RichText, Slide } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import type { JobResult } from "../api";
import { boolean, customType, index, integer, jsonb, pgTable, primaryKey, text, timestamp, unique } from "drizzle-orm/pg-core";

const bytea = customType<{ data: Uint8Array; driverData: Buffer }>({ dataType: () => "bytea" });
const moment = (name: string) => timestamp(name, { withTimezone: true }).notNull().defaultNow();

export const users = pgTable("users", { id: text("id").primaryKey(), name: text("name").notNull() });

export const sessions = pgTable("sessions", {
  token: text("token").primaryKey(),
  user: text("user_id").notNull().references(() => users.id, { onDelete: "cascade" }),
  createdAt: moment("created_at"),
});

export const decks = pgTable(
  "decks",
  {
    id: text("id").primaryKey(),
    owner: text("owner_id").notNull().references(() => users.id),
    head: jsonb("head").$type<Omit<DeckHead, "id">>().notNull(),
    version: integer("version").notNull().default(0),
    /** What was typed in Write, and the version that it says. */
    text: text("text"),
    textVersion: integer("text_version").notNull().default(-1),
    /** The name of the file that it was brought in as, without its ending: people name files by schemes that what stands in them does not follow. */
    file: text("file"),
    createdAt: moment("created_at"),
    changedAt: moment("changed_at"),
  },
  (table) => [index("decks_owner").on(table.owner)],
);

/** One row a slide, in running order by a fractional key: a move writes one key. */
export const slides = pgTable(
  "slides",
  {
    deck: text("deck_id").notNull().references(() => decks.id, { onDelete: "cascade" }),
    id: text("id").notNull(),
    key: text("key").notNull(),
    parent: text("parent_id"),
    body: jsonb("body").$type<Omit<Slide, "id" | "parent" | "notes">>().notNull(),
    notes: jsonb("notes").$type<RichText>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.deck, table.id] }), index("slides_order").on(table.deck, table.key)],
);

/** The log of changes, each with its inverse: the deck at any version follows from it. */
export const changes = pgTable(
  "changes",
  {
    deck: text("deck_id").notNull().references(() => decks.id, { onDelete: "cascade" }),
    version: integer("version").notNull(),
    id: text("change_id").notNull(),
    user: text("user_id").notNull().references(() => users.id),
    change: jsonb("change").$type<Change>().notNull(),
    inverse: jsonb("inverse").$type<Change>().notNull(),
    /** What was done, in the words that the person saw. */
    says: text("says"),
    /** The change that this one takes back, or does again. */
    undoes: text("undoes"),
    redoes: text("redoes"),
    /** Whether it brought in what a file holds: nobody did it here, so nobody takes it back. */
    arrival: boolean("arrival").notNull().default(false),
    at: moment("at"),
  },
  (table) => [primaryKey({ columns: [table.deck, table.version] }), unique("changes_once").on(table.deck, table.id)],
);

/** States of a deck that somebody gave a name. */
export const versions = pgTable(
  "versions",
  {
    deck: text("deck_id").notNull().references(() => decks.id, { onDelete: "cascade" }),
    version: integer("version").notNull(),
    name: text("name").notNull(),
    user: text("user_id").notNull().references(() => users.id),
    at: moment("at"),
  },
  (table) => [primaryKey({ columns: [table.deck, table.version] })],
);

/** The documents that decks were generated from, in the text form, as they stood when the slides were last made. */
export const documents = pgTable(
  "documents",
  {
    deck: text("deck_id").notNull().references(() => decks.id, { onDelete: "cascade" }),
    id: text("id").notNull(),
    name: text("name").notNull(),
    text: text("text").notNull(),
    takenAt: moment("taken_at"),
  },
  (table) => [primaryKey({ columns: [table.deck, table.id] })],
);

/** Long work: what it is about, how far it is, and what became of it. */
export const jobs = pgTable(
  "jobs",
  {
    id: text("id").primaryKey(),
    owner: text("owner_id").notNull().references(() => users.id, { onDelete: "cascade" }),
    deck: text("deck_id").references(() => decks.id, { onDelete: "set null" }),
    kind: text("kind", { enum: ["read", "split", "merge", "write"] }).notNull(),
    name: text("name").notNull(),
    state: text("state", { enum: ["waiting", "running", "done", "cancelled", "failed"] }).notNull().default("waiting"),
    slides: integer("slides").notNull().default(0),
    page: integer("page").notNull().default(0),
    pages: integer("pages").notNull().default(0),
    message: text("message"),
    report: jsonb("report").$type<Pick<Report, "adapted" | "left">>(),
    result: jsonb("result").$type<JobResult>(),
    createdAt: moment("created_at"),
    endedAt: timestamp("ended_at", { withTimezone: true }),
  },
  (table) => [index("jobs_owner").on(table.owner)],
);

/** The file that a job reads, kept until it has ended. */
export const jobInputs = pgTable("job_inputs", { job: text("job_id").primaryKey().references(() => jobs.id, { onDelete: "cascade" }), bytes: bytea("bytes").notNull() });

/** The file that a job wrote, kept as long as the job is on the list. */
export const jobOutputs = pgTable("job_outputs", { job: text("job_id").primaryKey().references(() => jobs.id, { onDelete: "cascade" }), name: text("name").notNull(), bytes: bytea("bytes").notNull() });

/** Picture files by the sum of their bytes, stored once. */
export const blobs = pgTable("blobs", { sha256: text("sha256").primaryKey(), mediaType: text("media_type").notNull(), bytes: bytea("bytes").notNull() });

/** Which decks a picture file was brought into: who may see one of them may see the file. */
export const deckBlobs = pgTable(
  "deck_blobs",
  { deck: text("deck_id").notNull().references(() => decks.id, { onDelete: "cascade" }), sha256: text("sha256").notNull().references(() => blobs.sha256) },
  (table) => [primaryKey({ columns: [table.deck, table.sha256] })],
);

/** Rights given to others than the owner. */
export const shares = pgTable(
  "shares",
  {
    deck: text("deck_id").notNull().references(() => decks.id, { onDelete: "cascade" }),
    user: text("user_id").notNull().references(() => users.id, { onDelete: "cascade" }),
    right: text("right", { enum: ["view", "comment", "edit"] }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.deck, table.user] })],
);
