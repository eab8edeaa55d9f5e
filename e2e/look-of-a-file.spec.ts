import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { PNG } from "pngjs";
import { accessible } from "./accessible";
import { bring, deckOf, kept, refine, newFromText } from "./acts";

const root = join(import.meta.dirname, "..");
const TEXT = `# The year at the quay

## What was read

- High water at ten
- Low water at four
- The gauge was cleaned twice
`;

/** Returns a picture of one grey. */
function grey(value: number): Buffer {
  const png = new PNG({ width: 160, height: 90 });
  png.data.fill(value);
  for (let at = 3; at < png.data.length; at += 4) png.data[at] = 255;
  return PNG.sync.write(png);
}

test.use({ bypassCSP: true });

test("slides from text are put into the layouts of a presentation, and back into a design", async ({ page }) => {
  await bring(page, "open-day.odp", readFileSync(join(root, "demo/content/open-day.odp")));
  await newFromText(page, TEXT);
  await page.getByRole("button", { name: "Design", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Design" });
  const choice = dialog.getByRole("group", { name: "Or the look of a deck" }).getByRole("combobox");
  const label = await choice.locator("option", { hasText: "Open day at the bay" }).first().getAttribute("value");
  await choice.selectOption(label);
  await accessible(page, "design");
  await dialog.getByRole("button", { name: "Take its look" }).click();
  await expect(dialog).toBeHidden();
  await kept(page);
  const taken = await deckOf(page);
  expect(taken.slides.every(({ master }) => master !== undefined)).toBe(true);
  const { points } = taken.layouts ?? {};
  expect(points?.slots.body).toBeDefined();
  // A slide that is typed later is in the layouts too.
  await page.locator(".cm-content").click();
  await page.keyboard.press("Control+End");
  await page.keyboard.type("\n## One more\n\n- Typed later\n");
  await expect
    .poll(async () => (await deckOf(page)).slides.map(({ master }) => master))
    .toEqual([...taken.slides.map(({ master }) => master), points?.master]);
  await page.getByRole("button", { name: "Design", exact: true }).click();
  await dialog.getByText("Harbour", { exact: true }).click();
  await dialog.getByRole("button", { name: "Use this design" }).click();
  await kept(page);
  const back = await deckOf(page);
  expect(back.layouts).toBeUndefined();
  expect(back.slides.every(({ master }) => master === undefined)).toBe(true);
});

test("a picture behind a slide brings what makes its text readable, and goes in one act", async ({ page }) => {
  await newFromText(page, TEXT);
  await refine(page, 1);
  const put = (name: string, value: number) =>
    page.getByLabel("Picture for the background").setInputFiles({ name, mimeType: "image/png", buffer: grey(value) });
  const veil = async () => {
    const background = (await deckOf(page)).slides[1]?.background;
    return background && "picture" in background ? [background.veil !== undefined, (background.veil ?? 0) > 0] : [];
  };
  await put("light.png", 250);
  await expect.poll(veil).toEqual([true, false]);
  await put("dim.png", 90);
  await expect.poll(veil).toEqual([true, true]);
  await page.getByRole("radio", { name: "plates" }).check();
  await expect.poll(veil).toEqual([false, false]);
  await page.getByRole("button", { name: "Back to the theme" }).click();
  await expect.poll(async () => (await deckOf(page)).slides[1]?.background).toBeUndefined();
});

test("the look of a box becomes that of all boxes, and of those that are added later", async ({ page }) => {
  await newFromText(page, TEXT);
  await refine(page, 1);
  await page.getByRole("button", { name: "Box", exact: true }).click();
  await page.getByText("All boxes of the deck").click();
  await page.getByRole("button", { name: "Make all look like this" }).click();
  await kept(page);
  expect((await deckOf(page)).theme.kinds?.shape?.fill?.kind).toBe("solid");
  await page.getByRole("button", { name: "As the design has them" }).first().click();
  await expect.poll(async () => (await deckOf(page)).theme.kinds).toBeUndefined();
});
