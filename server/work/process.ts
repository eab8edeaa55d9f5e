import { writeFileSync } from "node:fs";
import { Worker as Thread } from "node:worker_threads";
import { isTooDeep, tooDeep } from "@unitext/core/formats";
import { Failure } from "@unitext/core/model";
import { fontsIn } from "@unitext/node";
import { readFile } from "./read";
import { sampleDocument, samplePresentation } from "./sample";
import { carryOut, type Order, type Reply } from "./tasks";

/** The program of a worker process: it carries out orders one by one, and is killed when one exceeds a limit. */

const say = (reply: Reply) => process.send?.(reply);

try {
  // When the machine runs out of memory, the kernel kills workers first, never the server or the database.
  writeFileSync("/proc/self/oom_score_adj", "1000");
} catch {
  // Not on Linux, or not permitted: the limits of the pool still apply.
}

/** Reads samples, so that the code that reads files is compiled and the fonts are open before the first file comes. */
async function warm(fonts: string): Promise<void> {
  const samples = { "sample.docx": sampleDocument(), "sample.pptx": samplePresentation(fontsIn(fonts)) };
  for (const [name, bytes] of Object.entries(samples)) {
    for await (const _ of readFile({ fonts, name, bytes, deck: "sample", document: "sample" })) {
      // Only the effect on the process counts.
    }
  }
}

process.on("message", async (order: Order) => {
  try {
    if (order.kind === "warm") {
      await warm(order.fonts);
      return;
    }
    say({ kind: "done", result: await carryOut(order, (progress) => say({ kind: "progress", progress })) });
  } catch (error) {
    if (isTooDeep(error)) {
      const { code, where, message } = tooDeep("file");
      say({ kind: "failed", message, failure: { code, where, message } });
      return;
    }
    const message = error instanceof Error ? error.message : String(error);
    say({
      kind: "failed",
      message,
      ...(error instanceof Failure ? { failure: { code: error.code, where: error.where, message } } : {}),
    });
  }
});
process.on("disconnect", () => process.exit(0));
// An endless computation does not notice that the server is gone: a thread beside it watches the parent process.
new Thread(
  "const { ppid } = process; setInterval(() => process.ppid === ppid || process.kill(process.pid, 'SIGKILL'), 1000);",
  { eval: true },
).unref();
say({ kind: "ready" });
