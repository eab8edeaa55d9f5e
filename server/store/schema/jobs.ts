import { FILM_FORMATS, type FilmCaptions, type SpokenWord } from "@unitext/core/film";
import type { Report } from "@unitext/core/tally";
import { JOB_KINDS, type JobResult } from "../../api";
import { index, integer, jsonb, pgTable, real, text, timestamp } from "drizzle-orm/pg-core";
import { bytea, moment } from "./columns";
import { users } from "./people";
import { decks } from "./decks";

/** Jobs: what they are about, their progress, and their results. */
export const jobs = pgTable(
  "jobs",
  {
    id: text("id").primaryKey(),
    owner: text("owner_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    deck: text("deck_id").references(() => decks.id, { onDelete: "set null" }),
    kind: text("kind", { enum: JOB_KINDS }).notNull(),
    name: text("name").notNull(),
    state: text("state", { enum: ["waiting", "running", "done", "cancelled", "failed"] })
      .notNull()
      .default("waiting"),
    slides: integer("slides").notNull().default(0),
    page: integer("page").notNull().default(0),
    pages: integer("pages").notNull().default(0),
    message: text("message"),
    report: jsonb("report").$type<Pick<Report, "adapted" | "left">>(),
    result: jsonb("result").$type<JobResult>(),
    /** The server that runs it, and when that server last reported: one that has been silent for a while has ended. */
    server: text("server"),
    beatAt: timestamp("beat_at", { withTimezone: true }),
    /** How often it was started. */
    tries: integer("tries").notNull().default(0),
    createdAt: moment("created_at"),
    endedAt: timestamp("ended_at", { withTimezone: true }),
  },
  (table) => [index("jobs_owner").on(table.owner), index("jobs_open").on(table.state, table.createdAt)],
);

/** The file that a job reads, kept until the job has ended. */
export const jobInputs = pgTable("job_inputs", {
  job: text("job_id")
    .primaryKey()
    .references(() => jobs.id, { onDelete: "cascade" }),
  bytes: bytea("bytes").notNull(),
});

/** The file that a job wrote, kept as long as the job is listed. */
export const jobOutputs = pgTable("job_outputs", {
  job: text("job_id")
    .primaryKey()
    .references(() => jobs.id, { onDelete: "cascade" }),
  name: text("name").notNull(),
  bytes: bytea("bytes").notNull(),
});

/** Films made of decks. They stay with their deck until somebody deletes them. */
export const films = pgTable(
  "films",
  {
    id: text("id").primaryKey(),
    deck: text("deck_id")
      .notNull()
      .references(() => decks.id, { onDelete: "cascade" }),
    format: text("format", { enum: FILM_FORMATS }).notNull(),
    width: integer("width").notNull(),
    height: integer("height").notNull(),
    seconds: real("seconds").notNull(),
    slides: integer("slides").notNull(),
    /** The version of the deck that it shows. */
    version: integer("version").notNull(),
    captions: jsonb("captions").$type<FilmCaptions[]>().notNull(),
    remarks: jsonb("remarks").$type<string[]>().notNull(),
    size: integer("size").notNull(),
    /** Not compressed by the database, so that a part of it can be read alone. */
    bytes: bytea("bytes").notNull(),
    createdAt: moment("created_at"),
  },
  (table) => [index("films_deck").on(table.deck, table.createdAt)],
);

/**
 * Slides of films as pieces of film, and spoken texts as sounds, by a hash of everything that they are made from: what has
 * not changed is not made again.
 */
export const filmParts = pgTable("film_parts", {
  key: text("key").primaryKey(),
  bytes: bytea("bytes").notNull(),
  /** The words of a sound with their times. */
  words: jsonb("words").$type<SpokenWord[]>(),
  usedAt: moment("used_at"),
});
