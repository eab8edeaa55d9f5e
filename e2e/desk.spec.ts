import { readFile } from "node:fs/promises";
import { expect, test } from "@playwright/test";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { newFromText, OUTLINE } from "./acts";

test("decks are put into folders and the bin, renamed in place, sorted, and found by words in their notes", async ({
  page,
}) => {
  await newFromText(page, OUTLINE.replace("Reading the shore", "Shore walk, autumn"));
  await page.goto("/");
  const find = page.getByRole("searchbox");
  await find.fill("Shore walk, autumn");
  const row = page.getByRole("row", { name: /Shore walk, autumn/ });
  await expect(row).toHaveCount(1);
  await row.getByRole("checkbox").check();
  await page.getByRole("button", { name: "New folder" }).click();
  const name = `Walks ${Date.now()}`;
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Move to …" }).click();
  await page.getByRole("menuitem", { name }).click();
  await expect(page.getByText(`Moved “Shore walk, autumn” to “${name}”`)).toBeVisible();
  await page.getByRole("navigation", { name: "Folders" }).getByRole("button", { name }).click();
  await find.fill("");
  await expect(row).toHaveCount(1);

  await page.getByRole("button", { name: "More for Shore walk, autumn" }).click();
  await page.getByRole("menuitem", { name: "Rename …" }).click();
  await page.keyboard.type("Shore walk, winter");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("link", { name: "Shore walk, winter" })).toBeVisible();

  // What is put into the bin is there after a reload, and comes back.
  await page.getByRole("button", { name: "Put Shore walk, winter into the bin" }).click();
  await expect(page.getByText("Put “Shore walk, winter” into the bin")).toBeVisible();
  await page.reload();
  await page.getByRole("navigation", { name: "Folders" }).getByRole("button", { name: /^Bin/ }).click();
  await page.getByRole("button", { name: "Restore Shore walk, winter" }).click();
  await expect(page.getByText("Took “Shore walk, winter” out of the bin")).toBeVisible();
  await page
    .getByRole("navigation", { name: "Folders" })
    .getByRole("button", { name: /^All decks/ })
    .click();

  // Words on slides are found with the slide; "shells" is found by "shell".
  await find.fill("weed and shell");
  const found = page.getByRole("region", { name: "Slides with these words" });
  await expect(found.getByRole("link").first()).toBeVisible();
  await expect(found.locator("mark").first()).toBeVisible();
  await page.keyboard.press("Escape");
});

test("commands are found by typing, at every size, and the page fits a phone", async ({ page }) => {
  await newFromText(page, OUTLINE);
  await page.keyboard.press("Control+k");
  await page.keyboard.type("dune");
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/refine\//);
  for (const [width, height] of [
    [390, 844],
    [768, 1024],
    [2560, 1440],
  ] as const) {
    await page.setViewportSize({ width, height });
    for (const place of ["write", "arrange", "refine", "speak", "deliver"]) {
      await page.goto(page.url().replace(/(\/decks\/[^/]+)\/.*/, `$1/${place}`));
      await expect(page.getByRole("main")).toBeVisible();
      const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect([place, width, wide <= 1]).toEqual([place, width, true]);
    }
  }
});

test("everything is written into one archive, and an archive is brought in", async ({ page }) => {
  const title = "Kept in an archive";
  await newFromText(page, OUTLINE.replace("Reading the shore", title));
  await page.goto("/");
  await page.getByRole("button", { name: "More for the whole Desk" }).click();
  await page.getByRole("menuitem", { name: "Write an archive of everything" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /^Download Unitext / }).click({ timeout: 60_000 }),
  ]);
  const parts = unzipSync(await readFile(await download.path()));
  const contents = JSON.parse(strFromU8(parts["contents.json"] as Uint8Array));
  const file = `decks/${title}.json`;
  // Other tests count the decks: only one of them comes back.
  const one = {
    ...contents,
    workbooks: [],
    memory: [],
    decks: contents.decks.filter((deck: { file: string }) => deck.file === file),
  };
  const bytes = zipSync({ "contents.json": strToU8(JSON.stringify(one)), [file]: parts[file] as Uint8Array });
  await page
    .getByLabel("Files to bring in")
    .setInputFiles({ name: "one.zip", mimeType: "application/zip", buffer: Buffer.from(bytes) });
  await expect(page.locator("[data-job=done]", { hasText: "one.zip" })).toContainText("1 deck");
  await page.getByPlaceholder("Find by name").fill(title);
  await expect(page.getByRole("link", { name: `${title} 2` })).toBeVisible();
});
