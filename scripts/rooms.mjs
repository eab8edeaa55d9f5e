// The folder rule: each room imports only the rooms below it, through their doors; core touches no machine.
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import { root } from "./prepare.mjs";

const MAY_IMPORT = {
  "core/model": [],
  "core/text": ["core/model"],
  "core/edit": ["core/model"],
  "core/layout": ["core/model", "core/figures"],
  "core/figures": ["core/model"],
  "core/draw": ["core/model", "core/layout", "core/figures"],
  "core/tally": ["core/model"],
  "core/generate": ["core/model", "core/text", "core/layout", "core/edit"],
  "core/divide": ["core/model", "core/edit", "core/tally", "core/text", "core/generate"],
  "core/formats": [
    "core/model",
    "core/text",
    "core/edit",
    "core/layout",
    "core/figures",
    "core/draw",
    "core/tally",
    "core/generate",
    "core/divide",
  ],
  "core/testing": ["core/*"],
  server: ["core/*", "demo"],
  web: ["core/*", "server/api"],
  cli: ["core/*", "server/export"],
  demo: ["core/*", "server"],
  bench: ["core/*", "server"],
  e2e: ["core/*", "demo"],
};
/** What core may not name outside tests: the machine, the page, the clock, chance. */
const FORBIDDEN = [
  /from "node:/,
  /\bDate\.now\b/,
  /\bnew Date\(\)/,
  /\bMath\.random\b/,
  /\bprocess\./,
  /\bBuffer\b(?!.*harfbuzz)/,
  /\bdocument\.(get|query|create|body|head|fonts|title|add|remove|documentElement)/,
  /\bwindow\./,
  /\bfetch\(/,
];

/** Files whose text holds a script for the reader's own browser, which is no code of core. */
const HOLDS_PAGE_SCRIPT = ["core/formats/output/html/page.ts"];

function files(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return ["node_modules", "dist", ".git"].includes(entry.name) ? [] : files(path);
    return /\.tsx?$/.test(entry.name) ? [path] : [];
  });
}

const roomOf = (path) =>
  Object.keys(MAY_IMPORT)
    .filter((room) => path === room || path.startsWith(`${room}/`))
    .sort((a, b) => b.length - a.length)[0];
const problems = [];
for (const file of files(root)) {
  const path = relative(root, file);
  const room = roomOf(path);
  const test = /\.test\.tsx?$/.test(path) || room === "core/testing";
  const text = readFileSync(file, "utf8");
  for (const [, target] of text.matchAll(/(?:from|import\()\s*"([^"]+)"/g)) {
    let aim;
    if (target.startsWith("@unitext/")) aim = target.slice("@unitext/".length);
    else if (target.startsWith(".")) aim = relative(root, join(file, "..", target));
    else continue;
    const to = roomOf(aim);
    if (!to || to === room) continue;
    if (room.startsWith("core") && target.startsWith("."))
      problems.push(`${path}: imports ${target} past the door of ${to}`);
    const allowed = (MAY_IMPORT[room] ?? []).some((entry) =>
      entry.endsWith("/*")
        ? to.startsWith(entry.slice(0, -1))
        : aim === entry || aim.startsWith(`${entry}/`) || to === entry,
    );
    if (!allowed && !test) problems.push(`${path}: ${room} may not import ${to}`);
    if (to === "core/testing" && !test && room !== "bench") problems.push(`${path}: only tests import core/testing`);
  }
  if (room?.startsWith("core/") && !test && !HOLDS_PAGE_SCRIPT.includes(path)) {
    for (const rule of FORBIDDEN) {
      const line = text
        .split("\n")
        .findIndex((row) => rule.test(row) && !row.trim().startsWith("*") && !row.trim().startsWith("//"));
      if (line >= 0 && !(rule.source.includes("Buffer") && text.includes('from "harfbuzzjs"')))
        problems.push(`${path}:${line + 1}: core may not use ${rule.source}`);
    }
  }
}
if (problems.length) {
  process.stderr.write(`${problems.join("\n")}\n`);
  process.exit(1);
}
