import type { CsvReading } from "@unitext/core/model";
import {
  boolean,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
} from "drizzle-orm/pg-core";
import { bytea, moment } from "./columns";
import { users } from "./people";
import { slides } from "./decks";

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
    /** The address's validator of its last answer (ETag or date), when it was last asked, and why it gave no workbook. */
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
