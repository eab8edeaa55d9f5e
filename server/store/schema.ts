import type { Change } from "@unitext/core/edit";
import { FILM_FORMATS, type FilmCaptions, type SpokenWord } from "@unitext/core/film";
import type { CsvReading, DeckMetadata, RichText, Slide, Theme } from "@unitext/core/model";
import type { Report, Tally } from "@unitext/core/tally";
import type { Context, Piece, SegmentState, Term } from "@unitext/core/translate";
import { SHARED_RIGHTS } from "../access";
import { type CollectionAsked, JOB_KINDS, type JobResult, type NamePart, type PageAsked, type TalkState } from "../api";
import {
  bigint,
  boolean,
  customType,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  pgView,
  primaryKey,
  real,
  text,
  timestamp,
  unique,
  uniqueIndex,
} from "drizzle-orm/pg-core";
import { sql } from "drizzle-orm";

const regconfig = customType<{ data: string }>({ dataType: () => "regconfig" });
const tsvector = customType<{ data: string }>({ dataType: () => "tsvector" });
const bytea = customType<{ data: Uint8Array; driverData: Buffer }>({ dataType: () => "bytea" });
/** The schema version of a row's JSON; rows older than this column have version 1. */
const schemaVersion = () => integer("schema").notNull().default(1);
const moment = (name: string) => timestamp(name, { withTimezone: true }).notNull().defaultNow();

/** Who uses this house: people with an account, and guests, who came by a link. */
export const users = pgTable(
  "users",
  {
    id: text("id").primaryKey(),
    /** The name that others see, and by which a person signs in. */
    name: text("name").notNull(),
    role: text("role", { enum: ["owner", "member", "guest"] })
      .notNull()
      .default("member"),
    /** The password's hash in the PHC string format (argon2id); null for guests and for the user of the demo. */
    password: text("password"),
    /** The secret of the second factor, encrypted; null without one. */
    totp: text("totp"),
    /** The time step of the last code that was taken, so that no code is taken twice. */
    totpStep: integer("totp_step"),
    /** When the account was closed; null for one that is open. */
    closedAt: timestamp("closed_at", { withTimezone: true }),
    createdAt: moment("created_at"),
  },
  (table) => [
    uniqueIndex("users_name")
      .on(sql`lower(${table.name})`)
      .where(sql`${table.role} <> 'guest' and ${table.password} is not null`),
  ],
);

/** Sessions: only a hash of the cookie's token is stored, so that a copy of the database lets nobody in. */
export const sessions = pgTable(
  "sessions",
  {
    hash: text("hash").primaryKey(),
    user: text("user_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    /** The browser and the system, as they describe themselves: “Firefox on Linux”. */
    device: text("device").notNull().default(""),
    createdAt: moment("created_at"),
    usedAt: moment("used_at"),
    expiresAt: timestamp("expires_at", { withTimezone: true }).notNull(),
  },
  (table) => [index("sessions_expiry").on(table.expiresAt), index("sessions_user").on(table.user)],
);

/** Links by which somebody gets an account, or sets a new password. Only a hash of the token is stored. */
export const accountLinks = pgTable("account_links", {
  id: text("id").primaryKey(),
  hash: text("hash").notNull().unique(),
  kind: text("kind", { enum: ["invitation", "reset"] }).notNull(),
  /** Whose password it sets; null for an invitation. */
  user: text("user_id").references(() => users.id, { onDelete: "cascade" }),
  role: text("role", { enum: ["owner", "member"] })
    .notNull()
    .default("member"),
  /** How many more accounts it makes. */
  uses: integer("uses").notNull().default(1),
  by: text("created_by")
    .notNull()
    .references(() => users.id, { onDelete: "cascade" }),
  createdAt: moment("created_at"),
  expiresAt: timestamp("expires_at", { withTimezone: true }).notNull(),
});

/** Counts of wrong attempts to sign in or to open a link; written by the rate limiter. */
export const rateLimits = pgTable(
  "rate_limits",
  {
    key: text("key").primaryKey(),
    points: integer("points").notNull().default(0),
    /** When the count ends, in milliseconds since 1970. */
    expire: bigint("expire", { mode: "number" }),
  },
  (table) => [index("rate_limits_expiry").on(table.expire)],
);

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
    /** The folder of the owner's Desk that it is in. */
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
  /** What the speaker's window shows; null until it has said so. */
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

/** Workbooks that feed decks, by the names under which decks know them. */
export const sources = pgTable(
  "sources",
  {
    id: text("id").primaryKey(),
    owner: text("owner_id")
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    name: text("name").notNull(),
    /** The SHA-256 of the newest version. */
    newest: text("newest").notNull(),
    createdAt: moment("created_at"),
    /** Where it is fetched from again and again; null for one that was dropped. */
    address: text("address"),
    /** What the address said of the last answer, when it was asked, and why it gave no workbook. */
    etag: text("etag"),
    modified: text("modified"),
    checkedAt: timestamp("checked_at", { withTimezone: true }),
    problem: text("problem"),
    /** How a .csv is read where what would be recognised is wrong. */
    csv: jsonb("csv").$type<CsvReading>(),
    /** Whether it is a sheet that is typed in Unitext. */
    typed: boolean("typed").notNull().default(false),
  },
  (table) => [unique("sources_name").on(table.owner, table.name)],
);

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

/** The states of sources, as they arrived. */
export const sourceVersions = pgTable(
  "source_versions",
  {
    source: text("source_id")
      .notNull()
      .references(() => sources.id, { onDelete: "cascade" }),
    sha256: text("sha256").notNull(),
    /** Where it came from: “dropped”, “folder”, or an address. */
    from: text("origin").notNull(),
    at: moment("at"),
    bytes: bytea("bytes").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.source, table.sha256] }),
    index("source_versions_at").on(table.source, table.at),
  ],
);

/**
 * The index of bindings, by which one query finds where a source is used. A trigger on the slides keeps it, in the
 * transaction of every change.
 */
export const bindings = pgTable(
  "bindings",
  {
    deck: text("deck_id").notNull(),
    slide: text("slide_id").notNull(),
    nth: integer("nth").notNull(),
    source: text("source").notNull(),
    range: text("range").notNull(),
    mode: text("mode").notNull(),
    /** The SHA-256 of the version whose values were taken. */
    version: text("version"),
    state: text("state").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.deck, table.slide, table.nth] }),
    foreignKey({ columns: [table.deck, table.slide], foreignColumns: [slides.deck, slides.id] }).onDelete("cascade"),
    index("bindings_source").on(table.source, table.deck),
  ],
);

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
