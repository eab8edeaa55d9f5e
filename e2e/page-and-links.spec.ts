import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { type Element, must } from "@unitext/core/model";
import { bring, deckOf, kept, refine } from "./acts";

const content = join(import.meta.dirname, "../demo/content");
const element = async (page: Page, nth: number, wanted: (element: Element) => boolean) =>
  must((await deckOf(page)).slides[nth]?.elements.find(wanted));

test("a deck from a file gets pages of another shape, and of a size of one's own; one undo takes each back", async ({
  page,
}) => {
  await bring(page, "shape.pptx", readFileSync(join(content, "quay-in-autumn.pptx")));
  await refine(page, 5);
  const before = await deckOf(page);
  await page.getByRole("button", { name: "Deck", exact: true }).click();
  await page.getByRole("button", { name: "4:3" }).click();
  await page.getByRole("button", { name: "Done" }).click();
  await kept(page);
  const after = await deckOf(page);
  expect(after.page).toEqual({ width: 720, height: 540 });
  for (const { elements } of after.slides)
    for (const { frame } of elements) if (frame) expect(frame.x + frame.width).toBeLessThan(760);
  expect(after.slides[5]?.elements.map(({ id }) => id)).toEqual(before.slides[5]?.elements.map(({ id }) => id));
  await page.getByRole("button", { name: "Undo" }).first().click();
  await kept(page);
  expect(await deckOf(page)).toMatchObject({ page: before.page, slides: before.slides });

  await page.getByRole("button", { name: "Deck", exact: true }).click();
  await page.getByRole("textbox", { name: /^Width/ }).fill("20");
  await page.keyboard.press("Enter");
  await kept(page);
  // 20 cm are 566.93 points.
  expect((await deckOf(page)).page).toEqual({ width: 566.93, height: 540 });
});

test("a shape and words lead to a page on the web or to a slide, and are tried out while editing", async ({ page }) => {
  await bring(page, "links.pptx", readFileSync(join(content, "quay-in-autumn.pptx")));
  await refine(page, 5);
  const isBook = (one: Element) => one.kind === "shape" && JSON.stringify(one.text).includes("Book");
  await page.locator("[data-stage]").getByRole("button", { name: "shape “Book”" }).click();
  const leads = page.getByLabel("Leads to");
  await leads.selectOption("web");
  await page.getByLabel("Address").fill("no address");
  await expect(page.getByText("This is no address that a slide can open")).toBeVisible();
  await page.getByLabel("Address").fill("example.org/book");
  await page.keyboard.press("Enter");
  await kept(page);
  expect(await element(page, 5, isBook)).toMatchObject({ link: "https://example.org/book" });
  await expect(page.getByRole("link", { name: "Try it in a new tab" })).toHaveAttribute(
    "href",
    "https://example.org/book",
  );
  const { slides } = await deckOf(page);
  await leads.selectOption(`slide:${slides[2]?.id}`);
  await kept(page);
  expect(await element(page, 5, isBook)).toMatchObject({ link: `slide:${slides[2]?.id}` });
  await page.getByRole("link", { name: "Go there" }).click();
  await expect(page).toHaveURL(new RegExp(`refine/${slides[2]?.id}$`));

  // Words of the notes, by the keyboard.
  const notes = page.getByRole("textbox", { name: "Notes" });
  await notes.click();
  await page.keyboard.press("Control+Home");
  await page.keyboard.press("Control+Shift+ArrowRight");
  await page
    .getByRole("toolbar", { name: /^Notes/ })
    .getByRole("button", { name: "Link" })
    .click();
  await page
    .getByRole("group", { name: "Link of the selected words" })
    .getByLabel("Leads to")
    .selectOption(`slide:${slides[0]?.id}`);
  await page.getByRole("group", { name: "Link of the selected words" }).getByRole("button", { name: "Done" }).click();
  await expect
    .poll(async () => JSON.stringify((await deckOf(page)).slides[2]?.notes))
    .toContain(`"link":"slide:${slides[0]?.id}"`);

  // A footnote where the caret stands.
  await notes.click();
  await page.keyboard.press("Control+End");
  await page
    .getByRole("toolbar", { name: /^Notes/ })
    .getByRole("button", { name: "More forms of the text" })
    .click();
  await page.getByRole("menuitem", { name: "Footnote …" }).click();
  await page.getByLabel("What the footnote says").fill("Read at noon.");
  await page.keyboard.press("Enter");
  await expect
    .poll(async () => JSON.stringify((await deckOf(page)).slides[2]?.notes))
    .toContain('"footnote":[{"text":"Read at noon."');
});
