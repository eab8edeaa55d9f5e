import type { Change, SingleChange } from "@unitext/core/edit";
import { Failure, SCHEMA_VERSION, type Slide, wellFormed } from "@unitext/core/model";
import { asc, desc, eq, sql } from "drizzle-orm";
import { generateNKeysBetween } from "fractional-indexing";
import { nanoid } from "nanoid";
import { CHANNEL, type Database } from "./database";
import { rowOf, runningOrder } from "./decks";
import { changes, decks, slides } from "./schema";

/**
 * Puts slides after the last of a deck, as one change of a user, without reading what is there: for slides that are
 * being made by the hundred. Throws a Failure `not-found` when the deck is gone.
 */
export async function appendSlides(db: Database, id: string, user: string, given: readonly Slide[]): Promise<void> {
  const added = wellFormed(given);
  await db.transaction(async (tx) => {
    const [row] = await tx.select({ version: decks.version }).from(decks).where(eq(decks.id, id)).for("update");
    if (!row) throw new Failure("not-found", id, "The deck was deleted meanwhile.");
    const there = await tx.select({ id: slides.id, parent: slides.parent }).from(slides).where(eq(slides.deck, id)).orderBy(asc(runningOrder));
    const [last] = await tx.select({ key: slides.key }).from(slides).where(eq(slides.deck, id)).orderBy(desc(runningOrder)).limit(1);
    const after = new Map<string | null, string>();
    const known = new Set(there.map((slide) => slide.id));
    for (const slide of there) after.set(slide.parent, slide.id);
    const list: SingleChange[] = [];
    const placed = added.map((slide) => {
      // A detail can only follow its main slide as long as that stands last.
      const parent = slide.parent !== null && known.has(slide.parent) ? slide.parent : null;
      list.push({ kind: "insertSlide", slide: { ...slide, parent }, place: { parent, after: after.get(parent) ?? null } });
      after.set(parent, slide.id);
      known.add(slide.id);
      return { ...slide, parent };
    });
    const keys = generateNKeysBetween(last?.key ?? null, null, placed.length);
    const rows = placed.map((slide, nth) => rowOf(id, slide, keys[nth] as string));
    for (let at = 0; at < rows.length; at += 500) await tx.insert(slides).values(rows.slice(at, at + 500));
    const change: Change = { kind: "batch", changes: list };
    const inverse: Change = { kind: "batch", changes: placed.map((slide): SingleChange => ({ kind: "deleteSlide", slide: slide.id })).reverse() };
    const version = row.version + 1;
    await tx.update(decks).set({ version, changedAt: new Date() }).where(eq(decks.id, id));
    await tx.insert(changes).values({ deck: id, version, id: nanoid(16), user, change, inverse, schema: SCHEMA_VERSION, arrival: true });
    await tx.execute(sql`select pg_notify(${CHANNEL}, ${`${id} ${version}`})`);
  });
}
