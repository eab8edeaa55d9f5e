import { must } from "@unitext/core/model";
import { join } from "node:path";
import { sql } from "drizzle-orm";
import { runMerge } from "../server/jobs/divide";
import { connect, createDeck, ensureUser, migrated } from "../server/store";
import { type Row, row } from "./core";
import { deckOf } from "./material";

/** Merging thirty decks into one of 900 slides through PostgreSQL, against a bare INSERT … SELECT of the same rows. */
export async function store(url: string): Promise<Row[]> {
  const { db, close } = connect(url);
  try {
    await migrated(db, join(process.cwd(), "server/migrations"));
    await ensureUser(db, { id: "bench", name: "bench" });
    for (let nth = 0; nth < 30; nth++) await createDeck(db, "bench", { ...deckOf(30), id: `b${nth}` }, new Map(), null);
    await createDeck(db, "bench", { ...deckOf(0), id: "bare" }, new Map(), null);
    const bare = () =>
      db.transaction((tx) =>
        tx.execute(
          sql`insert into slides (deck_id, id, key, parent_id, body, notes) select 'bare', deck_id || id, deck_id || key, parent_id, body, notes from slides where deck_id like 'b%' and deck_id <> 'bare'`,
        ),
      );
    const asked = {
      decks: Array.from({ length: 30 }, (_, nth) => ({ id: `b${nth}`, version: 0 })),
      title: "All",
      appearance: "match" as const,
      sections: false,
      contents: false,
      openingsOnce: false,
      drop: [],
    };
    const merged = () => runMerge({ db, owner: "bench", progress: async () => true }, asked);
    const best = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
    for (let nth = 0; nth < 14; nth++) {
      for (const [at, act] of [bare, merged].entries()) {
        const begin = performance.now();
        await act();
        best[at] = Math.min(must(best[at]), performance.now() - begin);
        await db.execute(sql`delete from slides where deck_id = 'bare'`);
        await db.execute(sql`delete from decks where id !~ '^(bare|b[0-9]+)$'`);
      }
    }
    return [
      row(
        "merge 30 decks into one of 900 slides through PostgreSQL / INSERT … SELECT of the rows",
        must(best[1]) / must(best[0]),
        5,
      ),
    ];
  } finally {
    await close();
  }
}
