import {
  apply,
  Change,
  conflicts,
  longestRise,
  type SingleChange,
  singles,
  slidesNeeded,
  writeSet,
} from "@unitext/core/edit";
import { mediaTypeOf } from "@unitext/core/formats";
import {
  type Deck,
  DeckMetadata,
  Failure,
  hasNotes,
  metadataOf,
  readStored,
  SCHEMA_VERSION,
  secondsOf,
  Slide,
  wellFormed,
  must,
} from "@unitext/core/model";
import { and, asc, desc, eq, gt, inArray, or, sql } from "drizzle-orm";
import { generateNKeysBetween } from "fractional-indexing";
import { nanoid } from "nanoid";
import type { ChangeReply, ChangeRequest, DeckRow, LoggedChange } from "../api";
import type { Right } from "../access";
import { CHANNEL, type Database, type Transaction } from "./database";
import { documentText, loadDocuments, writeDocument } from "./documents";
import { blobs, changes, deckBlobs, decks, shares, slides } from "./schema";

export type Reader = Database | Transaction;
/** Keys are compared byte by byte, whatever the language of the database. */
export const runningOrder = sql`${slides.key} collate "C"`;
type SlideRow = typeof slides.$inferSelect;

/** Returns a stored slide, upgraded and checked. */
function slideOf({ deck, id, parent, body, notes, schema }: SlideRow): Slide {
  return readStored(Slide, { ...body, id, parent, notes }, schema, `slide ${id} of deck ${deck}`);
}

/** Returns a deck's stored metadata, upgraded and checked. */
function metadataIn({
  id,
  metadata,
  schema,
}: Pick<typeof decks.$inferSelect, "id" | "metadata" | "schema">): DeckMetadata {
  return readStored(DeckMetadata, { ...metadata, id }, schema, `deck ${id}`);
}

export function rowOf(deck: string, { id, parent, notes, ...body }: Slide, key: string): typeof slides.$inferInsert {
  return { deck, id, key, parent, body, notes, schema: SCHEMA_VERSION };
}

async function metadataRow(db: Reader, id: string) {
  const [row] = await db.select().from(decks).where(eq(decks.id, id));
  if (!row) throw new Failure("not-found", id, "There is no deck at this address. It may have been deleted.");
  return row;
}

/**
 * Loads a deck with its version and its text: that of its document, else what was typed for that version. Throws a
 * Failure `not-found`.
 */
