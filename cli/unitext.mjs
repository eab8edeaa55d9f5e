#!/usr/bin/env node
import { existsSync } from "node:fs";
import { fileURLToPath } from "node:url";

const built = new URL("../dist/cli/main.js", import.meta.url);
if (existsSync(fileURLToPath(built))) await import(built.href);
else {
  process.stderr.write("unitext: not built yet: run “npm run build” in the checkout's root first\n");
  process.exitCode = 2;
}
