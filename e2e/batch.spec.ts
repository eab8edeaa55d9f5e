import { must } from "@unitext/core/model";
import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { strFromU8, unzipSync } from "fflate";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";

test("decks chosen by their names are written at once, in one archive with one report", async ({ page }) => {
  await page.goto("/");
  for (const title of ["Batch of the east", "Batch of the west"])
    await page.request.post("/api/decks", {
      data: { title, text: `# ${title}\n\n## Said\n\n- one\n\n:::notes\nSaid aloud\n:::\n\n## Seen\n\n- two\n` },
    });
  await page.reload();
  await page.getByRole("searchbox").fill("Batch of*");
  await expect(page.getByRole("row")).toHaveCount(3);
  await page.getByRole("button", { name: "Write decks" }).click();
  const form = page.getByRole("form", { name: /Write 2 decks at once/ });
  await expect(form).toContainText("Those whose name fits “Batch of*”.");
  await form.getByLabel("Format").selectOption({ label: "Pages (.pdf)" });
  await form.getByLabel("Pages show").selectOption({ label: "two slides to a page" });
  await form.getByRole("button", { name: "Write them" }).click();
  const link = page.getByRole("button", { name: /^Download 2 decks as pdf\.zip/ });
  await expect(page.getByText(/2 left out, report\.json|2 are left out|left out/).first()).toBeVisible({
    timeout: 30_000,
  });
  await expect(link).toBeVisible({ timeout: 30_000 });
  const [download] = await Promise.all([page.waitForEvent("download"), link.click()]);
  const files = unzipSync(readFileSync(await download.path()));
  expect(Object.keys(files).sort()).toEqual([
    "Batch of the east.pdf",
    "Batch of the west.pdf",
    "report.json",
    "report.txt",
  ]);
  for (const name of ["Batch of the east.pdf", "Batch of the west.pdf"]) {
    const file = await getDocument({ data: must(files[name]).slice(), verbosity: 0 }).promise;
    // Three slides, two to a page.
    expect(file.numPages).toBe(2);
  }
  const report = JSON.parse(strFromU8(must(files["report.json"])));
  expect(JSON.stringify(report)).toContain("Batch of the west");
});

test("what the deck carries, and what each file will carry of it, is counted before anything is written", async ({
  page,
}) => {
  await page.goto("/decks/quay-in-autumn/deliver");
  const counts = async (label: string) => {
    const region = page.locator("section", { has: page.getByRole("heading", { name: label }) });
    await expect(region.getByRole("row").nth(1)).toBeVisible();
    const rows = await region
      .getByRole("row")
      .evaluateAll((list) =>
        list.slice(1).map((row) => [...row.querySelectorAll("th, td")].map((cell) => cell.textContent ?? "")),
      );
    return Object.fromEntries(rows.map(([name, before, after]) => [name, [Number(before), Number(after)]]));
  };
  const deck = {
    slides: 8,
    "slides with notes": 8,
    "hidden slides": 1,
    tables: 2,
    charts: 5,
    pictures: 5,
    "films and sounds": 1,
    formulas: 1,
    comments: 1,
    entrances: 9,
    transitions: 2,
  };
  const [presentation, pages, notes] = [
    await counts("Presentation (.pptx)"),
    await counts("Pages (.pdf)"),
    await counts("Notes (.txt)"),
  ];
  for (const [name, count] of Object.entries(deck)) expect([name, presentation[name]]).toEqual([name, [count, count]]);
  // Pages show what is not hidden, and nothing moves on them.
  expect([pages.slides, pages["hidden slides"], pages.formulas, pages.entrances]).toEqual([
    [8, 7],
    [1, 0],
    [1, 1],
    [9, 0],
  ]);
  expect([notes["slides with notes"], notes.tables, notes.charts, notes.formulas]).toEqual([
    [8, 8],
    [2, 0],
    [5, 0],
    [1, 0],
  ]);
});
