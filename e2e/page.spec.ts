import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
let folder = "";
// Files of tests are loaded more often than they are run.
test.beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "unitext-page-"));
});
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("a deck given away as a web page speaks by itself, without a server", async ({ page, context }) => {
  await page.goto("/decks/tides-dunes-storms/deliver");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Download as Web page (.html)" }).click();
  const file = join(folder, "tides.html");
  await (await download).saveAs(file);
  await context.setOffline(true);
  // The app's own page may still be fetching other places in advance.
  const asked: string[] = [];
  page.on(
    "request",
    (request) =>
      !/^(file|data):/.test(request.url()) && request.frame().url().startsWith("file:") && asked.push(request.url()),
  );
  await page.goto(`file://${file}`);
  const shown = page.locator("section:not([hidden])");
  await expect(shown).toHaveAttribute("aria-label", /^1 of \d+: Tides, dunes and storms$/);
  await page.keyboard.press("ArrowRight");
  await expect(shown).toHaveAttribute("aria-label", /^2 of/);
  // A link on the slide leads to its slide, and the address names it.
  await shown.locator("a.link").first().click();
  await expect(shown).toHaveAttribute("data-name", "Tides");
  expect(new URL(page.url()).hash.length).toBeGreaterThan(1);
  await page.keyboard.press("End");
  await page.keyboard.press("ArrowRight");
  await expect(shown).toHaveCount(1);
  await page.keyboard.press("Home");
  // Into a detail and back.
  for (let nth = 0; nth < 12 && (await page.locator('[data-do="deeper"]').isDisabled()); nth++)
    await page.keyboard.press("ArrowRight");
  await page.getByRole("button", { name: "Details" }).click();
  await expect(shown).toHaveAttribute("data-parent", /.+/);
  await page.keyboard.press("ArrowUp");
  await expect(shown).not.toHaveAttribute("data-parent", /.+/);
  const popup = page.waitForEvent("popup");
  await page.keyboard.press("n");
  const notes = await popup;
  await expect(notes.locator("h1")).toHaveText((await shown.getAttribute("data-name")) as string);
  await notes.close();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.evaluate(axe);
  const found = await page.evaluate(async () => {
    const { axe: run } = window as unknown as {
      axe: {
        run(root: Document, options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>;
      };
    };
    const { violations } = await run.run(document, {
      runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"],
    });
    return violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 200)}`);
  });
  expect(found).toEqual([]);
  expect(asked).toEqual([]);
});

test("points appear one at a time, and what stays behind is read all the same", async ({ page, request }) => {
  const { id } = await (
    await request.post("/api/files?name=steps.md", {
      headers: { "content-type": "application/octet-stream" },
      data: Buffer.from("::slide{steps}\n\n## One by one\n\n- first\n- second\n- third\n"),
    })
  ).json();
  const file = join(folder, "steps.html");
  writeFileSync(file, await (await request.get(`/api/decks/${id}/export?format=html`)).body());
  await page.goto(`file://${file}`);
  const later = page.locator("section:not([hidden]) [data-step].later");
  await expect(later).toHaveCount(3);
  await page.keyboard.press("Space");
  await page.keyboard.press("ArrowRight");
  await expect(later).toHaveCount(1);
  await page.keyboard.press("ArrowLeft");
  await expect(later).toHaveCount(2);
  await expect(page.locator("section:not([hidden]) .words")).toContainText("third");
});

test("a page that plays by itself shows its points and its slides in turn, and ends or begins again", async ({
  page,
  request,
}) => {
  const { id } = await (
    await request.post("/api/files?name=walls.md", {
      headers: { "content-type": "application/octet-stream" },
      data: Buffer.from("::slide{steps}\n\n## Sand\n\n- first\n- second\n\n## Water\n\n- third\n"),
    })
  ).json();
  await page.goto(`/decks/${id}/deliver`);
  await page.getByLabel("Plays by itself").check();
  await page.getByLabel("Seconds for each slide").fill("2");
  await page.getByLabel("Begins again after the last slide").uncheck();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Download as Web page (.html)" }).click(),
  ]);
  const once = join(folder, "once.html");
  await download.saveAs(once);
  await page.goto(`file://${once}`);
  const shown = page.locator("section:not([hidden])");
  const later = shown.locator("[data-step].later");
  await expect(later).toHaveCount(2);
  await expect(later).toHaveCount(1);
  await expect(later).toHaveCount(0);
  await expect(shown).toHaveAttribute("data-name", "Water");
  // It stays there for longer than a slide lasts; only the wait itself can show that.
  await page.waitForTimeout(2600);
  await expect(shown).toHaveAttribute("data-name", "Water");
  const again = join(folder, "again.html");
  writeFileSync(again, await (await request.get(`/api/decks/${id}/export?format=html&auto=1&loop=true`)).body());
  await page.goto(`file://${again}`);
  await expect(shown).toHaveAttribute("data-name", "Water");
  await expect(shown).toHaveAttribute("data-name", "Sand");
  expect((await request.get(`/api/decks/${id}/export?format=html&auto=0`)).status()).toBe(400);
});
