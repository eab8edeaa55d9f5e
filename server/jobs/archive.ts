import { createHash } from "node:crypto";
import {
  CsvReading,
  Failure,
  Language,
  readStored,
  SCHEMA_VERSION,
  secondsOf,
  Theme,
  workbookKind,
} from "@unitext/core/model";
import { nanoid } from "nanoid";
import { z } from "zod";
import { type JobResult, StoredTargetSchema, TermSchema, termOf } from "../api";
import {
  createDeck,
  createFolder,
  freeTitle,
  languagePairs,
  listDecks,
  listFolders,
  listSources,
  loadBlobs,
  loadDeck,
  loadDocuments,
  memoryUnits,
  putInFolder,
  recordReading,
  recordTyped,
  remember,
  setBinned,
  sourceBytes,
  sourceNamed,
  storedTargets,
  storedTerms,
  storedThemes,
  storeSource,
  storeTargets,
  storeTerms,
  storeTheme,
  writeDocument,
} from "../store";
import type { Work } from "../work";
import { Cancelled, type DivideWork, many } from "./divide";
import { FileNames } from "./names";
import type { Written } from "./write";

/** The name of the archive's table of contents. */
const CONTENTS = "contents.json";

const Pair = z.object({ from: Language, to: Language, file: z.string() });

/** What an archive of everything that a person owns holds. Decks, workbooks and languages name their parts. */
const Contents = z.object({
  format: z.literal("unitext-archive"),
  version: z.literal(1),
  /** The version of the model in which designs are written; decks say theirs. */
  schema: z.number().int().min(1),
  folders: z.array(z.string().min(1).max(200)).max(10_000),
  decks: z
    .array(
      z.object({
        file: z.string(),
        folder: z.string().nullable(),
        binned: z.boolean(),
        text: z.string().nullable(),
        /** The name of the file that it was imported from. */
        origin: z.string().nullable(),
        documents: z.array(z.object({ id: z.string().max(100), name: z.string().max(1000), text: z.string() })),
        targets: z.array(StoredTargetSchema),
      }),
    )
    .max(100_000),
  workbooks: z.array(
    z.object({
      name: z.string().min(1).max(300),
      csv: CsvReading.nullable(),
      typed: z.boolean(),
      /** Its versions, the oldest first. */
      versions: z.array(z.object({ file: z.string(), sha256: z.string(), from: z.string() })),
    }),
  ),
  designs: z.array(z.unknown()).max(1000),
  terms: z.array(Pair.omit({ file: true }).extend({ terms: z.array(TermSchema) })),
  memory: z.array(Pair),
});
type Contents = z.infer<typeof Contents>;

interface ArchiveWork extends DivideWork {
  signal: AbortSignal;
  work: Work;
  fonts: string;
}

/** Returns the counts of an archive's contents as part of a sentence. */
function held({ decks, folders, workbooks, designs }: Pick<Contents, "decks" | "folders" | "workbooks" | "designs">) {
  return `${many(decks.length, "deck")}, ${many(folders.length, "folder")}, ${many(workbooks.length, "workbook")} and ${many(designs.length, "saved design")}`;
}

