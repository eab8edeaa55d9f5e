import { mediaTypeOf } from "@unitext/core/formats";
import { Failure } from "@unitext/core/model";
import { sql, eq, and } from "drizzle-orm";
import type { Transaction, Database } from "./database";
import type { Reader } from "./rows";
import { blobs, deckBlobs } from "./schema";

/** Gives a deck the files of another deck that its slides name. */
export async function shareBlobs(tx: Transaction, from: string, to: string, sums: readonly string[]): Promise<void> {
  if (sums.length)
    await tx.execute(
      sql`insert into deck_blobs (deck_id, sha256) select ${to}, sha256 from deck_blobs where deck_id = ${from} and sha256 in ${[...sums]} on conflict do nothing`,
    );
}

/** Returns the media type under which bytes are served: by what they are, whatever they were called. */
const storedType = (bytes: Uint8Array): string => mediaTypeOf(bytes) ?? "application/octet-stream";

/** A picture that is stored already is marked as used, so that it is not tidied away before its deck names it. */
const TAKEN = { target: blobs.sha256, set: { takenAt: sql`now()` } };

/** Stores a file of a deck; bytes that are stored already are shared. */
export async function storeBlob(tx: Reader, deck: string, sha256: string, bytes: Uint8Array): Promise<void> {
  await tx
    .insert(blobs)
    .values({ sha256, mediaType: storedType(bytes), bytes: Buffer.from(bytes) })
    .onConflictDoUpdate(TAKEN);
  await tx.insert(deckBlobs).values({ deck, sha256 }).onConflictDoNothing();
}

/** Stores many picture files at once. */
export async function addBlobs(db: Database, deck: string, files: ReadonlyMap<string, Uint8Array>): Promise<void> {
  // In one order everywhere, so that two servers that store the same pictures do not wait for each other.
  const list = [...files].map(([sha256, bytes]) => ({ sha256, bytes })).sort((a, b) => (a.sha256 < b.sha256 ? -1 : 1));
  await db.transaction(async (tx) => {
    for (let at = 0; at < list.length; at += 100) {
      const lot = list.slice(at, at + 100);
      await tx
        .insert(blobs)
        .values(lot.map(({ sha256, bytes }) => ({ sha256, mediaType: storedType(bytes), bytes: Buffer.from(bytes) })))
        .onConflictDoUpdate(TAKEN);
      await tx
        .insert(deckBlobs)
        .values(lot.map(({ sha256 }) => ({ deck, sha256 })))
        .onConflictDoNothing();
    }
  });
}

/** Returns the bytes of a picture of this deck. Throws a Failure `not-found`. */
export async function loadBlob(
  db: Reader,
  deck: string,
  sha256: string,
): Promise<{ mediaType: string; bytes: Uint8Array }> {
  const [found] = await db
    .select({ mediaType: blobs.mediaType, bytes: blobs.bytes })
    .from(deckBlobs)
    .innerJoin(blobs, eq(blobs.sha256, deckBlobs.sha256))
    .where(and(eq(deckBlobs.deck, deck), eq(deckBlobs.sha256, sha256)));
  if (!found) throw new Failure("not-found", sha256, "This deck has no such picture.");
  return found;
}

/** Returns the files of a deck by their SHA-256. */
export async function loadBlobs(db: Reader, deck: string): Promise<Map<string, Uint8Array>> {
  const found = await db
    .select({ sha256: blobs.sha256, bytes: blobs.bytes })
    .from(deckBlobs)
    .innerJoin(blobs, eq(blobs.sha256, deckBlobs.sha256))
    .where(eq(deckBlobs.deck, deck));
  return new Map(found.map(({ sha256, bytes }) => [sha256, bytes]));
}
