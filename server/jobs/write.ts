import { WRITERS } from "@unitext/core/formats";
import { Failure } from "@unitext/core/model";
import type { JobResult, WriteRequest } from "../api";
import type { Work } from "../work";
import { FileNames } from "./names";
import { loadBlobs, loadDeck, rightOn } from "../store";
import { Cancelled, type DivideWork, entriesTotal } from "./divide";

export interface Written {
  result: JobResult;
  report: {
    adapted: { slide: number | null; what: string; how: string }[];
    left: { slide: number | null; what: string; why: string }[];
  };
  file: { name: string; bytes: Uint8Array };
}

interface WriteWork extends DivideWork {
  signal: AbortSignal;
  work: Work;
  fonts: string;
}

/** The file of the archive that reports what became of everything. */
const REPORT = "report.json";

/**
 * Writes several decks in one format, each as a file of one archive, with one report. A deck deleted meanwhile is left
 * out and reported.
 */
export async function runWrite(
  { db, owner, progress, signal, work, fonts }: WriteWork,
  { decks, format, sheets }: WriteRequest,
): Promise<Written> {
  const files = new Map<string, Uint8Array>();
  const names = new FileNames([REPORT]);
  const report: Written["report"] = { adapted: [], left: [] };
  const listed: { deck: string; file: string | null; report: object | null }[] = [];
  const remarks: string[] = [];
  let slides = 0;
  if (!(await progress(0, decks.length, 0))) throw new Cancelled();
  for (const [nth, id] of decks.entries()) {
    const right = await rightOn(db, id, owner);
    if (right === undefined) {
      remarks.push(
        `Deck ${nth + 1} of the list was deleted meanwhile, or is no longer shared with you; it is not in the file.`,
      );
      continue;
    }
    const { deck } = await loadDeck(db, id);
    const title = deck.properties.title || "Untitled";
    const bytes = await work.run(
      "write",
      { fonts, deck, blobs: await loadBlobs(db, id), at: Date.now(), format, ...(sheets ? { sheets } : {}) },
      { owner, signal },
    );
    const ending = WRITERS[format].archive ? "zip" : format;
    const name = names.next(title, ending);
    files.set(name, bytes);
    const own = await work.run("report", { deck, format, sheets: sheets ?? "slides" }, { owner, signal });
    listed.push({ deck: title, file: name, report: own });
    for (const entry of own.adapted) report.adapted.push({ ...entry, what: `“${title}”, ${entry.what}` });
    for (const entry of own.left) report.left.push({ ...entry, what: `“${title}”, ${entry.what}` });
    slides += deck.slides.length;
    if (!(await progress(nth + 1, decks.length, slides))) throw new Cancelled();
  }
  const count = files.size;
  if (count === 0) throw new Failure("not-found", "decks", "None of the decks is there any more; nothing was written.");
  files.set(REPORT, new TextEncoder().encode(`${JSON.stringify({ format, decks: listed, remarks }, null, 2)}\n`));
  const bytes = await work.run("archive", files, { owner, signal });
  const name = `${count} ${count === 1 ? "deck" : "decks"} as ${format}.zip`;
  return {
    result: {
      decks: [],
      sentence: entriesTotal(count, slides, report),
      rows: [],
      remarks,
      file: { name, size: bytes.length },
    },
    report: { adapted: report.adapted.slice(0, 2000), left: report.left.slice(0, 2000) },
    file: { name, bytes },
  };
}
