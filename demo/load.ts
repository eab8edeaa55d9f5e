// The program that puts the demo decks into a database; with `--film` it makes the film of one of them.
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { openWorkbook, refreshDeck, type SourceAtHand } from "@unitext/core/data";
import { tailorDeck } from "@unitext/core/divide";
import {
  matchTargets,
  pseudoTranslation,
  readTerms,
  readXliff,
  type Segment,
  segmentsOf,
  type StoredTarget,
  type Target,
  translateDeck,
} from "@unitext/core/translate";
import { loadFormulas } from "@unitext/core/figures";
import { readDeck } from "@unitext/core/formats";
import { loadGrammar } from "@unitext/core/generate";
import { THEMES, type Deck, plainText, titleOf } from "@unitext/core/model";
import { count } from "drizzle-orm";
import { nanoid } from "nanoid";
import { FILMED, makeFilm, spokenDeck } from "./film";
import { handedIn } from "./handedin";
import { collectFieldWeek, publishOpenDay, shareCourse } from "./people";
import { scriptsDeck } from "./scripts";
import { fontsIn } from "@unitext/node";
import { HouseKey } from "../server/accounts";
import {
  applyChanges,
  connect,
  createDeck,
  type Database,
  DEMO_USER,
  ensureUser,
  loadBlobs,
  loadDeck,
  migrated,
  nameVersion,
  remember,
  schema,
  storeSource,
  storeTargets,
  storeTerms,
  writeDocument,
} from "../server/store";

/** The texts, documents and presentations of the demo, in the order in which the Desk shows them from the last to the first. */
const TEXTS = [
  "coastal-field-course.md",
  "class-list.txt",
  "field-handbook.docx",
  "open-day.odp",
  "quay-in-autumn.pptx",
  "quarterly-monitoring.md",
  "tides-dunes-storms.md",
];
/** The workbooks that feed the report; a second quarter of the first is in `next-quarter`. */
const WORKBOOKS = ["station-gauges.xlsx", "visitors.ods"];
/** Designs of decks whose files name none. */
const DESIGNS_OF: Record<string, keyof typeof THEMES> = {
  "class-list.txt": "tidepool",
  "field-handbook.docx": "contour",
};
const TITLES: Record<string, string> = { "class-list.txt": "Class list, coastal processes" };

/** Returns a deck whose linked values say of which versions they are. */
function withTakenValues(deck: Deck, sources: ReadonlyMap<string, SourceAtHand>): Deck {
  const context = {
    source: (name: string) => sources.get(name),
    language: deck.language,
    takenAt: new Date().toISOString(),
    takenBy: DEMO_USER.name,
  };
  return { ...deck, slides: refreshDeck(deck, context, () => true).slides };
}

/** Puts the demo decks into a database that has no deck yet; pictures come from the folder beside the texts. */
async function loadDemo(db: Database, folder: string, fonts: string, key: HouseKey): Promise<void> {
  await loadGrammar();
  await ensureUser(db, DEMO_USER);
  const [found] = await db.select({ decks: count() }).from(schema.decks);
  if (found?.decks) return;
  await loadFormulas();
  const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
  for (const { name, text } of handedIn()) {
    const { deck } = readDeck(new TextEncoder().encode(text), `${name}.md`, { newId: () => nanoid(10), sha256 });
    await createDeck(
      db,
      DEMO_USER.id,
      { ...deck, id: name.toLowerCase(), properties: { ...deck.properties, title: name } },
      new Map(),
      text,
    );
  }
  const sources = new Map<string, SourceAtHand>();
  for (const name of WORKBOOKS) {
    const bytes = readFileSync(join(folder, "content", name));
    const version = sha256(bytes);
    await storeSource(db, DEMO_USER.id, { name, bytes, sha256: version, from: "demo" });
    sources.set(name, { workbook: openWorkbook(bytes, name), version });
  }
  const pictures = new Set(readdirSync(join(folder, "content/pictures")).map((name) => `pictures/${name}`));
  for (const name of TEXTS) {
    const picture = (source: string) =>
      pictures.has(source) ? readFileSync(join(folder, "content", source)) : undefined;
    const {
      deck: read,
      blobs,
      text,
    } = readDeck(readFileSync(join(folder, "content", name)), name, {
      newId: () => nanoid(10),
      sha256,
      picture,
      fonts: fontsIn(fonts),
      document: nanoid(10),
    });
    const taken = withTakenValues(read, sources);
    const deck = name.startsWith(FILMED) ? spokenDeck(taken) : taken;
    const title = TITLES[name] ?? deck.properties.title;
    const design = DESIGNS_OF[name];
    const id = await createDeck(
      db,
      DEMO_USER.id,
      {
        ...deck,
        id: name.replace(/\.[^.]*$/, ""),
        properties: { ...deck.properties, title },
        ...(design ? { theme: THEMES[design] } : {}),
      },
      blobs,
      deck.manuscript ? null : (text ?? null),
    );
    if (deck.manuscript && text !== undefined) await writeDocument(db, id, deck.manuscript.document, name, text);
  }
  await createDeck(db, DEMO_USER.id, scriptsDeck(), new Map(), null);
  // The report is changed after its versions were made, so that they have something to follow.
  await translateReport(db);
  await tailorReport(db);
  await translateCourse(db, folder);
  const token = (text: string) => key.token(text);
  await shareCourse(db, token);
  const names = handedIn().map(({ name }) => name);
  await collectFieldWeek(db, names, token);
  await publishOpenDay(db);
}

