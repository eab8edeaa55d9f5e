// npm run quality -- FILES…: measures the decks that documents give (bench/quality.ts); `--json` as JSON.
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { built, npmPackages, root } from "./prepare.mjs";

const write = process.stdout.write.bind(process.stdout);
process.stdout.write = (text) => process.stderr.write(text);
npmPackages();
built();
process.stdout.write = write;
const { bundled } = await import("./bundle.mjs");
await bundled({ quality: "bench/quality.ts" });
const { status } = spawnSync(process.execPath, [join(root, "dist/bench/quality.js"), ...process.argv.slice(2)], {
  stdio: "inherit",
});
process.exitCode = status ?? 1;
