import { Change, writeSet, conflicts, type SingleChange, slidesNeeded, singles, apply } from "@unitext/core/edit";
import { readStored, Failure, type Deck, SCHEMA_VERSION, metadataOf, must } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { and, eq, gt, asc, inArray, sql } from "drizzle-orm";
import type { LoggedChange, ChangeRequest, ChangeReply } from "../api";
import { type Database, CHANNEL, type Transaction } from "./database";
import { rowOf, metadataIn, slideOf, runningOrder, type Reader } from "./rows";
import { writeDocument } from "./documents";
import { changes, decks, slides } from "./schema";
import { newKeys } from "./slidekeys";

/** Returns the logged changes of a deck after a version, the oldest first. */
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

/** Returns the versions at which changes were logged, by their ids; those that are not in the log are missing. */
async function versionsOfChanges(tx: Reader, deck: string, ids: readonly string[]): Promise<Map<string, number>> {
  const rows = await tx
    .select({ id: changes.id, version: changes.version })
    .from(changes)
    .where(and(eq(changes.deck, deck), inArray(changes.id, [...ids])));
  return new Map(rows.map(({ id, version }) => [id, version]));
}

/**
 * Applies changes made on `base` to the deck as it stands now, in one transaction: committed when this resolves.
 * Changes that others made meanwhile stay, as long as they wrote other things; a change that is in the log already
 * (sent twice) is not taken again. Throws a Failure `conflict` when both wrote the same thing or a change no longer
 * applies; nothing is taken then. `arrival` says that they bring in what a file holds, and are no steps of the user. `check` throws
 * for a change that the user may not make in the deck before it.
 */
export async function applyChanges(
  db: Database,
  id: string,
  user: string,
  { base, changes: sent }: ChangeRequest,
  { arrival = false, check }: { arrival?: boolean; check?: (before: Deck, change: SingleChange) => void } = {},
): Promise<ChangeReply> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(decks).where(eq(decks.id, id)).for("update");
    if (!row) throw new Failure("not-found", id, "There is no deck at this address. It may have been deleted.");
    if (base > row.version)
      throw new Failure("conflict", id, "The changes were made on a version that this deck does not have.");
    // Most changes are made on the newest version.
    const since = base === row.version ? [] : await changesSince(tx, id, base);
    const known = await versionsOfChanges(
      tx,
      id,
      sent.map((item) => item.id),
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
      version = await writeChanges(tx, row, user, fresh, { arrival, check });
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

/** A change of a deck as it was loaded, which leaves the running order as it is. */
export interface DeckChange {
  deck: Deck;
  version: number;
  change: Change;
  description: string;
}

/**
 * Applies a change to each of several decks, in one transaction and with as many statements as for one. Returns the ids
 * of the decks that took it: those that somebody changed since they were loaded, or deleted, did not.
 */
export async function applyToDecks(db: Database, user: string, list: readonly DeckChange[]): Promise<Set<string>> {
  if (!list.length) return new Set();
  return db.transaction(async (tx) => {
    const ids = list.map(({ deck }) => deck.id);
    const found = await tx
      .select({ id: decks.id, version: decks.version })
      .from(decks)
      .where(inArray(decks.id, ids))
      .orderBy(asc(decks.id))
      .for("update");
    const versions = new Map(found.map(({ id, version }) => [id, version]));
    const applied = list
      .filter(({ deck, version }) => versions.get(deck.id) === version)
      .map((one) => ({ ...one, ...apply(one.deck, one.change), before: one.deck }));
    if (!applied.length) return new Set();
    const keys = await tx
      .select({ deck: slides.deck, id: slides.id, key: slides.key })
      .from(slides)
      .where(inArray(slides.deck, ids));
    const keyOf = new Map(keys.map(({ deck, id, key }) => [`${deck} ${id}`, key]));
    const rows = applied.flatMap(({ before, deck }) => {
      const old = new Set(before.slides);
      return deck.slides
        .filter((slide) => !old.has(slide))
        .map((slide) => rowOf(deck.id, slide, must(keyOf.get(`${deck.id} ${slide.id}`))));
    });
    await upsertSlides(tx, rows);
    await tx
      .update(decks)
      .set({ version: sql`${decks.version} + 1`, changedAt: new Date() })
      .where(
        inArray(
          decks.id,
          applied.map(({ deck }) => deck.id),
        ),
      );
    for (const { before, deck } of applied) {
      const { id, ...metadata } = metadataOf(deck);
      if (metadataChanged(before, deck))
        await tx.update(decks).set({ metadata, schema: SCHEMA_VERSION }).where(eq(decks.id, id));
    }
    for (const { deck, change } of applied) await shareNamed(tx, deck.id, user, singles(change));
    await tx.insert(changes).values(
      applied.map(({ deck, version, change, inverse, description }) => ({
        deck: deck.id,
        version: version + 1,
        id: nanoid(16),
        user,
        change,
        inverse,
        schema: SCHEMA_VERSION,
        description,
      })),
    );
    const announced = applied.map(({ deck, version }) => `${deck.id} ${version + 1}`);
    await tx.execute(
      sql`select pg_notify(${CHANNEL}, said) from jsonb_array_elements_text(${JSON.stringify(announced)}::jsonb) said`,
    );
    return new Set(applied.map(({ deck }) => deck.id));
  });
}

/**
 * The most steps through the running order in one request: each insert, move or delete goes through it once, while
 * others wait.
 */
const MOST_STEPS = 50000000;

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

/** Returns the rows of the slides that changes need, in running order, and whether they need all. */
async function neededRows(tx: Transaction, deck: string, fresh: ChangeRequest["changes"]) {
  const needed = fresh.map(({ change }) => slidesNeeded(change));
  const all = needed.includes("all");
  const ids = needed.flatMap((list) => (list === "all" ? [] : list));
  if (!all && !ids.length) return { rows: [], all };
  const which = all ? eq(slides.deck, deck) : and(eq(slides.deck, deck), inArray(slides.id, ids));
  return { rows: await tx.select().from(slides).where(which).orderBy(asc(runningOrder)), all };
}

async function writeChanges(
  tx: Transaction,
  row: typeof decks.$inferSelect,
  user: string,
  fresh: ChangeRequest["changes"],
  { arrival, check }: { arrival: boolean; check: ((before: Deck, change: SingleChange) => void) | undefined },
): Promise<number> {
  const { rows, all } = await neededRows(tx, row.id, fresh);
  const before: Deck = { ...metadataIn(row), slides: rows.map(slideOf) };
  const list = fresh.flatMap(({ change }) => singles(change));
  if (all) refuseTooMany(list, rows.length);
  let deck = before;
  const log = fresh.map(({ id, change, description, undoes, redoes }, nth): typeof changes.$inferInsert => {
    if (check) for (const one of singles(change)) check(deck, one);
    const applied: { deck: Deck; inverse: Change } = apply(deck, change);
    deck = applied.deck;
    return {
      deck: row.id,
      version: row.version + nth + 1,
      id,
      user,
      change,
      inverse: applied.inverse,
      schema: SCHEMA_VERSION,
      description: description ?? null,
      undoes: undoes ?? null,
      redoes: redoes ?? null,
      arrival,
    };
  });
  const version = row.version + log.length;
  await shareNamed(tx, row.id, user, list);
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
      ...(metadataChanged(before, deck) ? { metadata, schema: SCHEMA_VERSION } : {}),
      ...(typed === undefined ? {} : { text: typed, textVersion: version }),
    })
    .where(eq(decks.id, row.id));
  await tx.insert(changes).values(log);
  return version;
}

