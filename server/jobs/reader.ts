import { Worker } from "node:worker_threads";
import { Failure } from "@unitext/core/model";
import { type ReadProgress, readFile, type ReadWork } from "./read";
import type { ThreadMessage } from "./thread";

/** Runs the reading of documents and presentations; `stop` ends one that is under way. */
export interface Reader {
  read(work: ReadWork, stop: AbortSignal): AsyncIterable<ReadProgress>;
  close(): Promise<void>;
}

/** In this thread, where the server runs from source. */
export const inlineReader: Reader = {
  async *read(work, stop) {
    for await (const progress of readFile(work)) {
      if (stop.aborted) return;
      yield progress;
      // Others get their turn between lots.
      await new Promise((resolve) => setImmediate(resolve));
    }
  },
  close: async () => undefined,
};

/** How many threads wait for the next file: as many as a server reads at the same time. */
const IDLE = 2;

/** On threads of their own, one of which is always warm, so that the server goes on answering and the first slides come soon. */
export function threadReader(file: string, fonts: string): Reader {
  const idle: Worker[] = [];
  const fresh = () => {
    const worker = new Worker(file);
    worker.unref();
    // One that fails while it waits ends; nobody waits for it.
    worker.on("error", () => undefined);
    worker.once("exit", () => {
      if (idle.includes(worker)) idle.splice(idle.indexOf(worker), 1);
    });
    return worker;
  };
  const warm = () => {
    const worker = fresh();
    worker.postMessage({ warm: fonts });
    idle.push(worker);
  };
  warm();
  const running = new Set<Worker>();
  return {
    async *read(work, stop) {
      // One that is needed at once is not warmed first: that would take longer than reading.
      const worker = idle.pop() ?? fresh();
      running.add(worker);
      const queue: ThreadMessage[] = [];
      let wake: () => void = () => undefined;
      const push = (message: ThreadMessage) => {
        queue.push(message);
        wake();
      };
      const onError = (error: Error) => push({ kind: "failed", message: error.message });
      const onExit = (code: number) => code !== 0 && push({ kind: "failed", message: "The thread that read the document has ended." });
      worker.on("message", push).on("error", onError).on("exit", onExit);
      let whole = false;
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
          else if (message.kind === "failed") {
            // A file that was refused has not harmed the thread.
            whole = message.failure !== undefined;
            throw message.failure ? new Failure(message.failure.code, message.failure.where, message.failure.message) : new Error(message.message);
          } else {
            whole = true;
            return;
          }
        }
      } finally {
        stop.removeEventListener("abort", abort);
        running.delete(worker);
        worker.off("message", push).off("error", onError).off("exit", onExit);
        // A thread that has read once reads the next file faster.
        if (whole && !stop.aborted && idle.length < IDLE) idle.push(worker);
        else void worker.terminate();
        if (!idle.length) warm();
      }
    },
    async close() {
      await Promise.all([...running, ...idle].map((worker) => worker.terminate()));
    },
  };
}
