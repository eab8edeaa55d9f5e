import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { browser } from "./browser";
import { edit, longText, pdf, pptx, type Row } from "./core";

const rows: Row[] = [];
for (const group of [longText, pptx, pdf, edit]) rows.push(...(await group()));
const peak = Number(execFileSync(process.execPath, [join(process.cwd(), "dist/bench/memory.js")], { encoding: "utf8" }));
rows.push({ name: "peak memory of the 1,600-slide run", ratio: peak, target: 400, holds: peak < 400, unit: "MB" });
if (!process.argv.includes("--no-browser")) rows.push(...(await browser()));

if (process.argv.includes("--json")) process.stdout.write(`${JSON.stringify(rows, null, 1)}\n`);
else for (const { name, ratio, target, holds, unit = "×" } of rows) process.stdout.write(`${holds ? "holds " : "misses"}  ${String(ratio).padStart(9)} ${unit.padEnd(4)} target ${String(target).padStart(5)}  ${name}\n`);
