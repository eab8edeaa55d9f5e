import { customType, integer, timestamp } from "drizzle-orm/pg-core";

export const regconfig = customType<{ data: string }>({ dataType: () => "regconfig" });

export const tsvector = customType<{ data: string }>({ dataType: () => "tsvector" });

export const bytea = customType<{ data: Uint8Array; driverData: Buffer }>({ dataType: () => "bytea" });

/** The schema version of a row's JSON; rows older than this column have version 1. */
export const schemaVersion = () => integer("schema").notNull().default(1);

export const moment = (name: string) => timestamp(name, { withTimezone: true }).notNull().defaultNow();
