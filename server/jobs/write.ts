import { WRITERS, writeReport } from "@unitext/core/formats";
import { Failure } from "@unitext/core/model";
import { strToU8, zipSync } from "fflate";
import type { JobResult, WriteRequest } from "../api";
import type { Exporter } from "../export";
import { loadBlobs, loadDeck, rightOn } from "../store";
import { Cancelled, type DivideWork, entriesTotal } from "./divide";

/** Pictures and archives do not get smaller by being packed again. */
const PACKED = /\.(pptx|odp|docx|zip|pdf)$/;

export interface Written {
  result: JobResult;
  report: { adapted: { slide: number | null; what: string; how: string }[]; left: { slide: number | null; what: string; why: string }[] };
  file: { name: string; bytes: Uint8Array };
}

/** Writes several decks in one format, each as a file of one archive, with one report on all of them. A deck that is gone meanwhile is left out, and said so. */
export async function runWrite({ db, owner, progress }: DivideWork, { decks, format, sheets }: WriteRequest, exporter: Exporter, fonts: string): Promise<Written> {
  const files: Record<string, [Uint8Array, { level: 0 | 6 }]> = {};
  const report: Written["report"] = { adapted: [], left: [] };
  const listed: { deck: string; file: string | null; report: object | null }[] = [];
  const remarks: string[] = [];
  let slides = 0;
  if (!(await progress(0, decks.length, 0))) throw new Cancelled();
  for (const [nth, id] of decks.entries()) {
    const right = await rightOn(db, id, owner);
    if (right === undefined) {
      remarks.push(`Deck ${nth + 1} of the list was deleted meanwhile, or is no longer shared with you; it is not in the file.`);
      continue;
    }
    const { deck } = await loadDeck(db, id);
    const title = deck.properties.title || "Untitled";
    const bytes = await exporter.run({ fonts, deck, blobs: await loadBlobs(db, id), at: Date.now(), format, ...(sheets ? { sheets } : {}) });
    const ending = WRITERS[format].archive ? "zip" : format;
    const base = title.replace(/[\\/:*?"<>|]+/g, "-").replace(/^\.+/, "").slice(0, 120) || "Untitled";
    let name = `${base}.${ending}`;
    for (let copy = 2; files[name]; copy++) name = `${base} (${copy}).${ending}`;
    files[name] = [bytes, { level: PACKED.test(name) ? 0 : 6 }];
    const own = writeReport(deck, format, undefined, sheets ?? "slides");
    listed.push({ deck: title, file: name, report: own });
    for (const entry of own.adapted) report.adapted.push({ ...entry, what: `“${title}”, ${entry.what}` });
    for (const entry of own.left) report.left.push({ ...entry, what: `“${title}”, ${entry.what}` });
    slides += deck.slides.length;
    if (!(await progress(nth + 1, decks.length, slides))) throw new Cancelled();
  }
  const count = Object.keys(files).length;
  if (count === 0) throw new Failure("not-found", "decks", "None of the decks is there any more; nothing was written.");
  files["report.json"] = [strToU8(`${JSON.stringify({ format, decks: listed, remarks }, null, 2)}\n`), { level: 6 }];
  const bytes = zipSync(files);
  const name = `${count} ${count === 1 ? "deck" : "decks"} as ${format}.zip`;
  return { result: { decks: [], sentence: entriesTotal(count, slides, report), rows: [], remarks, file: { name, size: bytes.length } }, report: { adapted: report.adapted.slice(0, 2000), left: report.left.slice(0, 2000) }, file: { name, bytes } };
}
