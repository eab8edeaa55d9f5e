import { createHash } from "node:crypto";
import { bindCells, openWorkbook, slideWithBound } from "@unitext/core/data";
import { type Deck, emptyDeck, must } from "@unitext/core/model";
import { join } from "node:path";
import { sql } from "drizzle-orm";
import { runMerge } from "../server/jobs/divide";
import { runRefresh } from "../server/jobs/refresh";
import {
  connect,
  createDeck,
  type Database,
  ensureUser,
  migrated,
  recall,
  remember,
  storeSource,
} from "../server/store";
import { rankProposals, readMemory } from "../server/work/translate";
import { inlineWork } from "../server/work";
import { type Piece, writeTmx } from "@unitext/core/translate";
import { SaxesParser } from "saxes";
import { inTurn, type Row, row } from "./core";
import { sentences } from "./translate";
import { deckOf } from "./material";

/** Merging thirty decks into one of 900 slides through PostgreSQL, against a bare INSERT … SELECT of the same rows. */
async function merging(db: Database): Promise<Row> {
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
  return row(
    "merge 30 decks into one of 900 slides through PostgreSQL / INSERT … SELECT of the rows",
    must(best[1]) / must(best[0]),
    5,
  );
}

const [DECKS, SLIDES] = [30, 17];
const SOURCE = "levels.csv";
const sheet = (from: number) =>
  new TextEncoder().encode(
    ["Station,Level", ...Array.from({ length: SLIDES }, (_, nth) => `Gauge ${nth + 1},${from + nth}`)].join("\n"),
  );

/** A deck with a value of the workbook on each slide. */
function linkedDeck(id: string, version: string): Deck {
  let serial = 0;
  const newId = () => `${id}-${++serial}`;
  const workbook = openWorkbook(sheet(100), SOURCE);
  const slides = Array.from({ length: SLIDES }, (_, nth) =>
    slideWithBound(
      bindCells(
        { workbook, version },
        { source: SOURCE, range: `levels!B${nth + 2}`, mode: "latest" },
        { language: "en", newId },
      ),
      newId,
    ),
  );
  return { ...emptyDeck(id, id), slides };
}

/** Taking 510 new values in thirty decks through PostgreSQL, against one bare UPDATE of the same rows. */
async function refreshing(db: Database): Promise<Row> {
  const store = (from: number) => {
    const bytes = sheet(from);
    const sha256 = createHash("sha256").update(bytes).digest("hex");
    return storeSource(db, "bench", { name: SOURCE, bytes, sha256, from: "bench" });
  };
  const { id } = await store(100);
  for (let nth = 0; nth < DECKS; nth++) await createDeck(db, "bench", linkedDeck(`l${nth}`, "none"), new Map(), null);
  // The work is done in this process: what is measured is the way through the database.
  const context = {
    db,
    owner: "bench",
    progress: async () => true,
    signal: new AbortController().signal,
    work: inlineWork,
  };
  const best = { bare: Number.POSITIVE_INFINITY, taken: Number.POSITIVE_INFINITY };
  for (let nth = 1; nth <= 8; nth++) {
    await store(100 + nth * 1000);
    let begin = performance.now();
    const { result } = await runRefresh(context, { source: id, take: "latest" });
    best.taken = Math.min(best.taken, performance.now() - begin);
    if (result.decks.length !== DECKS) throw new Error(`${result.decks.length} decks took new values`);
    begin = performance.now();
    await db.execute(
      sql`update slides set body = jsonb_set(body, '{benched}', to_jsonb(${nth}::int)) where deck_id in (select 'l' || n from generate_series(0, ${DECKS - 1}) n)`,
    );
    best.bare = Math.min(best.bare, performance.now() - begin);
    await db.execute(sql`update slides set body = body - 'benched' where deck_id ~ '^l[0-9]+$'`);
  }
  return row(
    "take 510 new values in 30 decks through PostgreSQL / one UPDATE of the same rows",
    best.taken / best.bare,
    5,
  );
}

/** What goes through the database, against bare statements on the same rows. */
/** How many units the memory has, and how many texts are looked for in it: as many as of a short deck. */
const [UNITS, ASKED] = [100_000, 100];

/**
 * Proposals for the texts of a deck from a memory of 100,000 units, against the bare queries for candidates; and storing a
 * TMX of those units, against a parser and one INSERT of the same rows into a table without indexes.
 */
async function remembering(db: Database): Promise<Row[]> {
  const pair = { from: "en", to: "de" };
  const units = [...sentences(UNITS)].map((words) => ({ ...pair, source: [words], target: [words.toUpperCase()] }));
  const text = writeTmx(units, { from: "en" });
  const rows = units.map(({ source: [words = ""] }, nth) => ({
    id: `b${nth}`,
    words,
    pieces: JSON.stringify([words]),
  }));
  const bareStore = async () => {
    new SaxesParser().write(text).close();
    await db.execute(sql`create temporary table bare_memory (id text, words text, source jsonb, target jsonb)`);
    await db.execute(
      sql`insert into bare_memory select id, words, pieces::jsonb, pieces::jsonb from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as rows(id text, words text, pieces text)`,
    );
    await db.execute(sql`drop table bare_memory`);
  };
  const store = async () => {
    const read = readMemory({ file: { bytes: new TextEncoder().encode(text), name: "memory.tmx" }, ...pair });
    await remember(db, "bench", read);
  };
  const [bareStored = 1, stored = 1] = await inTurn([bareStore, store], 2);
  await db.execute(sql`analyze memory`);
  // Texts that differ from units of the memory by a word.
  const asked = units.slice(0, ASKED).map(({ source: [words = ""] }): Piece[] => [words.replace(/\S+/, "every")]);
  const bareQueries = async () => {
    for (const [words] of asked)
      await db.execute(
        sql`select source, target from memory where owner_id = 'bench' and from_language = 'en' and to_language = 'de' and words % ${String(words).toLowerCase()} order by similarity(words, ${String(words).toLowerCase()}) desc limit 50`,
      );
  };
  const proposals = async () => {
    for (const source of asked)
      rankProposals({ source, units: await recall(db, "bench", { ...pair, source }), ...pair });
  };
  const [bare = 1, ranked = 1] = await inTurn([bareQueries, proposals], 2);
  return [
    row(`TMX of ${UNITS} units stored / SAX parse and INSERT of bare rows`, stored / bareStored, 5),
    row(`${ASKED} texts against a memory of ${UNITS} units / bare pg_trgm queries`, ranked / bare, 2),
  ];
}

export async function store(url: string): Promise<Row[]> {
  const { db, close } = connect(url);
  try {
    await migrated(db, join(process.cwd(), "server/migrations"));
    await ensureUser(db, { id: "bench", name: "bench" });
    return [await merging(db), await refreshing(db), ...(await remembering(db))];
  } finally {
    await close();
  }
}