export async function loadDeck(db: Reader, id: string): Promise<{ deck: Deck; version: number; text: string | null }> {
  const row = await metadataRow(db, id);
  const rows = await db.select().from(slides).where(eq(slides.deck, id)).orderBy(asc(runningOrder));
  const metadata = metadataIn(row);
  const deck: Deck = { ...metadata, slides: rows.map(slideOf) };
  const text = metadata.manuscript
    ? await documentText(db, id, metadata.manuscript.document)
    : row.textVersion === row.version
      ? row.text
      : null;
  return { deck, version: row.version, text };
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

/** Loads several decks with their versions; those that are deleted or that the user may not see are missing. */
export async function loadDecks(
  db: Reader,
  ids: readonly string[],
  user: string,
): Promise<Map<string, { deck: Deck; version: number }>> {
  const rows = await db
    .select({ id: decks.id, metadata: decks.metadata, schema: decks.schema, version: decks.version })
    .from(decks)
    .leftJoin(shares, and(eq(shares.deck, decks.id), eq(shares.user, user)))
    .where(and(inArray(decks.id, [...ids]), or(eq(decks.owner, user), eq(shares.user, user))));
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
export async function loadFirstSlide(db: Reader, id: string): Promise<{ deck: Deck; version: number; text: null }> {
  const row = await metadataRow(db, id);
  const rows = await db.select().from(slides).where(eq(slides.deck, id)).orderBy(asc(runningOrder)).limit(1);
  return {
    deck: { ...metadataIn(row), slides: rows.map((first) => ({ ...slideOf(first), parent: null })) },
    version: row.version,
    text: null,
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
    await insertDeck(tx, owner, { ...deck, id }, text, { file });
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

async function storeBlob(tx: Reader, deck: string, sha256: string, bytes: Uint8Array): Promise<void> {
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

export async function loadBlobs(db: Reader, deck: string): Promise<Map<string, Uint8Array>> {
  const found = await db
    .select({ sha256: blobs.sha256, bytes: blobs.bytes })
    .from(deckBlobs)
    .innerJoin(blobs, eq(blobs.sha256, deckBlobs.sha256))
    .where(eq(deckBlobs.deck, deck));
  return new Map(found.map(({ sha256, bytes }) => [sha256, bytes]));
}

/** Copies a deck under a new id; each slide remembers its origin, and the copy belongs to `owner`. */
export async function copyDeck(db: Database, id: string, owner: string): Promise<string> {
  const { deck, version, text } = await loadDeck(db, id);
  const copied: Deck = {
    ...deck,
    id: nanoid(12),
    properties: { ...deck.properties, title: `${deck.properties.title} (copy)` },
    slides: deck.slides.map((slide) => ({ ...slide, origin: { deck: id, slide: slide.id, version } })),
  };
  const made = await createDeck(db, owner, copied, await loadBlobs(db, id), deck.manuscript ? null : text);
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

export async function deleteDeck(db: Database, id: string): Promise<void> {
  await db.delete(decks).where(eq(decks.id, id));
  summaries.delete(id);
}

/** Lists the decks that a user may see, last changed first, with what the Desk shows of each. */
export async function listDecks(db: Database, user: string): Promise<DeckRow[]> {
  const rows = await db
    .select({ deck: decks, right: shares.right })
    .from(decks)
    .leftJoin(shares, and(eq(shares.deck, decks.id), eq(shares.user, user)))
    .where(or(eq(decks.owner, user), eq(shares.user, user)))
    .orderBy(desc(decks.changedAt));
  const fresh = rows.flatMap(({ deck }) => (summaries.get(deck.id)?.version === deck.version ? [] : [deck]));
  const found = fresh.length
    ? await db
        .select()
        .from(slides)
        .where(
          inArray(
            slides.deck,
            fresh.map(({ id }) => id),
          ),
        )
    : [];
  const byDeck = grouped(found);
  for (const row of fresh) {
    const { id, version } = row;
    const metadata = metadataIn(row);
    const own = (byDeck.get(id) ?? []).map(slideOf);
    summaries.set(id, {
      version,
      slides: own.length,
      seconds: own.reduce((sum, slide) => sum + secondsOf(slide, metadata.rate), 0),
      withoutNotes: own.filter((slide) => !slide.hidden && !hasNotes(slide)).length,
    });
  }
  return rows.map(({ deck, right }) => ({
    id: deck.id,
    title: deck.metadata.properties.title,
    file: deck.file === deck.metadata.properties.title ? null : deck.file,
    language: deck.metadata.language,
    ...must(summaries.get(deck.id)),
    version: deck.version,
    changedAt: deck.changedAt.toISOString(),
    right: deck.owner === user ? "own" : (right ?? "view"),
  }));
}

type Summary = Pick<DeckRow, "version" | "slides" | "seconds" | "withoutNotes">;
/** Summaries of decks, cached by version. */
const summaries = new Map<string, Summary>();

function grouped(rows: SlideRow[]): Map<string, SlideRow[]> {
  const groups = new Map<string, SlideRow[]>();
  for (const row of rows) {
    const group = groups.get(row.deck);
    if (group) group.push(row);
    else groups.set(row.deck, [row]);
  }
  return groups;
}

export async function changesSince(db: Reader, deck: string, version: number): Promise<LoggedChange[]> {
  const rows = await db
    .select()
    .from(changes)
    .where(and(eq(changes.deck, deck), gt(changes.version, version)))
    .orderBy(asc(changes.version));
  return rows.map(({ version: at, id, change, schema }) => ({
    version: at,
    id,
    change: readStored(Change, change, schema, `change ${at} of deck ${deck}`),
  }));
}

/**
 * Applies changes made on `base` to the deck as it stands now, in one transaction: committed when this resolves.
 * Changes that others made meanwhile stay, as long as they wrote other things; a change that is in the log already
 * (sent twice) is not taken again. Throws a Failure `conflict` when both wrote the same thing or a change no longer
 * applies; nothing is taken then. `arrival` says that they bring in what a file holds, and are no steps of the user.
 */
export async function applyChanges(
  db: Database,
  id: string,
  user: string,
  { base, changes: sent }: ChangeRequest,
  { arrival = false } = {},
): Promise<ChangeReply> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(decks).where(eq(decks.id, id)).for("update");
    if (!row) throw new Failure("not-found", id, "There is no deck at this address. It may have been deleted.");
    if (base > row.version)
      throw new Failure("conflict", id, "The changes were made on a version that this deck does not have.");
    const since = await changesSince(tx, id, base);
    const known = new Map(
      (
        await tx
          .select({ id: changes.id, version: changes.version })
          .from(changes)
          .where(
            and(
              eq(changes.deck, id),
              inArray(
                changes.id,
                sent.map((item) => item.id),
              ),
            ),
          )
      ).map((item) => [item.id, item.version]),
    );
    const fresh = sent.filter((item) => !known.has(item.id));
    const own = new Set(sent.map((item) => item.id));
    const others = since.filter((item) => !own.has(item.id));
    const written = others.flatMap(({ change }) => writeSet(change));
    for (const { change } of fresh) {
      if (conflicts(writeSet(change), written))
        throw new Failure("conflict", id, "Somebody else changed the same thing meanwhile.");
    }
    let version = row.version;
    if (fresh.length) {
      version = await writeChanges(tx, row, user, fresh, arrival);
      await tx.execute(sql`select pg_notify(${CHANNEL}, ${`${id} ${version}`})`);
    }
    const log = since.map(({ version: at, id: change, ...entry }) =>
      own.has(change) ? { version: at, id: change } : { version: at, id: change, ...entry },
    );
    const earlier = [...known].filter(([, at]) => at <= base).map(([change, at]) => ({ version: at, id: change }));
    return {
      version,
      changes: [...earlier, ...log, ...fresh.map((item, nth) => ({ version: row.version + nth + 1, id: item.id }))],
    };
  });
}

/**
 * The most steps through the running order in one request: each insert, move or delete goes through it once, while
 * others wait.
 */
const MOST_STEPS = 50_000_000;

function refuseTooMany(list: readonly SingleChange[], slides: number): void {
  const ordering = list.filter(
    ({ kind }) => kind === "insertSlide" || kind === "moveSlide" || kind === "deleteSlide",
  ).length;
  if (ordering * (slides + ordering) > MOST_STEPS)
    throw new Failure(
      "too-large",
      "changes",
      `These are ${ordering.toLocaleString("en")} moves in a deck of ${slides.toLocaleString("en")} slides, more than can be done at once. Do it in smaller steps.`,
    );
}

async function writeChanges(
  tx: Transaction,
  row: typeof decks.$inferSelect,
  user: string,
  fresh: ChangeRequest["changes"],
  arrival: boolean,
): Promise<number> {
  const needed = fresh.map(({ change }) => slidesNeeded(change));
  const all = needed.includes("all");
  const ids = needed.flatMap((list) => (list === "all" ? [] : list));
  const rows =
    all || ids.length
      ? await tx
          .select()
          .from(slides)
          .where(all ? eq(slides.deck, row.id) : and(eq(slides.deck, row.id), inArray(slides.id, ids)))
          .orderBy(asc(runningOrder))
      : [];
  const before: Deck = { ...metadataIn(row), slides: rows.map(slideOf) };
  if (all)
    refuseTooMany(
      fresh.flatMap(({ change }) => singles(change)),
      rows.length,
    );
  let deck = before;
  let version = row.version;
  const log: (typeof changes.$inferInsert)[] = [];
  for (const { id, change, description: said, undoes, redoes } of fresh) {
    const applied: { deck: Deck; inverse: Change } = apply(deck, change);
    deck = applied.deck;
    version += 1;
    log.push({
      deck: row.id,
      version,
      id,
      user,
      change,
      inverse: applied.inverse,
      schema: SCHEMA_VERSION,
      description: said ?? null,
      undoes: undoes ?? null,
      redoes: redoes ?? null,
      arrival,
    });
  }
  await shareNamed(
    tx,
    row.id,
    user,
    fresh.flatMap(({ change }) => singles(change)),
  );
  await writeSlides(tx, before, deck, new Map(rows.map(({ id, key }) => [id, key])), all);
  const { id: _, ...metadata } = metadataOf(deck);
  const text = fresh.findLast((item) => item.text !== undefined)?.text;
  if (text !== undefined && metadata.manuscript)
    await writeDocument(tx, row.id, metadata.manuscript.document, undefined, text);
  const typed = metadata.manuscript ? undefined : fresh.at(-1)?.text;
  await tx
    .update(decks)
    .set({
      version,
      changedAt: new Date(),
      ...(headChanged(before, deck) ? { metadata, schema: SCHEMA_VERSION } : {}),
      ...(typed === undefined ? {} : { text: typed, textVersion: version }),
    })
    .where(eq(decks.id, row.id));
  await tx.insert(changes).values(log);
  return version;
}

/** Picture files that a change names and that the user may see in another deck are shared with this one. */
async function shareNamed(tx: Transaction, deck: string, user: string, list: readonly SingleChange[]): Promise<void> {
  const sums = [
    ...new Set(list.flatMap((change) => (change.kind === "setAsset" && change.asset ? [change.asset.sha256] : []))),
  ];
  if (!sums.length) return;
  await tx.execute(
    sql`insert into deck_blobs (deck_id, sha256) select distinct ${deck}, b.sha256 from deck_blobs b join decks d on d.id = b.deck_id left join shares s on s.deck_id = d.id and s.user_id = ${user} where b.sha256 in ${sums} and (d.owner_id = ${user} or s.user_id is not null) on conflict do nothing`,
  );
}

function headChanged(before: Deck, after: Deck): boolean {
  // Fields that only one of them has differ too.
  return (Object.keys({ ...before, ...after }) as (keyof Deck)[]).some(
    (key) => key !== "slides" && before[key] !== after[key],
  );
}

/** Writes the rows that differ: changed slides, new and deleted ones, and keys of moved ones. */
async function writeSlides(
  tx: Transaction,
  before: Deck,
  after: Deck,
  keys: Map<string, string>,
  ordered: boolean,
): Promise<void> {
  const old = new Map(before.slides.map((slide) => [slide.id, slide]));
  const kept = new Set(after.slides.map((slide) => slide.id));
  const gone = before.slides.filter((slide) => !kept.has(slide.id)).map((slide) => slide.id);
  if (gone.length) await tx.delete(slides).where(and(eq(slides.deck, before.id), inArray(slides.id, gone)));
  const placed = ordered
    ? newKeys(
        after.slides.map((slide) => slide.id),
        keys,
      )
    : keys;
  const rows = after.slides
    .filter((slide) => slide !== old.get(slide.id) || placed.get(slide.id) !== keys.get(slide.id))
    .map((slide) => rowOf(before.id, slide, must(placed.get(slide.id))));
  for (let at = 0; at < rows.length; at += 500) {
    await tx
      .insert(slides)
      .values(rows.slice(at, at + 500))
      .onConflictDoUpdate({
        target: [slides.deck, slides.id],
        set: {
          key: sql`excluded.key`,
          parent: sql`excluded.parent_id`,
          body: sql`excluded.body`,
          notes: sql`excluded.notes`,
          schema: sql`excluded.schema`,
        },
      });
  }
}

/** Returns keys for a running order: slides that are still in rising order keep theirs, the others get one between. */
export function newKeys(order: readonly string[], keys: ReadonlyMap<string, string>): Map<string, string> {
  const keep = longestRise(order, keys);
  const placed = new Map<string, string>();
  let last: string | null = null;
  let at = 0;
  while (at < order.length) {
    let end = at;
    while (end < order.length && !keep.has(must(order[end]))) end++;
    const next = end < order.length ? must(keys.get(must(order[end]))) : null;
    generateNKeysBetween(last, next, end - at).forEach((key, nth) => {
      placed.set(must(order[at + nth]), key);
    });
    if (end < order.length) placed.set(must(order[end]), next as string);
    last = next;
    at = end + 1;
  }
  return placed;
}

/** Returns a user's right on a deck; undefined when the user may not see it. */
export async function rightOn(db: Reader, deck: string, user: string): Promise<Right | undefined> {
  const [row] = await db
    .select({ owner: decks.owner, right: shares.right })
    .from(decks)
    .leftJoin(shares, and(eq(shares.deck, decks.id), eq(shares.user, user)))
    .where(eq(decks.id, deck));
  if (!row) return undefined;
  return row.owner === user ? "own" : (row.right ?? undefined);
}