/** Writes everything that a person owns into one archive: in open formats, with one part that says what they are. */
export async function runArchive({ db, owner, progress, signal, work, fonts }: ArchiveWork): Promise<Written> {
  const files = new Map<string, Uint8Array>();
  const names = new FileNames([CONTENTS]);
  const folders = new Map((await listFolders(db, owner)).map(({ id, name }) => [id, name]));
  const rows = (await listDecks(db, owner)).filter(({ right }) => right === "own");
  const contents: Contents = {
    format: "unitext-archive",
    version: 1,
    schema: SCHEMA_VERSION,
    folders: [...folders.values()],
    decks: [],
    workbooks: [],
    designs: (await storedThemes(db, owner)).map(({ theme }) => theme),
    terms: [],
    memory: [],
  };
  let slides = 0;
  if (!(await progress(0, rows.length, 0))) throw new Cancelled();
  for (const [nth, row] of rows.entries()) {
    const { deck, text } = await loadDeck(db, row.id);
    const order = { fonts, deck, blobs: await loadBlobs(db, row.id), at: Date.now(), format: "json" as const };
    const bytes = await work.run("write", order, { owner, signal });
    const file = `decks/${names.next(deck.properties.title || "Untitled", "json")}`;
    files.set(file, bytes);
    contents.decks.push({
      file,
      folder: row.folder === null ? null : (folders.get(row.folder) ?? null),
      binned: row.binnedAt !== null,
      text,
      origin: row.file,
      documents: (await loadDocuments(db, row.id)).map(({ id, name, text: words }) => ({ id, name, text: words })),
      targets: await storedTargets(db, row.id),
    });
    slides += deck.slides.length;
    if (!(await progress(nth + 1, rows.length, slides))) throw new Cancelled();
  }
  for (const source of await listSources(db, owner)) {
    const versions: Contents["workbooks"][number]["versions"] = [];
    for (const { version, from } of source.versions.toReversed()) {
      const file = `workbooks/${versions.length + 1}/${source.name.replace(/[\\/]/g, "-")}`;
      files.set(file, await sourceBytes(db, { id: source.id, newest: version }));
      versions.push({ file, sha256: version, from });
    }
    contents.workbooks.push({ name: source.name, csv: source.csv, typed: source.typed, versions });
  }
  for (const { from, to } of await languagePairs(db, owner)) {
    const terms = await storedTerms(db, owner, from, to);
    if (terms.length) contents.terms.push({ from, to, terms });
    const units = await memoryUnits(db, owner, from, to);
    if (!units.length) continue;
    const file = `memory/${from}-${to}.tmx`;
    files.set(file, await work.run("writeMemory", { units, from }, { owner, signal }));
    contents.memory.push({ from, to, file });
  }
  files.set(CONTENTS, new TextEncoder().encode(`${JSON.stringify(contents, null, 2)}\n`));
  const bytes = await work.run("archive", files, { owner, signal });
  const name = `Unitext ${new Date().toISOString().slice(0, 10)}.zip`;
  return {
    result: {
      decks: [],
      sentence: `${held(contents)} are in the archive. The history of changes is not.`,
      rows: [],
      remarks: [],
      file: { name, size: bytes.length },
    },
    report: { adapted: [], left: [] },
    file: { name, bytes },
  };
}

