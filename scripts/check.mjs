// npm run check: lint, format, folder rule and types at once, then the unit tests beside the files that changed since the last commit
// (or in it, when nothing has). For work in between; `npm test` is the whole.
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { CHECKS, JEST } from "./checks.mjs";
import { startPostgres } from "./postgres.mjs";
import { isRoot, npmPackages, root } from "./prepare.mjs";

npmPackages();

const checks = CHECKS.map(
  ([name, command, args]) =>
    new Promise((resolve) => {
      let said = "";
      const child = spawn(command, args, { cwd: root, env: { ...process.env, NODE_NO_WARNINGS: "1" } });
      child.stdout.on("data", (part) => (said += part));
      child.stderr.on("data", (part) => (said += part));
      child.once("exit", (code) => {
        process.stdout.write(code === 0 ? `${name}: passed\n` : `${said}\n${name}: failed\n`);
        resolve(code === 0);
      });
    }),
);
let passed = (await Promise.all(checks)).every(Boolean);

const git = (...args) => spawnSync("git", args, { cwd: root, encoding: "utf8" }).stdout.split("\n").filter(Boolean);
const since = git("status", "--porcelain").map((line) => line.slice(3).replace(/^.* -> /, ""));
const changed = since.length ? since : git("diff", "--name-only", "HEAD~1");
const folders = [...new Set(changed.filter((path) => /\.tsx?$/.test(path)).map((path) => dirname(path)))];

if (folders.length) {
  const data = mkdtempSync(join(tmpdir(), "unitext-check-"));
  if (isRoot) spawnSync("chmod", ["755", data]);
  const database = folders.some((folder) => /^(server|demo|cli)/.test(folder))
    ? await startPostgres(join(data, "database"), { fast: true })
    : undefined;
  try {
    const { status } = spawnSync(
      process.execPath,
      [...JEST, "--passWithNoTests", ...folders.map((folder) => `^${root}/${folder}/[^/]+$`)],
      { cwd: root, stdio: "inherit", env: { ...process.env, UNITEXT_TEST_DATABASE: database?.url ?? "" } },
    );
    passed &&= status === 0;
  } finally {
    database?.stop();
    rmSync(data, { recursive: true, force: true });
  }
}
process.exitCode = passed ? 0 : 1;
