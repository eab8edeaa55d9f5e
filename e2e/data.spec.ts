import { expect, type Page, test } from "@playwright/test";
import { readDeck } from "@unitext/core/formats";
import { bindingsOn } from "@unitext/core/model";
import { createHash } from "node:crypto";
import { bring, dropOn, write } from "./acts";

const FIRST = "Station,January,February,March\nQuay,4.1,4.2,4.6\nBar,3.2,3.4,3.1\n";
const NEXT = "Station,January,February,March,April\nBar,3.2,3.4,3.1,3.0\nQuay,4.1,4.2,5.3,5.0\n";
const bytes = (text: string) => new TextEncoder().encode(text);

/** Returns the file name of a source that no earlier try of the test has brought in. */
function newName(name: string): string {
  const { retry, repeatEachIndex } = test.info();
  return `${name}-${repeatEachIndex}${retry}.csv`;
}

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

/** Drops a workbook with the name of a source, looks at what differs, and takes it as the newest version. */
async function newVersion(page: Page, name: string, text: string, differs: RegExp): Promise<void> {
  await dropOn(page, "main > div", name, bytes(text));
  const dialog = page.getByRole("dialog", { name: `A newer version of ${name}?` });
  await expect(dialog).toContainText(differs);
  await dialog.getByRole("button", { name: "Take as the newest version" }).click();
  await expect(page.getByText(/is the newest version now/)).toBeVisible();
}

/** Chooses a source in a dialog, which offers the choice where there is more than one. */
async function chooseSource(page: Page, source: string): Promise<void> {
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("gridcell").first()).toBeVisible();
  const field = dialog.getByLabel("Source");
  if (await field.isVisible()) await field.selectOption({ label: source });
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
  const source = newName("levels-of-the-bay");
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
  await expect(page.getByText("All kept")).toBeVisible();
  await newVersion(page, source, NEXT, /11 cells differ/);
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
  await page.getByRole("button", { name: "Take the new value" }).click();
  await expect(page.getByText("Took one new value")).toBeVisible();
  await expect(page.getByRole("button", { name: "Compare 4 new values" })).toBeEnabled();
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await page.getByRole("button", { name: "Compare 5 new values" }).click();
  const compared = page.getByRole("dialog", { name: /^5 new values on/ });
  await compared.getByRole("button", { name: "Next" }).click();
  await compared.getByRole("button", { name: "Take 5 new values" }).click();
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
  const source = newName("notes-of-the-bay");
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
  await page.getByRole("button", { name: /: open$/ }).click();
  await expect(page.locator('[data-cell="1/3"]')).toHaveAttribute("aria-selected", "true");
  await page.locator('[data-cell="1/2"]').click();
  await page.getByRole("button", { name: "Tie to these cells" }).click();
  await expect(page.locator('[data-binding="stale"]')).toContainText("4.2");
  await page.getByRole("button", { name: /^Unlink/ }).click();
  await expect(page.getByText("No slide of this deck shows values of a workbook yet.")).toBeVisible();
});

test("a workbook is looked at from Refine and Write, and its cells are linked there", async ({ page }) => {
  await openData(page, "# Levels\n\n## What we saw\n\n| Station | Level |\n| --- | --: |\n| Quay | 1 |\n");
  const source = newName("cells-of-the-bay");
  await bringIn(page, source, FIRST, /is a source now/);

  // A table on a slide is linked to cells in its place.
  await page.getByRole("link", { name: "Refine" }).click();
  await page.getByRole("button", { name: /^2\. / }).first().click();
  await page.locator("[data-stage]").getByRole("button", { name: /table/i }).first().click();
  await page.getByRole("button", { name: "Link the table to cells …" }).click();
  await chooseSource(page, source);
  const cell = (at: string) => page.locator(`[role="gridcell"][data-cell="${at}"]`);
  await cell("0/0").click();
  await cell("2/3").click({ modifiers: ["Shift"] });
  await page.getByRole("button", { name: "Link to these cells" }).click();
  await expect(page.getByRole("region", { name: "Linked data" })).toContainText(source);

  // A value is inserted into the text.
  await page.getByRole("link", { name: "Write" }).click();
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  await page.locator(".cm-content").click();
  await page.keyboard.press("Control+End");
  await page.keyboard.type("\n\nAt the quay: ");
  await page.getByRole("button", { name: "Cells", exact: true }).click();
  await chooseSource(page, source);
  await cell("1/3").click();
  await page.getByRole("button", { name: "Insert at the cursor" }).click();
  await expect(page.locator(".cm-content")).toContainText(`[4.6](cell:${source}?range=`);
  await page.getByRole("link", { name: "Data" }).click();
  await expect(page.locator('[data-binding="current"]')).toHaveCount(2);

  // The slide that lists the sources.
  await page.getByRole("button", { name: "Slide “Sources”" }).click();
  await page.waitForURL(/refine/);
  await expect(page.getByText("Added a slide with the sources")).toBeVisible();
});

