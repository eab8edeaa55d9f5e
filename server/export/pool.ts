import { Piscina } from "piscina";
import exportDeck, { type ExportWork } from "./work";

/** Runs exports: on worker threads where the server was built, in this thread where it runs from source. */
export interface Exporter {
  run(work: ExportWork): Promise<Uint8Array>;
  close(): Promise<void>;
}

export function threadExporter(workerFile: string): Exporter {
  const pool = new Piscina<ExportWork, Uint8Array>({ filename: workerFile, minThreads: 0, maxThreads: 2, idleTimeout: 60000 });
  return { run: (work) => pool.run(work), close: () => pool.destroy() };
}

export const inlineExporter: Exporter = { run: exportDeck, close: async () => undefined };
