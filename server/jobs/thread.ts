import { parentPort } from "node:worker_threads";
import { Failure } from "@unitext/core/model";
import { fontsIn } from "../export";
import { readFile, type ReadWork } from "./read";
import { sampleDocument, samplePresentation } from "./sample";

/** What the thread says: progress, the end, or a refusal. */
export type ThreadMessage = { kind: "progress"; progress: unknown } | { kind: "done" } | { kind: "failed"; failure?: { code: Failure["code"]; where: string; message: string }; message: string };

// Opened before there is work: the first slides do not wait for it.
parentPort?.on("message", async (work: ReadWork | { warm: string }) => {
  const say = (message: ThreadMessage) => parentPort?.postMessage(message);
  if ("warm" in work) {
    fontsIn(work.warm);
    // Read once for nothing: code that has run is compiled, and the fonts are open.
    const samples = { "sample.docx": sampleDocument(), "sample.pptx": samplePresentation(fontsIn(work.warm)) };
    for (const [name, bytes] of Object.entries(samples)) for await (const _ of readFile({ fonts: work.warm, name, bytes, deck: "sample", document: "sample" }));
    return;
  }
  try {
    for await (const progress of readFile(work)) say({ kind: "progress", progress });
    say({ kind: "done" });
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    say({ kind: "failed", message, ...(error instanceof Failure ? { failure: { code: error.code, where: error.where, message } } : {}) });
  }
});
