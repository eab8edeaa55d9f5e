import type { Change, SingleChange } from "@unitext/core/edit";
import { Failure, SCHEMA_VERSION, type Slide, wellFormed } from "@unitext/core/model";
import { and, desc, eq, isNull, sql } from "drizzle-orm";
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
    const [last] = await tx
      .select({ key: slides.key })
      .from(slides)
      .where(eq(slides.deck, id))
      .orderBy(desc(runningOrder))
      .limit(1);
    const after = new Map<string | null, string>();
    const known = new Set<string>();
    // Only the last slide of the main line and of each parent that is named is looked for: a long deck is not read anew for every batch.
    for (const parent of new Set([null, ...added.map((slide) => slide.parent)])) {
      const [sibling] = await tx
        .select({ id: slides.id })
        .from(slides)
        .where(and(eq(slides.deck, id), parent === null ? isNull(slides.parent) : eq(slides.parent, parent)))
        .orderBy(desc(runningOrder))
        .limit(1);
      if (sibling) after.set(parent, sibling.id);
      if (parent !== null && (await tx.$count(slides, and(eq(slides.deck, id), eq(slides.id, parent)))))
        known.add(parent);
    }
    const list: SingleChange[] = [];
    const placed = added.map((slide) => {
      // A detail can only follow its main slide as long as that stands last.
      const parent = slide.parent !== null && known.has(slide.parent) ? slide.parent : null;
      list.push({
        kind: "insertSlide",
        slide: { ...slide, parent },
        place: { parent, after: after.get(parent) ?? null },
      });
      after.set(parent, slide.id);
      known.add(slide.id);
      return { ...slide, parent };
    });
    const keys = generateNKeysBetween(last?.key ?? null, null, placed.length);
    const rows = placed.map((slide, nth) => rowOf(id, slide, keys[nth] as string));
    for (let at = 0; at < rows.length; at += 500) await tx.insert(slides).values(rows.slice(at, at + 500));
    const change: Change = { kind: "batch", changes: list };
    const inverse: Change = {
      kind: "batch",
      changes: placed.map((slide): SingleChange => ({ kind: "deleteSlide", slide: slide.id })).reverse(),
    };
    const version = row.version + 1;
    await tx.update(decks).set({ version, changedAt: new Date() }).where(eq(decks.id, id));
    await tx
      .insert(changes)
      .values({ deck: id, version, id: nanoid(16), user, change, inverse, schema: SCHEMA_VERSION, arrival: true });
    await tx.execute(sql`select pg_notify(${CHANNEL}, ${`${id} ${version}`})`);
  });
}
