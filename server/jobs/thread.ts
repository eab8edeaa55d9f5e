import { parentPort } from "node:worker_threads";
import { Failure } from "@unitext/core/model";
import { fontsIn } from "../export";
import { readDocument, type ReadWork } from "./read";
import { sampleDocument } from "./sample";

/** What the thread says: progress, the end, or a refusal. */
export type ThreadMessage = { kind: "progress"; progress: unknown } | { kind: "done" } | { kind: "failed"; failure?: { code: Failure["code"]; where: string; message: string }; message: string };

// Opened before there is work: the first slides do not wait for it.
parentPort?.on("message", async (work: ReadWork | { warm: string }) => {
  const say = (message: ThreadMessage) => parentPort?.postMessage(message);
  if ("warm" in work) {
    fontsIn(work.warm);
    // Read once for nothing: code that has run is compiled, and the fonts are open.
    for await (const _ of readDocument({ fonts: work.warm, name: "sample.docx", bytes: sampleDocument(), deck: "sample", document: "sample" }));
    return;
  }
  try {
    for await (const progress of readDocument(work)) say({ kind: "progress", progress });
    say({ kind: "done" });
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    say({ kind: "failed", message, ...(error instanceof Failure ? { failure: { code: error.code, where: error.where, message } } : {}) });
  }
});