/** Stores a deck in another language with its translations; it follows its original. */
async function storeTranslation(
  db: Database,
  original: string,
  { id, language, targetOf }: { id: string; language: string; targetOf: (segment: Segment) => Target | undefined },
): Promise<void> {
  const { deck, version } = await loadDeck(db, original);
  const segments = segmentsOf(deck);
  const made = translateDeck(deck, language, targetOf).deck;
  const own = tailorDeck({ deck: made, version }, id, made.properties.title, () => nanoid(10));
  await createDeck(
    db,
    DEMO_USER.id,
    { ...own, original: { deck: deck.id, version, language: deck.language } },
    await loadBlobs(db, deck.id),
    null,
  );
  const stored = segments.flatMap((segment): StoredTarget[] => {
    const target = targetOf(segment);
    return target ? [{ id: segment.id, source: segment.source, target: target.pieces, state: target.state }] : [];
  });
  await storeTargets(db, own.id, DEMO_USER.id, stored);
  const reviewed = stored.filter(({ state, target }) => state === "reviewed" && target.length > 0);
  const pair = { from: deck.language, to: language };
  await remember(
    db,
    DEMO_USER.id,
    reviewed.map(({ source, target }) => ({ ...pair, source, target })),
    own.id,
  );
}

/** The course in Spanish: its first ten slides are translated and reviewed, the others still in English. */
async function translateCourse(db: Database, folder: string): Promise<void> {
  const { deck } = await loadDeck(db, "tides-dunes-storms");
  const read = (name: string) => readFileSync(join(folder, "content/translations", name));
  const name = "tides-dunes-storms.es.xlf";
  const { targets } = matchTargets(segmentsOf(deck), readXliff(read(name).toString("utf8"), name));
  const pair = { from: deck.language, to: "es" };
  const { terms } = readTerms(read("terms.es.csv"), "terms.es.csv", pair);
  await storeTerms(db, DEMO_USER.id, { ...pair, terms });
  const targetOf = ({ id }: Segment) => targets.get(id);
  await storeTranslation(db, deck.id, { id: "tides-dunes-storms-es", language: "es", targetOf });
}

/** The report in pseudo words in Arabic letters: it shows a deck from right to left before anybody has translated it. */
const translateReport = (db: Database) =>
  storeTranslation(db, "quarterly-monitoring", {
    id: "quarterly-monitoring-ar",
    language: "ar",
    targetOf: ({ source }) => ({ pieces: pseudoTranslation(source, "ar"), state: "proposed" }),
  });

/**
 * A version of the quarterly report for the board: two slides changed, one left out, one only there; afterwards the
 * report itself is changed.
 */
async function tailorReport(db: Database): Promise<void> {
  const { deck, version } = await loadDeck(db, "quarterly-monitoring");
  const board = tailorDeck({ deck, version }, "quarterly-monitoring-board", "Monitoring report, for the board", () =>
    nanoid(10),
  );
  await createDeck(db, DEMO_USER.id, board, await loadBlobs(db, deck.id), null);
  const change = (own: Deck, title: string) => own.slides.find((slide) => titleOf(slide) === title);
  const short = change(board, "In short");
  const levels = change(board, "Levels at the quay");
  const act = async (
    id: string,
    describeChange: string,
    made: Parameters<typeof applyChanges>[3]["changes"][number]["change"],
  ) => {
    const { version: base } = await loadDeck(db, id);
    await applyChanges(db, id, DEMO_USER.id, {
      base,
      changes: [{ id: nanoid(16), change: made, description: describeChange }],
    });
  };
  if (short)
    await act(board.id, "Changed the notes of slide 2", {
      kind: "setNotes",
      slide: short.id,
      notes: plainText("The board wants the cost of the closed path first. Then the two sites."),
    });
  if (levels) await act(board.id, "Deleted slide 3", { kind: "deleteSlide", slide: levels.id });
  const body = change(deck, "In short");
  const points = body?.elements.find((element) => element.kind === "text" && element.slot === "body");
  await nameVersion(db, deck.id, DEMO_USER.id, version, "As sent on 10 April");
  if (body && points?.kind === "text")
    await act(deck.id, "Changed text on slide 2", {
      kind: "setText",
      slide: body.id,
      element: points.id,
      text: points.text.map((paragraph, nth) =>
        nth === 1
          ? { ...paragraph, runs: [{ text: "Line 4 has lost 12 % of its foredune since October" }] }
          : paragraph,
      ),
    });
}

// The settings are environment variables that the start script sets.
const { UNITEXT_DATABASE = "", UNITEXT_ROOT = process.cwd(), UNITEXT_KEY_FILE } = process.env;
const { db, close } = connect(UNITEXT_DATABASE);
await migrated(db, join(UNITEXT_ROOT, "server/migrations"));
const key = UNITEXT_KEY_FILE ? HouseKey.at(UNITEXT_KEY_FILE) : HouseKey.random();
const fonts = join(UNITEXT_ROOT, "dist/fonts");
if (process.argv.includes("--film")) await makeFilm(db, fonts);
else await loadDemo(db, join(UNITEXT_ROOT, "demo"), fonts, key);
await close();
