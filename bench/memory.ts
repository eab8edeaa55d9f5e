import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { openWorkbook } from "@unitext/core/data";
import { readDeck } from "@unitext/core/formats";
import { generate } from "@unitext/core/generate";
import { FontSet, layoutSlide, type Scene } from "@unitext/core/layout";
import { emptyDeck, metadataOf, ruleOf } from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { wholeDocument } from "./documents";
import { paragraphs } from "./material";

/**
 * Runs in a process of its own: reads, generates and lays out 1,600 paragraph slides, or the named document or
 * presentation, keeps them all, and prints the peak memory in MB.
 */
const fonts = new FontSet((id) => readFileSync(join(process.cwd(), `dist/fonts/${id}.ttf`)));
const [file] = process.argv.slice(2);
const kept: unknown[] = [];
if (file?.endsWith(".pptx")) {
  let next = 0;
  kept.push(
    readDeck(readFileSync(file), "large.pptx", {
      newId: () => `r${next++}`,
      sha256: (bytes) => createHash("sha256").update(bytes).digest("hex"),
    }),
  );
} else if (file?.endsWith(".xlsx") || file?.endsWith(".ods")) {
  const workbook = openWorkbook(new Uint8Array(readFileSync(file)), file);
  kept.push(workbook, ...workbook.sheets.map(({ name }) => workbook.sheet(name)));
} else if (file) kept.push(wholeDocument(new Uint8Array(readFileSync(file)), fonts));
else {
  const metadata = metadataOf(emptyDeck("d", "Bench"));
  const scenes: Scene[] = [];
  let next = 0;
  for (const { slide } of generate(readText(paragraphs(1600).join("\n\n---\n\n")), ruleOf({ kind: "mark" }), {
    newId: () => `i${next++}`,
  }))
    scenes.push(layoutSlide(slide, { metadata, number: scenes.length + 1, fonts }));
  kept.push(scenes);
}
// The process alone: the value of getrusage starts with what the parent process held.
const peak = /VmHWM:\s*(\d+) kB/.exec(readFileSync("/proc/self/status", "utf8"))?.[1];
process.stdout.write(String(Math.round((peak === undefined ? process.resourceUsage().maxRSS : Number(peak)) / 1024)));
