import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { type Deck, must } from "@unitext/core/model";
import { strFromU8, unzipSync } from "fflate";
import { bring, deckOf, kept, newFromText, OUTLINE, refine, speak, stored } from "./acts";

const given = readFileSync(join(import.meta.dirname, "../demo/content/quay-in-autumn.pptx"));

test("what comes in on a slide is set, tried, spoken from and written", async ({ page }) => {
  test.setTimeout(90_000);
  await bring(page, "quay-in-autumn.pptx", given);
  const deck = (await stored(page)).deck as unknown as Deck;
  const slide = must(deck.slides[5]);
  await page.goto(`/decks/${deck.id}/refine/${slide.id}`);
  const list = page.getByRole("list", { name: "Entrances" });
  await expect(list.getByRole("listitem")).toHaveCount(6);
  await expect(list.getByRole("listitem").nth(1)).toContainText("→ shape “Book”".slice(2));

  // One more comes in, together with the last one, and is then put before it.
  await page.getByRole("button", { name: "shape “back”", exact: true }).click();
  await page.getByRole("combobox", { name: "Starts" }).selectOption("Together with the one before");
  await page.getByRole("combobox", { name: "Effect" }).selectOption("Grow");
  await page.getByRole("textbox", { name: "Duration" }).fill("0,25");
  await page.keyboard.press("Enter");
  await kept(page);
  await page.getByRole("button", { name: "Look of the slide" }).click();
  await expect(list.getByRole("listitem")).toHaveCount(7);
  await page.getByRole("button", { name: "shape “back” earlier" }).click();
  await kept(page);
  await expect(list.getByRole("listitem").nth(5)).toContainText("back");

  // Trying it shows the slide press by press, and ends with everything.
  const shown = page.locator("[data-stage] svg [data-element]");
  const all = await shown.count();
  await page.getByRole("button", { name: "Try it: 3 presses" }).click();
  await expect.poll(() => shown.count()).toBeLessThan(all);
  await expect(page.getByRole("button", { name: "Try it: 3 presses" })).toBeVisible({ timeout: 15_000 });
  await expect(shown).toHaveCount(all);

  // The hall follows the speaker, and plays what comes.
  const hall = await speak(page, slide.id);
  const words = hall.locator("[data-hall] text");
  await expect(words.filter({ hasText: "Staff" })).toHaveCount(1);
  await expect(words.filter({ hasText: "Book" })).toHaveCount(0);
  await page.getByRole("button", { name: "Next", exact: true }).first().click();
  await expect(words.filter({ hasText: "Book" })).toHaveCount(1);
  await expect(words.filter({ hasText: "Office" })).toHaveCount(0);
  await expect(hall.locator('[data-effect="fade"]', { hasText: "Book" }).first()).toHaveCSS(
    "animation-name",
    "comes-fade",
  );
  await hall.close();

  // The file says the same, in the words of the standard.
  await page.goto(`/decks/${deck.id}/deliver`);
  const button = page.getByRole("button", { name: "Download as Presentation (.pptx)" });
  const [file] = await Promise.all([page.waitForEvent("download"), button.click()]);
  const parts = unzipSync(readFileSync(await file.path()));
  const timing = /<p:timing[\s\S]*<\/p:timing>/.exec(strFromU8(must(parts["ppt/slides/slide6.xml"])))?.[0] ?? "";
  expect(timing.match(/nodeType="(click|after|with)Effect"/g)).toHaveLength(7);
  expect(timing).toContain('presetID="23"');
});

test("a transition is shown when it is chosen, and a right click offers what can be done with what is under it", async ({
  page,
}) => {
  await newFromText(page, OUTLINE);
  await refine(page, 1);
  const stage = page.locator("[data-stage]");
  const comes = page.getByRole("combobox", { name: "The slide comes in" });
  await comes.selectOption("Wipe");
  await expect(stage.locator("[data-transition=wipe] > svg")).toHaveCSS("animation-name", "wipe");
  await expect(stage.locator("[data-transition]")).toHaveCount(0);
  await page.getByRole("button", { name: "Play it" }).click();
  await expect(stage.locator("[data-transition=wipe]")).toHaveCount(1);

  const title = stage.getByRole("button", { name: /^title/ }).first();
  const count = await stage.locator("[data-frame]").count();
  await title.click({ button: "right" });
  await page.getByRole("menuitem", { name: /^Duplicate/ }).click();
  await expect(stage.locator("[data-frame]")).toHaveCount(count + 1);
  const box = await stage.boundingBox();
  if (!box) throw new Error("no stage");
  await page.mouse.click(box.x + box.width - 8, box.y + box.height - 8, { button: "right" });
  await page.getByRole("menuitem", { name: "Add a table" }).click();
  await expect(stage.locator("[data-frame]")).toHaveCount(count + 2);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(stage.locator("[data-frame]")).toHaveCount(count);
  // While words are written, the browser's own menu is there, with its spelling.
  await title.dblclick();
  await page.getByRole("textbox", { name: "Text of the title" }).click({ button: "right" });
  await expect(page.getByRole("menu")).toHaveCount(0);
});

test("main points come with what is below them: chosen, shown in the hall, in the text and in the file", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await page.goto("/");
  await page.getByRole("button", { name: "New from text" }).click();
  await page
    .locator("#new-text")
    .fill("# A walk\n\n## Where we stop\n\n- The tide line\n  - weed\n  - shells\n- The dune\n  - its foot\n");
  await page.getByRole("button", { name: "Make the deck" }).click();
  await page.waitForURL(/\/write$/);
  await expect.poll(async () => (await deckOf(page)).slides.length).toBe(2);
  await refine(page, 1);
  const deck = await deckOf(page);
  const slide = must(deck.slides[1]);
  await page
    .getByRole("button", { name: /^Text “The tide line/i })
    .first()
    .click();
  await page.getByRole("combobox", { name: "Its points" }).selectOption("Main points, with what is below them");
  await kept(page);
  await page.getByRole("button", { name: "Look of the slide" }).click();
  await expect(page.getByRole("button", { name: "Try it: 2 presses" })).toBeVisible();

  const hall = await speak(page, slide.id);
  const words = hall.locator("[data-hall] text");
  await expect(words.filter({ hasText: "weed" })).toHaveCount(0);
  await page.getByRole("button", { name: "Next", exact: true }).first().click();
  for (const shown of ["The tide line", "weed", "shells"])
    await expect(words.filter({ hasText: shown })).toHaveCount(1);
  await expect(words.filter({ hasText: "The dune" })).toHaveCount(0);
  await page.getByRole("button", { name: "Next", exact: true }).first().click();
  for (const shown of ["The dune", "its foot"]) await expect(words.filter({ hasText: shown })).toHaveCount(1);
  await hall.close();

  // The text says it in a word, and a word typed there leaves it so.
  await page.getByRole("link", { name: "Write" }).click();
  await expect(page.locator(".cm-content")).toContainText("steps: main");
  await page.goto(`/decks/${deck.id}/deliver`);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Download as Presentation (.odp)" }).click(),
  ]);
  const content = strFromU8(must(unzipSync(readFileSync(await file.path()))["content.xml"]));
  expect(
    content.match(/presentation:node-type="(on-click|with-previous)"/g)?.map((found) => found.split('"')[1]),
  ).toEqual(["on-click", "with-previous", "with-previous", "on-click", "with-previous"]);
});
