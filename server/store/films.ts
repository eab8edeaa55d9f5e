import type { FilmCaptions, SpokenWord } from "@unitext/core/film";
import { Failure } from "@unitext/core/model";
import { and, desc, eq, lt, sql } from "drizzle-orm";
import type { Film } from "../api";
import type { Database } from "./database";
import { filmParts, films } from "./schema";

/** How many films of a deck are kept: a new one replaces the oldest. */
const MOST_FILMS = 5;
/** How long a piece of film that no film has used again is kept, in days. */
const PART_DAYS = 14;

type Row = typeof films.$inferSelect;

/** Stores a film of a deck and deletes the oldest beyond the limit. Returns how many were deleted. */
export async function addFilm(db: Database, film: typeof films.$inferInsert): Promise<number> {
  return db.transaction(async (tx) => {
    await tx.insert(films).values(film);
    const { rowCount } = await tx.execute(sql`
      delete from films where id in (
        select id from films where deck_id = ${film.deck} order by created_at desc, id offset ${MOST_FILMS})`);
    return rowCount ?? 0;
  });
}

/** Lists the films of a deck, the newest first. */
export async function filmsOf(db: Database, deck: string): Promise<Film[]> {
  const rows = await db
    .select({
      id: films.id,
      format: films.format,
      width: films.width,
      height: films.height,
      seconds: films.seconds,
      slides: films.slides,
      version: films.version,
      captions: films.captions,
      remarks: films.remarks,
      size: films.size,
      createdAt: films.createdAt,
    })
    .from(films)
    .where(eq(films.deck, deck))
    .orderBy(desc(films.createdAt));
  return rows.map((row) => ({
    ...row,
    captions: row.captions.map(({ language }) => language),
    createdAt: row.createdAt.toISOString(),
  }));
}

const ofDeck = (deck: string, film: string) => and(eq(films.id, film), eq(films.deck, deck));

/** Returns the format and size of a film of a deck. Throws a Failure `not-found`. */
export async function filmFile(db: Database, deck: string, film: string): Promise<Pick<Row, "format" | "size">> {
  const [row] = await db.select({ format: films.format, size: films.size }).from(films).where(ofDeck(deck, film));
  if (!row) throw new Failure("not-found", film, "This film is not there any more. Make it again.");
  return row;
}

/** Returns bytes of a film: from an offset, so many. */
export async function filmBytes(db: Database, film: string, from: number, count: number): Promise<Uint8Array> {
  const [row] = await db
    .select({ bytes: sql<Buffer>`substring(${films.bytes} from ${from + 1}::int for ${count}::int)` })
    .from(films)
    .where(eq(films.id, film));
  return row?.bytes ?? new Uint8Array();
}

/** Returns the captions of a film in a language, as WebVTT. Throws a Failure `not-found`. */
export async function filmCaptions(db: Database, deck: string, film: string, language: string): Promise<string> {
  const [row] = await db.select({ captions: films.captions }).from(films).where(ofDeck(deck, film));
  const found = row?.captions.find((one: FilmCaptions) => one.language === language);
  if (!found) throw new Failure("not-found", film, "This film has no captions in this language.");
  return found.text;
}

/** Deletes a film of a deck. */
export async function removeFilm(db: Database, deck: string, film: string): Promise<void> {
  await db.delete(films).where(ofDeck(deck, film));
}

/** Returns a piece of film or a sound that was made before; undefined where it has to be made. */
export async function filmPart(
  db: Database,
  key: string,
): Promise<{ bytes: Uint8Array; words: SpokenWord[] | null } | undefined> {
  const [row] = await db
    .update(filmParts)
    .set({ usedAt: new Date() })
    .where(eq(filmParts.key, key))
    .returning({ bytes: filmParts.bytes, words: filmParts.words });
  return row;
}

/** Keeps a piece of film, or a sound with its words, for the films that follow. */
export async function keepFilmPart(
  db: Database,
  key: string,
  bytes: Uint8Array,
  words: SpokenWord[] | null = null,
): Promise<void> {
  await db
    .insert(filmParts)
    .values({ key, bytes: Buffer.from(bytes), words })
    .onConflictDoNothing();
}

/** Deletes pieces of film that no film has used for a while. */
export async function removeOldFilmParts(db: Database): Promise<void> {
  await db.delete(filmParts).where(lt(filmParts.usedAt, new Date(Date.now() - PART_DAYS * 24 * 3600 * 1000)));
}
