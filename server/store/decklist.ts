import { secondsOf, hasNotes, must } from "@unitext/core/model";
import { and, eq, or, desc, inArray } from "drizzle-orm";
import type { DeckRow } from "../api";
import type { Database } from "./database";
import { metadataIn, slideOf, type SlideRow } from "./rows";
import { access, decks, slides, users } from "./schema";
import { rightOfRank } from "./rights";

/** Lists the decks that a user may see, those in the bin too, last changed first, with what the Desk shows of each. */
export async function listDecks(db: Database, user: string): Promise<DeckRow[]> {
  const rows = await db
    .select({ deck: decks, rank: access.rank, notes: access.notes, owner: users.name })
    .from(decks)
    .innerJoin(users, eq(users.id, decks.owner))
    .leftJoin(access, and(eq(access.deck, decks.id), eq(access.user, user)))
    .where(or(eq(decks.owner, user), eq(access.user, user)))
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
  return rows.map(({ deck, rank, notes, owner }) => ({
    id: deck.id,
    title: deck.metadata.properties.title,
    file: deck.file === deck.metadata.properties.title ? null : deck.file,
    language: deck.metadata.language,
    ...must(summaries.get(deck.id)),
    version: deck.version,
    changedAt: deck.changedAt.toISOString(),
    right: deck.owner === user ? "own" : rightOfRank(rank ?? 1),
    notes: deck.owner === user || notes === true,
    owner: deck.owner === user ? null : owner,
    generated: deck.metadata.manuscript !== undefined,
    folder: deck.owner === user ? deck.folder : null,
    binnedAt: deck.binnedAt?.toISOString() ?? null,
  }));
}

type Summary = Pick<DeckRow, "version" | "slides" | "seconds" | "withoutNotes">;

/** Summaries of decks, cached by version. */
export const summaries = new Map<string, Summary>();

/** Groups slide rows by their deck, in running order. */
export function grouped(rows: SlideRow[]): Map<string, SlideRow[]> {
  const groups = new Map<string, SlideRow[]>();
  for (const row of rows) {
    const group = groups.get(row.deck);
    if (group) group.push(row);
    else groups.set(row.deck, [row]);
  }
  return groups;
}
