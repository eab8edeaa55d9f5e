import type { CsvReading } from "@unitext/core/model";

/** A file with the name that it was sent under. */
export interface NamedFile {
  bytes: Uint8Array;
  name: string;
  /** How a .csv is read, where its person has said so. */
  csv?: CsvReading | null | undefined;
}
