import { bigint, index, integer, pgTable, text, timestamp, uniqueIndex } from "drizzle-orm/pg-core";
import { sql } from "drizzle-orm";
import { moment } from "./columns";

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
