import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import pg from "pg";
import * as schema from "./schema";

export type Database = NodePgDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

export interface Connection {
  db: Database;
  pool: pg.Pool;
  close(): Promise<void>;
}

/**
 * The trigram similarity from which on a text of the memory is a candidate. Of sentences in which three of ten words were
 * replaced at random, 99 % are more similar; the default of PostgreSQL, 0.3, returns five times as many.
 */
const LEAST_SIMILARITY = 0.4;

/** Opens a pool of connections to a database. */
export function connect(url: string): Connection {
  const pool = new pg.Pool({
    connectionString: url,
    max: 10,
    connectionTimeoutMillis: 10_000,
    options: `-c pg_trgm.similarity_threshold=${LEAST_SIMILARITY}`,
  });
  // A connection that PostgreSQL drops while idle is replaced at the next query; without a listener the error would end
  // the process.
  pool.on("error", () => undefined);
  // The same holds for a connection in use, between two queries of a transaction: its next query fails.
  pool.on("connect", (client) => client.on("error", () => undefined));
  return { db: drizzle(pool, { schema }), pool, close: () => pool.end() };
}

/** Migrates the database to the schema of this version. */
export async function migrated(db: Database, folder: string): Promise<void> {
  await migrate(db, { migrationsFolder: folder });
}

/** The channel on which servers announce a deck's new version. */
export const CHANNEL = "unitext_deck";
/** The channel for the progress and end of jobs. */
export const JOB_CHANNEL = "unitext_job";
/** The channel for changes of a user's right on a deck. */
export const RIGHTS_CHANNEL = "unitext_rights";
