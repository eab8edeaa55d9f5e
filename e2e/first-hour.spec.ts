import { expect, test } from "@playwright/test";
import { must } from "@unitext/core/model";
import { PNG } from "pngjs";
import { deckOf, kept } from "./acts";

const OUTLINE = `# Dunes after the storm

## What happened

- waves cut the foot
- sand lies on the beach

## What we measure

- height of the foot
- width of the beach

## What we do

- fences before winter
`;

test("a first hour: outline, photographs, cells, a diagram, a look, an order, a rehearsal, a talk, a file", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const paste = (content: Record<string, string>) =>
    page.evaluate((given) => {
      const clipboardData = new DataTransfer();
      for (const [type, value] of Object.entries(given)) clipboardData.setData(type, value);
      document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }));
    }, content);
  const deck = () => deckOf(page);
  const kinds = async (nth: number) => (await deck()).slides[nth]?.elements.map(({ kind }) => kind);

  // An outline is pasted on the Desk: the form has it, and makes the deck.
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  await paste({ "text/plain": OUTLINE });
  await expect(page.locator("#new-text")).toHaveValue(/What we measure/);
  await page.getByRole("button", { name: "Make the deck" }).click();
  await page.waitForURL(/\/write$/);
  await expect(page.locator("[data-level] [data-slide]").first()).toBeVisible();
  const { id, slides } = await deck();
  expect(slides.length).toBeGreaterThanOrEqual(4);

  // Photographs are dropped on a slide, cells pasted on another, points of a third drawn as a diagram.
  const png = [...PNG.sync.write(new PNG({ width: 320, height: 240 }))];
  await page.goto(`/decks/${id}/refine/${slides[1]?.id}`);
  const photo = await page.evaluateHandle((bytes) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(bytes)], "foot.png", { type: "image/png" }));
    return data;
  }, png);
  await page.locator("[data-stage]").dispatchEvent("drop", { dataTransfer: photo });
  await expect.poll(() => kinds(1)).toContain("picture");
  await page.getByRole("button", { name: "Next", exact: true }).click();
  await page.waitForURL(new RegExp(`refine/${slides[2]?.id}$`));
  // The address changes before the slide does; what is pasted goes on the slide that is shown.
  await expect(page.getByRole("group", { name: "Slide 3", exact: true })).toBeVisible();
  await paste({ "text/plain": "Place\tMetres\nNorth\t2.4\nSouth\t3.1\n" });
  await expect.poll(() => kinds(2)).toContain("table");
  await page.getByRole("button", { name: "Next", exact: true }).click();
  await page.waitForURL(new RegExp(`refine/${slides[3]?.id}$`));
  await expect(page.getByRole("group", { name: "Slide 4", exact: true })).toBeVisible();
  await page.getByTitle("Puts diagram on the slide").click();
  await expect.poll(() => kinds(3)).toContain("diagram");
  await kept(page);

  // Another design, and another order.
  await page.getByRole("button", { name: "Design", exact: true }).click();
  await page.getByRole("dialog", { name: "Design" }).getByRole("radio", { name: "Chalk" }).check();
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await deck()).theme.name).toBe("Chalk");
  await page.getByRole("link", { name: "Arrange" }).click();
  const option = (nth: number) => page.locator("[data-map] [role=option]").nth(nth);
  await option(2).click();
  await page.getByRole("button", { name: "Up", exact: true }).click();
  await expect.poll(async () => (await deck()).slides[1]?.id).toBe(slides[2]?.id);

  // Rehearsed for a moment, then spoken from one screen.
  await page.getByRole("link", { name: "Speak" }).click();
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.locator("[data-spent]")).toHaveCount(1, { timeout: 10_000 });
  await page.getByRole("button", { name: "Present here" }).click();
  await page.keyboard.press("PageDown");
  await expect(page.locator("[data-hall]")).toBeVisible();
  await page.goto(`/decks/${id}/deliver`);

  // Handed over as a file.
  const button = page.getByRole("button", { name: "Download as Pages (.pdf)" });
  await expect(button).toBeEnabled();
  const [file] = await Promise.all([page.waitForEvent("download"), button.click()]);
  expect(must(file.suggestedFilename())).toMatch(/\.pdf$/);
});
