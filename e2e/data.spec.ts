import { expect, type Page, test } from "@playwright/test";
import { readDeck } from "@unitext/core/formats";
import { bindingsOn } from "@unitext/core/model";
import { createHash } from "node:crypto";
import { bring, dropOn, write } from "./acts";

const FIRST = "Station,January,February,March\nQuay,4.1,4.2,4.6\nBar,3.2,3.4,3.1\n";
const NEXT = "Station,January,February,March,April\nBar,3.2,3.4,3.1,3.0\nQuay,4.1,4.2,5.3,5.0\n";
const bytes = (text: string) => new TextEncoder().encode(text);

/** Makes a deck from a text and opens its Data place. */
async function openData(page: Page, text: string): Promise<void> {
  const answer = await page.request.post("/api/decks", { data: { title: "Quarterly levels", text } });
  await page.goto(`/decks/${(await answer.json()).id}/data`);
  await expect(page.getByRole("heading", { name: /Data/ })).toBeVisible();
}

async function bringIn(page: Page, name: string, text: string, said: RegExp): Promise<void> {
  await dropOn(page, "main > div", name, bytes(text));
  await expect(page.getByText(said)).toBeVisible();
}

/** Puts cells on a slide: those of a rectangle, made of them in a way, on a slide by its number. */
async function put(
  page: Page,
  source: string,
  [from, to]: readonly [string, string?],
  way: string,
  slide?: number,
): Promise<void> {
  const before = await page.locator("[data-binding]").count();
  await page.locator(`[data-source="${source}"]`).getByRole("button", { name: "Put on slide" }).click();
  const cell = (at: string) => page.locator(`[data-cell="${at}"]`);
  await expect(cell(from)).toBeVisible();
  await cell(from).click();
  if (to) {
    const [a, b] = [await cell(from).boundingBox(), await cell(to).boundingBox()];
    if (!a || !b) throw new Error("no cells");
    await page.mouse.move(a.x + 8, a.y + 8);
    await page.mouse.down();
    await page.mouse.move(b.x + 8, b.y + 8, { steps: 4 });
    await page.mouse.up();
  }
  await page.getByRole("combobox", { name: /^Make of them/ }).selectOption({ label: way });
  if (slide) await page.getByRole("combobox", { name: /^On/ }).selectOption({ index: slide });
  await page.getByRole("button", { name: slide ? `Put on slide ${slide}` : "Put on a new slide" }).click();
  await expect(page.locator("[data-binding]")).toHaveCount(before + 1);
}

test("cells go on slides in five ways, follow their workbook, and come back from a file", async ({ page }) => {
  await openData(page, "# Levels\n\n## What we saw\n\n- The bay was calm\n");
  const source = "levels-of-the-bay.csv";
  await bringIn(page, source, FIRST, /is a source now/);
  await put(page, source, ["0/0", "2/3"], "Table");
  await put(page, source, ["0/0", "2/3"], "Chart");
  await put(page, source, ["1/3"], "Key figure");
  await put(page, source, ["1/3"], "Value in the text", 2);
  await put(page, source, ["2/3"], "Value in the notes", 2);
  await expect(page.locator('[data-binding="current"]')).toHaveCount(5);

  // When asked: next month's workbook is compared, and nothing is taken before it is wanted.
  for (const box of await page.getByRole("checkbox", { name: /^Choose/ }).all()) await box.check();
  await page.getByLabel("How the chosen values follow their source").selectOption("asked");
  await expect(page.getByText("Changed how 5 values follow")).toBeVisible();
  await bringIn(page, source, NEXT, /is the newest version now/);
  await expect(page.locator('[data-binding="moved"]').first()).toBeVisible();
  const value = page.locator('[data-range$="!D2"]').first();
  await expect(value).toContainText("4.6");
  await expect(value).toContainText("5.3");
  await expect(value).toContainText("0.7 (+15.2%)");
  await expect(value).toContainText("The row “Quay” is now row 3");
  await expect(page.locator("[data-spine] [data-outdated]").first()).toBeVisible();

  // One is looked at, before and after, and taken; undo brings it back.
  await value.getByRole("button", { name: /^Compare/ }).click();
  await expect(page.getByRole("img", { name: "With the new values" })).toBeVisible();
  await page.getByRole("button", { name: "Take the new values" }).click();
  await expect(page.getByText("Took one new value")).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await page.getByRole("button", { name: "Take all 5 new values" }).click();
  await expect(page.locator('[data-binding="current"]')).toHaveCount(5);

  // A presentation keeps all of it.
  await page.getByRole("link", { name: "Deliver" }).click();
  const file = await write(page, "Presentation (.pptx)");
  const { deck } = readDeck(file, "levels.pptx", {
    newId: () => "id",
    sha256: (data) => createHash("sha256").update(data).digest("hex"),
  });
  const found = deck.slides.flatMap((slide) => bindingsOn(slide));
  expect(found).toHaveLength(5);
  expect(found.filter(({ shown }) => shown === "5.3")).toHaveLength(2);
  await bring(page, "levels.pptx", file);
  await page.getByRole("link", { name: "Data" }).click();
  await expect(page.locator('[data-binding="current"]')).toHaveCount(5);
});

test("a value in the notes is edited around, and unlinked where it is wanted", async ({ page }) => {
  await openData(page, "# Levels\n\n## What we saw\n\n- calm\n");
  const source = "notes-of-the-bay.csv";
  await bringIn(page, source, FIRST, /is a source now/);
  await put(page, source, ["1/3"], "Value in the notes", 2);
  await page.locator("[data-binding] a").click();
  await page.waitForURL(/refine/);
  const notes = page.getByRole("textbox", { name: /notes/i });
  await notes.click();
  await page.keyboard.press("End");
  await page.keyboard.type(" metres");
  await page.getByRole("link", { name: "Data" }).click();
  await expect(page.locator('[data-binding="current"]')).toContainText("4.6");
  // Other cells: their value is proposed, and taken when wanted.
  await page.getByRole("button", { name: /: change$/ }).click();
  await page.getByRole("textbox", { name: /^Cells of/ }).fill("C2");
  await page.keyboard.press("Enter");
  await expect(page.locator('[data-binding="stale"]')).toContainText("4.2");
  await page.getByRole("button", { name: /^Unlink/ }).click();
  await expect(page.getByText("No slide of this deck shows values of a workbook yet.")).toBeVisible();
});
