import { includes } from "../access";
import { WRITERS } from "@unitext/core/formats";
import { reportLines } from "@unitext/core/divide";
import type { Report } from "@unitext/core/tally";
import { deckFor, Failure, type PrivatePart } from "@unitext/core/model";
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

/** Returns formats as the name of a file has them. */
export const formatsSaid = (formats: readonly string[]): string =>
  formats.length > 3 ? `${formats.length} formats` : formats.join(", ");

/** The files of the archive that report what became of everything: for programs, and to read. */
const REPORT = "report.json";
const REPORT_TO_READ = "report.txt";

/** Returns the report of each file of the archive as a text to read. */
const readable = (
  listed: readonly { file: string; report: Pick<Report, "adapted" | "left"> }[],
  remarks: readonly string[],
) =>
  [
    ...listed.map(({ file, report }) => {
      const lines = reportLines(report);
      return `${file}\n${lines.length ? lines.map((line) => `- ${line}`).join("\n") : "Everything is kept."}\n`;
    }),
    ...remarks,
  ].join("\n");

/**
 * Writes several decks in each of some formats as files of one archive, with one report. A deck deleted meanwhile is left
 * out and reported.
 */
export async function runWrite(
  { db, owner, progress, signal, work, fonts }: WriteWork,
  { decks, formats, sheets, without = [] }: WriteRequest,
): Promise<Written> {
  const files = new Map<string, Uint8Array>();
  const names = new FileNames([REPORT, REPORT_TO_READ]);
  const report: Written["report"] = { adapted: [], left: [] };
  const listed: { deck: string; file: string; report: Report }[] = [];
  const remarks: string[] = [];
  let slides = 0;
  let count = 0;
  const keeps = (part: PrivatePart) => !without.includes(part);
  const steps = decks.length * formats.length;
  if (!(await progress(0, steps, 0))) throw new Cancelled();
  let written = 0;
  for (const [nth, id] of decks.entries()) {
    const right = await rightOn(db, id, owner);
    if (right === undefined) {
      remarks.push(
        `Deck ${nth + 1} of the list was deleted meanwhile, or is no longer shared with you; it is not in the file.`,
      );
      continue;
    }
    const deck = deckFor((await loadDeck(db, id)).deck, {
      notes: keeps("notes"),
      comments: keeps("comments") && includes(right, "comment"),
      hidden: keeps("hidden"),
      author: keeps("author"),
    });
    const blobs = await loadBlobs(db, id);
    const title = deck.properties.title || "Untitled";
    for (const format of formats) {
      const bytes = await work.run(
        "write",
        { fonts, deck, blobs, at: Date.now(), format, ...(sheets ? { sheets } : {}) },
        { owner, signal },
      );
      const ending = WRITERS[format].archive ? "zip" : format;
      const name = names.next(title, formats.length > 1 && ending === "zip" ? `${format}.zip` : ending);
      files.set(name, bytes);
      const own = await work.run("report", { deck, format, sheets: sheets ?? "slides" }, { owner, signal });
      listed.push({ deck: title, file: name, report: own });
      const what = formats.length > 1 ? name : `“${title}”`;
      for (const entry of own.adapted) report.adapted.push({ ...entry, what: `${what}, ${entry.what}` });
      for (const entry of own.left) report.left.push({ ...entry, what: `${what}, ${entry.what}` });
      if (!(await progress(++written, steps, slides))) throw new Cancelled();
    }
    count++;
    slides += deck.slides.length;
  }
  if (count === 0) throw new Failure("not-found", "decks", "None of the decks is there any more; nothing was written.");
  files.set(
    REPORT,
    new TextEncoder().encode(`${JSON.stringify({ formats, without, decks: listed, remarks }, null, 2)}\n`),
  );
  files.set(REPORT_TO_READ, new TextEncoder().encode(readable(listed, remarks)));
  const bytes = await work.run("archive", files, { owner, signal });
  const name = `${count} ${count === 1 ? "deck" : "decks"} as ${formatsSaid(formats)}.zip`;
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
