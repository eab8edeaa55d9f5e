import { createHash } from "node:crypto";
import { readFile, stat } from "node:fs/promises";
import { basename } from "node:path";
import { writeCsv } from "@unitext/core/data";
import { type CsvReading, Failure, isCsv, workbookKind } from "@unitext/core/model";
import { watch } from "chokidar";
import type { SourceTaken, TypedSheet, VersionPreview, WorkbookContents } from "../api";
import {
  type Database,
  following,
  recordFetch,
  recordReading,
  recordTyped,
  sourceBytes,
  sourceNamed,
  sourcesToFetch,
  storeSource,
} from "../store";
import type { Asker, Work } from "../work";
import { fetchWorkbook, type Known, nameAt } from "./address";
import type { Jobs } from "./queue";

interface ReceiveContext {
  db: Database;
  work: Work;
  jobs: Jobs;
}

/** The largest workbook that is taken, in bytes. */
const MOST_BYTES = 100 * 1024 * 1024;

/**
 * Takes a workbook as a new source, or as the newest version of the one with its name; decks that follow it by
 * themselves are then refreshed by a job. It is read before it is stored: what cannot be read never becomes a version.
 */
export async function receiveWorkbook(
  { db, work, jobs }: ReceiveContext,
  { name, bytes, from }: { name: string; bytes: Uint8Array; from: string },
  asker: Asker,
): Promise<SourceTaken> {
  const before = await sourceNamed(db, asker.owner, name);
  const { remarks } = await work.run("workbook", { bytes, name, csv: before?.csv }, asker);
  const version = createHash("sha256").update(bytes).digest("hex");
  const { id, known, fresh } = await storeSource(db, asker.owner, { name, bytes, sha256: version, from });
  if (known && fresh) await jobs.refresh(asker.owner, name, { source: id, take: "latest" });
  return { id, version, known, fresh, remarks };
}

/** Returns what a workbook would change as the newest version of the source with its name; nothing is stored. */
export async function previewWorkbook(
  { db, work }: ReceiveContext,
  { name, bytes, language }: { name: string; bytes: Uint8Array; language: string },
  asker: Asker,
): Promise<VersionPreview> {
  const source = await sourceNamed(db, asker.owner, name);
  const none = { addedSheets: [], removedSheets: [], addedNames: [], removedNames: [], count: 0, cells: [] };
  if (!source) {
    await work.run("workbook", { bytes, name }, asker);
    return { source: null, same: false, ...none, following: { values: 0, decks: 0 } };
  }
  const same = createHash("sha256").update(bytes).digest("hex") === source.newest;
  const before = { bytes: await sourceBytes(db, source), name, csv: source.csv };
  const changes = same
    ? none
    : await work.run("differences", { before, after: { bytes, name, csv: source.csv }, language }, asker);
  return { source: source.id, same, ...changes, following: await following(db, asker.owner, name) };
}

/** How a typed sheet is read; it is always written in this form. */
const TYPED = { encoding: "utf-8", delimiter: ",", decimal: "." } as const;

/** Takes a sheet that was typed, as a new source or as the newest version of the one with its name. */
export async function receiveTyped(
  context: ReceiveContext,
  { name, rows }: TypedSheet,
  asker: Asker,
): Promise<SourceTaken> {
  const file = `${
    name
      .replace(/\.csv$/i, "")
      .replace(/[/\\:*?"<>|]/g, " ")
      .trim() || "Sheet"
  }.csv`;
  const known = await sourceNamed(context.db, asker.owner, file);
  if (known && !known.typed)
    throw new Failure("conflict", file, `There is a workbook “${file}” already. Give the sheet another name.`);
  const bytes = new TextEncoder().encode(writeCsv(rows));
  const taken = await receiveWorkbook(context, { name: file, bytes, from: "typed" }, asker);
  if (!known) {
    await recordTyped(context.db, taken.id);
    await recordReading(context.db, taken.id, TYPED);
  }
  return taken;
}

