import { join } from "node:path";
import { defineConfig } from "@playwright/test";

const root = join(import.meta.dirname, "..");
const port = 4390;

export default defineConfig({
  testDir: ".",
  outputDir: join(root, "test-results"),
  workers: 2,
  // A test that fails is run once more; one that passes then is listed as flaky, and its trace says what it saw.
  retries: 1,
  // Generous, so that a busy machine fails no test: a test waits only as long as it must.
  timeout: 120_000,
  expect: { timeout: 30_000 },
  reporter: [["list"], ["json"]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    // Requests of the tests say where they come from, as those of a page do.
    extraHTTPHeaders: { origin: `http://127.0.0.1:${port}` },
    trace: "on-first-retry",
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: "node scripts/start.mjs",
    cwd: root,
    url: `http://127.0.0.1:${port}/api/me`,
    timeout: 180_000,
    gracefulShutdown: { signal: "SIGTERM", timeout: 15_000 },
    env: { UNITEXT_DATA: process.env.UNITEXT_E2E_DATA ?? "/tmp/unitext-e2e", UNITEXT_PORT: String(port) },
  },
});
