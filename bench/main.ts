import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { browser } from "./browser";
import { edit, longText, pdf, pptx, type Row } from "./core";
import { convert, largeFile } from "./convert";
import { data, largeOds, largeXlsx } from "./data";
import { divide } from "./divide";
import { documents, longDocument } from "./documents";
import { grow } from "./growth";
import { store } from "./store";
import { translation } from "./translate";

const rows: Row[] = [];
for (const group of [longText, documents, pptx, pdf, convert, edit, divide, data, translation, grow])
  rows.push(...(await group()));
const peak = Number(
  execFileSync(process.execPath, [join(process.cwd(), "dist/bench/memory.js")], { encoding: "utf8" }),
);
rows.push({ name: "peak memory of the 1,600-slide run", ratio: peak, target: 400, holds: peak < 400, unit: "MB" });
const folder = mkdtempSync(join(tmpdir(), "unitext-bench-"));
const file = join(folder, "long.docx");
writeFileSync(file, await longDocument());
const read = Number(
  execFileSync(process.execPath, [join(process.cwd(), "dist/bench/memory.js"), file], { encoding: "utf8" }),
);
rows.push({
  name: "peak memory of the .docx of 160 pages, read to laid out",
  ratio: read,
  target: 500,
  holds: read < 500,
  unit: "MB",
});
const large = join(folder, "large.pptx");
writeFileSync(large, largeFile());
const held = Number(
  execFileSync(process.execPath, [join(process.cwd(), "dist/bench/memory.js"), large], { encoding: "utf8" }),
);
rows.push({
  name: "peak memory of reading a .pptx of 300 MB of pictures",
  ratio: held,
  target: 700,
  holds: held < 700,
  unit: "MB",
});
for (const [name, bytes] of [
  ["large.xlsx", largeXlsx()],
  ["large.ods", largeOds()],
] as const) {
  const workbook = join(folder, name);
  writeFileSync(workbook, bytes);
  const peakOf = Number(
    execFileSync(process.execPath, [join(process.cwd(), "dist/bench/memory.js"), workbook], { encoding: "utf8" }),
  );
  rows.push({
    name: `peak memory of reading ${name} of 100,000 rows and 20 columns whole`,
    ratio: peakOf,
    target: 500,
    holds: peakOf < 500,
    unit: "MB",
  });
}
rmSync(folder, { recursive: true, force: true });
if (process.env.UNITEXT_BENCH_DATABASE) rows.push(...(await store(process.env.UNITEXT_BENCH_DATABASE)));
if (!process.argv.includes("--no-browser")) rows.push(...(await browser()));

if (process.argv.includes("--json")) process.stdout.write(`${JSON.stringify(rows, null, 1)}\n`);
else
  for (const { name, ratio, target, holds, unit = "×" } of rows)
    process.stdout.write(
      `${holds ? "holds " : "misses"}  ${String(ratio).padStart(9)} ${unit.padEnd(4)} target ${String(target).padStart(5)}  ${name}\n`,
    );
