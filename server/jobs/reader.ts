import { Worker } from "node:worker_threads";
import { Failure } from "@unitext/core/model";
import { type ReadProgress, readDocument, type ReadWork } from "./read";
import type { ThreadMessage } from "./thread";

/** Runs the reading of documents; `stop` ends one that is under way. */
export interface Reader {
  read(work: ReadWork, stop: AbortSignal): AsyncIterable<ReadProgress>;
  close(): Promise<void>;
}

/** In this thread, where the server runs from source. */
export const inlineReader: Reader = {
  async *read(work, stop) {
    for await (const progress of readDocument(work)) {
      if (stop.aborted) return;
      yield progress;
      // Others get their turn between lots.
      await new Promise((resolve) => setImmediate(resolve));
    }
  },
  close: async () => undefined,
};

/** On threads of their own, one of which is always warm, so that the server goes on answering and the first slides come soon. */
export function threadReader(file: string, fonts: string): Reader {
  const fresh = () => {
    const worker = new Worker(file);
    worker.unref();
    worker.postMessage({ warm: fonts });
    return worker;
  };
  let spare: Worker | undefined = fresh();
  const running = new Set<Worker>();
  return {
    async *read(work, stop) {
      const worker = spare ?? fresh();
      spare = undefined;
      running.add(worker);
      const queue: ThreadMessage[] = [];
      let wake: () => void = () => undefined;
      const push = (message: ThreadMessage) => {
        queue.push(message);
        wake();
      };
      worker.on("message", push);
      worker.on("error", (error) => push({ kind: "failed", message: error.message }));
      worker.on("exit", (code) => code !== 0 && push({ kind: "failed", message: "The thread that read the document has ended." }));
      const abort = () => {
        push({ kind: "done" });
      };
      stop.addEventListener("abort", abort);
      worker.postMessage(work);
      try {
        for (;;) {
          const message = queue.shift();
          if (!message) {
            await new Promise<void>((resolve) => {
              wake = resolve;
            });
            continue;
          }
          if (stop.aborted) return;
          if (message.kind === "progress") yield message.progress as ReadProgress;
          else if (message.kind === "failed") throw message.failure ? new Failure(message.failure.code, message.failure.where, message.failure.message) : new Error(message.message);
          else return;
        }
      } finally {
        stop.removeEventListener("abort", abort);
        running.delete(worker);
        void worker.terminate();
        spare ??= fresh();
      }
    },
    async close() {
      await Promise.all([...running, ...(spare ? [spare] : [])].map((worker) => worker.terminate()));
    },
  };
}
