// npm test: sets up what is missing with a database of its own, then lint, folder rule, types, Jest, Playwright; ends with one line of counts.
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { bin, CHECKS, JEST } from "./checks.mjs";
import { startPostgres } from "./postgres.mjs";
import { built, isRoot, npmPackages, root, systemPackages } from "./prepare.mjs";

systemPackages([
  "apertium",
  "apertium-eng-spa",
  "postgresql",
  "chromium",
  "espeak-ng",
  "ffmpeg",
  "python3-odf",
  "python3-openpyxl",
  "python3-translate",
  "python3-xlsxwriter",
  "qpdf",
  "unicode-data",
]);
npmPackages();
built();

let passed = 0;
let failed = 0;
const call = (command, args, env = {}) =>
  spawnSync(command, args, { cwd: root, stdio: "inherit", env: { ...process.env, NODE_NO_WARNINGS: "1", ...env } });

function check(name, command, args) {
  process.stdout.write(`\n— ${name}\n`);
  if (call(command, args).status === 0) passed += 1;
  else failed += 1;
}

/** Runs a suite that writes its counts to a file; one that dies without counts has failed. */
function suite(name, command, args, env, report, counts) {
  process.stdout.write(`\n— ${name}\n`);
  const { status } = call(command, args, env);
  try {
    const [good, bad] = counts(JSON.parse(readFileSync(report, "utf8")));
    passed += good;
    failed += bad + (status !== 0 && bad === 0 ? 1 : 0);
  } catch {
    failed += 1;
  }
}

for (const [name, command, args] of CHECKS) check(name, command, args);

const data = mkdtempSync(join(tmpdir(), "unitext-test-"));
if (isRoot) spawnSync("chmod", ["755", data]);
const database = await startPostgres(join(data, "database"), { fast: true });
try {
  const env = { UNITEXT_TEST_DATABASE: database.url };
  const jest = join(data, "jest.json");
  suite(
    "Jest",
    process.execPath,
    [...JEST, "--json", `--outputFile=${jest}`],
    env,
    jest,
    ({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites }) => [
      numPassedTests,
      numFailedTests + numRuntimeErrorTestSuites,
    ],
  );
  const e2e = join(data, "playwright.json");
  suite(
    "Playwright",
    bin("playwright"),
    ["test", "--config", "e2e/playwright.config.ts"],
    { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: e2e, UNITEXT_E2E_DATA: join(data, "e2e") },
    e2e,
    ({ stats }) => [stats.expected + stats.flaky, stats.unexpected],
  );
  check("Attack, in short", process.execPath, ["scripts/attack.mjs", "--short"]);
} finally {
  database.stop();
  rmSync(data, { recursive: true, force: true });
}
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exitCode = failed ? 1 : 0;
