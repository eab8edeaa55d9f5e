// What start and test need before anything else runs. It has no dependencies, because nothing may be installed yet.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

export const root = join(dirname(fileURLToPath(import.meta.url)), "..");
export const isRoot = process.getuid?.() === 0;

/** Ends the program with a sentence and no stack trace. */
export function fail(message) {
  process.stderr.write(`unitext: ${message}\n`);
  process.exit(1);
}

/** Runs a command in the checkout; its output is shown only when it fails, unless `show`. */
export function run(command, args, { show = false, env = {}, what = command } = {}) {
  const result = spawnSync(command, args, {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: show ? "inherit" : "pipe",
    encoding: "utf8",
    maxBuffer: 1 << 28,
  });
  if (result.status === 0) return result.stdout ?? "";
  if (!show)
    process.stderr.write(
      `${result.stdout ?? ""}${result.stderr ?? ""}${result.error ? `${result.error.message}\n` : ""}`,
    );
  fail(`${what} failed.`);
}

/** Returns the folder of the newest installed PostgreSQL's programs. */
export function postgresFolder() {
  const base = "/usr/lib/postgresql";
  const versions = existsSync(base)
    ? readdirSync(base).filter((name) => existsSync(join(base, name, "bin/initdb")))
    : [];
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest ? join(base, newest, "bin") : undefined;
}

const SYSTEM = {
  apertium: () => existsSync("/usr/bin/apertium"),
  "apertium-eng-spa": () => existsSync("/usr/share/apertium/modes/eng-spa.mode"),
  postgresql: () => postgresFolder() !== undefined,
  chromium: () => existsSync("/usr/bin/chromium"),
  "espeak-ng": () => existsSync("/usr/bin/espeak-ng"),
  ffmpeg: () => existsSync("/usr/bin/ffmpeg"),
  "python3-odf": () => existsSync("/usr/lib/python3/dist-packages/odf"),
  "python3-openpyxl": () => existsSync("/usr/lib/python3/dist-packages/openpyxl"),
  "python3-translate": () => existsSync("/usr/lib/python3/dist-packages/translate"),
  "python3-xlsxwriter": () => existsSync("/usr/lib/python3/dist-packages/xlsxwriter"),
  qpdf: () => existsSync("/usr/bin/qpdf"),
  "unicode-data": () => existsSync("/usr/share/unicode/auxiliary/LineBreakTest.txt"),
};

/** Installs missing Debian packages; without the right to, prints the command that does it and ends. */
export function systemPackages(names) {
  const missing = names.filter((name) => !SYSTEM[name]());
  if (!missing.length) return;
  const line = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(" ")}`;
  if (!isRoot)
    fail(
      `${missing.join(" and ")} ${missing.length > 1 ? "are" : "is"} missing. Install with:\n  sudo sh -c '${line}'\nand run this again.`,
    );
  process.stdout.write(`Installing ${missing.join(", ")} …\n`);
  run("sh", ["-c", line], { env: { DEBIAN_FRONTEND: "noninteractive" }, what: "Installing system packages" });
}

/** Installs optional Debian packages; if that is not possible, prints the command that does it. */
export function optionalPackages(names, use) {
  const missing = names.filter((name) => !SYSTEM[name]());
  if (!missing.length) return;
  const line = `apt-get install -y --no-install-recommends ${missing.join(" ")}`;
  const installed =
    isRoot &&
    spawnSync("sh", ["-c", `apt-get update && ${line}`], { env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" } })
      .status === 0;
  if (!installed) process.stdout.write(`For ${use}, ${isRoot ? "" : "as root: "}${line}\n`);
}

function stampOf(files) {
  const hash = createHash("sha256");
  for (const file of files) hash.update(`${file}\0`).update(readFileSync(join(root, file)));
  return hash.digest("hex");
}
const current = (file, stamp) => existsSync(file) && readFileSync(file, "utf8") === stamp;

/** Installs the packages of the lock file unless they are installed already. */
export function npmPackages() {
  const stamp = stampOf(["package-lock.json"]);
  const file = join(root, "node_modules/.unitext-installed");
  if (current(file, stamp)) return;
  process.stdout.write("Installing packages …\n");
  run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], {
    env: { PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: "1" },
    what: "npm ci",
  });
  writeFileSync(file, stamp);
}

function sources(folder) {
  return readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return entry.name === "node_modules" ? [] : sources(path);
    return /\.test\.tsx?$/.test(entry.name) ? [] : [path];
  });
}

/** Builds client, server and command unless they are current. */
export function built() {
  const files = ["package-lock.json", ...["core", "server", "web", "cli", "demo", "scripts"].flatMap(sources)].filter(
    (file) => statSync(join(root, file)).isFile(),
  );
  const stamp = stampOf(files.sort());
  const file = join(root, "dist/.built");
  if (current(file, stamp)) return;
  process.stdout.write("Building …\n");
  run(process.execPath, ["scripts/build.mjs"], { what: "The build" });
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, stamp);
}
