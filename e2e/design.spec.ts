import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { deckOf, kept, newFromText } from "./acts";

const TEXT = `# Levels at the quay

Course team

## What was read

- High water at ten
- Low water at four

## Readings

| Station | Level |
| --- | ---: |
| Quay | 2.4 |
`;

test.use({ bypassCSP: true });

test("a design is tried on the deck's own slides, changed, taken, saved, and put on another deck", async ({ page }) => {
  const own = `Bay ${Date.now().toString(36)}`;
  await newFromText(page, TEXT);
  await page.getByRole("button", { name: "Design", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Design" });
  await expect(dialog.locator("[data-slide]").first()).toBeVisible();
  await dialog.getByText("Harbour", { exact: true }).click();
  await expect(dialog.getByText("Harbour: a magazine")).toBeVisible();
  await accessible(page, "design");
  await dialog.getByText("Dark", { exact: true }).click();
  await dialog.getByLabel("Fonts").selectOption({ label: "Narrow: Barlow Condensed and Barlow" });
  await dialog.getByLabel("Main colour").fill("#0b6e4f");
  await page.keyboard.press("Escape");
  expect((await deckOf(page)).theme.design).toBe("saltmarsh");

  await page.getByRole("button", { name: "Design", exact: true }).click();
  await dialog.getByText("Harbour", { exact: true }).click();
  await dialog.getByLabel("Fonts").selectOption({ label: "Narrow: Barlow Condensed and Barlow" });
  await dialog.getByLabel("Main colour").fill("#0b6e4f");
  await dialog.getByLabel("Save as your own design").fill(own);
  await dialog.getByRole("button", { name: "Save", exact: true }).click();
  await expect(dialog.getByRole("radio", { name: new RegExp(own) })).toBeChecked();
  await dialog.getByRole("button", { name: "Use this design" }).click();
  await kept(page);
  const { theme } = await deckOf(page);
  expect([theme.name, theme.design, theme.fonts.heading, theme.colours.accent]).toEqual([
    own,
    "harbour",
    "Barlow Condensed",
    "#0b6e4f",
  ]);

  await newFromText(page, TEXT);
  await page.getByRole("button", { name: "Design", exact: true }).click();
  await dialog.getByText(own, { exact: true }).click();
  await expect(dialog.getByText(`${own}: on 1 deck`)).toBeVisible();
  await accessible(page, "saved designs");
  await dialog.getByRole("button", { name: "Use this design" }).click();
  await kept(page);
  expect((await deckOf(page)).theme).toEqual(theme);
});

test("what could be better is listed slide by slide, and mended by one press that can be undone", async ({ page }) => {
  const points = Array.from({ length: 16 }, (_, at) => `- Reading ${at} of the staff at the head of the bay`).join(
    "\n",
  );
  await newFromText(page, `# Levels\n\n## Readings\n\n${points}\n`);
  const check = page.getByRole("button", { name: /^Check/ });
  await expect(check).toContainText("1");
  await check.click();
  const dialog = page.getByRole("dialog", { name: "Check" });
  await expect(dialog.getByText("Text overflows.")).toBeVisible();
  await accessible(page, "check");
  await dialog.getByRole("button", { name: /^Continue on a next slide/ }).click();
  await expect(dialog.getByText("It has the same title as slide 2")).toBeVisible();
  await dialog.getByRole("button", { name: "Done" }).click();
  await kept(page);
  expect((await deckOf(page)).slides.length).toBeGreaterThan(2);
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await deckOf(page)).slides.length).toBe(2);
});