/** Corrects how a .csv is read; decks that follow it by themselves are refreshed by a job. Refuses a reading that fails. */
export async function rereadSource(
  { db, work, jobs }: ReceiveContext,
  source: { id: string; name: string; newest: string },
  csv: CsvReading | null,
  asker: Asker,
): Promise<WorkbookContents> {
  if (!isCsv(source.name))
    throw new Failure("not-supported", source.name, "Only .csv and .tsv files are read in more than one way.");
  const contents = await work.run("workbook", { bytes: await sourceBytes(db, source), name: source.name, csv }, asker);
  await recordReading(db, source.id, csv);
  await jobs.refresh(asker.owner, source.name, { source: source.id, take: "latest", reread: true });
  return contents;
}

/** Fetches a workbook from an address and takes it, where it has changed. Throws a Failure with a sentence otherwise. */
export async function receiveAddress(
  context: ReceiveContext,
  address: string,
  hosts: readonly string[],
  asker: Asker,
  known: Known = {},
): Promise<SourceTaken | undefined> {
  const { bytes, ...kept } = await fetchWorkbook(address, hosts, known);
  if (!bytes) return undefined;
  const url = new URL(address);
  const taken = await receiveWorkbook(context, { name: nameAt(url), bytes, from: url.host }, asker);
  await recordFetch(context.db, taken.id, { address, ...kept });
  return taken;
}

/** How often a source is fetched again, and how often those that are due are looked for, in milliseconds. */
const [EVERY, LOOK] = [10 * 60_000, 30_000];

/**
 * Fetches the sources that have an address again and again. Returns a function that ends it. A problem is recorded with
 * its source, which keeps its versions.
 */
export function pollAddresses(
  context: ReceiveContext,
  hosts: readonly string[],
  log: (message: string, error: unknown) => void,
): () => void {
  const ended = new AbortController();
  let busy = false;
  const look = async () => {
    if (busy) return;
    busy = true;
    try {
      for (const source of await sourcesToFetch(context.db, new Date(Date.now() - EVERY)))
        await fetchAgain(context, source, hosts, ended.signal);
    } catch (error) {
      log("Addresses of sources could not be looked for", error);
    } finally {
      busy = false;
    }
  };
  const timer = setInterval(() => void look(), LOOK);
  timer.unref();
  return () => {
    ended.abort();
    clearInterval(timer);
  };
}

/** Fetches a source again. Returns whether there was a new version; what went wrong is recorded with the source. */
export async function fetchAgain(
  context: ReceiveContext,
  source: { id: string; owner: string; address: string | null; etag: string | null; modified: string | null },
  hosts: readonly string[],
  signal: AbortSignal,
): Promise<boolean> {
  const { id, owner, address } = source;
  if (!address) return false;
  const known: Known = { etag: source.etag ?? undefined, modified: source.modified ?? undefined };
  try {
    const taken = await receiveAddress(context, address, hosts, { owner, signal }, known);
    if (!taken) await recordFetch(context.db, id, { address, ...known });
    return taken?.fresh ?? false;
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    await recordFetch(context.db, id, { address, problem: error.message });
    return false;
  }
}

/**
 * Watches a folder: its workbooks are sources of a person, and are read again when their bytes change. Returns a function
 * that ends it. Files that cannot be read are told to `log` and tried again when they change.
 */
export function watchFolder(
  context: ReceiveContext,
  folder: string,
  owner: string,
  log: (message: string, error: unknown) => void,
): () => Promise<void> {
  const ended = new AbortController();
  const receive = async (path: string) => {
    const name = basename(path);
    if (!workbookKind(name) || name.startsWith(".") || name.startsWith("~$")) return;
    try {
      const { size } = await stat(path);
      if (size > MOST_BYTES) throw new Failure("too-large", name, "The workbook is larger than 100 MB.");
      const bytes = new Uint8Array(await readFile(path));
      await receiveWorkbook(context, { name, bytes, from: "folder" }, { owner, signal: ended.signal });
    } catch (error) {
      if (!ended.signal.aborted) log(`The workbook ${name} of the watched folder was not taken`, error);
    }
  };
  const watcher = watch(folder, {
    depth: 0,
    // Programs write in pieces: a file is read when it has stopped growing.
    awaitWriteFinish: { stabilityThreshold: 500, pollInterval: 100 },
  });
  watcher.on("add", (path) => void receive(path));
  watcher.on("change", (path) => void receive(path));
  watcher.on("error", (error) => log(`The folder ${folder} cannot be watched`, error));
  return async () => {
    ended.abort();
    await watcher.close();
  };
}
