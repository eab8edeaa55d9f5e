// npm run bench: builds the benchmarks, starts the product on data of its own for those of the browser, prints ratios
// (`--json` as JSON).
import { spawnSync } from "node:child_process";
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "./postgres.mjs";
import { built, npmPackages, root, systemPackages } from "./prepare.mjs";

const alone = process.argv.includes("--no-browser");
const write = process.stdout.write.bind(process.stdout);
if (process.argv.includes("--json")) process.stdout.write = (text) => process.stderr.write(text);
systemPackages(alone ? [] : ["postgresql", "chromium", "espeak-ng", "ffmpeg"]);
npmPackages();
built();
process.stdout.write = write;

const { bundled } = await import("./bundle.mjs");
await bundled({ main: "bench/main.ts", memory: "bench/memory.ts" });

const data = mkdtempSync(join(tmpdir(), "unitext-bench-"));
let address = "";
let product;
let database;
if (!alone) {
  spawnSync("chmod", ["755", data]);
  database = await startPostgres(join(data, "rows"));
  product = spawn(process.execPath, ["scripts/start.mjs"], {
    cwd: root,
    env: { ...process.env, UNITEXT_DATA: data, UNITEXT_PORT: "0" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  address = await new Promise((resolve) =>
    product.stdout.on("data", (chunk) => /http:\/\/[\d.:]+/.test(chunk) && resolve(/http:\/\/[\d.:]+/.exec(chunk)[0])),
  );
}
const { status } = spawnSync(process.execPath, [join(root, "dist/bench/main.js"), ...process.argv.slice(2)], {
  cwd: root,
  stdio: "inherit",
  env: { ...process.env, UNITEXT_ADDRESS: address, ...(database ? { UNITEXT_BENCH_DATABASE: database.url } : {}) },
});
if (product) {
  product.kill("SIGTERM");
  await new Promise((resolve) => product.once("exit", resolve));
}
database?.stop();
rmSync(data, { recursive: true, force: true });
process.exitCode = status ?? 1;
