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

export function connect(url: string): Connection {
  const pool = new pg.Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 10_000 });
  // A connection that PostgreSQL drops while idle is replaced at the next query; without a listener it would end the process.
  pool.on("error", () => undefined);
  // The same holds for one that is in use, between two queries of a transaction: its next query fails.
  pool.on("connect", (client) => client.on("error", () => undefined));
  return { db: drizzle(pool, { schema }), pool, close: () => pool.end() };
}

/** Brings the database to the schema of this version. */
export async function migrated(db: Database, folder: string): Promise<void> {
  await migrate(db, { migrationsFolder: folder });
}

/** The channel on which servers tell each other of a deck's new version. */
export const CHANNEL = "unitext_deck";
/** The channel on which they tell of a job's progress and of its end. */
export const JOB_CHANNEL = "unitext_job";
/** The channel on which they tell that a user's right on a deck has changed. */
export const RIGHTS_CHANNEL = "unitext_rights";
