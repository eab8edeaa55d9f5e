import { expect, test } from "@playwright/test";
import { must } from "@unitext/core/model";
import { deckOf, newFromText, OUTLINE, speak } from "./acts";

test("the hall's window takes keys, clicks, clickers and numbers, and tells the speaker's", async ({ page }) => {
  await newFromText(page, OUTLINE);
  const { slides } = await deckOf(page);
  const at = (nth: number) => must(slides[nth]).id;
  const hall = await speak(page, at(0));
  const shows = (nth: number) => expect(hall.locator(`[data-hall="${at(nth)}"]`)).toBeVisible();
  await hall.bringToFront();
  await hall.keyboard.press("PageDown");
  await shows(1);
  await expect(page.getByRole("status").getByText("2 of 4")).toBeVisible();
  await hall.keyboard.press("End");
  await shows(3);
  await hall.keyboard.type("2");
  await hall.keyboard.press("Enter");
  await shows(1);
  await hall.mouse.click(300, 200);
  await shows(2);
  await hall.keyboard.press("b");
  await expect(hall.locator("[data-hall]")).toHaveCount(0);
  await hall.keyboard.press(".");
  await shows(2);

  // In the speaker's window a number works wherever the focus is, and the pen draws in the hall until the slide turns.
  await page.bringToFront();
  await page.getByRole("button", { name: "All slides" }).focus();
  await page.keyboard.type("1");
  await page.keyboard.press("Enter");
  await shows(0);
  await page.keyboard.press("d");
  const slide = must((await page.locator("[data-ink]").first().boundingBox()) ?? undefined);
  await page.mouse.move(slide.x + 60, slide.y + 60);
  await page.mouse.down();
  await page.mouse.move(slide.x + 160, slide.y + 90, { steps: 5 });
  await page.mouse.up();
  await expect(hall.locator('[data-ink="1"]')).toHaveCount(1);
  await page.keyboard.press("PageDown");
  await shows(1);
  await expect(hall.locator('[data-ink="0"]')).toHaveCount(1);
  await hall.close();
});

test("one screen alone, and a deck that runs by itself and goes on after a reload", async ({ page }) => {
  await newFromText(page, OUTLINE);
  const { id, slides } = await deckOf(page);
  const shows = (nth: number) => expect(page.locator(`[data-hall="${slides[nth]?.id}"]`)).toBeVisible();
  await page.goto(`/decks/${id}/speak`);
  await page.getByRole("button", { name: "Present here" }).click();
  await shows(0);
  await page.keyboard.press("ArrowRight");
  await shows(1);
  await page.keyboard.press("o");
  await page.getByRole("dialog", { name: "Go to a slide" }).getByRole("button", { name: /^4\./ }).click();
  await shows(3);

  await page.goto(`/decks/${id}/speak`);
  await page.getByRole("button", { name: "By itself …" }).click();
  const dialog = page.getByRole("dialog", { name: "Run by itself" });
  await dialog.getByLabel(/Seconds for each slide/).fill("1");
  const opening = page.waitForEvent("popup");
  await dialog.getByRole("link", { name: "Start" }).click();
  const screen = await opening;
  await expect(screen.locator(`[data-hall="${slides[2]?.id}"]`)).toBeVisible({ timeout: 10_000 });
  await screen.reload();
  await expect(screen.locator("[data-hall]")).toBeVisible();
  expect(await screen.evaluate((deck) => sessionStorage.getItem(`unitext:by-itself/${deck}`), id)).not.toBe(
    slides[0]?.id,
  );
  await expect(screen.locator(`[data-hall="${slides[0]?.id}"]`)).toBeVisible({ timeout: 10_000 });
  await screen.close();
});

test("a rehearsal is kept slide by slide, against the plan and a target", async ({ page }) => {
  await newFromText(page, OUTLINE);
  const { id } = await deckOf(page);
  await page.goto(`/decks/${id}/speak`);
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.locator("[data-elapsed]")).toHaveText("0:02", { timeout: 10_000 });
  await page.keyboard.press("PageDown");
  await expect(page.locator("[data-elapsed]")).toHaveText("0:04", { timeout: 10_000 });
  await page.getByRole("button", { name: "Pause" }).click();
  await page.reload();
  await expect(page.getByText(/^Rehearsed: 0:0[34] on 2 slides/)).toBeVisible();
  await expect(page.locator("[data-spent]")).toHaveCount(2);
  await page.getByLabel("Target, minutes").fill("0,1");
  await expect(page.getByText(/too long/)).toBeVisible();
  await page.getByLabel("Target, minutes").fill("5");
  await expect(page.getByText(/It fits/)).toBeVisible();
});
