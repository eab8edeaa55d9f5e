/** A file with the name that it was sent under. */
export interface NamedFile {
  bytes: Uint8Array;
  name: string;
}