test("typed numbers are proposed, and both parts of a split deck take the next version", async ({ page }) => {
  await openData(
    page,
    "# Levels\n\n## March\n\n- In March the quay stood at 4.6 m\n\n## The bar\n\n- The bar stood at 3.1 m in March\n",
  );
  const source = newName("split-of-the-bay");
  await bringIn(page, source, FIRST, /is a source now/);
  await page.locator(`[data-source="${source}"]`).getByRole("button", { name: "Find typed numbers" }).click();
  for (const range of ["D2", "D3"])
    await page.locator(`[data-typed$="!${range}"]`).getByRole("button", { name: /^Link/ }).click();
  await page.keyboard.press("Escape");
  await expect(page.locator('[data-binding="current"]')).toHaveCount(2);

  await page.getByRole("link", { name: "Arrange" }).click();
  const whole = page.url().replace(/.*decks\/([^/]+).*/, "$1");
  const made = await page.request.post(`/api/decks/${whole}/parts`, {
    data: {
      date: "today",
      plan: {
        parts: [
          { name: "Day one", slides: "1-2" },
          { name: "Day two", slides: "3" },
        ],
      },
    },
  });
  expect(made.ok()).toBe(true);
  await page.getByRole("link", { name: "Data" }).click();
  await newVersion(page, source, FIRST.replace("4.6", "5.3").replace("3.1", "2.9"), /2 values follow|4 values follow/);
  // The whole deck and both parts follow by themselves.
  const shown = async (title: string) => {
    const { decks } = (await (await page.request.get("/api/decks")).json()) as {
      decks: { id: string; title: string }[];
    };
    const id = decks.find((deck) => deck.title.includes(title))?.id;
    return JSON.stringify(await (await page.request.get(`/api/decks/${id}`)).json());
  };
  await expect.poll(() => shown("Day one")).toContain('"5.3"');
  await expect.poll(() => shown("Day two")).toContain('"2.9"');
});

test("a sheet is typed, put on a slide, and changed", async ({ page }) => {
  await openData(page, "# Students\n\n## Numbers\n\n- Autumn\n");
  await page.getByRole("button", { name: "New sheet" }).click();
  const name = "Students of the bay";
  await page.getByLabel("Name", { exact: true }).fill(name);
  await page.locator(".dsg-row").nth(1).locator(".dsg-cell").nth(1).click();
  for (const [word, key] of [
    ["Group", "Tab"],
    ["Autumn", "Enter"],
  ]) {
    await page.keyboard.type(word ?? "");
    await page.keyboard.press(key ?? "");
  }
  await page.keyboard.type("31");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText(`${name} is a source now.`)).toBeVisible();
  await put(page, `${name}.csv`, ["1/1"], "Key figure");
  await expect(page.locator("[data-binding]")).toContainText("31");
  await page.locator(`[data-source="${name}.csv"]`).getByRole("button", { name: "Change cells" }).click();
  await page.locator(".dsg-row").nth(2).locator(".dsg-cell").nth(2).click();
  await page.keyboard.type("34");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.locator("[data-binding]")).toContainText("34");
});
