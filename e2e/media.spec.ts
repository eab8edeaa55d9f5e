import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Locator, test } from "@playwright/test";
import { bring, deckOf, kept, speak, stored, write } from "./acts";

const given = readFileSync(join(import.meta.dirname, "../demo/content/quay-in-autumn.pptx"));
const plays = (media: Locator) => media.evaluate((player: HTMLMediaElement) => !player.paused);

test("a sound of a file is tried, played in the hall, and goes along in a web page", async ({ page }) => {
  test.setTimeout(90_000);
  await bring(page, "quay-in-autumn.pptx", given);
  const deck = await deckOf(page);
  const slide = deck.slides.find(({ elements }) => elements.some(({ kind }) => kind === "media"));
  if (!slide) throw new Error("no slide with a sound");

  // Refine: what is selected is heard where it is described.
  await page.goto(`/decks/${deck.id}/refine/${slide.id}`);
  await page
    .locator("[data-stage]")
    .getByRole("button", { name: /The bell of the quay/ })
    .click();
  const tried = page.locator("aside audio, section audio").first();
  await expect(tried).toHaveAttribute("aria-label", "The bell of the quay");
  await expect.poll(() => tried.evaluate((player: HTMLMediaElement) => player.duration)).toBeCloseTo(1, 1);
  await page.getByRole("textbox", { name: /What it shows/ }).fill("A bell");
  await page.getByRole("textbox", { name: /What it shows/ }).blur();
  await kept(page);
  expect(JSON.stringify((await stored(page)).deck)).toContain('"alt":"A bell"');

  // Speak: the hall plays what the speaker plays, and stops when it is told to, or when the talk goes on.
  await page.getByRole("link", { name: "Speak" }).click();
  await page.getByRole("button", { name: "Play the sound “A bell” in the hall" }).click();
  await expect(page.getByRole("alert")).toContainText("No hall's window has answered");
  await expect(page.getByRole("button", { name: "Play the sound “A bell” in the hall" })).toBeVisible();
  const hall = await speak(page, slide.id);
  const heard = hall.locator("audio");
  await heard.evaluate((player: HTMLMediaElement) => (player.loop = true));
  expect(await plays(heard)).toBe(false);
  await page.getByRole("button", { name: "Play the sound “A bell” in the hall" }).click();
  await expect.poll(() => plays(heard)).toBe(true);
  await expect(page.getByText("The sound “A bell” plays in the hall.")).toBeVisible();
  await page.keyboard.press("p");
  await expect.poll(() => plays(heard)).toBe(false);
  await heard.evaluate((player: HTMLMediaElement) => (player.loop = false));
  await page.keyboard.press("p");
  await expect(page.getByText("The sound “A bell” plays in the hall.")).toBeVisible();
  // At its end it is over in both windows.
  await expect(page.getByRole("button", { name: "Play the sound “A bell” in the hall" })).toBeVisible();
  await hall.close();

  // The web page holds the sound itself, and is silent again on the next slide.
  const bytes = await write(page, "Web page (.html)");
  const alone = await page.context().newPage();
  await alone.setContent(Buffer.from(bytes).toString("utf8"));
  await alone.evaluate((id) => (location.hash = id), slide.id);
  const button = alone.getByRole("button", { name: "Play: A bell" });
  await button.click();
  const inside = alone.locator(`section[id="${slide.id}"] audio`);
  await expect(button).toHaveAttribute("aria-pressed", "true");
  await inside.evaluate((player: HTMLMediaElement) => (player.loop = true));
  await alone.keyboard.press("ArrowRight");
  await expect.poll(() => plays(inside)).toBe(false);
});
