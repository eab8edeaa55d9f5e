import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { BROWSER, inBrowser } from "./browser";
import { edit, longText, pdf, pptx, type Row } from "./core";
import { convert, largeFile } from "./convert";
import { data, largeOds, largeXlsx } from "./data";
import { divide } from "./divide";
import { documents, longDocument } from "./documents";
import { film } from "./film";
import { handIns } from "./handins";
import { grow } from "./growth";
import { store } from "./store";
import { together } from "./together";
import { translation } from "./translate";

/** The benchmarks by name. `npm run bench -- typing store` runs these two alone. */
const BENCHES: Record<string, () => Row[] | Promise<Row[]>> = {
  longText,
  documents,
  pptx,
  pdf,
  convert,
  edit,
  divide,
  data,
  translation,
  grow,
  peaks,
  together,
  handIns,
  film,
  store: async () => (DATABASE ? store(DATABASE) : []),
};
const DATABASE = process.env.UNITEXT_BENCH_DATABASE;
if (!process.argv.includes("--no-browser"))
  for (const name of Object.keys(BROWSER)) BENCHES[name] = () => inBrowser(name as keyof typeof BROWSER);

const chosen = process.argv.slice(2).filter((argument) => !argument.startsWith("--"));
const unknown = chosen.find((name) => !(name in BENCHES));
if (unknown) throw new Error(`There is no benchmark “${unknown}”, only ${Object.keys(BENCHES).join(", ")}.`);

const rows: Row[] = [];
for (const [name, run] of Object.entries(BENCHES))
  if (!chosen.length || chosen.includes(name)) rows.push(...(await run()));

if (process.argv.includes("--json")) process.stdout.write(`${JSON.stringify(rows, null, 1)}\n`);
else
  for (const { name, ratio, target, holds, unit = "×" } of rows)
    process.stdout.write(
      `${holds ? "holds " : "misses"}  ${String(ratio).padStart(9)} ${unit.padEnd(4)} target ${String(target).padStart(5)}  ${name}\n`,
    );

/** Peak memory of whole programs, in megabytes. */
async function peaks(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), "unitext-bench-"));
  const program = join(process.cwd(), "dist/bench/memory.js");
  const peak = (name: string, target: number, file?: readonly [string, Uint8Array]): Row => {
    const path = file && join(folder, file[0]);
    if (path) writeFileSync(path, file[1]);
    const ratio = Number(execFileSync(process.execPath, [program, ...(path ? [path] : [])], { encoding: "utf8" }));
    return { name, ratio, target, holds: ratio < target, unit: "MB" };
  };
  try {
    return [
      peak("peak memory of the 1,600-slide run", 400),
      peak("peak memory of the .docx of 160 pages, read to laid out", 500, ["long.docx", await longDocument()]),
      peak("peak memory of reading a .pptx of 300 MB of pictures", 700, ["large.pptx", largeFile()]),
      ...(
        [
          ["large.xlsx", largeXlsx()],
          ["large.ods", largeOds()],
        ] as const
      ).map((file) => peak(`peak memory of reading ${file[0]} of 100,000 rows and 20 columns whole`, 500, file)),
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