/** Puts the decks of an archive back. Returns the decks made; each that fails is a remark. */
async function restoreDecks(
  { db, owner, progress, signal, work }: ArchiveWork,
  contents: Contents,
  files: ReadonlyMap<string, Uint8Array>,
  remarks: string[],
): Promise<JobResult["decks"]> {
  const folders = new Map((await listFolders(db, owner)).map(({ id, name }) => [name, id]));
  for (const name of contents.folders) if (!folders.has(name)) folders.set(name, await createFolder(db, owner, name));
  const titles = new Set((await listDecks(db, owner)).map(({ title }) => title));
  // References between decks, such as from a translation to its original, point to the new copies.
  const ids = new Map<string, string>();
  const read: { entry: Contents["decks"][number]; made: Awaited<ReturnType<typeof readPart>> }[] = [];
  const readPart = (file: string, bytes: Uint8Array) =>
    work.run("file", { bytes, name: file.replace(/^.*\//, "") }, { owner, signal });
  for (const entry of contents.decks) {
    const bytes = files.get(entry.file);
    try {
      if (!bytes) throw new Failure("not-found", entry.file, "The archive does not have this file.");
      const made = await readPart(entry.file, bytes);
      ids.set(made.deck.id, nanoid(12));
      read.push({ entry, made });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      remarks.push(`${entry.file} could not be read: ${error.message}`);
    }
    if (signal.aborted) throw new Cancelled();
  }
  const made: JobResult["decks"] = [];
  let slides = 0;
  for (const [nth, { entry, made: part }] of read.entries()) {
    const { deck } = part;
    const known = deck.properties.title;
    const title = titles.has(known) ? await freeTitle(db, owner, known) : known;
    if (title !== known) remarks.push(`A deck “${known}” is here already; the one of the archive is “${title}”.`);
    titles.add(title);
    const own = (id: string) => ids.get(id) ?? id;
    const id = await createDeck(
      db,
      owner,
      {
        ...deck,
        id: own(deck.id),
        properties: { ...deck.properties, title },
        ...(deck.original ? { original: { ...deck.original, deck: own(deck.original.deck) } } : {}),
        slides: deck.slides.map((slide) =>
          slide.origin ? { ...slide, origin: { ...slide.origin, deck: own(slide.origin.deck) } } : slide,
        ),
      },
      part.blobs,
      entry.text,
      entry.origin,
    );
    for (const document of entry.documents) await writeDocument(db, id, document.id, document.name, document.text);
    if (entry.targets.length) await storeTargets(db, id, owner, entry.targets);
    const folder = entry.folder === null ? undefined : folders.get(entry.folder);
    if (folder) await putInFolder(db, id, owner, folder);
    if (entry.binned) await setBinned(db, id, true);
    made.push({
      id,
      title,
      slides: deck.slides.length,
      seconds: deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0),
    });
    slides += deck.slides.length;
    if (!(await progress(nth + 1, contents.decks.length, slides))) throw new Cancelled();
  }
  return made;
}

/**
 * Puts the workbooks of an archive back. Each version is read before it is stored: what cannot be read never becomes
 * one. A workbook whose name is here with other contents stays as it is here.
 */
async function restoreWorkbooks(
  { db, owner, work, signal }: ArchiveWork,
  { workbooks }: Contents,
  files: ReadonlyMap<string, Uint8Array>,
  remarks: string[],
): Promise<void> {
  for (const { name, csv, typed, versions } of workbooks) {
    if (!workbookKind(name) || /[/\\\p{Cc}]/u.test(name)) {
      remarks.push(`“${name}” is no name of a workbook; it is left out.`);
      continue;
    }
    const known = await sourceNamed(db, owner, name);
    if (known) {
      if (known.newest !== versions.at(-1)?.sha256)
        remarks.push(`A workbook “${name}” is here already with other contents; it stays as it is.`);
      continue;
    }
    let id: string | undefined;
    for (const { file, from } of versions) {
      const bytes = files.get(file);
      try {
        if (!bytes) throw new Failure("not-found", file, "The archive does not have this file.");
        await work.run("workbook", { bytes, name, csv }, { owner, signal });
        const sha256 = createHash("sha256").update(bytes).digest("hex");
        ({ id } = await storeSource(db, owner, { name, bytes, sha256, from }));
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        remarks.push(`${file} could not be read: ${error.message}`);
      }
    }
    if (id && csv) await recordReading(db, id, csv);
    if (id && typed) await recordTyped(db, id);
  }
}

/**
 * Adds what an archive holds to what a person has; nothing that is here is replaced. What cannot be read is a remark.
 * Throws a Failure for a file that is no such archive.
 */
export async function runRestore(
  { name, bytes }: { name: string; bytes: Uint8Array },
  context: ArchiveWork,
): Promise<{ result: JobResult }> {
  const { db, owner, work, signal } = context;
  const files = await work.run("unpack", { bytes, name }, { owner, signal });
  const listed = files.get(CONTENTS);
  const contents = listed && Contents.safeParse(parsed(listed));
  if (!contents?.success)
    throw new Failure(
      "not-supported",
      name,
      "This is no archive of Unitext: it does not say what is in it. Unpack it and bring in its files.",
    );
  const remarks: string[] = [];
  await restoreWorkbooks(context, contents.data, files, remarks);
  const decks = await restoreDecks(context, contents.data, files, remarks);
  const saved = new Set((await storedThemes(db, owner)).map(({ theme }) => theme.name));
  for (const design of contents.data.designs) {
    try {
      const theme = readStored(Theme, design, contents.data.schema, "a design of the archive");
      if (!saved.has(theme.name)) await storeTheme(db, owner, theme);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      remarks.push("A saved design could not be read; it is left out.");
    }
  }
  for (const { from, to, terms } of contents.data.terms) {
    const here = await storedTerms(db, owner, from, to);
    const words = new Set(here.map(({ source }) => source.toLowerCase()));
    const more = terms.map(termOf).filter(({ source }) => !words.has(source.toLowerCase()));
    if (more.length) await storeTerms(db, owner, { from, to, terms: [...here, ...more] });
  }
  for (const { from, to, file } of contents.data.memory) {
    const tmx = files.get(file);
    if (!tmx) continue;
    const units = await work.run("readMemory", { file: { bytes: tmx, name: file }, from, to }, { owner, signal });
    await remember(db, owner, units);
  }
  return {
    result: {
      decks,
      sentence: `${held({ ...contents.data, decks: contents.data.decks.slice(0, decks.length) })} were taken from the archive.`,
      rows: [],
      remarks,
    },
  };
}

/** Returns JSON as a value; undefined where it is none. */
function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return undefined;
  }
}