/** Picture files that a change names and that the user may see in another deck, or has in a saved theme, are shared with this one. */
async function shareNamed(tx: Transaction, deck: string, user: string, list: readonly SingleChange[]): Promise<void> {
  const sums = [
    ...new Set(list.flatMap((change) => (change.kind === "setAsset" && change.asset ? [change.asset.sha256] : []))),
  ];
  if (!sums.length) return;
  await tx.execute(
    sql`insert into deck_blobs (deck_id, sha256)
      select distinct ${deck}, b.sha256 from deck_blobs b join decks d on d.id = b.deck_id left join access a on a.deck_id = d.id and a.user_id = ${user} where b.sha256 in ${sums} and (d.owner_id = ${user} or a.notes)
      union select ${deck}, b.sha256 from blobs b join themes t on t.owner_id = ${user} and t.theme->'logo'->'asset'->>'sha256' = b.sha256 where b.sha256 in ${sums}
      on conflict do nothing`,
  );
}

function metadataChanged(before: Deck, after: Deck): boolean {
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
  await upsertSlides(tx, rows);
}

/**
 * Writes rows of slides, which may be of several decks. They are sent as one JSON value: a parameter for each column of
 * each row takes longer to prepare than to store.
 */
async function upsertSlides(tx: Transaction, rows: readonly (typeof slides.$inferInsert)[]): Promise<void> {
  for (let at = 0; at < rows.length; at += 500) {
    const sent = JSON.stringify(rows.slice(at, at + 500));
    await tx.execute(sql`
      insert into slides (deck_id, id, key, parent_id, body, notes, schema)
      select deck, id, key, parent, body, notes, schema
      from jsonb_to_recordset(${sent}::jsonb)
        as sent (deck text, id text, key text, parent text, body jsonb, notes jsonb, schema int)
      on conflict (deck_id, id) do update set
        key = excluded.key, parent_id = excluded.parent_id, body = excluded.body, notes = excluded.notes,
        schema = excluded.schema`);
  }
}
