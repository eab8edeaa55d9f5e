import { withSourceList } from "@unitext/core/edit";
import {
  type Deck,
  deckFor,
  Failure,
  type Kept,
  metadataOf,
  SCHEMA_VERSION,
  Slide,
  wellFormed,
  must,
} from "@unitext/core/model";
import { and, asc, eq, inArray, or, sql } from "drizzle-orm";
import { generateNKeysBetween } from "fractional-indexing";
import { nanoid } from "nanoid";
import type { Database, Transaction } from "./database";
import { documentText, loadDocuments, writeDocument } from "./documents";
import { access, decks, slides } from "./schema";
import { storeBlob, loadBlobs } from "./blobs";
import { grouped, summaries } from "./decklist";
import { type Reader, runningOrder, slideOf, metadataIn, rowOf } from "./rows";

async function metadataRow(db: Reader, id: string) {
  const [row] = await db.select().from(decks).where(eq(decks.id, id));
  if (!row) throw new Failure("not-found", id, "There is no deck at this address. It may have been deleted.");
  return row;
}

/**
 * Loads a deck with its version and its text: that of its document, else what was typed for that version. Throws a
 * Failure `not-found`.
 */
export async function loadDeck(
  db: Reader,
  id: string,
): Promise<{ deck: Deck; version: number; text: string | null; binned: boolean }> {
  const row = await metadataRow(db, id);
  const rows = await db.select().from(slides).where(eq(slides.deck, id)).orderBy(asc(runningOrder));
  const metadata = metadataIn(row);
  const deck: Deck = { ...metadata, slides: rows.map(slideOf) };
  const text = metadata.manuscript
    ? await documentText(db, id, metadata.manuscript.document)
    : row.textVersion === row.version
      ? row.text
      : null;
  return { deck, version: row.version, text, binned: row.binnedAt !== null };
}

/** Returns the committed version of a deck. Throws a Failure `not-found`. */
export async function versionOf(db: Reader, id: string): Promise<number> {
  const [row] = await db.select({ version: decks.version }).from(decks).where(eq(decks.id, id));
  if (!row) throw new Failure("not-found", id, "There is no deck at this address. It may have been deleted.");
  return row.version;
}

/** Returns the committed versions of decks; deleted ones are missing. */
export async function versionsOf(db: Reader, ids: readonly string[]): Promise<Map<string, number>> {
  const rows = ids.length
    ? await db
        .select({ id: decks.id, version: decks.version })
        .from(decks)
        .where(inArray(decks.id, [...ids]))
    : [];
  return new Map(rows.map(({ id, version }) => [id, version]));
}

/** Loads several decks with their versions; those that are deleted, or that the user may not see with their notes, are missing. */
export async function loadDecks(
  db: Reader,
  ids: readonly string[],
  user: string,
): Promise<Map<string, { deck: Deck; version: number }>> {
  const rows = await db
    .select({ id: decks.id, metadata: decks.metadata, schema: decks.schema, version: decks.version })
    .from(decks)
    .leftJoin(access, and(eq(access.deck, decks.id), eq(access.user, user)))
    .where(and(inArray(decks.id, [...ids]), or(eq(decks.owner, user), access.notes)));
  const bySlides = grouped(
    rows.length
      ? await db
          .select()
          .from(slides)
          .where(
            inArray(
              slides.deck,
              rows.map(({ id }) => id),
            ),
          )
          .orderBy(asc(runningOrder))
      : [],
  );
  return new Map(
    rows.map(({ version, ...row }) => [
      row.id,
      { deck: { ...metadataIn(row), slides: (bySlides.get(row.id) ?? []).map(slideOf) }, version },
    ]),
  );
}

/** Loads a deck with its first slide alone, as the Desk shows it. */
export async function loadFirstSlide(
  db: Reader,
  id: string,
  slide?: string,
): Promise<{ deck: Deck; version: number; text: null; binned: boolean }> {
  const row = await metadataRow(db, id);
  const rows = await db
    .select()
    .from(slides)
    .where(slide === undefined ? eq(slides.deck, id) : and(eq(slides.deck, id), eq(slides.id, slide)))
    .orderBy(asc(runningOrder))
    .limit(1);
  return {
    deck: { ...metadataIn(row), slides: rows.map((first) => ({ ...slideOf(first), parent: null })) },
    version: row.version,
    text: null,
    binned: row.binnedAt !== null,
  };
}

/** Stores a new deck with its pictures and the name of its file. Its id is kept unless it is taken. Returns the id. */
export async function createDeck(
  db: Database,
  owner: string,
  deck: Deck,
  files: ReadonlyMap<string, Uint8Array>,
  text: string | null,
  file: string | null = null,
): Promise<string> {
  return db.transaction(async (tx) => {
    const [taken] = await tx.select({ id: decks.id }).from(decks).where(eq(decks.id, deck.id));
    const id = taken ? nanoid(12) : deck.id;
    await insertDeck(tx, owner, { ...withSourceList(deck), id }, text, { file });
    for (const [sha256, bytes] of files) await storeBlob(tx, id, sha256, bytes);
    return id;
  });
}

/** Fields of a slide that may differ in a copy; all others must be the same object. */
const OWN: ReadonlySet<string> = new Set(["id", "parent", "theme", "origin"] satisfies (keyof Slide)[]);

