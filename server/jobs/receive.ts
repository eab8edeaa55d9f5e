import { createHash } from "node:crypto";
import { readFile, stat } from "node:fs/promises";
import { basename } from "node:path";
import { Failure, workbookKind } from "@unitext/core/model";
import { watch } from "chokidar";
import type { SourceTaken } from "../api";
import { type Database, storeSource } from "../store";
import type { Asker, Work } from "../work";
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
  const { remarks } = await work.run("workbook", { bytes, name }, asker);
  const version = createHash("sha256").update(bytes).digest("hex");
  const { id, known, fresh } = await storeSource(db, asker.owner, { name, bytes, sha256: version, from });
  if (known && fresh) await jobs.refresh(asker.owner, name, { source: id, take: "latest" });
  return { id, version, known, fresh, remarks };
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
