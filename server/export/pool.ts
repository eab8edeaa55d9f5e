import type { ReadDeck } from "@unitext/core/formats";
import { Failure } from "@unitext/core/model";
import { Piscina } from "piscina";
import readPdf from "./readpdf";
import exportDeck, { type Drawn, drawPictures, type ExportWork, type Refused } from "./work";

/** Runs exports: on worker threads where the server was built, in this thread where it runs from source. */
export interface Exporter {
  run(work: ExportWork): Promise<Uint8Array>;
  /** Reads a PDF as a deck of its pages. */
  pages(file: { bytes: Uint8Array; name: string }): Promise<ReadDeck>;
  /** Draws pictures anew that pages do not show as they come. */
  pictures(undrawn: ReadonlyMap<string, Uint8Array>): Promise<Drawn>;
  close(): Promise<void>;
}

export function threadExporter(workerFile: string): Exporter {
  const pool = new Piscina({ filename: workerFile, minThreads: 0, maxThreads: 2, idleTimeout: 60000 });
  return { run: (work) => pool.run(work), pages: async (file) => {
    const read = (await pool.run(file, { name: "readPages" })) as ReadDeck | Refused;
    if ("refused" in read) throw new Failure(read.refused.code, read.refused.where, read.refused.message);
    return read;
  }, pictures: (undrawn) => (undrawn.size ? pool.run(undrawn, { name: "drawPictures" }) : drawPictures(undrawn)), close: () => pool.destroy() };
}

export const inlineExporter: Exporter = { run: exportDeck, pages: readPdf, pictures: drawPictures, close: async () => undefined };