const COPIED = (Object.keys(Slide.shape) as (keyof Slide)[]).filter((field) => !OWN.has(field));

/**
 * Returns the slide of another deck that a slide is an unchanged copy of, its theme and origin aside; undefined when
 * anything differs.
 */
function copiedFrom(slide: Slide, inputs: ReadonlyMap<string, ReadonlyMap<string, Slide>>): Slide | undefined {
  const from = slide.origin && inputs.get(slide.origin.deck)?.get(slide.origin.slide);
  const same = from && COPIED.every((field) => slide[field] === from[field]);
  return same ? from : undefined;
}

/**
 * Stores a new deck under its own id, without pictures. Slides that come unchanged from `inputs`, read in the same
 * transaction, are copied inside the database.
 */
export async function insertDeck(
  tx: Transaction,
  owner: string,
  given: Deck,
  text: string | null,
  { inputs = [], file = null }: { inputs?: readonly Deck[]; file?: string | null } = {},
): Promise<void> {
  const deck = wellFormed(given);
  const { id, ...metadata } = metadataOf(deck);
  await tx.insert(decks).values({
    id,
    owner,
    metadata,
    schema: SCHEMA_VERSION,
    text: wellFormed(text),
    file: wellFormed(file),
    textVersion: text === null ? -1 : 0,
  });
  const keys = generateNKeysBetween(null, null, deck.slides.length);
  const known = new Map(inputs.map((input) => [input.id, new Map(input.slides.map((slide) => [slide.id, slide]))]));
  const rows: (typeof slides.$inferInsert)[] = [];
  const copies: {
    id: string;
    key: string;
    parent: string | null;
    deck: string;
    slide: string;
    own: Pick<Slide, "origin" | "theme">;
  }[] = [];
  deck.slides.forEach((slide, nth) => {
    const key = must(keys[nth]);
    if (slide.origin && copiedFrom(slide, known))
      copies.push({
        id: slide.id,
        key,
        parent: slide.parent,
        deck: slide.origin.deck,
        slide: slide.origin.slide,
        own: { origin: slide.origin, ...(slide.theme === undefined ? {} : { theme: slide.theme }) },
      });
    else rows.push(rowOf(id, slide, key));
  });
  // One parameter for all rows: many parameters cost more than the rows themselves.
  if (rows.length)
    await tx.execute(
      sql`insert into slides (deck_id, id, key, parent_id, body, notes, schema) select ${id}, r.id, r.key, r.parent, r.body, r.notes, ${SCHEMA_VERSION} from json_to_recordset(${JSON.stringify(rows)}::json) as r(id text, key text, parent text, body jsonb, notes jsonb)`,
    );
  if (copies.length)
    await tx.execute(
      sql`insert into slides (deck_id, id, key, parent_id, body, notes, schema) select ${id}, r.id, r.key, r.parent, (s.body - 'theme') || r.own, s.notes, s.schema from json_to_recordset(${JSON.stringify(copies)}::json) as r(id text, key text, parent text, deck text, slide text, own jsonb) join slides s on s.deck_id = r.deck and s.id = r.slide`,
    );
}

/** Returns a title that no deck of a person has: "Tides 2", "Tides 3". */
export async function freeTitle(db: Database, owner: string, title: string): Promise<string> {
  const base = title.replace(/ \d{1,3}$/, "");
  const rows = await db
    .select({ title: sql<string>`${decks.metadata}->'properties'->>'title'` })
    .from(decks)
    .where(eq(decks.owner, owner));
  const taken = new Set(rows.map((row) => row.title));
  for (let nth = 2; ; nth++) if (!taken.has(`${base} ${nth}`)) return `${base} ${nth}`;
}

/**
 * Copies a deck under a new id and the next free title; each slide remembers its origin, and the copy belongs to
 * `owner`. It has no notes or comments that its new owner may not see. `file` is a name by which it is found too.
 */
export async function copyDeck(
  db: Database,
  id: string,
  owner: string,
  kept: Kept,
  file: string | null = null,
): Promise<string> {
  const { deck: whole, version, text } = await loadDeck(db, id);
  const deck = deckFor(whole, kept);
  const copied: Deck = {
    ...deck,
    id: nanoid(12),
    properties: { ...deck.properties, title: await freeTitle(db, owner, deck.properties.title) },
    slides: deck.slides.map((slide) => ({ ...slide, origin: { deck: id, slide: slide.id, version } })),
  };
  const files = await loadBlobs(db, id);
  const named = new Set(Object.values(deck.assets).map(({ sha256 }) => sha256));
  for (const sha256 of files.keys()) if (deck !== whole && !named.has(sha256)) files.delete(sha256);
  const made = await createDeck(db, owner, copied, files, deck.manuscript || !kept.notes ? null : text, file);
  if (!deck.manuscript) return made;
  for (const { id: document, name, text: written } of await loadDocuments(db, id))
    await writeDocument(db, made, document, name, written);
  return made;
}

/** Stores what was typed as the text of a deck at its present version. */
export async function keepTypedText(db: Database, id: string, text: string): Promise<void> {
  await db
    .update(decks)
    .set({ text, textVersion: sql`${decks.version}` })
    .where(eq(decks.id, id));
}

/** Deletes a deck with its slides and its log. */
export async function deleteDeck(db: Database, id: string): Promise<void> {
  await db.delete(decks).where(eq(decks.id, id));
  summaries.delete(id);
}
